import type { Readout } from '#core/format/readout'

const WIDE: ReadonlySet<Readout['shape']> = new Set(['grid', 'list', 'sweep', 'algebra'])

/** Vectors, matrices, sweeps and polynomials take the full width below their reading. */
export const isWide = ({ shape }: Readout): boolean => WIDE.has(shape)
