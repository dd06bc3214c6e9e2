import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { CACHE, ROOT, say } from './lib.mjs'

/** How long tests took: of the last runs on this machine, and the slowest of one run. */
const FILE = join(CACHE, 'durations.json')
const SLOWEST = 10

/** In milliseconds, by file. */
export function knownDurations() {
  return existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}
}

export function keepDurations({ testResults }) {
  const taken = testResults.map(({ name, startTime, endTime }) => [relative(ROOT, name), endTime - startTime])
  mkdirSync(CACHE, { recursive: true })
  writeFileSync(FILE, JSON.stringify({ ...knownDurations(), ...Object.fromEntries(taken) }))
  return taken.map(([name, milliseconds]) => ({ name, seconds: milliseconds / 1000 }))
}

/** What took longest, first. */
export function tellSlowest(what, taken) {
  say(`\nThe slowest ${what}:`)
  for (const { name, seconds } of taken.sort((a, b) => b.seconds - a.seconds).slice(0, SLOWEST))
    say(`${seconds.toFixed(1).padStart(7)} s  ${name}`)
}
