import { functionNames } from '../functions/registry'
import { nearestNames } from '../notation/suggest'
import type { Kept } from '../notation/names'

/** Up to so many kept names, every one of them is compared with a misspelt one. */
const ALL_COMPARED = 300
/** A word that so many names come to by losing a letter tells them apart no longer. */
const POPULAR = 32

/** Misspelt words for which the near functions are remembered. */
const WORDS_MOST = 20_000

type Scope = ReadonlyMap<string, Pick<Kept, 'kind'>>

/**
 * The names that a misspelt one could stand for. In a folio of thousands of names they are not all compared: names
 * an edit apart come to the same word when each loses a letter or none (W. Garbe, "Symmetric delete", 2012, after
 * F. Bocek and others, 2007), and are found under it.
 */
export class NearNames {
  private names: ReadonlySet<string> = new Set()
  /** Built when it is first asked for. */
  private index: Map<string, Set<string>> | null = null

  private readonly functions = new Map<string, readonly string[]>()

  /** Told of the lines that define each name, before a round of questions. */
  begin(definitions: ReadonlyMap<string, readonly number[]>): void {
    const names = new Set(definitions.keys())
    if (this.index) {
      for (const name of this.names) if (!names.has(name)) this.drop(this.index, name)
      for (const name of names) if (!this.names.has(name)) this.enter(this.index, name)
    }
    this.names = names
  }

  /** Names that a line sees, nearest first, joined by commas; with `only`, those of functions. */
  near(name: string, only: 'function' | null, scope: Scope): string {
    const kept: string[] = []
    for (const candidate of this.candidates(name, scope)) {
      const kind = scope.get(candidate)?.kind
      if (kind !== undefined && (only === null || kind === only)) kept.push(candidate)
    }
    return nearestNames(name, [...kept, ...this.nearFunctions(name)]).join(', ')
  }

  /** Functions never change: what is near a word is found once. */
  private nearFunctions(name: string): readonly string[] {
    const before = this.functions.get(name)
    if (before) return before
    if (this.functions.size > WORDS_MOST) this.functions.clear()
    const found = nearestNames(name, functionNames())
    this.functions.set(name, found)
    return found
  }

  private candidates(name: string, scope: Scope): Iterable<string> {
    if (this.names.size <= ALL_COMPARED) return scope.keys()
    this.index ??= this.built()
    const found = new Set<string>()
    for (const word of shortened(name)) {
      const names = this.index.get(word)
      if (names && names.size <= POPULAR) for (const candidate of names) found.add(candidate)
    }
    return found
  }

  private built(): Map<string, Set<string>> {
    const index = new Map<string, Set<string>>()
    for (const name of this.names) this.enter(index, name)
    return index
  }

  private enter(index: Map<string, Set<string>>, name: string): void {
    for (const word of shortened(name)) {
      const names = index.get(word)
      if (names) names.add(name)
      else index.set(word, new Set([name]))
    }
  }

  private drop(index: Map<string, Set<string>>, name: string): void {
    for (const word of shortened(name)) {
      const names = index.get(word)
      names?.delete(name)
      if (names?.size === 0) index.delete(word)
    }
  }
}

/** A word, whatever its case, and what it comes to without one of its letters. */
function shortened(name: string): ReadonlySet<string> {
  const word = name.slice(0, 64).toLowerCase()
  const words = new Set([word])
  for (let k = 0; k < word.length; k += 1) words.add(word.slice(0, k) + word.slice(k + 1))
  return words
}
