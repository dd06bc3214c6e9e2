import { DEFAULT_CONVENTIONS } from './conventions'
import type { FolioState } from './operations'

/** For tests: identifiers that tell their lines apart, and a folio of some lines. */
export const lineId = (k: number): string => `line-${String(k).padStart(4, '0')}`

export const folioOf = (...sources: string[]): FolioState => ({
  title: 'Test',
  conventions: DEFAULT_CONVENTIONS,
  lines: sources.map((source, k) => ({ id: lineId(k), source })),
  plates: [],
  sets: [],
})
