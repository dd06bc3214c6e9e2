import type { FunctionValue } from '../values/types'
import { PLAIN } from './kind'
import type { KindOf } from './kind'

/** Functions that a line defines. */
export const functionKind: KindOf<FunctionValue> = {
  ...PLAIN,
  words: 'a function',
  text: ({ name, parameters }) => `${name}(${parameters.join(', ')})`,
  readout: () => ({ shape: 'none' }),
  fields: () => ({ kind: 'function' }),
  copies: null,
  equals: () => null,
  atPoints: false,
}
