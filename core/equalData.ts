/**
 * Whether two plain data (of JSON, and `undefined`, which is as good as absent) say the same, in whatever order their
 * keys stand.
 */
export function equalData(a: unknown, b: unknown): boolean {
  if (a === b || (Number.isNaN(a) && Number.isNaN(b))) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((part, k) => equalData(part, b[k]))
  const [left, right] = [new Map(Object.entries(a)), new Map(Object.entries(b))]
  return [...new Set([...left.keys(), ...right.keys()])].every((key) => equalData(left.get(key), right.get(key)))
}
