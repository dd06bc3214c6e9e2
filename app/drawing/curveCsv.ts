import type { Curve } from './curves'

/** The curves as a table: what they run along, and a column for each. */
export function curvesCsv(curves: readonly Curve[], xName: string): string {
  const [first] = curves
  if (!first) return ''
  const quoted = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)
  const same = curves.every((c) => c.x.length === first.x.length && c.x.every((x, k) => x === first.x[k]))
  const cell = (x: number | undefined): string => (x !== undefined && Number.isFinite(x) ? String(x) : '')
  const name = xName === '' ? 'parameter' : xName
  const heads = same ? [name, ...curves.map((c) => c.label)] : curves.flatMap((c) => [name, c.label])
  const longest = Math.max(...curves.map((c) => c.x.length))
  const rows = Array.from(
    { length: longest },
    (_, k) =>
    (same ? [cell(first.x[k]), ...curves.map((c) => cell(c.y[k]))] : curves.flatMap((c) => [cell(c.x[k]), cell(c.y[k])])).join(','), // prettier-ignore
  )
  return [heads.map(quoted).join(','), ...rows].join('\r\n')
}
