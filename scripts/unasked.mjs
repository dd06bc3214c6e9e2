import { say } from './lib.mjs'

/** How many tests were skipped for each reason. */
export function unasked(units, specs) {
  const reasons = [
    ...units.testResults
      .flatMap(({ assertionResults }) => assertionResults)
      .filter(({ status }) => status === 'pending')
      .map(({ fullName }) => /\(asks ([^)]+)\)/.exec(fullName)?.[1] ?? fullName),
    ...specs
      .filter(({ tests }) => tests.every(({ status }) => status === 'skipped'))
      .map(({ title, tests }) => tests.flatMap(({ annotations }) => annotations).find(({ type }) => type === 'skip')?.description ?? title), // prettier-ignore
  ]
  const counts = new Map()
  for (const reason of reasons) counts.set(reason, (counts.get(reason) ?? 0) + 1)
  return counts
}

/** In one line, who was not asked on this machine, and what was left to another command. */
export function tellUnasked(units, specs) {
  const counts = [...unasked(units, specs)].map(([reason, count]) => `${reason} (${count})`)
  if (counts.length > 0) say(`Skipped here, by what is missing or who runs it: ${counts.join('; ')}`)
}
