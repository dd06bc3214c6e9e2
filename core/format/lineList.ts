/** `line 3`, `lines 3 and 5`, `lines 3, 5 and 8`. */
export function lineList(lines: readonly number[]): string {
  const [last] = lines.slice(-1)
  return lines.length === 1 ? `line ${last}` : `lines ${lines.slice(0, -1).join(', ')} and ${last}`
}
