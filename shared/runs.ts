import { ENTRY_LENGTH_MAX } from './limits'
import { idSchema, or, text, z } from './schema'

/** Runs: the lines marked `varied` with other values, the lines marked `watched` compared under each of them. */

/** Most sets of values of a folio, and most lines that each of them varies. */
export const RUN_SETS_MOST = 8
export const VARIED_MOST = 20

/** Longest name of a set. */
export const SET_NAME_MAX = 40

/**
 * One set of values: what stands in the place of each varied line's own value, as it is typed. A line without one
 * keeps the value that it has in the folio.
 */
export const runSetSchema = z.strictObject({
  id: idSchema,
  name: or(text(SET_NAME_MAX), ''),
  values: or(z.record(idSchema, text(ENTRY_LENGTH_MAX)), {}),
})
export type RunSet = z.infer<typeof runSetSchema>

/** The set with another value for a line; an empty one gives the line its own back. */
export function withEntry(set: RunSet, line: string, entry: string): RunSet {
  const values = Object.entries(set.values).filter(([id]) => id !== line)
  return { ...set, values: Object.fromEntries(entry.trim() === '' ? values : [...values, [line, entry.trim()]]) }
}

/** What a set without a name is called: by a letter, in the order of the sets. */
export function setName(set: RunSet, place: number): string {
  return set.name === '' ? `Set ${String.fromCharCode(65 + place)}` : set.name
}

/** The set with its lines under other identifiers; lines that have none are left out. */
export function relinkedSet(set: RunSet, ids: ReadonlyMap<string, string>): RunSet {
  const values = Object.entries(set.values).flatMap(([line, entry]) => {
    const other = ids.get(line)
    return other === undefined ? [] : [[other, entry] as const]
  })
  return { ...set, values: Object.fromEntries(values) }
}
