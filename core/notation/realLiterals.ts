import { childrenOf } from './references'
import type { Node, Span } from './tree'

/** The real numbers that stand in an entry as they were written: what can be taken in hand. */
export interface RealLiteral extends Span {
  /** The digits with their sign where it belongs to them; what stands behind them, as a prefix does, stays. */
  readonly digits: Span
  /** What the digits say, without a prefix. */
  readonly value: number
}

const DIGITS = /^(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?/i

/** In the order of the text. Codes such as 4k7 and imaginary numbers are left out. */
export function realLiterals(source: string, body: Node | null): readonly RealLiteral[] {
  const found: RealLiteral[] = []
  const look = (node: Node): void => {
    if (node.type === 'literal' && node.letter === 'none' && node.value.kind === 'number' && node.value.im === 0) {
      const text = source.slice(node.from, node.to)
      const [digits = ''] = DIGITS.exec(text) ?? []
      const rest = text.slice(digits.length)
      if (digits !== '' && /^\D*$/.test(rest))
        found.push({ from: node.from, to: node.to, digits: { from: node.from, to: node.from + digits.length }, value: Number(digits) }) // prettier-ignore
    }
    for (const child of childrenOf(node)) look(child)
  }
  if (body) look(body)
  return found.sort((a, b) => a.from - b.from)
}

/** The literal at a place of the text, or the one that is nearest before it, or the first. */
export function literalNear(all: readonly RealLiteral[], at: number): RealLiteral | null {
  const inside = all.find((one) => one.from <= at && at <= one.to)
  return inside ?? all.findLast((one) => one.to <= at) ?? all[0] ?? null
}

/** One step that suits a literal: its last written place, or a finer one of about a tenth of its first digit. */
export function stepOf(text: string): number {
  const value = Math.abs(Number(text))
  const [, decimals = '', exponent = '0'] = /^\d*\.?(\d*)(?:e([+-]?\d+))?$/i.exec(text) ?? []
  const last = 10 ** (Number(exponent) - decimals.length)
  const hundredth = value > 0 ? 10 ** (Math.floor(Math.log10(value)) - 1) : 0.01
  return Math.min(last, Math.max(hundredth, 1e-300))
}

/** The entry with another number in the place of a literal, to so many decimals as the step has. */
export function withNumber(
  source: string,
  { digits }: Pick<RealLiteral, 'digits'>,
  value: number,
  step: number,
): string {
  return source.slice(0, digits.from) + numberText(source, digits.from, value, step) + source.slice(digits.to)
}

/** The places behind the point that a step needs. */
function decimalsOf(step: number): number {
  const [, places = '', exponent = '0'] =
    /^\d*\.?(\d*)(?:e([+-]?\d+))?$/.exec(String(Number(step.toPrecision(12)))) ?? []
  return Math.max(0, Math.min(20, places.length - Number(exponent)))
}

function numberText(source: string, from: number, value: number, step: number): string {
  const decimals = decimalsOf(step)
  const rounded = Math.round(value / step) * step
  const size = Math.abs(rounded)
  const plain = size !== 0 && (size >= 1e15 || size < 1e-9) ? size.toExponential(3) : size.toFixed(decimals)
  // A sign that would meet another one stands in brackets.
  if (!(rounded < 0)) return plain
  const before = source.slice(0, from).trimEnd()
  return before === '' || /[=(,[]$/.test(before) ? `-${plain}` : `(-${plain})`
}
