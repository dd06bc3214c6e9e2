import type { Page } from '@playwright/test'
import type { Chance } from './chance'

/** What was promised to be kept, and by whom: in the end all of it must be found. */
export class Promised {
  private readonly texts = new Map<string, string>()
  private count = 0
  /** What happened, in order, to find out why a text is missing. */
  readonly trail: string[] = []
  private readonly began = Date.now()

  note(what: string): void {
    this.trail.push(`${((Date.now() - this.began) / 1000).toFixed(1)} ${what}`)
  }

  /** A text that is like no other; even its beginning is. */
  fresh(author: string): string {
    this.count += 1
    return `${author}${this.count}z = ${this.count}`
  }

  keep(text: string, why: string): void {
    if (this.texts.has(text)) return
    this.texts.set(text, why)
    this.note(`promised ${text}: ${why}`)
  }

  get size(): number {
    return this.texts.size
  }

  /** Those that stand nowhere any more. */
  missing(everything: string): string[] {
    return [...this.texts].filter(([text]) => !everything.includes(text)).map(([text, why]) => `${text} (${why})`)
  }
}

/** How long an action may take before it is given up: the page may be in the middle of something else. */
const PATIENCE = 2_500

/** Somebody who works in one tab, and what was promised to them there. */
export class Writer {
  /** Texts that were entered here and of which nothing is known yet. */
  private entered: string[] = []
  /** What is being typed, and since when it stands so. */
  private draft: { readonly text: string; readonly at: number } | null = null

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
    if (why) for (const text of this.entered.splice(0)) this.promised.keep(text, `${this.name}, ${why}`)
    return said
  }

  /** A text that has stood in the editor for a second survives a crash. */
  crashes(): void {
    if (this.draft && Date.now() - this.draft.at >= 1_000) this.promised.keep(this.draft.text, `${this.name}, draft`)
    this.draft = null
    this.entered = []
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

  /** True where the editor holds just this text: only then it was entered. */
  private async holds(text: string): Promise<boolean> {
    return (
      (await this.page
        .locator('.cm-content')
        .first()
        .textContent({ timeout: PATIENCE })
        .catch(() => null)) === text
    )
  }

  private async typeFresh(): Promise<string | null> {
    const text = this.promised.fresh(this.name)
    await this.page.keyboard.insertText(text)
    return (await this.holds(text)) ? text : null
  }

  private async leave(): Promise<void> {
    this.draft = null
    await this.page.getByRole('link', { name: 'To the shelf' }).focus({ timeout: PATIENCE })
  }

  async edit(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+A')
    const text = await this.typeFresh()
    await this.leave()
    if (text) this.entered.push(text)
  }

  async insert(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+Enter')
    const text = await this.typeFresh()
    await this.leave()
    if (text) this.entered.push(text)
  }

  async leaveDraft(): Promise<void> {
    if (!(await this.open())) return
    await this.page.keyboard.press('Control+A')
    const text = await this.typeFresh()
    if (text) this.draft = { text, at: Date.now() }
  }

  async remove(): Promise<void> {
    if ((await this.rows.count()) < 4 || !(await this.open())) return
    await this.page.keyboard.press('Alt+Delete')
    await this.leave()
  }

  async undo(): Promise<void> {
    await this.leave()
    await this.page.getByRole('button', { name: 'Undo' }).click({ timeout: PATIENCE })
  }

  async redo(): Promise<void> {
    await this.leave()
    await this.page.getByRole('button', { name: 'Redo' }).click({ timeout: PATIENCE })
  }

  async retitle(): Promise<void> {
    await this.leave()
    await this.page.getByRole('button', { name: /\(rename\)/ }).click({ timeout: PATIENCE })
    await this.page
      .getByRole('textbox', { name: 'Title of the folio' })
      .fill(this.promised.fresh(this.name), { timeout: PATIENCE })
    await this.page.keyboard.press('Enter')
  }

  async takeOver(): Promise<void> {
    await this.page.getByRole('button', { name: 'Write here instead' }).click({ timeout: PATIENCE })
  }

  async reload(): Promise<void> {
    // What is typed within the last moments may go with a reload; a second of it may not.
    if (this.draft && Date.now() - this.draft.at >= 1_000) this.promised.keep(this.draft.text, `${this.name}, draft`)
    this.draft = null
    this.entered = []
    await this.page.reload({ timeout: 10_000 })
  }

  /** One thing of many; what cannot be done just now is left. */
  async act(): Promise<string> {
    // What has not been promised yet may be replaced by what comes next, before it is sent.
    await this.look()
    this.entered = []
    const action = await this.actNow()
    this.promised.note(
      `${this.name} ${action} ${this.entered.join(', ')}${this.draft ? `draft ${this.draft.text}` : ''}`,
    )
    // Now and then it is waited for what the page says of it.
    for (let k = 0; k < 12 && this.entered.length > 0 && this.chance.next() < 0.9; k += 1) {
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
          [10, 'edit'], [10, 'insert'], [5, 'remove'], [5, 'undo'], [2, 'redo'], [1, 'retitle'], [3, 'leaveDraft'], [1, 'reload'], [2, 'wait'],
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
