import type { KindWord, Needed } from '../values/problemData'

/** What a value is called in a sentence. */
const WORDS: Readonly<Record<KindWord | Needed, string>> = {
  number: 'a number',
  angle: 'an angle',
  text: 'a text',
  truth: 'a truth value',
  check: 'a check',
  function: 'a function',
  vector: 'a vector',
  matrix: 'a matrix',
  parts: 'a result with parts',
  array: 'a vector or a matrix',
  'complex number': 'a complex number',
  real: 'a real number',
  whole: 'a whole number',
  quantity: 'a real number or an angle',
  scalar: 'a number or an angle',
  sweep: 'a sweep',
  'real sweep': 'a sweep of real numbers',
  polynomial: 'a polynomial',
  'algebra-matrix': 'a matrix with unknowns',
  algebra: 'a polynomial',
  any: 'a value',
}

export function kindWords(kind: KindWord): string {
  return WORDS[kind]
}

/** What a parameter asks for. */
export function neededWords(needed: Needed): string {
  return needed === 'angle' ? 'an angle or a number' : WORDS[needed]
}
