import { dialectOf } from './dialect'
import { isMatrixMarket } from './matrixMarket'
import { PARAMETERS, portsOfName } from './touchstone'

/** What a file is, by what is in it; its name only decides where the content does not. */
export type Recognised = 'folio' | 'matrix-market' | 'touchstone' | 'table' | 'lines'

export function recogniseText(text: string, name: string): Recognised {
  const start = text.slice(0, 2_000).trimStart()
  if (start.startsWith('{')) return 'folio'
  if (isMatrixMarket(text)) return 'matrix-market'
  if (isTouchstone(text, name)) return 'touchstone'
  return isTable(text, name) ? 'table' : 'lines'
}

/** An option line, or the keyword of version 2; network data without either is told by the name. */
function isTouchstone(text: string, name: string): boolean {
  for (const line of text.slice(0, 20_000).split(/\r\n|\r|\n/)) {
    const bare = (line.split('!', 1)[0] ?? '').trim()
    if (bare === '') continue
    if (/^\[version\]\s*2/i.test(bare)) return true
    if (bare.startsWith('#')) return isOptions(bare.slice(1))
    // Numbers before any option line: the defaults hold, if the name says that these are ports.
    return portsOfName(name) !== null || (/\.ts$/i.test(name) && bare.startsWith('['))
  }
  return false
}

function isOptions(text: string): boolean {
  const words = text
    .trim()
    .toUpperCase()
    .split(/\s+/)
    .filter((w) => w !== '')
  const known = words.filter((w) => /^(?:[KMG]?HZ|RI|MA|DB|R)$/.test(w) || PARAMETERS.some((p) => p === w))
  return known.length >= 2 && words.every((w) => known.includes(w) || /^R?\d*\.?\d+$/.test(w))
}

/** Fewer rows of numbers than this are as well lines with a slip in them. */
const LEAST_ROWS = 3

/** A table has rows of numbers of one width; lines of the notation have names, signs and brackets. */
function isTable(text: string, name: string): boolean {
  if (/\.(?:csv|tsv|dat)$/i.test(name)) return true
  const lines = text
    .slice(0, 100_000)
    .split(/\r\n|\r|\n/)
    .slice(0, 300)
  const block = dialectOf(lines)
  if (!block || block.to - block.from < LEAST_ROWS) return false
  const filled = lines.filter((line) => line.trim() !== '').length
  // Two columns at least, and most of what is there; a list of numbers by itself is as well a list of entries.
  return block.width >= 2 && block.to - block.from >= filled / 2
}
