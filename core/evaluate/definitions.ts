import { standardName } from '../functions/registry'
import type { Parsed } from '../notation/parser'
import { definedNames } from '../notation/references'
import { isReserved } from '../notation/words'

/** For each kept name, the lines that define it, in order, counted from 0. */
export type Definitions = ReadonlyMap<string, readonly number[]>

/** A name that no line can keep stays what it is, whatever a line in error tries to make of it. */
export function canBeKept(name: string, letter: 'i' | 'j'): boolean {
  return name !== letter && !isReserved(name) && standardName(name) === null
}

/** What the lines of a folio define, errors or not. */
export function definitionsOf(lines: readonly Parsed[], letter: 'i' | 'j'): Definitions {
  const found = new Map<string, number[]>()
  lines.forEach((parsed, index) => {
    for (const name of definedNames(parsed)) {
      if (!canBeKept(name, letter)) continue
      const before = found.get(name)
      if (before) before.push(index)
      else found.set(name, [index])
    }
  })
  return found
}
