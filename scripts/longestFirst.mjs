import { statSync } from 'node:fs'
import { relative } from 'node:path'
import Sequencer from '@jest/test-sequencer'
import { knownDurations } from './durations.mjs'
import { ROOT } from './lib.mjs'

/** What is known to be long where nothing has been timed yet, the longest first. */
const LONG = ['core/evaluate/edits', 'core/linear/kernels', 'core/control/loops', 'core/working/working', 'core/functions/arrayIdentities', 'server/db/log', 'server/db/copies', 'server/db/tidy', 'core/exchange/open', 'cli/reckon'] // prettier-ignore

/**
 * The order of the files of unit tests: what took longest here goes first, so that at the end no core waits for one of
 * them alone. Where nothing is known, what is known to be long, then by size.
 */
export default class LongestFirst extends Sequencer {
  sort(tests) {
    const known = knownDurations()
    const weight = ({ path }) => {
      const file = relative(ROOT, path)
      const place = LONG.findIndex((name) => file.startsWith(name))
      return known[file] ?? (place < 0 ? statSync(path).size / 1e6 : 1e6 - place)
    }
    return [...tests].sort((a, b) => weight(b) - weight(a))
  }
}
