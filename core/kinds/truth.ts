import type { TruthValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'

/** What a comparison comes to. */
export const truth: KindOf<TruthValue> = {
  ...PLAIN,
  words: 'a truth value',
  text: (value) => (value.truth ? 'true' : 'false'),
  readout: (value, to) => ({ shape: 'words', text: to.text(value) }),
  fields: (value) => ({ kind: 'truth', value: value.truth }),
  copies: plainCopies((text) => `\\text{${text}}`),
  equals: (a, b) => (b.kind === 'truth' ? a.truth === b.truth : null),
  identical: (a, b) => a.truth === b.truth,
}
