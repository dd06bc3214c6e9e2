import { z } from '#shared/schema'
import { folioStateSchema } from '#shared/operations'
import { stateOf } from '#shared/operations'
import type { FolioState } from '#shared/operations'
import { partSchema } from '#shared/parts'

/**
 * One tab of a browser writes a folio; the others follow it live and can take
 * over. The writer holds a lock of the browser, which ends with its tab; what it
 * does it tells the others over a channel.
 */
export type TabRole = 'writer' | 'follower' | 'taking'

const draftSchema = z.nullable(z.object({ id: z.string(), text: z.string() }))
/** What one tab hands over to the next: everything it needs to go on, the server alive or not. */
const handedSchema = z.object({
  state: folioStateSchema,
  baggage: z.object({
    revision: z.int(),
    base: z.nullable(folioStateSchema),
    parts: z.array(z.extend(partSchema, { place: z.int() })),
  }),
})
export type Handed = z.infer<typeof handedSchema>

const messageSchema = z.discriminatedUnion('type', [
  /** A follower has come and asks for the state. */
  z.object({ type: z.literal('hello') }),
  z.object({ type: z.literal('state'), state: folioStateSchema }),
  /** What the writer is typing; `null` once it is kept or left. */
  z.object({ type: z.literal('draft'), draft: draftSchema }),
  /** A follower wants to write. */
  z.object({ type: z.literal('release') }),
  z.object({ type: z.literal('released'), handed: handedSchema }),
])
type Message = z.infer<typeof messageSchema>

export interface TabHandlers {
  /** This tab may write, once it has the state: what the other tab handed over, or nothing where that is gone. */
  readonly write: (handed: Handed | null) => void
  /** Another tab writes from now on. */
  readonly follow: () => void
  /** Keeps what this tab has, and gives it up. */
  readonly handOver: () => Promise<Handed>
  readonly state: () => FolioState
  readonly takeState: (state: FolioState) => void
  readonly takeDraft: (draft: { readonly id: string; readonly text: string } | null) => void
}

/** How long the tab that writes may take to hand the folio over, in milliseconds. */
const PATIENCE = 3_000

/** How long a tab that gave the folio up leaves it to the one who asked, in milliseconds. */
const QUEUES_AFTER = 1_500

/** Without locks (an old browser) every tab writes, and the server merges what they send. */
function canLock(): boolean {
  return typeof navigator !== 'undefined' && 'locks' in navigator
}

export class Tabs {
  private readonly channel: BroadcastChannel | null
  private readonly name: string
  private role: 'writer' | 'follower' = 'follower'
  private release: (() => void) | null = null
  private waiting: AbortController | null = null
  private released: ((handed: Handed | null) => void) | null = null
  /** True once another tab has asked for the state: until then nobody listens. */
  private heard = false
  private handed: Handed | null = null
  private closed = false

  constructor(
    folio: string,
    private readonly handlers: TabHandlers,
  ) {
    this.name = `ornate-phasor:${folio}`
    this.channel = canLock() && 'BroadcastChannel' in globalThis ? new BroadcastChannel(this.name) : null
    this.channel?.addEventListener('message', (event: MessageEvent<unknown>) => {
      const message = messageSchema.safeParse(event.data)
      if (message.success) void this.take(message.data)
    })
  }

  /** Writes if no other tab does; says which role this tab has. */
  async begin(): Promise<'writer' | 'follower'> {
    if (!canLock()) return (this.role = 'writer')
    const granted = await new Promise<boolean>((answer) => {
      const held = navigator.locks.request(this.name, { ifAvailable: true }, (lock) => {
        answer(lock !== null)
        return lock === null ? undefined : this.hold()
      })
      held.catch(() => this.lost())
    })
    this.role = granted ? 'writer' : 'follower'
    if (!granted) {
      this.queue()
      this.post({ type: 'hello' })
    }
    return this.role
  }

  tellState(state: FolioState): void {
    if (this.role === 'writer' && this.heard) this.post({ type: 'state', state: stateOf(state) })
  }

  tellDraft(draft: { readonly id: string; readonly text: string } | null): void {
    if (this.role === 'writer' && this.heard) this.post({ type: 'draft', draft })
  }

  /** Asks the tab that writes to hand the folio over, and takes it. */
  async takeOver(): Promise<void> {
    if (this.role === 'writer') return
    this.waiting?.abort()
    const handed = new Promise<Handed | null>((done) => {
      this.released = done
      setTimeout(() => done(null), PATIENCE)
    })
    this.post({ type: 'release' })
    this.handed = await handed
    this.released = null
    if (this.closed) return
    const held = navigator.locks.request(this.name, { steal: true }, () => {
      this.granted()
      return this.hold()
    })
    held.catch(() => this.lost())
  }

  close(): void {
    this.closed = true
    this.waiting?.abort()
    this.release?.()
    this.channel?.close()
  }

  private hold(): Promise<void> {
    return new Promise((done) => (this.release = done))
  }

  /** Waits for the lock: it comes when the writing tab is closed. */
  private queue(): void {
    const controller = new AbortController()
    this.waiting = controller
    const held = navigator.locks.request(this.name, { signal: controller.signal }, () => {
      this.granted()
      return this.hold()
    })
    held.catch(() => {
      if (!controller.signal.aborted) this.lost()
    })
  }

  private granted(): void {
    if (this.closed) return
    this.waiting = null
    this.role = 'writer'
    // Whoever wrote before listens now.
    this.heard = true
    const { handed } = this
    this.handed = null
    this.handlers.write(handed)
  }

  private lost(): void {
    if (this.closed || this.role === 'follower') return
    this.role = 'follower'
    this.release = null
    this.handlers.follow()
    this.queue()
  }

  private async take(message: Message): Promise<void> {
    switch (message.type) {
      case 'hello':
        this.heard = true
        return this.tellState(this.handlers.state())
      case 'state':
        return this.role === 'follower' ? this.handlers.takeState(message.state) : undefined
      case 'draft':
        return this.role === 'follower' ? this.handlers.takeDraft(message.draft) : undefined
      case 'released':
        return this.released?.(message.handed)
      case 'release': {
        if (this.role !== 'writer') return
        const handed = await this.handlers.handOver()
        this.role = 'follower'
        this.handlers.follow()
        this.post({ type: 'released', handed })
        this.release?.()
        this.release = null
        // The one who asked comes first: whoever queues now waits behind it.
        setTimeout(() => {
          if (!this.closed && this.role === 'follower') this.queue()
        }, QUEUES_AFTER)
      }
    }
  }

  private post(message: Message): void {
    this.channel?.postMessage(JSON.parse(JSON.stringify(message)))
  }
}
