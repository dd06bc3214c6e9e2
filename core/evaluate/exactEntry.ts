import { inverseOf, standardName } from '../functions/registry'
import { parseLine } from '../notation/parser'
import type { Gaussian } from '../numbers/gaussian'
import { evaluateLine } from './line'

/** An entry without names as an exact number; `null` where it is none. */
export function exactEntry(source: string, letter: 'i' | 'j'): Gaussian | null {
  const { value } = evaluateLine(parseLine(source), {
    angleUnit: 'deg',
    letter,
    timeLimit: 200,
    above: () => null,
    below: () => null,
    anywhere: () => false,
    builtIn: standardName,
    inverseOf,
    near: () => [],
  })
  return value?.kind === 'number' ? value.exact : null
}
