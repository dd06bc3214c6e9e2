import type { Readout } from '#core/format/readout'

const WIDE: ReadonlySet<Readout['shape']> = new Set(['grid', 'list', 'sweep', 'algebra'])

/** Vectors, matrices, sweeps and polynomials take the full width below their reading. */
export const isWide = (readout: Readout): boolean =>
  WIDE.has(readout.shape) || (readout.shape === 'words' && readout.broad === true)
