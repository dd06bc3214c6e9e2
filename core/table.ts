/**
 * A record to look up text that a student typed in: it has no inherited entries,
 * so that `toString` is a name like any other.
 */
export function table<V>(entries: Readonly<Record<string, V>>): Readonly<Record<string, V | undefined>> {
  return Object.freeze(Object.assign(Object.create(null) as Record<string, V>, entries))
}
