/** A line of the folio as it stands in the end. */
export interface Found {
  readonly id: string
  readonly source: string
}

interface Text {
  /** The line that it was entered in. */
  readonly home: string
  /** Why it must be there; empty as long as nobody has promised it. */
  why: string
  /** Texts that were typed over it by somebody who saw it. */
  readonly over: string[]
  /** Somebody who saw it took it away. */
  released: boolean
}

/**
 * What was entered and what was promised of it. In the end every text that was
 * promised stands in a line of the folio, not only in its journal, and in its
 * own: the line it was entered in, or one that came to be where two had changed
 * the same. It may be gone only where somebody who saw it typed over it, took it
 * away or undid it, and what was typed over it is judged in its place.
 */
export class Promised {
  private readonly texts = new Map<string, Text>()
  private readonly numbers = new Map<string, string>()
  /** Names under which numbers were enclosed and taken away again by somebody who saw them. */
  private readonly numbersReleased = new Set<string>()
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

  /** It was entered in a line, over what stood there and was seen; nothing is promised of it yet. */
  entered(text: string, home: string, seen: string): void {
    if (!this.texts.has(text)) this.texts.set(text, { home, why: '', over: [], released: false })
    if (seen !== text) this.texts.get(seen)?.over.push(text)
  }

  /** Somebody who saw it took it away, or took back what brought it. */
  release(text: string): void {
    const known = this.texts.get(text)
    if (known) known.released = true
  }

  /** Taken back, it is there again. */
  bringBack(text: string): void {
    const known = this.texts.get(text)
    if (known) known.released = false
  }

  keep(text: string, why: string): void {
    const known = this.texts.get(text)
    if (!known || known.why !== '') return
    known.why = why
    this.note(`promised ${text}: ${why}`)
  }

  /** Numbers were enclosed under a name, and are said to be on the server. */
  keepNumbers(name: string, digest: string): void {
    if (this.numbers.has(name)) return
    this.numbers.set(name, digest)
    this.note(`promised the numbers of ${name}`)
  }

  /** An enclosure was taken away, or taken back what brought it; or it is there again. */
  releaseNumbers(name: string): void {
    this.numbersReleased.add(name)
  }
  bringNumbersBack(name: string): void {
    this.numbersReleased.delete(name)
  }

  get size(): number {
    return [...this.texts.values()].filter((text) => text.why !== '').length + this.numbers.size
  }

  /** What was promised so far, as it is now: what comes later is not asked of an earlier copy. */
  snapshot(only: (why: string) => boolean): Promised {
    const copy = new Promised()
    for (const [text, known] of this.texts)
      copy.texts.set(text, { ...known, why: only(known.why) ? known.why : '', over: [...known.over] })
    for (const [name, digest] of this.numbers) copy.numbers.set(name, digest)
    for (const name of this.numbersReleased) copy.numbersReleased.add(name)
    return copy
  }

  /** Texts that stand nowhere, or in a line that is another one's; numbers that nobody gives back. */
  missing(lines: readonly Found[], numbers: ReadonlyMap<string, string>): string[] {
    const byText = new Map<string, string[]>()
    for (const { id, source } of lines) byText.set(source, [...(byText.get(source) ?? []), id])
    const homes = new Set([...this.texts.values()].map((text) => text.home))
    const faults: string[] = []
    for (const [text, { why, home }] of this.texts) {
      if (why === '') continue
      const places = byText.get(text) ?? []
      if (places.length > 0) {
        if (!places.some((id) => id === home || !homes.has(id)))
          faults.push(`${text} (${why}) stands in the line of another`)
      } else if (!this.isAccountedFor(text, byText, new Set())) faults.push(`${text} (${why})`)
    }
    for (const [name, digest] of this.numbers) {
      if (numbers.get(name) === digest || (this.numbersReleased.has(name) && !numbers.has(name))) continue
      faults.push(`the numbers of ${name}`)
    }
    return faults
  }

  private isAccountedFor(text: string, byText: ReadonlyMap<string, unknown>, seen: Set<string>): boolean {
    if (byText.has(text)) return true
    const known = this.texts.get(text)
    if (!known || seen.has(text)) return false
    seen.add(text)
    return known.released || known.over.some((over) => this.isAccountedFor(over, byText, seen))
  }
}
