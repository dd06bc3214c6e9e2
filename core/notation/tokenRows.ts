import type { Tok } from './tokenKinds'

/** Longest line, in UTF-16 units. */
export const MAX_LINE = 10_000

/** How many token places lie behind the last one, so that looking ahead needs no bounds. */
export const AHEAD = 2

// A raised digit makes two tokens, and a pair of bars may come apart.
const ROOM = 3 * MAX_LINE + 2 * AHEAD

/**
 * The tokens of the line that is being read, as rows of numbers: what each is, where it starts and where it ends.
 * There is one row of each, as there is one reader: rows that are known from the start are the quickest to reach.
 */
export const KINDS = new Uint8Array(ROOM)
export const STARTS = new Int32Array(ROOM)
export const ENDS = new Int32Array(ROOM)
/** Of digits: all of them as one whole number; NaN where they have an exponent or stand raised. */
export const WHOLES = new Float64Array(ROOM)
/** How many of them stand behind the point; −1 without one. */
export const DECIMALS = new Int16Array(ROOM)

/** What a token is; beyond the last one, its end. Within {@link ROOM}, as all three. */
export function kindAt(k: number): Tok {
  return KINDS[k] as Tok
}

export function startAt(k: number): number {
  return STARTS[k] as number
}

export function endAt(k: number): number {
  return ENDS[k] as number
}
