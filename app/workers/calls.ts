/** A text that stands in the place of a line's own while it is typed or dragged. */
export interface Typed {
  readonly id: string
  readonly source: string
}

/**
 * Calls to the worker, one after another in the order they were made. Of texts that are typed only the newest
 * counts: it takes the place of one that still waits, but never of one that other calls have followed, since
 * what was typed after a call must be reckoned after it.
 */
export class CallQueue {
  private last: Promise<void> = Promise.resolve()
  private waiting: { text: Typed | null } | null = null

  /** Resolves once every call made so far is answered. */
  get answered(): Promise<void> {
    return this.last
  }

  call(run: () => Promise<void>): Promise<void> {
    this.waiting = null
    return this.add(run)
  }

  /** A text as it is typed. */
  type(text: Typed, run: (newest: Typed) => Promise<void>): Promise<void> {
    if (this.waiting) {
      this.waiting.text = text
      return this.last
    }
    const mine: { text: Typed | null } = { text }
    this.waiting = mine
    return this.add(() => {
      if (this.waiting === mine) this.waiting = null
      return mine.text ? run(mine.text) : Promise.resolve()
    })
  }

  /** A text that still waits is not reckoned any more: its line is kept, restored or stopped. */
  dropTyped(): void {
    if (this.waiting) this.waiting.text = null
    this.waiting = null
  }

  private add(run: () => Promise<void>): Promise<void> {
    this.last = this.last.then(run, run)
    return this.last
  }
}
