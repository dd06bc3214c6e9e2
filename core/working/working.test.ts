import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { line } from './randomLines.testing'
import { Bench, expectJoined, expectTrue } from './verified.testing'

const RUNS = Number(process.env.WORKING_RUNS ?? 20_000)

test(`${RUNS} random lines: every step holds as it says, and the last one has the line's value`, () => {
  const bench = new Bench()
  let worked = 0
  fc.assert(
    fc.property(line, (text) => {
      const { value, working } = bench.work(text)
      if (!working) return
      worked += 1
      expectTrue(bench, text, value, working)
      expectJoined(working, DEFAULT_CONVENTIONS)
    }),
    { numRuns: RUNS },
  )
  expect(worked).toBeGreaterThan(0.8 * RUNS)
}, 240_000)
