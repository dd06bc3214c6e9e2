import type { Dense } from './dense'

/** P·A = L·U packed: L below the diagonal (ones on it), U on and above it. */
export interface Lu {
  readonly packed: Dense
  /** The row of A that stands in each row of P·A. */
  readonly order: readonly number[]
  /** +1 or −1: the sign of the permutation. */
  readonly sign: 1 | -1
  /** True where a pivot is exactly zero: there is no inverse. */
  readonly singular: boolean
}

/** A = left·diag(singular)·rightᴴ with k = min(m, n) singular values, the largest first. */
export interface Svd {
  readonly left: Dense
  readonly singular: readonly number[]
  readonly right: Dense
}
