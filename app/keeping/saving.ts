import { ref } from 'vue'
import { z } from '#shared/schema'
import { applyOperation, fullFor, missedSchema, stateOf } from '#shared/operations'
import type { FolioState, Missed, Operation } from '#shared/operations'
import { freshPart, hasRoom, partsOf, withOperation } from '#shared/parts'
import type { Part } from '#shared/parts'
import { api, RequestError } from '~/keeping/api'
import { asideRecord, keepParts } from '~/keeping/outbox'
import type { WaitingPart } from '~/keeping/outbox'

export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'saving' }
  | { readonly kind: 'waiting' }
  | {
      readonly kind: 'failed'
      readonly message: string
      /** What the student can do about it, beyond waiting. */
      readonly remedy: 'sign in' | 'file' | null
    }

/** How long changes rest before they are sent, and how long they wait at most, in milliseconds. */
const REST = 500
const LONGEST = 3_000
const RETRY_FIRST = 2_000
const RETRY_MOST = 20_000

/** What the saver begins with. */
export interface SaverStart {
  readonly folio: string
  readonly revision: number
  /** The folio as the server has it at that revision; `null` where that is not known here. */
  readonly base: FolioState | null
  /** The same with everything that waits. */
  readonly head: FolioState
  readonly parts: readonly WaitingPart[]
  readonly changedAt: string
}

export interface SaverHandlers {
  /** Others saved first: gives back what to send on top of their state. `seen` is what ours was made on. */
  readonly merge: (theirs: FolioState, unsent: readonly Operation[], seen: FolioState | null) => MergedOperations
  /** Something could not be saved for good and was set aside. */
  readonly setAside: (why: string) => void
}

export interface MergedOperations {
  readonly state: FolioState
  readonly operations: readonly Operation[]
  readonly unfit: readonly Operation[]
}

/** What a tab hands over to the next one. */
export interface Baggage {
  readonly revision: number
  readonly base: FolioState | null
  readonly parts: readonly WaitingPart[]
}

/** Savers of folios that were left and still send what waits. */
const leaving = new Map<string, Saver>()

/**
 * Sends the operations of one folio in order, part by part, each building on
 * the one before. What is not sent yet is kept in the browser and sent again
 * until the server has it; what the server refuses for good is set aside.
 */
export class Saver {
  readonly state = ref<SaveState>({ kind: 'saved', at: '' })
  /** False where the browser does not keep what waits: then it only lives in this page. */
  readonly kept = ref(true)
  /** How much waits, in operations. */
  readonly waiting = ref(0)

  private readonly folio: string
  private revision: number
  private base: FolioState | null
  private head: FolioState
  private parts: WaitingPart[]
  private place = 0
  /** Keys of parts that may have reached the server: they are not changed any more. */
  private readonly sealed = new Set<string>()
  private sending = false
  private halted = false
  private timer: ReturnType<typeof setTimeout> | null = null
  private firstAt: number | null = null
  private retry = RETRY_FIRST

  /** What the browser's copy lacks, and what it still has too much, by place. */
  private readonly dirty = new Map<number, WaitingPart>()
  private readonly gone = new Map<number, WaitingPart>()
  private readonly asides: (readonly [string, unknown])[] = []
  private writing: Promise<void> = Promise.resolve()

  constructor(
    start: SaverStart,
    private readonly handlers: SaverHandlers,
  ) {
    leaving.get(start.folio)?.halt()
    this.folio = start.folio
    this.revision = start.revision
    this.base = start.base
    this.head = start.head
    this.parts = [...start.parts]
    for (const part of start.parts) {
      this.sealed.add(part.key)
      this.place = Math.max(this.place, part.place + 1)
    }
    this.count()
    this.state.value = start.parts.length > 0 ? { kind: 'waiting' } : { kind: 'saved', at: start.changedAt }
    if (start.parts.length > 0) this.schedule(0)
  }

  /** The revision that the server is known to have. */
  get knownRevision(): number {
    return this.revision
  }

  get unsent(): readonly Operation[] {
    return this.parts.flatMap((p) => p.operations)
  }

  /** The text that the server has of a line, or will have once everything is sent. */
  sourceOf(lineId: string): string | undefined {
    return this.head.lines.find((l) => l.id === lineId)?.source
  }

  add(operations: readonly Operation[]): void {
    if (this.halted) return
    for (const operation of operations) this.take(operation)
    this.count()
    if (this.parts.length === 0) return
    if (this.state.value.kind === 'saved') this.state.value = { kind: 'waiting' }
    void this.write()
    if (this.state.value.kind === 'failed') return
    this.firstAt ??= Date.now()
    this.schedule(Math.max(0, Math.min(REST, this.firstAt + LONGEST - Date.now())))
  }

  private take(given: Operation): void {
    let operation = given
    if (given.type === 'edit') {
      // Texts of an open editor may have been sent before: what matters is what the server has.
      const source = this.sourceOf(given.id)
      if (source === given.source) return
      operation = { ...given, was: source ?? given.was }
    }
    const next = applyOperation(this.head, operation)
    if (!next) return this.aside([operation], 'It does not fit the folio as the server has it.')
    this.head = next
    const last = this.parts.at(-1)
    const open = last && !this.sealed.has(last.key) && hasRoom(last, operation) ? last : null
    const part = open ?? { ...freshPart(), place: this.nextPlace() }
    // A text that was shown as kept in this browser is not replaced by the next one: both reach the journal.
    const joining = this.state.value.kind !== 'failed'
    const fuller = { ...part, ...withOperation(part, operation, joining) }
    this.parts = open ? [...this.parts.slice(0, -1), fuller] : [...this.parts, fuller]
    this.dirty.set(fuller.place, fuller)
  }

  private nextPlace(): number {
    this.place += 1
    return this.place
  }

  private aside(operations: readonly Operation[], why: string): void {
    this.asides.push(asideRecord(this.folio, why, operations))
    void this.write().then(() => this.handlers.setAside(why))
  }

  private count(): void {
    this.waiting.value = this.parts.reduce((sum, p) => sum + p.operations.length, 0)
  }

  /** Other parts in place of all that wait. */
  private replace(parts: readonly Part[]): void {
    for (const part of this.parts) {
      this.gone.set(part.place, part)
      this.dirty.delete(part.place)
    }
    this.parts = parts.map((part) => ({ key: part.key, operations: part.operations, place: this.nextPlace() }))
    for (const part of this.parts) this.dirty.set(part.place, part)
    this.count()
  }

  /** Brings the browser's copy up to date; one write after another. */
  private write(): Promise<void> {
    this.writing = this.writing.then(async () => {
      if (this.halted) return
      const [dirty, gone, asides] = [[...this.dirty.values()], [...this.gone.values()], [...this.asides]]
      if (dirty.length + gone.length + asides.length === 0 && this.kept.value) return
      const kept = await keepParts(this.folio, this.revision, dirty, gone, asides)
      this.kept.value = kept
      if (!kept) return
      for (const part of dirty) if (this.dirty.get(part.place) === part) this.dirty.delete(part.place)
      for (const part of gone) this.gone.delete(part.place)
      this.asides.splice(0, asides.length)
    })
    return this.writing
  }

  private schedule(delay: number): void {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.flush(), delay)
  }

  /** Sends the next part; safe to call at any time. */
  async flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    const [part] = this.parts
    if (this.halted || this.sending || !part) return
    this.sending = true
    this.sealed.add(part.key)
    if (this.state.value.kind !== 'failed') this.state.value = { kind: 'saving' }
    try {
      const { key, operations } = part
      const saved = await api.save(this.folio, { revision: this.revision, key, operations: [...operations] })
      if (this.halted) return
      this.acknowledged(part, saved.revision)
      this.goOn(saved.changedAt)
    } catch (error) {
      if (!this.halted) await this.failed(error, part)
    } finally {
      this.sending = false
    }
    // What came while this was on its way has a timer that found it busy.
    if (this.parts.length > 0 && this.timer === null && !this.halted) this.schedule(0)
  }

  private acknowledged(part: WaitingPart, revision: number): void {
    this.base = this.base && revision === this.revision + 1 ? applied(this.base, part.operations) : null
    this.revision = revision
    this.parts = this.parts.filter((p) => p.key !== part.key)
    this.sealed.delete(part.key)
    this.dirty.delete(part.place)
    this.gone.set(part.place, part)
    this.retry = RETRY_FIRST
    this.firstAt = this.parts.length > 0 ? Date.now() : null
    this.count()
    void this.write()
  }

  private goOn(changedAt: string): void {
    this.state.value = this.parts.length > 0 ? { kind: 'saving' } : { kind: 'saved', at: changedAt }
    const [next] = this.parts
    // A part that is full, or was tried before, need not rest.
    if (next) this.schedule(this.parts.length > 1 || this.sealed.has(next.key) ? 0 : REST)
  }

  private async failed(error: unknown, part: WaitingPart): Promise<void> {
    if (error instanceof RequestError) {
      if (error.status === 409 && (await this.caughtUp(error))) return
      if (error.final && error.status !== 404) return this.refused(error, part)
    }
    void this.write()
    const message = error instanceof Error ? error.message : 'It could not be saved.'
    const status = error instanceof RequestError ? error.status : 0
    await this.writing
    if (this.halted) return
    this.state.value = {
      kind: 'failed',
      message: `${message} ${this.promise(status)}`,
      remedy: status === 401 ? 'sign in' : status === 404 || !this.kept.value ? 'file' : null,
    }
    this.schedule(this.retry)
    this.retry = Math.min(this.retry * 2, RETRY_MOST)
  }

  /** What becomes of the work meanwhile: only what is known to be true is promised. */
  private promise(status: number): string {
    if (!this.kept.value)
      return 'This browser does not keep it either (its storage is full or refused): leave this page open, or save the folio as a file.'
    if (status === 404) return 'What you have here is kept in this browser; it can be saved as a file.'
    if (status === 401) return 'Your work is kept in this browser and sent once you have signed in.'
    return 'Your work is kept in this browser and sent again.'
  }

  /** Others were first: what they did is taken in, and ours is put on top. False where that cannot be fetched now. */
  private async caughtUp(error: RequestError): Promise<boolean> {
    const body = z.object({ missed: missedSchema }).safeParse(error.problem)
    const missed = body.success ? body.data.missed : null
    const { base } = this
    let theirs: FolioState
    let seen: FolioState | null = base
    let others = true
    if (missed?.saves && base) {
      const told = this.takeMissed(missed.saves, base)
      theirs = told.theirs
      seen = told.seen
      others = told.others
      this.revision = missed.revision
    } else {
      try {
        const folio = await api.open(this.folio)
        theirs = stateOf(folio)
        this.revision = folio.revision
      } catch {
        return false
      }
    }
    if (this.halted) return true
    this.base = theirs
    if (others && this.parts.length > 0) {
      const merged = this.handlers.merge(theirs, this.unsent, seen)
      this.head = merged.state
      this.replace(partsOf(merged.operations))
      if (merged.unfit.length > 0) this.aside(merged.unfit, 'There is no room for it in the folio any more.')
    } else if (others) {
      this.head = this.handlers.merge(theirs, [], seen).state
    }
    void this.write()
    this.goOn(missed?.changedAt ?? '')
    if (this.parts.length > 0) this.schedule(0)
    return true
  }

  /** Goes through what was saved meanwhile: parts of ours whose answer was lost are among it. */
  private takeMissed(
    saves: NonNullable<Missed['saves']>,
    base: FolioState,
  ): { readonly theirs: FolioState; readonly seen: FolioState; readonly others: boolean } {
    let [theirs, seen, others] = [base, base, false]
    for (const save of saves) {
      theirs = applied(theirs, save.operations)
      const [ours] = this.parts
      if (ours && save.key === ours.key) {
        seen = applied(seen, ours.operations)
        this.acknowledged(ours, save.revision)
      } else others = true
    }
    return { theirs, seen, others }
  }

  /** The server refuses a part for good: what it refuses is found, set aside and said; the rest goes on. */
  private refused(error: RequestError, part: WaitingPart): void {
    const { operations } = part
    const index = z.object({ index: z.int() }).safeParse(error.problem).data?.index
    const rest = this.parts.slice(1)
    const [only] = operations
    if (operations.length <= 1 || (index !== undefined && index < operations.length)) {
      const at = index ?? 0
      const bad = operations[at] ?? only
      const others = operations.filter((_, k) => k !== at)
      this.replace([...partsOf(others), ...rest])
      if (bad) this.aside([bad], error.message)
      if (this.base) this.head = applied(this.base, this.unsent)
    } else {
      const half = Math.ceil(operations.length / 2)
      this.replace([freshPart(operations.slice(0, half)), freshPart(operations.slice(half)), ...rest])
    }
    void this.write()
    this.goOn(new Date().toISOString())
    if (this.parts.length > 0) this.schedule(0)
  }

  /** Nothing is sent any more: another tab does that now, with what is given back. */
  halt(): Baggage {
    this.halted = true
    if (this.timer !== null) clearTimeout(this.timer)
    if (leaving.get(this.folio) === this) leaving.delete(this.folio)
    return { revision: this.revision, base: this.base, parts: this.parts }
  }

  /** Everything that waits is written into the browser. */
  written(): Promise<void> {
    return this.write()
  }

  /** Leaves the folio: what waits is still sent as far as the server takes it. */
  close(): void {
    leaving.set(this.folio, this)
    void this.drain().finally(() => {
      if (leaving.get(this.folio) === this) this.halt()
    })
  }

  private async drain(): Promise<void> {
    await this.write()
    for (let k = 0; k < 1_000 && this.parts.length > 0 && !this.halted; k += 1) {
      if (this.state.value.kind === 'failed') return
      await this.flush()
      if (this.sending) await new Promise((done) => setTimeout(done, 40))
    }
    await this.writing
  }
}

/** A state with operations, as far as they fit. */
export function applied(state: FolioState, operations: readonly Operation[]): FolioState {
  return operations.reduce<FolioState>((before, o) => applyOperation(before, o) ?? before, state)
}

/** Why there is no room for something, in a sentence. */
export function fullSentence(state: FolioState, operation: Operation): string | null {
  const full = fullFor(state, operation)
  return full && FULL[full]
}

const FULL = {
  lines: 'A folio has at most 5 000 lines. Go on in a new one.',
  length: 'The texts of a folio have at most 4 million characters together. Go on in a new one.',
  plates: 'A folio has at most 60 plates.',
  enclosures: 'A folio has at most 40 enclosures of measured data.',
  sets: 'There are at most eight sets of values.',
} as const
