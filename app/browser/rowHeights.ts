/** Where rows of these heights begin, and where the last one ends. */
export function tops(heights: readonly number[]): readonly number[] {
  const result = [0]
  let top = 0
  for (const height of heights) result.push((top += height))
  return result
}

/** The rows that a strip from one height to another meets: from (inclusive) to (exclusive). */
export function rowsBetween(offsets: readonly number[], top: number, bottom: number): { from: number; to: number } {
  const count = offsets.length - 1
  const at = (height: number): number => {
    let [low, high] = [0, count]
    while (low < high) {
      const middle = (low + high) >> 1
      if ((offsets[middle + 1] ?? Infinity) <= height) low = middle + 1
      else high = middle
    }
    return low
  }
  return { from: at(top), to: Math.min(count, at(bottom) + 1) }
}
