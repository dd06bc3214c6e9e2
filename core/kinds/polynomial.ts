import { polynomialLatex, polynomialText } from '../format/polynomial'
import { isAlgebraic, sameAlgebra, unknownsOf } from '../algebra/ratio'
import { ALONG_AXIS, frequencyCurve, isTransfer } from '../control/frequencyCurve'
import type { PolynomialValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'

/** Polynomials and ratios of them. */
export const polynomial: KindOf<PolynomialValue> = {
  ...PLAIN,
  words: 'a polynomial',
  text: (value, { conventions }) => polynomialText(value, conventions),
  readout: (value, to) => ({
    shape: 'algebra',
    latex: polynomialLatex(value, to.conventions),
    text: to.text(value),
  }),
  fields: (value, to) => ({ kind: 'polynomial', text: to.text(value), unknowns: [...unknownsOf(value)] }),
  copies: {
    ...plainCopies<PolynomialValue>((text) => text),
    latex: (value, { conventions }) => polynomialLatex(value, conventions),
  },
  equals: (a, b) => (isAlgebraic(b) ? sameAlgebra(a, b) : null),
  drawn: (value) => (isTransfer(value) ? ALONG_AXIS : null),
  curve: (value) => frequencyCurve(value),
}
