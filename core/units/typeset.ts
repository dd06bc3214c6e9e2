import * as Q from '../numbers/rational'
import { sidesOf } from './unit'
import type { Unit, UnitPart } from './unit'

/** A unit as LaTeX: upright, products with a thin space, what it is divided by under a slash. */
export function unitLatex({ parts }: Unit): string {
  const { above, below } = sidesOf(parts)
  const top = above.map(partLatex).join('\\,')
  const bottom = below.map(partLatex).join('\\,')
  if (below.length === 0) return top
  if (above.length === 0) return parts.map(partLatex).join('\\,')
  return `${top}/${below.length > 1 ? `(${bottom})` : bottom}`
}

const SIGNS: Readonly<Record<string, string>> = { '%': '\\%', '‰': '\\text{‰}', '°': '{}^{\\circ}' }

function partLatex({ unit: { symbol, stem }, power }: UnitPart): string {
  const sign = SIGNS[symbol]
  const prefix = symbol.slice(0, symbol.length - stem.length)
  const letters = stem === 'Ω' ? `\\Omega` : `\\mathrm{${stem}}`
  const before = prefix === '' ? '' : prefix === 'µ' ? '\\text{µ}' : `\\mathrm{${prefix}}`
  const name = sign ?? (before === '' || stem === 'Ω' || prefix === 'µ' ? `${before}${letters}` : `\\mathrm{${symbol}}`)
  return power.n === 1 && power.d === 1 ? name : `${name}^{${Q.toText(power)}}`
}
