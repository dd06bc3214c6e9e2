import { fractionText, fullNumber } from '../format/full'
import { numeral } from '../format/json'
import { numberLatex } from '../format/latex'
import {
  edgeWords,
  formatNumber,
  formatPolar,
  formatRectangular,
  isComplex,
  quiet,
  showsAll,
  twin,
} from '../format/number'
import * as C from '../numbers/complex'
import { drawnNumber } from '../scene/drawn'
import * as A from '../values/arithmetic'
import type { NumberValue } from '../values/types'
import { isAlgebraic, sameAlgebra } from '../algebra/ratio'
import { csvNumber, PLAIN } from './kind'
import type { KindOf } from './kind'

/** Longest fraction worth a mark beside the readout. */
const LONGEST_FRACTION = 24

/** Real and complex numbers. */
export const number: KindOf<NumberValue> = {
  ...PLAIN,
  words: 'a number',
  text: (value, { conventions }) => formatNumber(value, conventions),
  readout(value, { conventions }) {
    if (!C.isFinite(value)) return { shape: 'words', text: edgeWords(value) }
    return isComplex(value)
      ? { shape: 'twin', ...twin(value, conventions) }
      : { shape: 'single', text: formatNumber(value, conventions) }
  },
  fields(value, { conventions }) {
    const { exact, re, im } = value
    return {
      kind: 'number',
      exact: exact !== null,
      re: numeral(re),
      im: numeral(im),
      rectangular: isComplex(value) ? formatRectangular(value, conventions) : formatNumber(value, conventions),
      polar: formatPolar(value, conventions),
      ...(exact ? { fraction: fractionText(exact, conventions.letter) } : {}),
    }
  },
  copies: {
    shown: (value, { conventions }) => formatNumber(value, conventions),
    full: (value, { conventions }) => fullNumber(value, conventions),
    polar: (value, { conventions }) => (isComplex(value) ? formatPolar(value, conventions) : null),
    latex: (value, { conventions }) => numberLatex(value, conventions),
    csv: (value, to) => [...(isComplex(value) ? ['re,im'] : []), to.record(value, isComplex(value))].join('\r\n'),
    record(value, _, complex) {
      const { re, im } = quiet(value)
      return complex ? `${csvNumber(re)},${csvNumber(im)}` : csvNumber(re)
    },
  },
  exactness(value, conventions) {
    if (!value.exact) return { shown: 'rounded', fraction: null }
    if (showsAll(value, conventions)) return { shown: 'exact', fraction: null }
    const text = fractionText(value.exact, conventions.letter)
    return { shown: 'exact-rounded', fraction: text.length <= LONGEST_FRACTION ? text : null }
  },
  equals(a, b) {
    if (b.kind === 'number') return A.equal(a, b)
    return isAlgebraic(b) ? sameAlgebra(a, b) : null
  },
  ordered: true,
  order: A.order,
  identical(a, b) {
    const exactness = (a.exact === null) === (b.exact === null) && (a.pi === null) === (b.pi === null)
    if (!exactness || a.complex !== b.complex) return false
    const small = a.exact === null || (typeof a.exact.re.n === 'number' && typeof a.exact.im.n === 'number')
    return small && Object.is(a.re, b.re) && Object.is(a.im, b.im) && sameExact(a, b)
  },
  real: (value) => (value.im === 0 ? value : null),
  drawn: (value, _, { conventions }, shown) => drawnNumber(value, conventions, shown),
  point: ({ re, im }) => ({ re, im }),
}

function sameExact(x: NumberValue, y: NumberValue): boolean {
  const pairs = [
    [x.exact?.re, y.exact?.re],
    [x.exact?.im, y.exact?.im],
    [x.pi?.re, y.pi?.re],
    [x.pi?.im, y.pi?.im],
  ] as const
  return pairs.every(([p, q]) => p?.n === q?.n && p?.d === q?.d)
}
