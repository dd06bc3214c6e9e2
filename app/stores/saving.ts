import { ref } from 'vue'
import { z } from 'zod'
import { folioSchema } from '#shared/folio'
import type { Folio } from '#shared/folio'
import type { Operation } from '#shared/operations'
import { api, RequestError } from '~/composables/api'
import { writeOutbox } from '~/composables/outbox'

export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'saving' }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'failed'; readonly message: string }

/** How long typing must rest before a save, in milliseconds. */
const REST = 500
const RETRY_FIRST = 2_000
const RETRY_MOST = 20_000

/**
 * Sends the operations of one folio in order, a save at a time. What is not
 * sent yet is kept in the browser and sent again until the server has it.
 */
export class Saver {
  readonly state = ref<SaveState>({ kind: 'saved', at: '' })
  private pending: Operation[] = []
  private inFlight: Operation[] = []
  private timer: ReturnType<typeof setTimeout> | null = null
  private retry = RETRY_FIRST
  private closed = false

  constructor(
    private readonly folio: string,
    private revision: number,
    /** Told of a state that others saved first; gives back what to send on top of it. */
    private readonly onConflict: (theirs: Folio, unsent: readonly Operation[]) => readonly Operation[],
    changedAt: string,
  ) {
    this.state.value = { kind: 'saved', at: changedAt }
  }

  get unsent(): readonly Operation[] {
    return [...this.inFlight, ...this.pending]
  }

  add(operations: readonly Operation[]): void {
    for (const operation of operations) this.pending = joined(this.pending, operation)
    if (this.state.value.kind !== 'saving') this.state.value = { kind: 'waiting' }
    void this.keep()
    this.schedule(REST)
  }

  private schedule(delay: number): void {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.flush(), delay)
  }

  private async keep(): Promise<void> {
    await writeOutbox(this.folio, this.revision, this.unsent)
  }

  /** Sends what there is; safe to call at any time. */
  async flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    if (this.closed || this.inFlight.length > 0 || this.pending.length === 0) return
    this.inFlight = this.pending
    this.pending = []
    this.state.value = { kind: 'saving' }
    try {
      const saved = await api.save(this.folio, { revision: this.revision, operations: this.inFlight })
      this.revision = saved.revision
      this.inFlight = []
      this.retry = RETRY_FIRST
      await this.keep()
      this.state.value = this.pending.length > 0 ? { kind: 'waiting' } : { kind: 'saved', at: saved.changedAt }
      if (this.pending.length > 0) this.schedule(REST)
    } catch (error) {
      this.failed(error)
    }
  }

  private failed(error: unknown): void {
    const unsent = this.unsent
    this.inFlight = []
    this.pending = [...unsent]
    const theirs = error instanceof RequestError && error.status === 409 ? conflictOf(error) : null
    if (theirs) {
      this.revision = theirs.revision
      this.pending = [...this.onConflict(theirs, unsent)]
      void this.keep()
      this.state.value = { kind: 'waiting' }
      this.schedule(0)
      return
    }
    const message = error instanceof Error ? error.message : 'It could not be saved.'
    this.state.value = { kind: 'failed', message: `${message} Your work is kept in this browser and sent again.` }
    void this.keep()
    this.schedule(this.retry)
    this.retry = Math.min(this.retry * 2, RETRY_MOST)
  }

  /** Done when everything is sent, or when sending fails. */
  async settled(): Promise<void> {
    await this.flush()
    while (!this.closed && this.unsent.length > 0 && this.state.value.kind !== 'failed') {
      await new Promise((done) => setTimeout(done, 40))
      await this.flush()
    }
  }

  close(): void {
    if (this.timer !== null) clearTimeout(this.timer)
    void this.flush()
    this.closed = this.inFlight.length === 0
  }
}

function conflictOf(error: RequestError): Folio | null {
  const body = z.object({ folio: folioSchema }).safeParse(error.problem)
  return body.success ? body.data.folio : null
}

/** Two edits of one line in a row are sent as one. */
function joined(operations: Operation[], next: Operation): Operation[] {
  const last = operations.at(-1)
  if (next.type === 'edit' && last?.type === 'edit' && last.id === next.id) {
    return [...operations.slice(0, -1), { ...next, was: last.was }]
  }
  return [...operations, next]
}
