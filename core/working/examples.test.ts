import { FUNCTIONS } from '../functions/registry'
import type { Example } from '../functions/definition'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { TOPICS, TOUR } from '../handbook/topics'
import { Bench, expectJoined, expectTrue } from './verified.testing'

/** Every example of the handbook has a working, and each of its steps holds. */
const EXAMPLES: readonly (readonly [string, Example])[] = [
  ...FUNCTIONS.flatMap((f) => f.examples),
  ...TOPICS.flatMap((t) => t.examples),
  ...TOUR.flatMap((step) => step.lines.slice(0, 1)),
].map((example) => [[...(example.before ?? []), example.entry].join('; '), example] as const)

test.each(EXAMPLES)('%s', (_, { before = [], entry, enclosed }) => {
  const bench = new Bench(DEFAULT_CONVENTIONS, before)
  if (enclosed) bench.evaluator.enclosures.put(enclosed.name, enclosed.name, enclosed.data)
  const { value, working } = bench.work(entry)
  if (value === null || value.kind === 'function') {
    expect(working?.result ?? null).toBeNull()
    return
  }
  if (!working) throw new Error('a line with a value has a working')
  expectTrue(bench, entry, value, working)
  expectJoined(working, DEFAULT_CONVENTIONS)
})
