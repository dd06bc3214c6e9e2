/**
 * A table to look up text that a student typed in. A map, not an object: it has
 * no inherited entries, so that `toString` is a name like any other.
 */
export function table<V>(entries: Readonly<Record<string, V>>): ReadonlyMap<string, V> {
  return new Map(Object.entries(entries))
}
