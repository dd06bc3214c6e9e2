import { timeFunctionLatex, timeFunctionText } from '../format/delayed'
import { sameAlgebra } from '../algebra/ratio'
import type { TimeFunctionValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'

/** Functions of time in closed form. */
export const timeFunction: KindOf<TimeFunctionValue> = {
  ...PLAIN,
  words: 'a function of time',
  text: (value, { conventions }) => timeFunctionText(value, conventions),
  readout: (value, to) => ({ shape: 'algebra', latex: timeFunctionLatex(value, to.conventions), text: to.text(value) }),
  fields: (value, to) => ({ kind: 'time-function', text: to.text(value), unknowns: [value.time] }),
  copies: {
    ...plainCopies<TimeFunctionValue>((text) => text),
    latex: (value, { conventions }) => timeFunctionLatex(value, conventions),
  },
  equals: (a, b) => (b.kind === 'time-function' && a.time === b.time ? sameAlgebra(a.of, b.of) : null),
}
