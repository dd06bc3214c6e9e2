import type { Names } from './names'
import type { Problem } from './problem'
import { problem, write } from './problem'
import { unitSlip } from '../units/slips'
import { unitSymbol } from '../units/symbols'
import { splitRun } from './suggest'
import type { NameNode, Span } from './tree'
import { RESERVED } from './words'

/** What is said of names that nothing above defines: where they are defined, or which ones could be meant. */

interface Surroundings {
  /** What a fix has to begin with: `*` behind digits. */
  readonly joined: string
  /** The name that the line itself defines. */
  readonly self: string | null
  readonly names: Names
  readonly source: string
  /** True for a part of a run of letters that means something by itself. */
  means(part: string): boolean
}

/** A name that stands for a value. */
export function unknownName(node: NameNode, { joined, self, names, source, means }: Surroundings): Problem {
  const { name } = node
  if (name === 'prev') return problem('no-line-above', node)
  if (name === self) return problem('self-reference', node, { name })
  const unit = unitMeant(node, source)
  if (unit) return unit
  if (RESERVED.has(name)) return problem('reserved-word', node, { name })
  if (names.builtIn(name)) return problem('function-needs-bracket', node, { name }, [write(`${name}()`)])
  const line = names.below(name)
  const parts = splitRun(name, means)
  const factor = parts && oneFactor(parts.join('*'), node, source)
  const fixes = factor ? [{ label: factor.text, replacement: `${joined}${factor.text}` }] : []
  const span = factor ?? node
  if (line !== null) return problem('defined-below', span, { name, line }, fixes)
  if (parts) return problem('names-run-together', span, { name, parts: parts.join('*') }, fixes)
  const near = names.near(name, null)
  const written = near.map((n) => write(`${joined}${n}`))
  return problem('unknown-name', node, { name, near: near.join(', ') }, written)
}

/** Digits, or the end of a bracket, with a blank behind them where a unit would stand. */
const BEFORE_UNIT = /[\d.)\]|][fpnuµmkMGT]?[ij]?\s+$/u
const DIGITS_BEFORE = /([\d.]+(?:[eE][-+]?\d+)?)$/

/** A unit that touches its digits, or a word behind them that is nearly one; `null` of other names. */
function unitMeant(node: NameNode, source: string): Problem | null {
  const { name, from, to } = node
  const before = source.slice(0, from)
  const digits = DIGITS_BEFORE.exec(before)?.[1]
  const symbol = unitSymbol(name)
  if (digits !== undefined) {
    const imaginary = /^[ij]/.test(name) ? unitSymbol(name.slice(1)) : null
    if (symbol) return problem('unit-needs-space', { from: from - digits.length, to }, { text: `${digits}${name}`, unit: `${digits} ${symbol.symbol}` }, [write(`${digits} ${name}`)]) // prettier-ignore
    if (imaginary) return problem('unit-needs-space', { from: from - digits.length, to }, { text: `${digits}${name}`, unit: `${digits}${name.charAt(0)} ${imaginary.symbol}` }, [write(`${digits}${name.charAt(0)} ${name.slice(1)}`)]) // prettier-ignore
  }
  const slip = digits !== undefined || BEFORE_UNIT.test(before) ? unitSlip(name) : null
  if (!slip) return null
  if (slip.why === 'prefix' && digits !== undefined) return null
  const gap = digits === undefined ? '' : ' '
  const data = { name, meant: slip.meant, why: slip.why }
  if (slip.why === 'seconds') {
    // The prefix goes to the digits: 2 ks is 2k s.
    const [whole, numeral] = /([\d.]+)\s*$/.exec(before) ?? []
    const start = whole === undefined ? from : from - whole.length
    return problem('unit-slip', { from: start, to }, data, numeral === undefined ? [] : [write(`${numeral}${slip.meant}`)]) // prettier-ignore
  }
  const meant = slip.meant === '' ? [] : [slip.meant, ...(slip.also ?? [])]
  return problem('unit-slip', node, data, meant.map((unit) => write(`${gap}${unit}`))) // prettier-ignore
}

/** Behind these a product of several names counts as one factor only in brackets. */
const BINDS_BEFORE = /(?:[/÷^∠]|\/_|\bmod)\s*[-+]?$/u

/** The power of a name. */
const POWER = /^\s*(?:\^\s*[-+]?(?:\d+(?:\.\d+)?|[\p{L}_][\p{L}\p{Nd}_]*|\([^()]*\))|[²³⁻⁰¹⁴-⁹]+)/u

/**
 * A product in the place of one name; in brackets where what stands before it would take its first factor only. A
 * power behind the name belongs to its last letter: the bracket closes behind it.
 */
function oneFactor(product: string, { from, to }: Span, source: string): Span & { readonly text: string } {
  if (!BINDS_BEFORE.test(source.slice(0, from))) return { text: product, from, to }
  const power = POWER.exec(source.slice(to))?.[0] ?? ''
  return { text: `(${product}${power})`, from, to: to + power.length }
}

/** A name directly before a bracket, where no function of that name is known. */
export function unknownFunction(callee: NameNode, self: string | null, names: Names): Problem {
  const { name } = callee
  const line = names.below(name)
  const near = names.near(name, 'function')
  if (name === self) return problem('recursive', callee, { name })
  if (line !== null) return problem('defined-below', callee, { name, line })
  return problem('unknown-name', callee, { name, near: near.join(', ') }, near.map(write))
}

/** `sin^-1(x)`: the inverse function, or one over it? `inner` is the bracket with its argument. */
export function inverseUnclear(call: Span, name: string, inner: string, inverse: string | null): Problem {
  const fixes = inverse ? [write(`${inverse}${inner}`)] : []
  return problem('inverse-unclear', call, { name }, [...fixes, write(`1/${name}${inner}`)])
}
