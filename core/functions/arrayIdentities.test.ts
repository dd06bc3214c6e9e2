import * as fc from 'fast-check'
import { reckon } from '../testing'

/**
 * Relations that hold between functions of vectors, matrices, polynomials and whole numbers whatever they are worked
 * out by: both sides are lines, and what is between them is measured by a line, too.
 */

/** The last line as a real number. */
function measure(lines: readonly string[]): number {
  const found = reckon(lines)
  for (const { error } of found) if (error) throw new Error(error.message)
  const value = found.at(-1)?.value
  if (value?.kind === 'angle') return value.radians
  if (value?.kind !== 'number') throw new Error(`${lines.at(-1)} is ${value?.kind ?? 'nothing'}`)
  expect(Math.abs(value.im)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(value.re)))
  return value.re
}

type Given = Readonly<Record<string, string>>
type Pair = readonly [left: string, right: string]
const lines = (given: Given): string[] => Object.entries(given).map(([name, text]) => `${name} = ${text}`)

/** Two numbers, vectors or matrices are the same to so much of their size. */
function agree(given: Given, left: string, right: string, distance: string): void {
  const before = [...lines(given), `l_1 = ${left}`, `r_1 = ${right}`]
  const apart = measure([...before, distance])
  const size = measure([...before, distance.replace('l_1 - r_1', 'r_1')])
  expect([left, apart]).toEqual([left, Math.min(apart, 1e-9 * (1 + size))])
}

function hold(pairs: readonly Pair[], names: fc.Arbitrary<Given>, distance: string, runs = 25): void {
  test.each(pairs)('%s = %s', (left, right) => {
    fc.assert(
      fc.property(names, (given) => agree(given, left, right, distance)),
      { numRuns: runs },
    )
  })
}

const tenth = fc.integer({ min: -60, max: 60 }).map((n) => n / 10)
const real = tenth.map(String)
const complex = fc.tuple(tenth, tenth).map(([re, im]) => `${re} + (${im})*j`)
const vector = (entry: fc.Arbitrary<string>, n: number) =>
  fc.array(entry, { minLength: n, maxLength: n }).map((items) => `[${items.join(', ')}]`)
/** Square, and far from singular: its diagonal outweighs the rest. */
const matrix = (entry: fc.Arbitrary<string>, n: number) =>
  fc
    .array(fc.array(entry, { minLength: n, maxLength: n }), { minLength: n, maxLength: n })
    .map((rows) => `[${rows.map((row) => `[${row.join(', ')}]`).join(', ')}] + 30*identity(${n})`)

describe('vectors of real numbers', () => {
  const given = fc.record({ a: vector(real, 3), b: vector(real, 3), c: vector(real, 3) }).filter(({ a, b, c }) => new Set([a, b, c, '[0, 0, 0]']).size === 4) // prettier-ignore
  hold(
    [
      ['dot(a, cross(a, b))', '0'],
      ['dot(a, cross(b, c))', 'det(beside(a, b, c))'],
      ['norm(cross(a, b))^2 + dot(a, b)^2', 'norm(a)^2*norm(b)^2'],
      ['norm(a + b)^2 + norm(a - b)^2', '2*norm(a)^2 + 2*norm(b)^2'],
      ['dist(a, b)', 'norm(a - b)'],
      ['cos(angle(a, b))*norm(a)*norm(b)', 'dot(a, b)'],
      ['sum(sort(a))', 'sum(a)'],
      ['min(a)', 'sort(a)[1]'],
      ['max(a)', 'reverse(sort(a))[1]'],
      ['mean(a)*count(a)', 'sum(a)'],
    ],
    given,
    'abs(l_1 - r_1)',
  )
  hold(
    [
      ['cross(a, b)', '-cross(b, a)'],
      ['cross(a, cross(b, c))', 'b*dot(a, c) - c*dot(a, b)'],
      ['proj(a, b) + (a - proj(a, b))', 'a'],
      ['cross(proj(a, b), b)', '[0, 0, 0]'],
      ['unit(a)*norm(a)', 'a'],
      ['reverse(reverse(a))', 'a'],
    ],
    given,
    'norm(l_1 - r_1)',
  )
})

describe('vectors of complex numbers', () => {
  const given = fc.record({ a: vector(complex, 4), b: vector(complex, 4) })
  hold(
    [
      ['dot(a, b)', 'conj(dot(b, a))'],
      ['re(dot(a, a))', 'norm(a)^2'],
      ['norm(a)^2', 'sum(abs(a)^2)'],
      ['norm(3j*a)', '3*norm(a)'],
      ['abs(sum(a + b))', 'abs(sum(a) + sum(b))'],
    ],
    given,
    'abs(l_1 - r_1)',
  )
})

describe.each([
  ['real', real],
  ['complex', complex],
] as const)('square matrices of %s numbers', (_kind, entry) => {
  const given = fc
    .integer({ min: 2, max: 4 })
    .chain((n) => fc.record({ A: matrix(entry, n), B: matrix(entry, n), v: vector(entry, n) }))
  hold(
    [
      ['det(A*B)', 'det(A)*det(B)'],
      ['tr(A*B)', 'tr(B*A)'],
      ['det(inv(A))', '1/det(A)'],
      ['det(transpose(A))', 'det(A)'],
      ['product(eigenvalues(A))', 'det(A)'],
      ['sum(eigenvalues(A))', 'tr(A)'],
      ['product(svd(A).singular)', 'abs(det(A))'],
      ['norm(svd(A).singular)', 'sqrt(abs(tr(A^H*A)))'],
      ['cond(A)', 'cond(inv(A))'],
      ['rank(A)', 'rank(A^H)'],
      ['det(expm(A/40))', 'exp(tr(A)/40)'],
    ],
    given,
    'abs(l_1 - r_1)',
    12,
  )
  hold(
    [
      ['transpose(A*B)', 'transpose(B)*transpose(A)'],
      ['inv(A*B)', 'inv(B)*inv(A)'],
      ['expm(A/40)*expm(-A/40)', 'identity(rank(A))'],
      ['A*eigenvectors(A)', 'eigenvectors(A)*diag(eigenvalues(A))'],
      ['qr(A).orthonormal*qr(A).triangular', 'A'],
      ['svd(A).left*diag(svd(A).singular)*svd(A).right^H', 'A'],
      ['cholesky(A*A^H)*cholesky(A*A^H)^H', 'A*A^H'],
      ['A^3', 'A*A*A'],
      ['rref(beside(A, B))[all, rank(A) + 1 to 2*rank(A)]', 'solve(A, B)'],
    ],
    given,
    'norm(l_1 - r_1)',
    12,
  )
  hold(
    [
      ['A*solve(A, v)', 'v'],
      ['inv(A)*v', 'solve(A, v)'],
      ['lsq(A, v)', 'solve(A, v)'],
    ],
    given,
    'norm(l_1 - r_1)',
    12,
  )
})

describe('whole numbers', () => {
  const given = fc
    .record({
      a: fc.integer({ min: -900, max: 900 }),
      b: fc.integer({ min: 1, max: 900 }),
      n: fc.integer({ min: 1, max: 40 }),
      k: fc.nat(40),
    }) // prettier-ignore
    .map(({ a, b, n, k }) => ({ a: String(a), b: String(b), n: String(n), k: String(Math.min(k, n)) }))
  hold(
    [
      ['gcd(a, b)*lcm(a, b)', 'abs(a*b)'],
      ['gcd(a, b)', 'gcd(b, a mod b)'],
      ['quotient(a, b)*b + (a mod b)', 'a'],
      ['factorial(n)', 'n*factorial(n - 1)'],
      ['binom(n, k)*factorial(k)*factorial(n - k)', 'factorial(n)'],
      ['binom(n, k)', 'binom(n, n - k)'],
      ['sum(m for m = 1 to n)', 'n*(n + 1)/2'],
      ['sum(binom(n, m) for m = 0 to n)', '2^n'],
      ['product(m for m = 1 to n)', 'factorial(n)'],
      ['ceil(a/b)', '-floor(-a/b)'],
      ['trunc(a/b)', 'sign(a)*floor(abs(a)/b)'],
    ],
    given,
    'abs(l_1 - r_1)',
    30,
  )
})

describe('polynomials', () => {
  test('the roots of a product of factors are those of the factors, and give its coefficients back', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: -9, max: 9 }), { minLength: 2, maxLength: 5 }), (zeros) => {
        const product = zeros.map((z) => `(s - (${z}))`).join('*')
        const found = reckon(['unknown s', `p = expand(${product})`, 'sort(roots(p))', 'degree(p)'])
        expect(found.map((f) => f.error)).toEqual([null, null, null, null])
        const sorted = [...zeros].sort((x, y) => x - y)
        expect(found[2]?.text).toBe(`[${sorted.join(', ')}]`)
        expect(found[3]?.text).toBe(String(zeros.length))
      }),
      { numRuns: 30 },
    )
  })
})
