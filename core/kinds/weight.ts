import type { Value } from '../values/types'

/** A value of its own is an object of about ten doubles. */
const OBJECT = 10

/** What values in a row hold in memory, in doubles. */
export function doublesOfAll(items: readonly Value[], of: (value: Value) => number): number {
  let count = items.length * OBJECT
  for (const item of items) if (item.kind !== 'number') count += of(item)
  return count
}
