import type { Conventions } from '../format/conventions'
import { readoutToLatex } from '../format/latex'
import { formatNumber, formatPolar, isComplex, quiet, showsAll } from '../format/number'
import { showsWhole } from '../format/parts'
import { polynomialLatex } from '../format/polynomial'
import { typesettingOf } from '../functions/registry'
import { copyText, exactness } from '../kinds/kinds'
import { escapeText, pmatrixOfRows } from '../notation/latex'
import type { ReadingStyle, TypesetValue } from '../notation/latex'
import { childrenOf } from '../notation/references'
import type { Form, Node, Valued } from '../notation/tree'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import { asDegrees } from '../values/convert'
import { itemsOf } from '../values/matrices'
import type { NumberValue, PolynomialValue, Value } from '../values/types'
import { imaginaryPart, realPart } from './terms'

/** How values stand in a working: in the form they go on in, parts that are zero left out. */

/** Sides of a matrix up to which all of it stands in a working. */
export const SIDE_SHOWN = 8

/** The conventions in which a value of a form is written. */
export function conventionsFor(form: Form, conventions: Conventions): Conventions {
  return form === 'fraction' && conventions.exact === 'decimal' ? { ...conventions, exact: 'fraction' } : conventions
}

/** How the terms of a working are typeset. */
export function readingStyle(
  bare: ReadonlySet<Node>,
  conventions: Conventions,
  guarded: ReadonlySet<Node>,
): ReadingStyle {
  // prettier-ignore
  const finer = { ...conventions, digits: Math.min(conventions.digits + 1, 16) }
  // A value stands in many steps, and is asked for several times in each.
  const known = new Map<Node, TypesetValue>()
  return {
    letter: conventions.letter,
    bare,
    angleUnit: conventions.angle,
    grouping: false,
    typesetting: typesettingOf,
    valued(node) {
      const before = known.get(node)
      if (before) return before
      const made = typesetValue(node, guarded.has(node) ? finer : conventions)
      known.set(node, made)
      return made
    },
  }
}

/** A value in its form as LaTeX. */
export function typesetValue({ value, form }: Valued, conventions: Conventions): TypesetValue {
  const own = conventionsFor(form, conventions)
  switch (value.kind) {
    case 'number':
      return typesetNumber(value, form, own)
    case 'angle': {
      const latex = copyText(value, 'latex', own) ?? ''
      return { latex, holds: value.radians < 0 ? 'sum' : 'factor' }
    }
    case 'quantity': {
      const latex = copyText(value, form === 'polar' ? 'polar' : 'latex', own) ?? ''
      if (form === 'polar') return { latex: readoutToLatex(latex, own.letter), holds: 'polar' }
      const negative = value.value.kind === 'number' && value.value.im === 0 && value.value.re < 0
      return { latex, holds: negative ? 'sum' : 'factor' }
    }
    case 'vector': {
      if (value.items.length > 2 * SIDE_SHOWN) return words(`a vector of ${value.items.length} entries`)
      const entries = value.items.map((item) => typesetValue({ ...PLAIN_NODE, value: item, form }, conventions).latex)
      return { latex: pmatrixOfRows(entries), holds: 'one' }
    }
    case 'matrix': {
      const { rows, cols } = value
      if (rows > SIDE_SHOWN || cols > SIDE_SHOWN) return words(`a ${rows} × ${cols} matrix`)
      const items = itemsOf(value).map((item) => typesetValue({ ...PLAIN_NODE, value: item, form }, conventions).latex)
      const lines = Array.from({ length: rows }, (_, r) => items.slice(r * cols, (r + 1) * cols).join(' & '))
      return { latex: pmatrixOfRows(lines), holds: 'one' }
    }
    case 'polynomial': {
      return { latex: polynomialLatex(value, own), holds: polynomialHolds(value) }
    }
    case 'text':
      return words(`“${value.text}”`)
    case 'truth':
      return words(value.truth ? 'true' : 'false')
    case 'sweep':
      return words(`a sweep of ${value.count} points`)
    case 'check':
      return words(value.pass ? 'they agree' : 'they do not agree')
    case 'function':
      return words(value.name)
    case 'parts':
      return { latex: [...value.parts].map(([name, part]) => `\\text{.${escapeText(name)}} = ${typesetValue({ ...PLAIN_NODE, value: part, form: 'plain' }, conventions).latex}`).join(',\\; '), holds: 'sum' } // prettier-ignore
    default:
      return { latex: copyText(value, 'latex', own) ?? '', holds: 'one' }
  }
}

function polynomialHolds({ top, bottom }: PolynomialValue): TypesetValue['holds'] {
  const [only, ...more] = top.terms
  if (bottom) return 'factor'
  if (!only || more.length > 0 || only.factor.re < 0) return 'sum'
  const one = only.factor.re === 1 && only.factor.im === 0
  const letters = only.powers.filter((n) => n > 0)
  if (!one || letters.length !== 1) return 'product'
  return letters[0] === 1 ? 'one' : 'factor'
}

const PLAIN_NODE = { type: 'valued', from: 0, to: 0 } as const

function words(text: string): TypesetValue {
  return { latex: `\\text{${escapeText(text)}}`, holds: 'one' }
}

function typesetNumber(value: NumberValue, form: Form, conventions: Conventions): TypesetValue {
  if (!C.isFinite(value)) return edge(value)
  if (form === 'polar' && isComplex(value))
    return { latex: readoutToLatex(formatPolar(value, conventions), conventions.letter), holds: 'polar' }
  const { re, im } = value.exact ? value : quiet(value)
  if (!isComplex(value) || im === 0) return typesetReal(isComplex(value) ? realPart(value) : value, conventions)
  if (re === 0) {
    const part = typesetReal(imaginaryPart(value), conventions)
    const letter = `\\mathrm{${conventions.letter}}`
    const minus = part.latex.startsWith('-') ? '-' : ''
    const size = minus ? part.latex.slice(1).trim() : part.latex
    const one = size === '1' ? '' : size
    const text = conventions.place === 'before' ? `${minus}${letter}${one}` : `${minus}${one}${letter}`
    return { latex: text, holds: minus ? 'sum' : 'factor' }
  }
  return { latex: readoutToLatex(formatNumber(value, conventions), conventions.letter), holds: 'sum' }
}

function typesetReal(value: NumberValue, conventions: Conventions): TypesetValue {
  const latex = readoutToLatex(formatNumber(value, conventions), conventions.letter)
  const compound = /\d\s*[+]\s*\d/.test(latex)
  if (value.re < 0 || compound) return { latex, holds: 'sum' }
  return { latex, holds: /^[\d.]+$/.test(latex) ? 'one' : 'factor' }
}

function edge({ re, im, complex }: NumberValue): TypesetValue {
  if (Number.isNaN(re) || Number.isNaN(im)) return words('undefined')
  if (im !== 0 || complex) return { latex: '\\infty', holds: 'one' }
  return re > 0 ? { latex: '\\infty', holds: 'one' } : { latex: '-\\infty', holds: 'sum' }
}

/** True where the figures on show are the whole of every value in a term. */
export function termShowsWhole(node: Node, conventions: Conventions): boolean {
  if (node.type === 'valued') return isWhole(node.value, node.form, conventions)
  return childrenOf(node).every((child) => termShowsWhole(child, conventions))
}

function isWhole(value: Value, form: Form, conventions: Conventions): boolean {
  const own = conventionsFor(form, conventions)
  switch (value.kind) {
    case 'number':
      if (value.pi) return own.exact !== 'decimal' && (value.pi.re.n !== 0) === (value.re !== 0) && value.im === 0
      if (!C.isFinite(value)) return true
      if (form === 'polar' && isComplex(value)) return polarIsWhole(value, own)
      return showsAll(value, own) || (value.exact === null && partsAreWhole(value, own))
    case 'angle': {
      const degrees = value.turns && Q.multiply(value.turns, { n: 360, d: 1 })
      if (!degrees) return own.angle === 'deg' && own.degrees === 'decimal' && partsAreWhole({ re: asDegrees(value), im: 0 }, own) // prettier-ignore
      if (own.angle === 'rad') return own.exact !== 'decimal' || value.radians === 0
      return own.degrees === 'decimal' && showsWhole(Q.toNumber(degrees), degrees, own)
    }
    case 'vector':
      return value.items.every((item) => isWhole(item, form, conventions))
    case 'matrix':
      return value.exact !== null && itemsOf(value).every((item) => isWhole(item, form, conventions))
    case 'polynomial':
      return [value.top, ...(value.bottom ? [value.bottom] : [])].every((p) =>
        p.terms.every(({ factor }) => isWhole(factor, form, conventions)),
      )
    case 'quantity':
      return form !== 'polar' && exactness(value, own)?.shown === 'exact'
    case 'text':
    case 'truth':
      return true
    default:
      return false
  }
}

/** Most digits at which figures that meet a rounded value do not do so by chance. */
const TELLING_DIGITS = 10

/** Rounded figures are whole where those on show are the value, but for the last bits. */
function partsAreWhole({ re, im }: C.Complex, { digits, style }: Conventions): boolean {
  if (digits > TELLING_DIGITS || style === 'prefix') return false
  const size = Math.hypot(re, im)
  return [re, im].every((x) => Math.abs(Number(x.toPrecision(digits)) - x) <= 4e-15 * size)
}

/** Polar figures are whole where the magnitude and the angle on show give the value again. */
function polarIsWhole(value: NumberValue, { digits, angle }: Conventions): boolean {
  const turned = angle === 'deg' ? (C.arg(value) * 180) / Math.PI : C.arg(value)
  const meets = (x: number): boolean => Math.abs(Number(x.toPrecision(digits)) - x) <= 4e-15 * Math.abs(x)
  return digits <= TELLING_DIGITS && meets(C.abs(value)) && meets(turned)
}
