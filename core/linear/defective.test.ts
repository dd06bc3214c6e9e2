import * as fc from 'fast-check'
import type { Complex } from '../numbers/complex'
import { reckon } from '../testing'
import type { Dense } from './dense'
import { normF } from './dense'
import { eigen } from './eigen'
import { residuals } from './refineVectors'

/**
 * Matrices with Jordan blocks, seen through a change of basis: A = P·J·P⁻¹ with whole P of determinant ±1, so that
 * A is whole, too, and its eigenvalues are known without any reckoning.
 */

type Rows = number[][]
const times = (a: Rows, b: Rows): Rows =>
  a.map((row) => (b[0] ?? []).map((_, c) => row.reduce((sum, x, k) => sum + x * (b[k]?.[c] ?? 0), 0)))
const identity = (n: number): Rows =>
  Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c) => +(r === c)))

/** Whole row operations and their inverses: the basis and the way back. */
function bases(n: number, steps: readonly (readonly [number, number, number])[]): readonly [Rows, Rows] {
  let [p, q] = [identity(n), identity(n)]
  for (const [a, b, f] of steps) {
    const [r, c] = [a % n, b % n]
    if (r === c) continue
    const forth = identity(n)
    const back = identity(n)
    forth[r]![c] = f
    back[r]![c] = -f
    p = times(p, forth)
    q = times(back, q)
  }
  return [p, q]
}

/** Blocks along the diagonal: real Jordan blocks, or a repeated pair α ± jβ. */
function jordan(blocks: readonly (readonly [value: number, size: number])[]): Rows {
  const n = blocks.reduce((sum, [, size]) => sum + size, 0)
  const rows = identity(n).map((row) => row.map(() => 0))
  let at = 0
  for (const [value, size] of blocks) {
    for (let k = 0; k < size; k += 1) {
      rows[at + k]![at + k] = value
      if (k + 1 < size) rows[at + k]![at + k + 1] = 1
    }
    at += size
  }
  return rows
}

const steps = fc.array(fc.tuple(fc.nat(5), fc.nat(5), fc.integer({ min: -2, max: 2 })), { maxLength: 8 })
const blocks = fc.array(fc.tuple(fc.integer({ min: -4, max: 4 }), fc.integer({ min: 1, max: 3 })), {
  minLength: 1,
  maxLength: 3,
})

const dense = (rows: Rows, scale = 1): Dense => ({
  rows: rows.length,
  cols: rows.length,
  re: Float64Array.from(rows.flat().map((x) => x * scale)),
  im: new Float64Array(rows.length ** 2),
})
const text = (rows: Rows): string => `[${rows.map((r) => `[${r.join(', ')}]`).join(', ')}]`

function worst(a: Dense, values: readonly Complex[], vectors: Dense): number {
  const unit = Number.EPSILON * a.rows * normF(a)
  return Math.max(...residuals(a, values, vectors)) / unit
}

test('pairs of defective matrices fit to rounding, exact and rounded', () => {
  let most = 0
  fc.assert(
    fc.property(blocks, steps, (sizes, moves) => {
      const [p, q] = bases(
        sizes.reduce((n, [, size]) => n + size, 0),
        moves,
      )
      const a = times(times(p, jordan(sizes)), q)
      if (a.length < 2 || a.length > 8 || a.flat().every((x) => x === 0)) return
      // Rounded: multiplied by a number that is none of a double's.
      const scaled = dense(a, Math.SQRT2)
      const { values, vectors } = eigen(scaled)
      most = Math.max(most, worst(scaled, values, vectors))
      expect(worst(scaled, values, vectors)).toBeLessThan(1e3)
      // Real input has real values and conjugate pairs, and nothing else.
      expect(values.filter((z) => z.im !== 0 && !values.some((w) => w.re === z.re && w.im === -z.im))).toEqual([])
      const [line] = reckon([`eigenpairs(${text(a)})`], { timeLimit: 5_000 })
      if (line?.value?.kind !== 'parts') throw new Error(text(a))
      const [found, columns] = [line.value.parts.get('values'), line.value.parts.get('vectors')]
      if (found?.kind !== 'vector' || columns?.kind !== 'matrix') throw new Error(text(a))
      const exact = found.items.flatMap((z) => (z.kind === 'number' ? [z] : []))
      expect(exact.map((z) => [z.re, z.im])).toEqual(
        sizes.flatMap(([v, n]) => Array.from({ length: n }, () => [v, 0])).sort((x, y) => (x[0] ?? 0) - (y[0] ?? 0)),
      )
      expect(worst(dense(a), exact, columns.dense)).toBeLessThan(1e3)
    }),
    { numRuns: 400 },
  )
  expect(most).toBeGreaterThan(0)
})

test('repeated complex pairs are conjugate and fit, too', () => {
  fc.assert(
    fc.property(fc.integer({ min: -3, max: 3 }), fc.integer({ min: 1, max: 4 }), steps, (alpha, beta, moves) => {
      const rows: Rows = [
        [alpha, beta, 1, 0],
        [-beta, alpha, 0, 1],
        [0, 0, alpha, beta],
        [0, 0, -beta, alpha],
      ]
      const [p, q] = bases(4, moves)
      const a = times(times(p, rows), q)
      const scaled = dense(a, Math.SQRT2)
      const { values, vectors } = eigen(scaled)
      expect(worst(scaled, values, vectors)).toBeLessThan(1e3)
      expect(values.filter((z) => z.im !== 0 && !values.some((w) => w.re === z.re && w.im === -z.im))).toEqual([])
      const { value } = reckon([`eigenvalues(${text(a)})`], { timeLimit: 5_000 })[0]!
      if (value?.kind !== 'vector') throw new Error(text(a))
      const found = value.items.map((z) => (z.kind === 'number' ? [z.re, z.im] : []))
      expect(found).toEqual([
        [alpha, beta],
        [alpha, beta],
        [alpha, -beta],
        [alpha, -beta],
      ])
    }),
    { numRuns: 200 },
  )
})

test('a matrix near to a defective one is hinted', () => {
  const codes = (line: string): string[] => reckon([line])[0]!.hints.map((h) => h.code)
  expect(codes('eigenvectors(sqrt(2)*[[1, 1], [2e-15, 1]])')).toEqual(['nearly-defective'])
  expect(codes('eigenvalues([[1, 1], [0, 1]])')).toEqual(['defective'])
  for (const line of [
    'eigenvalues([[2, 1], [1, 2]])',
    'eigenvalues(sqrt(2)*[[2, 1], [1, 3]])',
    'eigenvectors(identity(3))',
  ])
    expect(codes(line)).toEqual([])
})
