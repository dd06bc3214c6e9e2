import type { Solved, Value } from '../values/types'
import { sweepIn } from '../values/quantity'

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six'] as const
const TIMES: Readonly<Record<number, string>> = { 2: 'double', 3: 'threefold', 4: 'fourfold', 5: 'fivefold' }

const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`
const word = (n: number): string => NUMBERS[n] ?? String(n)

/** How equations were solved, in one line: `2 equations, 2 sought, one solution`. */
export function solvedWords(
  { equations, solutions, multiplicities, free, spare, way, more }: Solved,
  parts: ReadonlyMap<string, Value>,
): string {
  // prettier-ignore
  const counts = `${counted(equations, 'equation')}, ${parts.size} sought`
  const several = solutions > 1
  const swept = !several && [...parts.values()].some((value) => sweepIn(value) !== null)
  const found = free.length > 0 ? `${listed(free)} ${free.length === 1 ? 'stays' : 'stay'} free` : `${word(solutions)} ${solutions === 1 ? 'solution' : 'solutions'}${swept ? ' at each point' : ''}${way === 'search' ? ' found' : ''}` // prettier-ignore
  return [
    `${counts}, ${found}`,
    ...multiplicitiesIn(multiplicities),
    ...(spare > 0 ? [`${word(spare)} ${spare === 1 ? 'equation follows' : 'equations follow'} from the others`] : []),
    ...(more ? ['there may be more'] : []),
  ].join('; ')
}

function multiplicitiesIn(times: readonly number[]): readonly string[] {
  const many = times.flatMap((n, k) => (n > 1 ? [times.length === 1 ? `it is ${TIMES[n] ?? `${n}-fold`}` : `number ${k + 1} is ${TIMES[n] ?? `${n}-fold`}`] : [])) // prettier-ignore
  return many.length > 0 ? [many.join(', ')] : []
}

function listed(names: readonly string[]): string {
  return names.length === 1 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}
