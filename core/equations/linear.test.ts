import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { reckon } from '../testing'
import { exactNumber, exactReal, real, rough } from '../values/make'
import { bare } from '../values/quantity'
import type { NumberValue, Value } from '../values/types'
import { contradiction } from './contradiction'
import { solveLinear } from './linear'
import type { LinearSystem } from './scaled'

const q = (n: number, d = 1): NumberValue => exactReal(Q.rational(n, d)!)
const gauss = (re: number, im: number): NumberValue => exactNumber(G.gaussian(Q.whole(re), Q.whole(im)), true)
const names = (n: number): string[] => Array.from({ length: n }, (_, k) => `x${k + 1}`)
const range = (n: number): number[] => Array.from({ length: n }, (_, k) => k + 1)

/** The values of a determine line, as numbers. */
function answers(lines: readonly string[], angle: 'deg' | 'rad' = 'deg'): { readonly [name: string]: Value } {
  const last = reckon(lines, { angle, timeLimit: 5_000 }).at(-1)!
  expect(last.error).toBeNull()
  if (last.value?.kind !== 'parts') throw new Error('answers')
  return Object.fromEntries(last.value.parts)
}

const numberOf = (value: Value): NumberValue => {
  const inner = bare(value)
  if (inner.kind !== 'number') throw new Error(`a number, not ${inner.kind}`)
  return inner
}

/** A row of a system as an equation. */
const equation = (row: readonly number[], right: number): string =>
  `${row.map((a, k) => `(${a})*x${k + 1}`).join(' + ')} = ${right}`

describe('exact systems', () => {
  const entry = fc.integer({ min: -9, max: 9 })
  /** Rows of whole numbers and a solution of fractions: the right sides follow. */
  const system = fc.integer({ min: 1, max: 6 }).chain((n) =>
    fc.record({
      rows: fc.array(fc.array(entry, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }),
      x: fc.array(fc.tuple(entry, fc.integer({ min: 1, max: 9 })), { minLength: n, maxLength: n }),
    }),
  )

  test('the fractions that the right sides were made of come out exactly, wherever there is one solution', () => {
    fc.assert(
      fc.property(system, ({ rows, x }) => {
        const values = x.map(([n, d]) => Q.rational(n, d)!)
        const right = rows.map((row) =>
          row.reduce((sum, a, k) => Q.add(sum, Q.multiply(Q.whole(a), values[k]!)!)!, Q.ZERO),
        )
        const found = solveLinear({ names: names(rows.length), rows: rows.map((row) => row.map((a) => q(a))), right: right.map(exactReal) }) // prettier-ignore
        if (found.kind !== 'solved') throw new Error('it has the solution that it was made of')
        if (found.free.length > 0) return
        expect(found.values.map((v) => v.kind === 'number' && v.exact && Q.toText(v.exact.re))).toEqual(
          values.map(Q.toText),
        )
      }),
      { numRuns: 300 },
    )
  })

  test('with free names, any values of those give a solution', () => {
    fc.assert(
      fc.property(system, fc.array(entry, { minLength: 6, maxLength: 6 }), ({ rows, x }, free) => {
        // The last row repeats the first: at least one name is free.
        const some = [...rows.slice(0, -1), rows[0]!]
        const values = x.map(([n, d]) => Q.rational(n, d)!)
        const right = some.map((row) => row.reduce((sum, a, k) => Q.add(sum, Q.multiply(Q.whole(a), values[k]!)!)!, Q.ZERO))
        const all = names(rows.length)
        const found = solveLinear({ names: all, rows: some.map((row) => row.map((a) => q(a))), right: right.map(exactReal) })
        if (found.kind !== 'solved') throw new Error('it has a solution')
        if (rows.length > 1) expect(found.free.length).toBeGreaterThan(0)
        const chosen = new Map(found.free.map((name, k) => [name, Q.whole(free[k] ?? 0)]))
        const at = found.values.map((v) => {
          if (v.kind === 'number') return v.exact!.re
          return v.top.terms.reduce((sum, { powers, factor }) => {
            const term = v.top.unknowns.reduce((t, name, k) => (powers[k] === 1 ? Q.multiply(t, chosen.get(name)!)! : t), factor.exact!.re)
            return Q.add(sum, term)!
          }, Q.ZERO)
        })
        for (const [r, row] of some.entries()) {
          const left = row.reduce((sum, a, k) => Q.add(sum, Q.multiply(Q.whole(a), at[k]!)!)!, Q.ZERO)
          expect(Q.toText(left)).toBe(Q.toText(right[r]!))
        }
      }),
      { numRuns: 200 },
    )
  }) // prettier-ignore

  test('complex ones, and those of one and of many equations', () => {
    const found = solveLinear({ names: ['a', 'b'], rows: [[gauss(1, 2), gauss(0, -1)], [gauss(3, 0), gauss(1, 1)]], right: [gauss(5, 0), gauss(0, 5)] }) // prettier-ignore
    if (found.kind !== 'solved') throw new Error('solved')
    // By hand, Cramer: the determinant is (1 + 2j)(1 + j) + 3j = −1 + 6j, a = 5j/det, b = (−25 + 5j)/det.
    const [a, b] = found.values as readonly NumberValue[]
    expect([a!.exact, b!.exact].map((z) => z && [Q.toText(z.re), Q.toText(z.im)])).toEqual([['30/37', '-5/37'], ['55/37', '145/37']]) // prettier-ignore
    const many = Array.from({ length: 12 }, (_, k) => [q(k + 1), q(1)])
    expect(solveLinear({ names: ['a', 'b'], rows: many, right: many.map((_, k) => q(2 * (k + 1) + 3)) })).toMatchObject({ kind: 'solved', spare: 10, free: [] }) // prettier-ignore
  })
})

describe('contradictions', () => {
  test('the smallest set is named: leaving any of its equations out ends the contradiction', () => {
    const entry = fc.integer({ min: -3, max: 3 })
    const row = fc.tuple(fc.array(entry, { minLength: 3, maxLength: 3 }), entry)
    fc.assert(
      fc.property(fc.array(row, { minLength: 4, maxLength: 8 }), (rows) => {
        const of = (set: readonly number[]): LinearSystem => ({ names: names(3), rows: set.map((k) => rows[k]![0].map((a) => q(a))), right: set.map((k) => q(rows[k]![1])) }) // prettier-ignore
        const all = rows.map((_, k) => k)
        const whole = solveLinear(of(all))
        if (whole.kind !== 'contradiction') return
        const set = whole.rows
        const contradicts = (some: readonly number[]): boolean =>
          some.length > 0 && solveLinear(of(some)).kind === 'contradiction'
        expect(contradicts(set)).toBe(true)
        for (const k of set) expect(contradicts(set.filter((other) => other !== k))).toBe(false)
        // No smaller one exists.
        for (let mask = 1; mask < 2 ** rows.length; mask += 1) {
          const some = all.filter((k) => mask & (1 << k))
          if (some.length < set.length) expect(contradicts(some)).toBe(false)
        }
      }),
      { numRuns: 60 },
    )
  })

  test('of rounded equations as well, at any scale', () => {
    for (const scale of [1e-9, 1, 1e9]) {
      const rows = [[Math.PI, 1], [1, Math.E], [2 * Math.PI, 2], [1, 0]].map((row) => row.map((a) => real(a * scale))) // prettier-ignore
      const right = [1, 2, 2.1, 5].map((b) => real(b * scale))
      expect(contradiction({ names: ['a', 'b'], rows, right })).toEqual([0, 2])
    }
  })
})

describe('rounded systems', () => {
  /** A(i, j) = ((i² + 3j + ij) mod 17 − 8)/10, 5 more on the diagonal; b(i) = i − 30: solved with mpmath in 40 digits. */
  test('60 equations in 60 names, as scipy.linalg.solve and mpmath have them', () => {
    const n = 60
    const rows = range(n).map((i) => range(n).map((j) => (((i * i + 3 * j + i * j) % 17) - 8) / 10 + (i === j ? 5 : 0)))
    const lines = [`sought ${names(n).join(', ')}`, ...rows.map((row, k) => equation(row, k - 29)), 'determine']
    const x = answers(lines)
    const expected = { x1: -6.265308046134767, x2: -4.387581815566981, x3: -4.160098935670997, x30: -0.7901604493476189, x31: 0.069494917165097, x59: 4.738121059989783, x60: 5.782295484399729 } // prettier-ignore
    for (const [name, value] of Object.entries(expected))
      expect(Math.abs(numberOf(x[name]!).re - value)).toBeLessThan(1e-12 * 6)
  })

  test('the Hilbert matrix: exactly with fractions, with a hint of its condition where it is rounded', () => {
    const n = 10
    const rows = range(n).map((i) =>
      range(n)
        .map((j) => `x${j}/${i + j - 1}`)
        .join(' + '),
    )
    const exact = answers([`sought ${names(n).join(', ')}`, ...rows.map((row) => `${row} = 1`), 'determine'])
    // The sums of the rows of its inverse (M.-D. Choi, American Mathematical Monthly 90, 1983), the last one n²·C(2n−1, n)·….
    expect(names(n).map((name) => numberOf(exact[name]!).exact && numberOf(exact[name]!).re)).toEqual([-10, 990, -23760, 240240, -1261260, 3783780, -6726720, 7001280, -3938220, 923780]) // prettier-ignore
    const rounded = reckon(['c = sqrt(2)', `sought ${names(n).join(', ')}`, ...rows.map((row) => `c*(${row}) = c`), 'determine']) // prettier-ignore
    expect(rounded.at(-1)!.hints.map((h) => h.code)).toEqual(['ill-conditioned'])
  })

  test('residuals are at rounding, however the units are scaled', () => {
    const entry = fc.integer({ min: -1_000_000, max: 1_000_000 }).map((n) => n / 1e6)
    const exponent = fc.integer({ min: -12, max: 12 })
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 7 }).chain((n) =>
          fc.record({
            a: fc.array(fc.array(fc.tuple(entry, entry), { minLength: n, maxLength: n }), {
              minLength: n,
              maxLength: n,
            }),
            b: fc.array(fc.tuple(entry, entry), { minLength: n, maxLength: n }),
            rows: fc.array(exponent, { minLength: n, maxLength: n }),
            cols: fc.array(exponent, { minLength: n, maxLength: n }),
          }),
        ),
        ({ a, b, rows, cols }) => {
          const scaled = a.map((row, r) => row.map(([re, im], c) => rough((re + (r === c ? 3 : 0)) * 10 ** (rows[r]! + cols[c]!), im * 10 ** (rows[r]! + cols[c]!), true))) // prettier-ignore
          const right = b.map(([re, im], r) => rough(re * 10 ** rows[r]!, im * 10 ** rows[r]!, true))
          const found = solveLinear({ names: names(a.length), rows: scaled, right })
          if (found.kind !== 'solved') throw new Error('solved')
          expect(found.free).toEqual([])
          const x = found.values as readonly NumberValue[]
          scaled.forEach((row, r) => {
            let [re, im, size] = [-right[r]!.re, -right[r]!.im, Math.hypot(right[r]!.re, right[r]!.im)]
            row.forEach((z, c) => {
              re += z.re * x[c]!.re - z.im * x[c]!.im
              im += z.re * x[c]!.im + z.im * x[c]!.re
              size += Math.hypot(z.re, z.im) * Math.hypot(x[c]!.re, x[c]!.im)
            })
            expect(Math.hypot(re, im)).toBeLessThanOrEqual(1e-14 * size)
          })
        },
      ),
      { numRuns: 200 },
    )
  })

  test('equations that are the same but for rounding leave a name free', () => {
    const found = reckon(['sought x, y', '0.1*pi*x + 0.3*pi*y = pi', '0.2*pi*x + 0.6*pi*y = 2*pi', 'determine'])
    expect(found.at(-1)!.text).toBe('x = -3y + 10, y = y')
  })
})

describe('sweeps as coefficients', () => {
  const before = ['w = 10 to 1000 per decade 7', 'R = 50', 'C = 20u', 'L = 0.1']
  const equations = ['(R + j*w*L)*x - j*w*L*y = 10', '-j*w*L*x + (j*w*L + 1/(j*w*C))*y = 0']

  test('are solved at every point, as each point by itself is', () => {
    const x = answers([...before, 'sought x, y', ...equations, 'determine'])
    const sweep = bare(x.x!)
    if (sweep.kind !== 'sweep') throw new Error('a sweep')
    for (const k of [0, 3, 8, sweep.count - 1]) {
      const w = sweep.axis.values[k]!
      const one = answers([`w = ${w}`, ...before.slice(1), 'sought x, y', ...equations, 'determine'])
      const point = numberOf(one.x!)
      expect(Math.hypot(sweep.re[k]! - point.re, sweep.im![k]! - point.im)).toBeLessThan(1e-14 * Math.hypot(point.re, point.im)) // prettier-ignore
    }
  })

  test('are singular at a point alone: it is undefined, the others are not', () => {
    const x = answers(['k = 0 to 4', 'sought x, y', 'x + y = 3', 'x + (k - 1)*y = 5', 'determine'])
    const sweep = bare(x.y!)
    if (sweep.kind !== 'sweep') throw new Error('a sweep')
    expect([...sweep.re].map((v) => (Number.isNaN(v) ? 'undefined' : v))).toEqual([-1, -2, 'undefined', 2, 1])
  })

  test('on the right side as well, of angles too, and point by point where there are more equations than names', () => {
    const swept = (lines: readonly string[], name = 'x'): readonly number[] => {
      const sweep = bare(answers([...lines, 'determine'])[name]!)
      if (sweep.kind !== 'sweep') throw new Error('a sweep')
      return [...sweep.re]
    }
    expect(swept(['k = 1 to 3', 'sought x', 'x = k'])).toEqual([1, 2, 3])
    expect(swept(['k = 1 to 3', 'sought x', 'k - x = 0'])).toEqual([1, 2, 3])
    expect(swept(['k = 1 to 3', 'sought x', '2*x - 1 = k'])).toEqual([1, 1.5, 2])
    expect(swept(['k = 1 to 3', 'sought x, y', 'x + y = k', 'x - y = 1', '2*x = k + 1'], 'y')).toEqual([0, 0.5, 1])
    expect(
      swept(['a = 10° to 30° step 10°', 'sought x', '2*x = a']).map((r) => Math.round((r * 180) / Math.PI)),
    ).toEqual([5, 10, 15])
  })

  test('equations of functions follow their solution from point to point', () => {
    const last = reckon(['k = 1 to 4', 'sought x', 'x*e^x = k', 'determine'], { timeLimit: 5_000 }).at(-1)!
    if (last.value?.kind !== 'parts') throw new Error('answers')
    const sweep = bare(last.value.parts.get('x')!)
    // mpmath.lambertw of 1 to 4.
    const expected = [0.567143290409784, 0.852605502013726, 1.04990889496404, 1.20216787319704]
    expect(sweep.kind === 'sweep' && [...sweep.re]).toEqual(expected.map((x) => expect.closeTo(x, 13)))
    expect(last.view.readout).toMatchObject({ text: expect.stringContaining('there may be more') })
    expect(reckon(['k = 1 to 4', 'sought x', 'x^2 = k', 'determine']).at(-1)!.error?.code).toBe(
      'equations-several-along',
    )
    expect(reckon(['k = 1 to 3', 'sought x', 'x^2 = k^2', 'determine near x = -1']).at(-1)!.text).toContain('-1 … -3')
  })

  test('unknowns with units stay what they were declared to be', () => {
    const lines = [
      'unknown s in 1/s',
      'sought I',
      '(2 ohm + s*(3 H))*I = 4 V',
      'determine',
      'I where s = 2j*(1 rad/second)',
    ]
    // 4/(2 + 6j) by hand.
    expect(reckon(lines).at(-1)!.text).toBe('(0.2 - 0.6j) A')
  })

  test('random ones agree with solve at every point', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 9, maxLength: 9 }), (a) => {
        const rows = [0, 1, 2].map((r) => [0, 1, 2].map((c) => `(${a[3 * r + c]} + ${r === c ? 8 : 0} + ${c + 1}*j*w)`))
        const lines = [
          'w = 0 to 1 count 11',
          'sought x1, x2, x3',
          ...rows.map((row, r) => `${row.map((z, c) => `${z}*x${c + 1}`).join(' + ')} = ${r + 1}`),
          'determine',
          `v = solve([${rows.map((row) => `[${row.join(', ')}]`).join(', ')}], [1, 2, 3])`,
          'max(abs(x1 - v[1]) + abs(x2 - v[2]) + abs(x3 - v[3]))',
        ]
        const last = reckon(lines).at(-1)!
        expect([last.error, numberOf(last.value!).re < 1e-12]).toEqual([null, true])
      }),
      { numRuns: 40 },
    )
  })
})

describe('units and angles', () => {
  test('what is sought measures what its equations say', () => {
    const lines = ['R1 = 4 ohm', 'R2 = 6 ohm', 'L = 10 mH', 'w = 2pi*50 Hz', 'sought I1, I2, U', '(R1 + R2)*I1 - R2*I2 = 12 V', '-R2*I1 + (R2 + j*w*L)*I2 = 0', 'U - j*w*L*I2 = 0', 'determine'] // prettier-ignore
    const last = reckon(lines).at(-1)!
    // By numpy.linalg.solve.
    expect(last.text).toBe('I1 = (1.8634 - 0.86833j) A, I2 = (1.1056 - 1.4472j) A, U = (4.5466 + 3.4733j) V')
  })

  test('an equation whose units contradict the others is named', () => {
    const { error } = reckon(['R = 4 ohm', 'sought I', 'R*I = 12 V', '2 ohm*I = 5 A', 'determine']).at(-1)!
    expect([error?.code, error?.message]).toEqual(['equation-units', expect.stringContaining('line 4')])
    expect(reckon(['sought I', '3 ohm*I + I = 4 V', 'determine'])[1]!.error?.code).toMatch(/unit/)
  })

  test('angles come out as angles, exactly where they can be', () => {
    expect(reckon(['sought a, b', 'a + b = 180°', 'a - b = 30°', 'determine']).at(-1)!.text).toBe('a = 105°, b = 75°')
    expect(reckon(['sought a', 'a + 30 = 90°', 'determine']).at(-1)!.text).toBe('a = 60°')
    expect(reckon(['sought a', '2a = arctan(3/4)', 'determine']).at(-1)!.text).toBe('a = 18.435°')
  })

  test('unknowns may stand in the coefficients', () => {
    const lines = ['unknown s', 'sought x, y', '(s + 2)*x - s*y = 1', '-s*x + (s + 3)*y = 0', 'determine', 'H = y/x']
    const results = reckon(lines)
    expect(results[4]!.text).toBe('x = (s + 3)/(5s + 6), y = s/(5s + 6)')
    expect(results[5]!.text).toBe('5s/(5s + 15)')
  })

  test('vectors and matrices are solved for as a whole', () => {
    const before = ['Z = [[3, 1], [1, 2]]', 'B = [[1, 0], [0, 1]]']
    expect(reckon([...before, 'sought v', 'Z*v = [5, 5]', 'determine']).at(-1)!.text).toBe('v = [1, 2]')
    expect(reckon([...before, 'sought X', 'Z*X = B', 'determine']).at(-1)!.text).toBe('X = [[0.4, -0.2], [-0.2, 0.6]]')
    expect(reckon([...before, 'sought a, b', 'Z*[a, b] = [5, 5]', 'determine']).at(-1)!.text).toBe('a = 1, b = 2')
    expect(reckon([...before, 'sought v, u', 'Z*v + u = [6, 6]', 'v - u = [0, 1]', 'determine']).at(-1)!.text).toBe('v = [1, 2], u = [1, 1]') // prettier-ignore
    expect(reckon(['sought x', '[1, x] = [1, 2]', 'determine']).at(-1)!.text).toBe('x = 2')
    expect(reckon(['sought x', '[3, x] = [1, 2]', 'determine']).at(-1)!.error?.code).toBe('equation-never')
    expect(reckon([...before, 'sought a, b', 'Z*[a, b] = [5 V, 5 V]', 'a + b = 3 V', 'determine']).at(-1)!.text).toBe('a = 1 V, b = 2 V') // prettier-ignore
    const outside = reckon([...before, 'Z*v = [5, 5]']).at(-1)!
    expect(outside.error?.fixes.map((f) => f.replacement)).toContain('v = solve(Z, [5, 5])')
  })
})
