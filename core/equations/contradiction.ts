import { exactRank } from '../linear/exact'
import * as G from '../numbers/gaussian'
import { contradictsItself, equilibrated, isExactSystem, reducedRounded } from './scaled'
import type { LinearSystem } from './scaled'

/** Which linear equations contradict one another. */

/** Most subsets that are tried in looking for the smallest. */
const SUBSETS_MOST = 3_000

/**
 * The smallest set of equations without a common solution, counted from 0: all sets are tried by size while there are
 * few enough; else equations are left out one after another as long as what is left still contradicts itself.
 */
export function contradiction(system: LinearSystem): readonly number[] {
  const all = system.rows.map((_, k) => k)
  const contradicts = isExactSystem(system) ? exactTest(system) : roundedTest(system)
  let left = all
  for (const k of all) {
    const without = left.filter((other) => other !== k)
    if (contradicts(without)) left = without
  }
  let tried = 0
  for (let size = 1; size < left.length; size += 1)
    for (const set of subsets(all, size)) {
      tried += 1
      if (tried > SUBSETS_MOST) return left
      if (contradicts(set)) return set
    }
  return left
}

function* subsets(of: readonly number[], size: number, from = 0): Generator<readonly number[]> {
  if (size === 0) {
    yield []
    return
  }
  for (let k = from; k <= of.length - size; k += 1)
    for (const rest of subsets(of, size - 1, k + 1)) yield [of[k] ?? 0, ...rest]
}

type Test = (rows: readonly number[]) => boolean

/** The rank grows with the right sides. */
function exactTest({ rows, right, names }: LinearSystem): Test {
  const rankOf = (set: readonly number[], augmented: boolean): number | null => {
    const entries = set.flatMap((k) => [...(rows[k] ?? []), ...(augmented ? [right[k]] : [])].map((x) => x?.exact ?? G.ZERO)) // prettier-ignore
    return exactRank({ rows: set.length, cols: names.length + (augmented ? 1 : 0), entries })
  }
  return (set) => {
    const [plain, augmented] = [rankOf(set, false), rankOf(set, true)]
    return plain !== null && augmented !== null && augmented > plain
  }
}

function roundedTest({ rows, right, names }: LinearSystem): Test {
  return (set) => {
    if (set.length === 0) return false
    const part = { names, rows: set.map((k) => rows[k] ?? []), right: set.flatMap((k) => right[k] ?? []) }
    return contradictsItself(reducedRounded(equilibrated(part)))
  }
}
