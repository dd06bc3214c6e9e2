/** Names near a misspelt one, nearest first: another case, then few edits. */
export function nearestNames(name: string, known: Iterable<string>, limit = 3): string[] {
  const lower = name.toLowerCase()
  const reach = name.length <= 3 ? 1 : name.length <= 6 ? 2 : 3
  const found: { name: string; distance: number }[] = []
  for (const candidate of new Set(known)) {
    if (candidate === name) continue
    if (candidate.toLowerCase() === lower) {
      found.push({ name: candidate, distance: 0 })
      continue
    }
    if (name.length === 1 && candidate.length === 1) continue
    const distance = editDistance(name, candidate, reach)
    if (distance <= reach && distance < name.length) found.push({ name: candidate, distance })
  }
  found.sort((a, b) => a.distance - b.distance || (a.name < b.name ? -1 : 1))
  return found.slice(0, limit).map((f) => f.name)
}

/**
 * Edits (insert, delete, replace, exchange of neighbours) between two words, or
 * `reach + 1` if more. Damerau, "A technique for computer detection and
 * correction of spelling errors", CACM 7 (1964), restricted form.
 */
export function editDistance(a: string, b: string, reach: number): number {
  if (Math.abs(a.length - b.length) > reach) return reach + 1
  let before: number[] = []
  let last = Array.from({ length: b.length + 1 }, (_, k) => k)
  for (let i = 1; i <= a.length; i += 1) {
    const row = [i]
    for (let k = 1; k <= b.length; k += 1) {
      const cost = a[i - 1] === b[k - 1] ? 0 : 1
      let best = Math.min((row[k - 1] ?? 0) + 1, (last[k] ?? 0) + 1, (last[k - 1] ?? 0) + cost)
      if (i > 1 && k > 1 && a[i - 1] === b[k - 2] && a[i - 2] === b[k - 1])
        best = Math.min(best, (before[k - 2] ?? 0) + 1)
      row.push(best)
    }
    before = last
    last = row
  }
  return last[b.length] ?? reach + 1
}

/**
 * Known names of which a run is put together (`jwL` from j, w and L), fewest
 * pieces first; `null` where there is no such split.
 */
export function splitRun(run: string, known: (part: string) => boolean): string[] | null {
  if (run.length > 24) return null
  const best: (string[] | null)[] = [[]]
  for (let end = 1; end <= run.length; end += 1) {
    let shortest: string[] | null = null
    for (let start = 0; start < end; start += 1) {
      const head = best[start]
      const part = run.slice(start, end)
      if (!head || !known(part)) continue
      if (shortest === null || head.length + 1 < shortest.length) shortest = [...head, part]
    }
    best.push(shortest)
  }
  const split = best[run.length]
  return split && split.length > 1 ? split : null
}
