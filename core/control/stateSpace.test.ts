import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Reckoned } from '../testing'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

const last = (...lines: string[]): Reckoned => reckon(['unknown s', ...lines], SLOW).at(-1)!
const text = (...lines: string[]): string => last(...lines).text
const said = (...lines: string[]): string[] => last(...lines).hints.map(({ message }) => message)

const entry = fc.constantFrom('0', '1', '-1', '2', '-3', '0.5', '1/3', 'sqrt(2)')
const matrixOf = (rows: number, cols: number): fc.Arbitrary<string> =>
  fc
    .array(fc.array(entry, { minLength: cols, maxLength: cols }), { minLength: rows, maxLength: rows })
    .map((all) => `[${all.map((row) => `[${row.join(', ')}]`).join(', ')}]`)

describe('from a state description', () => {
  const described = fc
    .integer({ min: 2, max: 4 })
    .chain((n) => fc.tuple(matrixOf(n, n), matrixOf(n, 1), matrixOf(1, n), entry))
  test('to the transfer function C·(sI − A)⁻¹·B + D', () => {
    fc.assert(
      fc.property(described, ([a, b, c, d]) => {
        const lines = [`A = ${a}`, `B = ${b}`, `C = ${c}`, `G = transfer(A, B, C, ${d}, s)`]
        const [g, direct] = [last(...lines, 'G where s = 1.7 + 2.3j'), last(...lines, `C*inv((1.7 + 2.3j)*identity(size(A)[1]) - A)*B + ${d}`)].map(({ value }) => (value?.kind === 'number' ? value : null)) // prettier-ignore
        if (!g || !direct) throw new Error('two numbers')
        expect(Math.hypot(g.re - direct.re, g.im - direct.im)).toBeLessThan(1e-11 * Math.max(1, Math.hypot(g.re, g.im)))
      }),
      { numRuns: 80 },
    )
  })

  test.each(['controller_form', 'observer_form'])('%s and back', (form) => {
    for (const g of [
      '4/(s^2 + 3s + 7)',
      '(s^2 + 2)/(s^3 + 6s^2 + 11s + 6)',
      '(2s + 5)/(s + 1)',
      '(s + sqrt(2))/(s^2 + 1)',
    ])
      expect(text(`F = ${form}(${g})`, `transfer(F.A, F.B, F.C, F.D, s) == ${g}`)).toBe('true')
  })

  test('states that are not seen are said', () => {
    expect(said('transfer([[-1, 0], [0, -2]], [1, 1], [[1, 0]], 0, s)')).toEqual(['1 of 2 states cannot be told from outside: the transfer function has no pole of theirs.']) // prettier-ignore
  })

  test('several inputs and outputs make a matrix', () => {
    expect(text('transfer([[-1, 0], [0, -2]], [[1, 0], [0, 1]], [[1, 1]], [[0, 0]], s)')).toBe(
      '[[1/(s + 1), 1/(s + 2)]]',
    )
  })

  test.each([
    ['transfer([[1, 2]], [1], [[1]], 0, s)', 'not-square'],
    ['transfer([[1, 2], [3, 4]], [1, 2, 3], [[1, 0]], 0, s)', 'state-shape'],
    ['transfer([[1, 2], [3, 4]], [1, 2], [[1, 0, 0]], 0, s)', 'state-shape'],
    ['transfer([[1, 2], [3, 4]], [1, 2], [[1, 0]], [1, 2], s)', 'state-shape'],
    ['transfer([[1j]], [[1]], [[1]], 0, s)', 'matrix-not-real'],
    ['pole_placement([[1, 0], [0, 1]], [1, 0], [-1, -2])', 'cannot-place'],
    ['pole_placement([[0, 1], [0, 0]], [0, 1], [-1])', 'poles-count'],
    ['pole_placement([[0, 1], [0, 0]], [0, 1], [-1 + 1j, -2])', 'poles-paired'],
    ['pole_placement([[0, 1], [0, 0]], [[1, 0], [0, 1]], [-1, -2])', 'one-input'],
    ['controller_form(5)', 'no-states'],
    ['controller_form(s)', 'transfer-improper'],
  ])('%s is refused: %s', (line, code) => expect(last(line).error?.code).toBe(code))
})

describe('what can be reached and seen', () => {
  test.each([
    ['controllability([[0, 1], [-6, -5]], [0, 1])', 'Controllable: the rank is 2, as there are states.'],
    ['controllability([[-1, 0], [0, -1]], [1, 1])', 'Not controllable: the rank is 1 of 2.'],
    // Scales twelve decades apart, and yet every state is reached.
    ['controllability([[-1e-6, 1e6, 0], [0, -1, 1e-6], [0, 0, -1e6]], [0, 0, 1e-6])', 'Controllable: the rank is 3, as there are states.'], // prettier-ignore
    [
      'controllability([[-1e-6, 0, 0], [0, -1, 1e-6], [0, 0, -1e6]], [0, 0, 1e-6])',
      'Not controllable: the rank is 2 of 3.',
    ],
    // The same with rounded entries, turned so that no zero is left to be seen.
    [
      'controllability(U*[[-1e-3, 0, 0], [0, -1, 1], [0, 0, -1e3]]*U^T, U*[0, 0, 1])',
      'Not controllable: the rank is 2 of 3.',
    ],
    ['controllability(U*[[-1e-3, 1, 0], [0, -1, 1], [0, 0, -1e3]]*U^T, U*[0, 0, 1])', 'Controllable: the rank is 3, as there are states.'], // prettier-ignore
    ['observability([[0, 1], [-6, -5]], [[1, 0]])', 'Observable: the rank is 2, as there are states.'],
    ['observability([[-1, 0], [0, -2]], [[0, 3]])', 'Not observable: the rank is 1 of 2.'],
    ['observability([[-1, 0], [0, -2]], [[sqrt(2), pi]])', 'Observable: the rank is 2, as there are states.'],
  ])('%s', (line, says) => {
    const u =
      'U = [[cos(20°), -sin(20°), 0], [sin(20°), cos(20°), 0], [0, 0, 1]]*[[1, 0, 0], [0, cos(50°), -sin(50°)], [0, sin(50°), cos(50°)]]'
    expect(said(u, line)).toEqual([says])
  })

  test('the rank is the same in any scale of the states', () => {
    const scale = fc.array(fc.integer({ min: -30, max: 30 }), { minLength: 4, maxLength: 4 })
    const reached = fc.array(fc.boolean(), { minLength: 3, maxLength: 3 })
    fc.assert(
      fc.property(scale, reached, (powers, links) => {
        // A chain of states in which a missing link leaves those before it unreached.
        const at = (r: number, c: number): string =>
          r === c ? `-${r + 1}*sqrt(2)` : c === r + 1 && links[r] ? `2^${powers[r]! - powers[c]!}*sqrt(3)` : '0'
        const a = `[${[0, 1, 2, 3].map((r) => `[${[0, 1, 2, 3].map((c) => at(r, c)).join(', ')}]`).join(', ')}]`
        const rank = 4 - (links.lastIndexOf(false) + 1)
        expect(said(`controllability(${a}, [0, 0, 0, 2^${powers[3]}*sqrt(5)])`)[0]).toContain(`the rank is ${rank}`)
      }),
      { numRuns: 60 },
    )
  })
})

describe('poles are placed', () => {
  test.each([2, 3, 5, 8])('of order %d, to 1e-8', (n) => {
    const pole = fc.integer({ min: 1, max: 40 }).map((k) => -k / 4)
    const system = fc.tuple(matrixOf(n, n), matrixOf(n, 1), fc.uniqueArray(pole, { minLength: n, maxLength: n }))
    fc.assert(
      fc.property(system, ([a, b, poles]) => {
        const lines = [`A = ${a}`, `B = ${b}`, `K = pole_placement(A, B, [${poles.join(', ')}])`]
        const found = reckon([...lines, 'charpoly(A - B*K)', 'norm(K)'], SLOW)
        if (found[2]!.error) return expect(found[2]!.error.code).toBe('cannot-place')
        const { value } = found[3]!
        if (value?.kind !== 'vector') throw new Error('coefficients')
        const wanted = poles.reduce<number[]>((p, r) => [...p, 0].map((c, k) => c - (k > 0 ? r * p[k - 1]! : 0)), [1])
        const size = Math.max(1, found[4]!.value?.kind === 'number' ? found[4]!.value.re : NaN)
        // What doubles leave of the coefficients, the feedback being as large as it has to be.
        value.items.forEach((c, k) => expect(Math.abs((c.kind === 'number' ? c.re : NaN) - wanted[k]!)).toBeLessThan(1e-8 * size * Math.max(...wanted.map(Math.abs)))) // prettier-ignore
        return undefined
      }),
      { numRuns: 30 },
    )
  })

  test.each([
    ['[[0, 1, 0], [0, 0, 1], [-6, -11, -6]]', '[0, 0, 1]', '[-2 + 1j, -2 - 1j, -8]'],
    ['[[0, 1, 0, 0], [0, 0, -1, 0], [0, 0, 0, 1], [0, 0, 11, 0]]', '[0, 1, 0, -1]', '[-1, -2, -1 + 1j, -1 - 1j]'],
    ['[[-0.2, 1e4], [0, -1e-3]]', '[0, 1e-4]', '[-3, -5]'],
  ])('%s with %s', (a, b, poles) => {
    const { value } = last(`A = ${a}`, `B = ${b}`, `K = pole_placement(A, B, ${poles})`, 'eigenvalues(A - B*K)')
    const wanted = last(`sort(re(${poles}))`).value
    if (value?.kind !== 'vector' || wanted?.kind !== 'vector') throw new Error('two lists')
    const re = value.items.map((z) => (z.kind === 'number' ? z.re : NaN)).sort((x, y) => x - y)
    wanted.items.forEach((x, k) =>
      expect(Math.abs(re[k]! - (x.kind === 'number' ? x.re : NaN))).toBeLessThan(1e-8 * 10),
    )
  })

  test('exactly, where all is exact', () => {
    expect(last('pole_placement([[0, 1], [-1/3, 1/7]], [0, 1/2], [-1/5, -2/5])').value).toMatchObject({ kind: 'matrix', exact: {} }) // prettier-ignore
  })

  test('an observer by duality', () => {
    expect(text('A = [[0, 1], [-2, -3]]', 'C = [[1, 0]]', 'F = pole_placement(A^T, C^T, [-8, -9])^T', 'eigenvalues(A - F*C)')).toBe('[-9, -8]') // prettier-ignore
  })
})
