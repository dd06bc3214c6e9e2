import { pathToFileURL } from 'node:url'
import { bundled, nameOf, treeOf } from '../scripts/atCommit.mjs'
import { ROOT } from '../scripts/lib.mjs'
import { median, share } from './measuring.mjs'

/** The cases with the core of an older commit and with what is here, by turns: a noisy machine is noisy for both. */
const ROUNDS = 31
const SLICE = 20_000_000

const clock = () => Number(process.hrtime.bigint())

function timed(run, calls) {
  const start = clock()
  for (let k = 0; k < calls; k += 1) run()
  return (clock() - start) / calls
}

/** How many calls take long enough to be told from noise, once the code is compiled. */
function calibrated(run) {
  const warm = clock() + 3e8
  while (clock() < warm) run()
  let calls = 1
  while (timed(run, calls) * calls < SLICE) calls *= 2
  return calls
}

export async function against(commit, tell) {
  const load = async (tree, name) => (await import(pathToFileURL(await bundled('bench/cases.ts', tree, name)).href)).cases() // prettier-ignore
  const [before, now] = [await load(treeOf(commit), 'bench-before'), await load(ROOT, 'bench-now')]
  tell(`Beside ${nameOf(commit)}: the median of ${ROUNDS} pairs, and the middle half of them`)
  now.forEach(({ name, run }, k) => {
    const [calls, oldCalls] = [calibrated(run), calibrated(before[k].run)]
    const pairs = Array.from({ length: ROUNDS }, (_, round) => {
      const mine = () => timed(run, calls)
      const old = () => timed(before[k].run, oldCalls)
      if (round % 2 === 0) return [mine(), old()]
      const first = old()
      return [mine(), first]
    })
    const ratios = pairs.map(([mine, old]) => mine / old)
    const at = (part) => share(ratios, part).toFixed(3)
    tell(
      `${at(0.5)} (${at(0.25)} to ${at(0.75)})  ${name}: ${(median(pairs.map(([mine]) => mine)) / 1e6).toPrecision(3)} ms`,
    )
  })
}
