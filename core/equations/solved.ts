import type { Solved } from '../values/types'

/** Equations with one solution by elimination, of which nothing else is to be said. */
export function byElimination(equations: number): Solved {
  return {
    equations,
    solutions: 1,
    multiplicities: [],
    free: [],
    spare: 0,
    way: 'elimination',
    exact: false,
    residual: null,
    more: false,
    uses: [],
    system: null,
    nonlinear: null,
    roots: null,
  }
}
