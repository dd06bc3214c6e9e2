import { createHash } from 'node:crypto'
import type { Page } from '@playwright/test'
import type { Chance } from './chance'
import type { Promised } from './promised'
import { storeOf } from '../storeOf'

/** How long an action may take before it is given up: the page may be in the middle of something else. */
const PATIENCE = 2_500

/** What the page has, as its own store has it. */
interface Held {
  readonly lines: readonly { readonly id: string; readonly source: string }[]
  /** The names of its enclosures. */
  readonly enclosures: readonly string[]
  /** The line that is open, and the text it had. */
  readonly open: { readonly id: string; readonly was: string } | null
}

/** As much of the page's own store as is looked at. */
interface FolioStore {
  readonly lines: readonly { readonly id: string; readonly source: string }[]
  readonly enclosures: readonly { readonly name: string }[]
  readonly editing: { readonly id: string; readonly was: string } | null
}

/** Somebody who works in one tab, and what was promised to them there. */
export class Writer {
  /** Texts that were entered here and of which nothing is known yet. */
  private waiting: string[] = []
  /** What is being typed, and since when it stands so. */
  private draft: { readonly text: string; readonly at: number } | null = null
  /** Numbers that are on their way: by the name of their file. */
  private numbers: [string, string][] = []

  constructor(
    readonly page: Page,
    readonly name: string,
    private readonly promised: Promised,
    private readonly chance: Chance,
  ) {}

  /** Reads what the page promises now. */
  async look(): Promise<string> {
    const status = await this.page
      .locator('.status')
      .first()
      .textContent({ timeout: PATIENCE })
      .catch(() => '')
    const said = (status ?? '').trim()
    const why = /^saved/.test(said) ? 'saved' : said.includes('kept in this browser') ? 'kept in the browser' : null
    if (why) for (const text of this.waiting.splice(0)) this.promised.keep(text, `${this.name}, ${why}`)
    if (why === 'saved' && this.numbers.length > 0) {
      // A page says nothing of small numbers that are on their way: it is asked.
      const sent = await this.numbersAreSent()
      if (sent) for (const [name, digest] of this.numbers.splice(0)) this.promised.keepNumbers(name, digest)
    }
    return said
  }

  private async numbersAreSent(): Promise<boolean> {
    return this.page
      .evaluate(async () => {
        const keys = await new Promise<IDBValidKey[]>((done, failed) => {
          const opening = indexedDB.open('keyval-store')
          opening.onerror = () => failed(new Error('the store cannot be opened'))
          opening.onsuccess = () => {
            const all = opening.result.transaction('keyval').objectStore('keyval').getAllKeys()
            all.onsuccess = () => done(all.result)
            all.onerror = () => failed(new Error('the store cannot be read'))
          }
        })
        return !keys.some((key) => String(key).startsWith('block:')) && !document.querySelector('.numbers')
      })
      .catch(() => false)
  }

  /** What the page itself holds; `null` where it has no folio now. */
  private async held(): Promise<Held | null> {
    try {
      const store = await storeOf<FolioStore>(this.page, 'folio')
      return await store.evaluate((folio) => {
        if (!folio) return null
        const { editing } = folio
        return {
          lines: folio.lines.map(({ id, source }) => ({ id, source })),
          enclosures: folio.enclosures.map(({ name }) => name),
          open: editing ? { id: editing.id, was: editing.was } : null,
        }
      })
    } catch {
      return null
    }
  }

  /** A text that has stood in the editor for a second survives a crash. */
  crashes(): void {
    if (this.draft && Date.now() - this.draft.at >= 1_000) this.promised.keep(this.draft.text, `${this.name}, draft`)
    this.draft = null
    this.waiting = []
    // The file of the numbers is still there: nothing was promised.
    this.numbers = []
  }

  async writes(): Promise<boolean> {
    return (
      (await this.page
        .locator('.following')
        .count()
        .catch(() => 1)) === 0
    )
  }

  private get rows() {
    return this.page.locator('.lines > .row')
  }

  /** Opens the editor of some line, or false. */
  private async open(): Promise<boolean> {
    const count = await this.rows.count()
    if (count === 0 || !(await this.writes())) return false
    const row = this.rows.nth(this.chance.below(count))
    await row.locator('.opener').focus({ timeout: PATIENCE })
    await this.page.keyboard.press('Enter')
    return row.locator('.cm-content').isVisible()
  }

  /** Types a text over what the open line has; the text, where the editor holds just it then. */
  private async typeFresh(): Promise<string | null> {
    const before = await this.held()
    const text = this.promised.fresh(this.name)
    await this.page.keyboard.insertText(text)
    const shown = await this.page
      .locator('.cm-content')
      .first()
      .textContent({ timeout: PATIENCE })
      .catch(() => null)
    if (shown !== text || !before?.open) return null
    this.promised.entered(text, before.open.id, before.open.was)
    return text
  }

  private async leave(): Promise<void> {
    this.draft = null
    await this.page.getByRole('link', { name: 'To the shelf' }).focus({ timeout: PATIENCE })
  }

  /** Does something that takes away or brings back; what the page no longer shows after it was meant to go. */
  private async deliberately(action: () => Promise<unknown>): Promise<void> {
    const before = await this.heldSurely()
    try {
      await action()
    } catch (error) {
      // What was given up waiting for may be done all the same, a little later.
      await this.page.waitForTimeout(PATIENCE).catch(() => undefined)
      this.compare(before, await this.heldSurely())
      throw error
    }
    this.compare(before, await this.heldSurely())
  }

  /** A page in the middle of something is asked again. */
  private async heldSurely(): Promise<Held | null> {
    for (let tried = 0; tried < 6; tried += 1) {
      const held = await this.held()
      if (held) return held
      await this.page.waitForTimeout(500).catch(() => undefined)
    }
    return null
  }

  private compare(before: Held | null, after: Held | null): void {
    if (!before || !after) return
    const [had, has] = [new Set(before.lines.map((l) => l.source)), new Set(after.lines.map((l) => l.source))]
    for (const text of had) if (!has.has(text)) this.promised.release(text)
    for (const text of has) if (!had.has(text)) this.promised.bringBack(text)
    for (const name of before.enclosures) if (!after.enclosures.includes(name)) this.promised.releaseNumbers(name)
    for (const name of after.enclosures) if (!before.enclosures.includes(name)) this.promised.bringNumbersBack(name)
  }

  async edit(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+A')
    const text = await this.typeFresh()
    await this.leave()
    if (text) this.waiting.push(text)
  }

  async insert(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+Enter')
    const text = await this.typeFresh()
    await this.leave()
    if (text) this.waiting.push(text)
  }

  /** Some lines at once, from the clipboard. */
  async paste(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+Enter')
    const texts = [1, 2, 3].map(() => this.promised.fresh(this.name))
    await this.page.evaluate((text) => navigator.clipboard.writeText(text), texts.join('\n'))
    await this.page.keyboard.press('Control+v')
    await this.leave()
    const lines = (await this.held())?.lines ?? []
    for (const text of texts) {
      const line = lines.find((l) => l.source === text)
      if (!line) continue
      this.promised.entered(text, line.id, '')
      this.waiting.push(text)
    }
  }

  /** A small table of numbers that are like no others. */
  async enclose(): Promise<void> {
    if (!(await this.writes())) return
    await this.leave()
    const mark = this.chance.below(1_000_000)
    const values = [0, 1, 2, 3].map((k) => mark + k / 8)
    const name = `${this.name}${mark}.csv`
    if ((await this.page.getByRole('region', { name: 'Exchange' }).count()) === 0)
      await this.page.keyboard.press('Control+F9')
    const [chooser] = await Promise.all([
      this.page.waitForEvent('filechooser', { timeout: PATIENCE }),
      this.page.getByRole('button', { name: 'Open a file' }).click({ timeout: PATIENCE }),
    ])
    await chooser.setFiles({
      name,
      mimeType: 'text/plain',
      buffer: Buffer.from(`t,u\n${values.map((v, k) => `${k},${v}`).join('\n')}\n`),
    })
    await this.page.getByRole('button', { name: 'Keep with the folio' }).click({ timeout: 2 * PATIENCE })
    const numbers = new Float64Array([0, 1, 2, 3, ...values])
    this.numbers.push([name, digestOf(new Uint8Array(numbers.buffer))])
  }

  async leaveDraft(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+A')
    const text = await this.typeFresh()
    if (text) this.draft = { text, at: Date.now() }
  }

  async remove(): Promise<void> {
    if ((await this.rows.count()) < 4 || !(await this.open())) return
    await this.deliberately(() => this.page.keyboard.press('Alt+Delete'))
    await this.leave()
  }

  async undo(): Promise<void> {
    await this.leave()
    await this.deliberately(() => this.page.getByRole('button', { name: 'Undo' }).click({ timeout: PATIENCE }))
  }

  async redo(): Promise<void> {
    await this.leave()
    await this.deliberately(() => this.page.getByRole('button', { name: 'Redo' }).click({ timeout: PATIENCE }))
  }

  async takeOver(): Promise<void> {
    await this.page.getByRole('button', { name: 'Write here instead' }).click({ timeout: PATIENCE })
  }

  async reload(): Promise<void> {
    // What is typed within the last moments may go with a reload; a second of it may not.
    this.crashes()
    await this.page.reload({ timeout: 10_000 })
  }

  /** One thing of many; what cannot be done just now is left. */
  async act(): Promise<string> {
    // What has not been promised yet may be replaced by what comes next, before it is sent.
    await this.look()
    this.waiting = []
    const action = await this.actNow()
    this.promised.note(
      `${this.name} ${action} ${this.waiting.join(', ')}${this.draft ? `draft ${this.draft.text}` : ''}`,
    )
    // Now and then it is waited for what the page says of it.
    for (let k = 0; k < 12 && this.waiting.length + this.numbers.length > 0 && this.chance.next() < 0.9; k += 1) {
      await this.look()
      await this.page.waitForTimeout(120).catch(() => undefined)
    }
    return action
  }

  private async actNow(): Promise<string> {
    const follows = !(await this.writes())
    const action = follows
      ? this.chance.pick([[2, 'takeOver'], [3, 'wait'], [1, 'reload']] as const)
      : this.chance.pick([
          [10, 'edit'], [10, 'insert'], [4, 'paste'], [2, 'enclose'], [4, 'remove'], [4, 'undo'], [2, 'redo'], [3, 'leaveDraft'], [1, 'reload'], [2, 'wait'],
        ] as const) // prettier-ignore
    try {
      if (action === 'wait') await this.page.waitForTimeout(this.chance.between(100, 1_200))
      else await this[action]()
    } catch {
      return `${action} (not done)`
    }
    return action
  }
}

export function digestOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex')
}
