import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { unitSymbol } from '../units/symbols'
import type { UnitSymbol } from '../units/symbols'
import { unitOf } from '../units/unit'
import type { UnitPart } from '../units/unit'
import { isName, isWordOperator, Tok } from './tokenKinds'
import type { Tokens } from './tokens'
import type { Span, UnitTerm, UnitWord } from './tree'

/** Units as they stand in a line: symbols joined by `*`, `·` or a space, one slash, powers. */

/** A unit that was found, the token behind it, and a slash or a second one that could have gone on with it. */
export interface FoundUnit {
  readonly term: UnitTerm
  readonly next: number
}

interface Reader {
  readonly tokens: Tokens
  readonly words: UnitWord[]
  readonly parts: UnitPart[]
}

/** The unit that begins at a token; `null` where none does. `1/s` counts where a number cannot stand. */
export function unitAt(tokens: Tokens, first: number, alone: boolean): FoundUnit | null {
  const reader: Reader = { tokens, words: [], parts: [] }
  const one = alone && tokens.kind(first) === Tok.number && tokens.text(first) === '1' && tokens.kind(first + 1) === Tok.over // prettier-ignore
  let k = one ? first + 1 : joined(reader, first, 1)
  if (k === first) return null
  if (tokens.kind(k) === Tok.over) k = below(reader, k)
  const to = tokens.to(k - 1)
  const unit = reader.parts.length === 0 ? null : unitOf(reader.parts)
  if (!unit || mixesShares(reader)) return null
  const from = tokens.from(first)
  return { term: { from, to, unit, words: reader.words, again: goesOn(reader, k) }, next: k }
}

/** Percent is a unit by itself only. */
function mixesShares({ parts }: Reader): boolean {
  return parts.length > 1 && parts.some(({ unit }) => unit.stem === '%' || unit.stem === '‰')
}

/** Symbols with their powers, joined; the place behind them, or `from` where there are none. */
function joined(reader: Reader, from: number, sign: 1 | -1): number {
  const { tokens } = reader
  let k = symbol(reader, from, sign)
  if (k === from) return from
  for (;;) {
    const between = tokens.kind(k) === Tok.times ? k + 1 : k
    if (between === k && !tokens.spaced(k)) return k
    const next = symbol(reader, between, sign)
    if (next === between) return k
    k = next
  }
}

/** What stands behind a slash: one symbol, or several in brackets; the slash itself where it is no part of the unit. */
function below(reader: Reader, slash: number): number {
  const { tokens } = reader
  if (tokens.kind(slash + 1) !== Tok.open) {
    const k = symbol(reader, slash + 1, -1)
    return k === slash + 1 ? slash : k
  }
  const [words, parts] = [reader.words.length, reader.parts.length]
  const k = joined(reader, slash + 2, -1)
  if (k > slash + 2 && tokens.kind(k) === Tok.close) return k + 1
  // A bracket with anything but units in it divides the quantity.
  reader.words.length = words
  reader.parts.length = parts
  return slash
}

/** Behind a slash, a second one or a product sign with a unit: where it is, for it needs brackets. */
function goesOn({ tokens, parts }: Reader, k: number): Span | null {
  const sign = tokens.kind(k)
  const fraction = parts.some(({ power }) => Q.sign(power) < 0)
  if (!fraction || (sign !== Tok.over && sign !== Tok.times)) return null
  const next = { tokens, words: [], parts: [] }
  const end = symbol(next, k + 1, 1)
  return end === k + 1 ? null : { from: tokens.from(k + 1), to: tokens.to(end - 1) }
}

function symbol({ tokens, words, parts }: Reader, k: number, sign: 1 | -1): number {
  const unit = symbolAt(tokens, k)
  if (!unit) return k
  const raised = power(tokens, k + 1)
  const [exponent, next] = raised ?? [Q.ONE, k + 1]
  if (calls(tokens, next) || (unit.stem === 'r' && !perTime(tokens, next))) return k
  words.push({ text: tokens.text(k), from: tokens.from(k), to: tokens.to(k) })
  parts.push({ unit, power: sign === 1 ? exponent : Q.negate(exponent) })
  return next
}

function symbolAt(tokens: Tokens, k: number): UnitSymbol | null {
  const kind = tokens.kind(k)
  if (kind === Tok.degree) return unitSymbol('°')
  if (kind === Tok.odd) return unitSymbol(tokens.text(k))
  return isName(kind) && !isWordOperator(kind) ? unitSymbol(tokens.text(k)) : null
}

/** What a bracket touches is called or indexed, and is no unit. */
function calls(tokens: Tokens, k: number): boolean {
  const kind = tokens.kind(k)
  return (kind === Tok.open || kind === Tok.openSquare) && !tokens.spaced(k)
}

/** A revolution is counted a second, a minute or an hour only. */
function perTime(tokens: Tokens, k: number): boolean {
  return tokens.kind(k) === Tok.over && ['s', 'min', 'h'].includes(tokens.text(k + 1))
}

/** `^2`, `^-1`, `²`, `⁻¹` behind a symbol; `null` where no whole number stands there. */
function power(tokens: Tokens, caret: number): readonly [Rational, number] | null {
  if (tokens.kind(caret) !== Tok.caret) return null
  const negative = tokens.kind(caret + 1) === Tok.minus
  const digits = caret + (negative ? 2 : 1)
  const exponent = tokens.kind(digits) === Tok.number ? Q.fromDecimal(tokens.text(digits)) : null
  if (!exponent || !Q.isInteger(exponent) || Q.toNumber(exponent) > 24) return null
  return [negative ? Q.negate(exponent) : exponent, digits + 1]
}
