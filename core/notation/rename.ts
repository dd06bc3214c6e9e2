import { CONSTANTS, RESERVED } from './words'
import { readCircuitImaginary } from './literals'
import { readInOrder, readLike } from './groups'
import { parseLine } from './parser'
import type { Parsed } from './parser'
import { problem } from './problem'
import type { Problem } from './problem'
import { unitSymbol } from '../units/symbols'
import { ownNames, references, unknownNames } from './references'
import type { Reference } from './references'

/** Giving a kept name another spelling in every line that has it. */

const NAME = /^[\p{L}_][\p{L}\p{Nd}_₀-₉]*$/u

/** Why a text cannot be kept as a name; `null` where it can. */
export function whyNotKept(name: string, letter: 'i' | 'j', isFunction: (name: string) => boolean): Problem | null {
  const whole = { from: 0, to: name.length }
  if (!NAME.test(name)) return problem('not-a-name', whole, { name })
  if (name === letter) return problem('letter-reserved', whole, { name, other: letter === 'j' ? 'i' : 'j' })
  if (RESERVED.has(name)) return problem('reserved-word', whole, { name })
  if (CONSTANTS.get(name)) return problem('constant-reserved', whole, { name })
  if (isFunction(name)) return problem('function-reserved', whole, { name })
  return null
}

export interface Renaming {
  readonly problem: Problem | null
  /** The lines that change: their index and their new text. */
  readonly changes: readonly { readonly index: number; readonly source: string }[]
}

/**
 * The lines of a folio with one kept name spelled anew, in definitions and in
 * uses. Refused where the new name is taken, is a word of the notation, or
 * would be caught by a parameter or counter of a line that uses it.
 */
export function renameEverywhere(
  sources: readonly string[],
  from: string,
  to: string,
  letter: 'i' | 'j',
  isFunction: (name: string) => boolean,
): Renaming {
  const refused = (found: Problem): Renaming => ({ problem: found, changes: [] })
  if (from === to) return { problem: null, changes: [] }
  const why = whyNotKept(to, letter, isFunction)
  if (why) return refused(why)
  const whole = { from: 0, to: to.length }
  const parsed = readInOrder(sources.map(parseLine)).map((line) => line.parsed)
  const unknowns = unknownNames(parsed)
  const other = letter === 'j' ? 'i' : 'j'
  for (const [index, line] of parsed.entries()) {
    const found = references(line, unknowns)
    const taken = found.some((r) => r.name === to)
    if (taken && found.some((r) => r.name === to && r.role === 'definition'))
      return refused(problem('name-taken', whole, { name: to, line: index + 1 }))
    // `3i`, `j4`: the new name would change how such a line is read.
    if (taken && (to === other || readCircuitImaginary(to) !== null || found.some((r) => r.name === to && r.glued)))
      return refused(problem('name-read-otherwise', whole, { name: to, line: index + 1 }))
    if ((to === 'T' || to === 'H') && found.some((r) => r.name === from && isExponent(line, r.from)))
      return refused(problem('name-read-otherwise', whole, { name: to, line: index + 1 }))
    if (found.some((r) => r.name === from) && ownNames(line).has(to))
      return refused(problem('name-caught', whole, { name: to, line: index + 1 }))
  }
  const after = new Set([...unknowns].map((name) => (name === from ? to : name)))
  const changes = parsed.flatMap((line, index) => {
    const source = respelled(line, from, to, unknowns)
    return source === line.source ? [] : [{ index, source }]
  })
  // What is read as a unit once it is spelled so is no name any more.
  const lost = changes.find(({ index, source }) => {
    const line = parsed[index]
    return line && count(references(line, unknowns), from) !== count(references(readLike(line, source), after), to)
  })
  if (lost) return refused(problem('name-read-otherwise', whole, { name: to, line: lost.index + 1 }))
  return { problem: null, changes }
}

/** `x^q`: with T or H in its place the caret would mean the transpose. */
function isExponent(line: Parsed, at: number): boolean {
  return /\^\s*$/.test(line.source.slice(0, at))
}

const count = (found: readonly Reference[], name: string): number => found.filter((r) => r.name === name).length

function respelled(line: Parsed, from: string, to: string, unknowns: ReadonlySet<string>): string {
  let source = line.source
  const open = unknowns.has(from) || ownNames(line).has(from)
  for (const { name, from: start, to: end, glued } of references(line, unknowns).toReversed()) {
    if (name !== from) continue
    const before = source.slice(0, start)
    // `10 V` would be ten volts: a product gets its sign.
    const spaced = !open && unitSymbol(to) !== null ? /[\d.)\]a-zµμ]\s+$/iu.test(before) && !/[-+*/^,(]\s*$/.test(before) && !glued : false // prettier-ignore
    // `2e3` would be one number.
    const joint = spaced || (glued && /^[eE]\d/.test(to)) ? '*' : ''
    source = (spaced ? before.trimEnd() : before) + joint + to + source.slice(end)
  }
  return source
}

/** The next free name of the form x1, x2, … for a result without a name. */
export function freeName(taken: ReadonlySet<string>, stem = 'x'): string {
  for (let k = 1; ; k += 1) if (!taken.has(`${stem}${k}`)) return `${stem}${k}`
}
