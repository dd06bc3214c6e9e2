import type { Dense } from './dense'
import { zeros } from './dense'
import { eigen } from './eigen'
import { expm } from './expm'
import { decomposeLu, determinantLu } from './lu'
import { decomposeQr } from './qr'
import { decomposeSvd } from './svd'

/**
 * Values from LAPACK, by numpy 2.4.6 (linalg.eigvals, svd, det, cond) and scipy
 * (linalg.expm, qr with pivoting) on Debian: worked out once, outside our code.
 */
type Entry = readonly [re: number, im: number]

function matrix(rows: readonly (readonly Entry[])[]): Dense {
  const a = zeros(rows.length, rows[0]!.length)
  rows.flat().forEach(([re, im], k) => {
    a.re[k] = re
    a.im[k] = im
  })
  return a
}

const A = matrix([
  [[1, 2], [0.5, 0], [0, -1]],
  [[2, 0], [-1, 1], [3, 0]],
  [[0, 0.25], [4, 0], [2, -2]],
]) // prettier-ignore

test('eigenvalues', () => {
  const expected: readonly Entry[] = [
    [-3.23159258223804, 0.021340618115916365],
    [0.970014111580104, 2.1575362939980445],
    [4.2615784706579385, -1.178876912113962],
  ]
  eigen(A).values.forEach((z, k) => {
    expect(z.re).toBeCloseTo(expected[k]![0], 13)
    expect(z.im).toBeCloseTo(expected[k]![1], 13)
  })
})

test('singular values and the condition number', () => {
  const { singular } = decomposeSvd(A)
  const expected = [5.555244684400032, 3.335156271857675, 1.8244147386856981]
  singular.forEach((s, k) => expect(s).toBeCloseTo(expected[k]!, 13))
  expect(singular[0]! / singular[2]!).toBeCloseTo(3.0449461773160253, 12)
})

test('determinant', () => {
  const { re, im } = determinantLu(decomposeLu(A))
  expect(re).toBeCloseTo(-21.75, 12)
  expect(im).toBeCloseTo(-25.875, 12)
})

test('the exponential of A/2', () => {
  const half = zeros(3, 3)
  A.re.forEach((x, k) => void (half.re[k] = x / 2))
  A.im.forEach((x, k) => void (half.im[k] = x / 2))
  const e = expm(half)
  const expected: readonly Entry[] = [
    [1.1763766842271737, 1.2855310987432174], [0.39947595944790504, -0.650564615572687], [0.12092900179848332, -1.3792024283172473],
    [1.436271603798062, 0.9876767222983188], [2.6646472355606874, -0.14977288514854875], [2.943332366468422, -1.7311937502796242],
    [1.7647353418449132, 0.42561672407609075], [3.897504449625637, -1.7099358029413212], [4.125392091316603, -4.383587917617785],
  ] // prettier-ignore
  expected.forEach(([re, im], k) => {
    expect(e.re[k]).toBeCloseTo(re, 12)
    expect(e.im[k]).toBeCloseTo(im, 12)
  })
})

test('QR with column pivoting: the diagonal up to its sign', () => {
  const { r, order } = decomposeQr(matrix([[[1, 0], [2, 0]], [[3, 0], [4, 0]], [[5, 0], [7, 0]]]), true) // prettier-ignore
  expect(order).toEqual([1, 0])
  expect(r.re[0]).toBeCloseTo(8.30662386, 8)
  expect(r.re[3]).toBeCloseTo(0.45044262, 8)
})
