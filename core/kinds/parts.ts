import { readoutToLatex } from '../format/latex'
import type { PartsValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'
import { doublesOfAll } from './weight'

/** Results with named parts: what a decomposition comes to. */
export const parts: KindOf<PartsValue> = {
  ...PLAIN,
  words: 'a result with parts',
  text: (value) => [...value.parts.keys()].map((name) => `.${name}`).join(' '),
  readout: (value, to) => ({ shape: 'words', text: to.text(value) }),
  fields: (value, to) => ({
    kind: 'parts',
    parts: Object.fromEntries([...value.parts].map(([name, part]) => [name, to.fields(part)])),
  }),
  copies: plainCopies((text, { conventions }) => readoutToLatex(text, conventions.letter)),
  equals: () => null,
  doubles: (value, of) => doublesOfAll([...value.parts.values()], of),
}
