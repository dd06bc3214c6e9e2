import { lineList } from '../format/lineList'
import { problem } from '../notation/problem'
import type { Problem } from '../notation/problem'
import { dataOf } from '../values/problemData'
import type { Definitions } from './definitions'
import type { LineResult } from './lineResult'

/** For each line, the numbers of those below it that read its name where a prefix or a letter stood before. */
export function readersOf(
  results: readonly (LineResult | null)[],
  definitions: Definitions,
): ReadonlyMap<number, readonly number[]> {
  const readers = new Map<number, number[]>()
  results.forEach((result, index) => {
    for (const hint of result?.evaluated.hints ?? []) {
      const shadowed = dataOf(hint, 'prefix-shadowed') ?? dataOf(hint, 'unit-shadowed')
      if (!shadowed) continue
      const by = definitions.get(shadowed.name)?.findLast((d) => d < index)
      if (by !== undefined) readers.set(by, [...new Set([...(readers.get(by) ?? []), index + 1])])
    }
  })
  return readers
}

/** The hint on a definition that it changes how these lines are read: `same` where it says so already. */
export function changesReading(result: LineResult, readers: readonly number[]): Problem | null | 'same' {
  const lines = readers.length === 0 ? '' : lineList(readers)
  const before = result.changesReading && dataOf(result.changesReading, 'changes-reading')
  if ((before?.lines ?? '') === lines) return 'same'
  const { statement } = result.parsed
  const named = statement.type === 'define' || statement.type === 'function'
  return named && lines !== '' ? problem('changes-reading', statement.name, { name: statement.name.name, lines }) : null
}
