import { sameDelay } from '../algebra/delayed'
import { sameAlgebra, unknownsOf } from '../algebra/ratio'
import { delayLatex, delayText } from '../format/delayed'
import { ALONG_AXIS, frequencyCurve, isTransfer } from '../control/frequencyCurve'
import type { DelayedValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'

/** Ratios of polynomials behind a delay. */
export const delayed: KindOf<DelayedValue> = {
  ...PLAIN,
  words: 'a ratio behind a delay',
  text: (value, { conventions }) => delayText(value, conventions),
  readout: (value, to) => ({ shape: 'algebra', latex: delayLatex(value, to.conventions), text: to.text(value) }),
  fields: (value, to) => ({
    kind: 'delayed',
    text: to.text(value),
    unknowns: [...unknownsIn(value)],
    delay: value.delay.re,
  }),
  copies: {
    ...plainCopies<DelayedValue>((text) => text),
    latex: (value, { conventions }) => delayLatex(value, conventions),
  },
  drawn: (value) => (isTransfer(value) ? ALONG_AXIS : null),
  curve: (value) => frequencyCurve(value),
  equals: (a, b) => (b.kind === 'delayed' ? sameDelay(a, b) && sameAlgebra(a.ratio, b.ratio) : null),
}

const unknownsIn = ({ ratio, unknown }: DelayedValue): ReadonlySet<string> =>
  new Set([...(ratio.kind === 'polynomial' ? unknownsOf(ratio) : []), unknown])
