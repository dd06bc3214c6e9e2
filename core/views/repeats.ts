import type { Readout } from '../format/readout'
import type { Node } from '../notation/tree'

/**
 * True where the reading of a line already says what its value would: a vector
 * or matrix that was written entry by entry, each as it is shown. In doubt it
 * does not: a sign that differs is a difference the student should see.
 */
export function repeatsReading(source: string, body: Node | null, readout: Readout): boolean {
  if (body?.type !== 'list') return false
  if (readout.shape === 'list') {
    const texts = readout.entries.filter((entry) => typeof entry === 'string')
    return texts.length === readout.count && sameTexts(source, body.entries, texts)
  }
  if (readout.shape !== 'grid' || readout.shownRows < readout.rows || readout.shownCols < readout.cols) return false
  const rows = body.entries.map((row) => (row.type === 'list' ? row.entries : []))
  return rows.every((row) => row.length === readout.cols) && sameTexts(source, rows.flat(), readout.cells)
}

function sameTexts(source: string, entries: readonly Node[], texts: readonly string[]): boolean {
  if (entries.length !== texts.length) return false
  return entries.every((entry, k) => plain(source.slice(entry.from, entry.to)) === plain(texts[k] ?? ''))
}

/** Without blanks, a product sign before the imaginary letter, and parts that are 0 or 1. */
function plain(text: string): string {
  return text
    .replace(/\s+/g, '')
    .replace(/−/g, '-')
    .replace(/[*·](?=[ij])|(?<=[ij])[*·]/g, '')
    .replace(/(?<![\d.])1(?=[ij])|(?<=(?:^|[+-])[ij])1(?![\d.])/g, '')
    .replace(/^0(?=[+-])/, '')
    .replace(/^\+/, '')
}
