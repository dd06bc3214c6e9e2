import { readoutToLatex } from '../format/latex'
import { solvedWords } from '../format/solvedWords'
import type { PartsValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'
import { doublesOfAll } from './weight'

/** Results with named parts: what a decomposition comes to, and what equations were solved for. */
export const parts: KindOf<PartsValue> = {
  ...PLAIN,
  words: 'a result with parts',
  text: ({ parts: all, solved, listed }, to) =>
    solved || listed
      ? [...all].map(([name, part]) => (part.kind === 'parts' ? `.${name}` : `${name} = ${to.text(part)}`)).join(', ')
      : [...all.keys()].map((name) => `.${name}`).join(' '),
  readout: (value, to) => ({
    shape: 'words',
    text: value.solved ? solvedWords(value.solved, value.parts) : to.text(value),
    ...(value.listed ? { broad: true } : {}),
  }),
  fields: ({ parts: all, solved }, to) => ({
    kind: 'parts',
    parts: Object.fromEntries([...all].map(([name, part]) => [name, to.fields(part)])),
    ...(solved ? { solutions: solved.solutions, multiplicities: solved.multiplicities, free: solved.free, more: solved.more } : {}), // prettier-ignore
  }),
  copies: plainCopies((text, { conventions }) => readoutToLatex(text, conventions.letter)),
  equals: () => null,
  doubles: (value, of) => doublesOfAll([...value.parts.values()], of),
}
