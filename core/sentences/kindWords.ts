import { isKind, kindWords as wordsOf } from '../kinds/kinds'
import type { KindWord, Needed } from '../values/problemData'
import type { Kind } from '../values/types'

/** What a value is called in a sentence. */
export function kindWords(kind: KindWord): string {
  return kind === 'complex number' ? 'a complex number' : wordsOf(kind)
}

/** What no kind is called, and a parameter can ask for. */
const NEEDED: Readonly<Record<Exclude<Needed, Kind>, string>> = {
  real: 'a real number',
  whole: 'a whole number',
  'real or angle': 'a real number or an angle',
  scalar: 'a number or an angle',
  'real sweep': 'a sweep of real numbers',
  array: 'a vector or a matrix',
  algebra: 'a polynomial',
  any: 'a value',
}

/** What a parameter asks for. */
export function neededWords(needed: Needed): string {
  if (needed === 'angle') return 'an angle or a number'
  return isKind(needed) ? wordsOf(needed) : NEEDED[needed]
}
