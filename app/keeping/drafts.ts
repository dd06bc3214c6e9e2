import { or, z } from '#shared/schema'
import { changeStore, recordsUnder } from './browserStore'

/** The texts that are being typed, each under its folio and line: a reload or a crash in the middle loses nothing. */
const draftSchema = z.object({
  text: z.string(),
  /** The text that the line had when its editor was opened. */
  was: or(z.nullable(z.string()), null),
  /** What of it has been given to the server meanwhile. */
  sent: or(z.nullable(z.string()), null),
  at: or(z.number(), 0),
})
export type Draft = z.infer<typeof draftSchema> & { readonly line: string }

const prefix = (folio: string): string => `draft:${folio}:`
/** Where one draft of all folios stood before. */
const OLD = 'ornate-phasor:draft'
const oldSchema = z.object({ folio: z.string(), line: z.string(), text: z.string() })

/** Every draft of a folio, the newest last. */
export async function readDrafts(folio: string): Promise<readonly Draft[]> {
  const old = oldDraft(folio)
  const last = lastWords(folio)
  const records = await recordsUnder(prefix(folio))
  const drafts = records.flatMap(([key, value]) => {
    const draft = draftSchema.safeParse(value)
    return draft.success ? [{ ...draft.data, line: key.slice(prefix(folio).length) }] : []
  })
  // What was written when the page went is newer than what the store had of the same line, or older.
  const others = drafts.filter((d) => d.line !== last?.line || d.at > last.at)
  const whole = last && others.some((d) => d.line === last.line) ? others : [...others, ...(last ? [last] : [])]
  return [...(old ? [old] : []), ...whole.sort((a, b) => a.at - b.at)]
}

/** The last draft of a page that was left at that moment: written at once, where the store might come too late. */
const LAST = 'ornate-phasor:last-words'
const lastSchema = z.extend(draftSchema, { folio: z.string(), line: z.string() })

function lastWords(folio: string): Draft | null {
  try {
    const parsed = lastSchema.safeParse(JSON.parse(localStorage.getItem(LAST) ?? 'null'))
    if (!parsed.success || parsed.data.folio !== folio) return null
    localStorage.removeItem(LAST)
    const { line, text, was, sent, at } = parsed.data
    return { line, text, was, sent, at }
  } catch {
    return null
  }
}

function oldDraft(folio: string): Draft | null {
  try {
    const draft = oldSchema.safeParse(JSON.parse(localStorage.getItem(OLD) ?? 'null'))
    if (!draft.success || draft.data.folio !== folio) return null
    localStorage.removeItem(OLD)
    return { line: draft.data.line, text: draft.data.text, was: null, sent: null, at: 0 }
  } catch {
    return null
  }
}

/** How far what is kept may be behind the last key, in milliseconds. */
const BEHIND = 250

/** Keeps the drafts of one folio, soon after each key, and says whether they are kept. */
export class DraftKeeper {
  private timer: ReturnType<typeof setTimeout> | null = null
  private waiting: Draft | null = null
  /** The newest draft as long as the store has not taken it: it may be on its way there when the page goes. */
  private unwritten: Draft | null = null
  private writing: Promise<unknown> = Promise.resolve()

  constructor(
    private readonly folio: string,
    private readonly onKept: (kept: boolean) => void = () => undefined,
  ) {}

  keep(draft: Omit<Draft, 'at'>): void {
    this.waiting = { ...draft, at: Date.now() }
    this.unwritten = this.waiting
    this.timer ??= setTimeout(() => void this.flush(), BEHIND)
  }

  /** The page goes: what is not written yet is written at once. */
  lastWords(): void {
    if (!this.unwritten) return
    try {
      localStorage.setItem(LAST, JSON.stringify({ ...this.unwritten, folio: this.folio }))
    } catch {
      // The store itself may still take it.
    }
  }

  /** What is waiting is kept now. */
  async flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    const draft = this.waiting
    this.waiting = null
    if (draft) {
      const { line, ...rest } = draft
      await this.change({ put: [[`${prefix(this.folio)}${line}`, rest]] }, draft)
    }
    await this.writing
  }

  /** The line is kept or restored: its draft is over. */
  async forget(line: string): Promise<void> {
    if (this.unwritten?.line === line) this.unwritten = null
    if (this.waiting?.line === line) {
      this.waiting = null
      if (this.timer !== null) clearTimeout(this.timer)
      this.timer = null
    }
    await this.change({ remove: [`${prefix(this.folio)}${line}`] })
  }

  private change(change: Parameters<typeof changeStore>[0], draft: Draft | null = null): Promise<unknown> {
    this.writing = this.writing.then(async () => {
      const kept = await changeStore(change)
      if (kept && this.unwritten === draft) this.unwritten = null
      this.onKept(kept)
    })
    return this.writing
  }
}
