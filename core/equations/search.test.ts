import { reckon } from '../testing'
import type { Value } from '../values/types'
import { bare } from '../values/quantity'

/**
 * Square systems, and consistent ones with more equations, of J. J. Moré, B. S. Garbow and K. E. Hillstrom, "Testing
 * Unconstrained Optimization Software", ACM Transactions on Mathematical Software 7 (1981), 17–41, under their numbers
 * there, each from its standard start. The solutions are those of the paper, or were worked out with mpmath's `findroot`
 * to 30 digits.
 */
interface System {
  readonly name: string
  readonly equations: readonly string[]
  readonly start: readonly number[]
  /** The equations as functions, for the residual: of the values in the order of x1, x2, … */
  readonly residual: (x: readonly number[]) => readonly number[]
  readonly solution?: readonly number[]
}

const names = (n: number): string[] => Array.from({ length: n }, (_, k) => `x${k + 1}`)
const sumOf = (terms: readonly string[]): string => terms.join(' + ')
const range = (n: number): number[] => Array.from({ length: n }, (_, k) => k + 1)
const total = (x: readonly number[]): number => x.reduce((a, b) => a + b, 0)

const chebyshev = (i: number, x: number): number => {
  const t = 2 * x - 1
  let [a, b] = [1, t]
  for (let k = 1; k < i; k += 1) [a, b] = [b, 2 * t * b - a]
  return b
}
/** The shifted Chebyshev polynomial as a term of the notation, by its recurrence. */
const CHEBYSHEV = (x: string): string[] => {
  const t = `(2*${x} - 1)`
  return [t, `(2*${t}^2 - 1)`, `(4*${t}^3 - 3*${t})`, `(8*${t}^4 - 8*${t}^2 + 1)`, `(16*${t}^5 - 20*${t}^3 + 5*${t})`]
}

function boundaryValue(n: number): System {
  const h = 1 / (n + 1)
  const t = (i: number): number => i * h
  return {
    name: `28. discrete boundary value, ${n}`,
    equations: range(n).map((i) => {
      const sides = [...(i > 1 ? [`- x${i - 1}`] : []), ...(i < n ? [`- x${i + 1}`] : [])].join(' ')
      return `2*x${i} ${sides} + ${h * h}*(x${i} + ${t(i) + 1})^3/2 = 0`
    }),
    start: range(n).map((i) => t(i) * (t(i) - 1)),
    residual: (x) =>
      range(n).map((i) => 2 * x[i - 1]! - (x[i - 2] ?? 0) - (x[i] ?? 0) + (h * h * (x[i - 1]! + t(i) + 1) ** 3) / 2),
  }
}

function integralEquation(n: number): System {
  const h = 1 / (n + 1)
  const t = (i: number): number => i * h
  const cube = (j: number): string => `(x${j} + ${t(j) + 1})^3`
  return {
    name: `29. discrete integral equation, ${n}`,
    equations: range(n).map((i) => {
      const below = sumOf(range(i).map((j) => `${t(j)}*${cube(j)}`))
      const above = range(n).filter((j) => j > i).map((j) => `${1 - t(j)}*${cube(j)}`) // prettier-ignore
      const second = above.length > 0 ? ` + ${t(i)}*(${sumOf(above)})` : ''
      return `x${i} + ${h / 2}*(${1 - t(i)}*(${below})${second}) = 0`
    }),
    start: range(n).map((i) => t(i) * (t(i) - 1)),
    residual: (x) =>
      range(n).map((i) => {
        const c = (j: number): number => (x[j - 1]! + t(j) + 1) ** 3
        const below = total(range(i).map((j) => t(j) * c(j)))
        const above = total(range(n).filter((j) => j > i).map((j) => (1 - t(j)) * c(j))) // prettier-ignore
        return x[i - 1]! + (h * ((1 - t(i)) * below + t(i) * above)) / 2
      }),
  }
}

function chebyquad(n: number, solution: readonly number[]): System {
  const integral = (i: number): number => (i % 2 === 1 ? 0 : -1 / (i * i - 1))
  return {
    name: `35. Chebyquad, ${n}`,
    equations: range(n).map((i) => `(${sumOf(names(n).map((x) => CHEBYSHEV(x)[i - 1]!))})/${n} = ${i % 2 === 1 ? '0' : `-1/${i * i - 1}`}`), // prettier-ignore
    start: range(n).map((j) => j / (n + 1)),
    residual: (x) => range(n).map((i) => total(x.map((at) => chebyshev(i, at))) / n - integral(i)),
    solution,
  }
}

const SYSTEMS: readonly System[] = [
  {
    name: '1. Rosenbrock',
    equations: ['10*(x2 - x1^2) = 0', '1 - x1 = 0'],
    start: [-1.2, 1],
    residual: ([a = 0, b = 0]) => [10 * (b - a * a), 1 - a],
    solution: [1, 1],
  },
  {
    name: '2. Freudenstein and Roth',
    equations: ['-13 + x1 + ((5 - x2)*x2 - 2)*x2 = 0', '-29 + x1 + ((x2 + 1)*x2 - 14)*x2 = 0'],
    start: [0.5, -2],
    residual: ([a = 0, b = 0]) => [-13 + a + ((5 - b) * b - 2) * b, -29 + a + ((b + 1) * b - 14) * b],
  },
  {
    name: '3. Powell, badly scaled',
    equations: ['1e4*x1*x2 = 1', 'e^(-x1) + e^(-x2) = 1.0001'],
    start: [0, 1],
    residual: ([a = 0, b = 0]) => [1e4 * a * b - 1, Math.exp(-a) + Math.exp(-b) - 1.0001],
    solution: [1.0981593296998175e-05, 9.106146739866524],
  },
  {
    name: '4. Brown, badly scaled',
    equations: ['x1 - 1e6 = 0', 'x2 - 2e-6 = 0', 'x1*x2 - 2 = 0'],
    start: [1, 1],
    residual: ([a = 0, b = 0]) => [a - 1e6, b - 2e-6, a * b - 2],
    solution: [1e6, 2e-6],
  },
  {
    name: '5. Beale',
    equations: [1.5, 2.25, 2.625].map((y, k) => `${y} - x1*(1 - x2^${k + 1}) = 0`),
    start: [1, 1],
    residual: ([a = 0, b = 0]) => [1.5, 2.25, 2.625].map((y, k) => y - a * (1 - b ** (k + 1))),
    solution: [3, 0.5],
  },
  {
    name: '7. helical valley, on its right side',
    equations: [
      '10*(x3 - 10*arctan(x2/x1)/(2pi rad)) = 0',
      '10*(sqrt(x1^2 + x2^2) - 1) = 0',
      'x3 = 0',
    ],
    start: [1.5, 0.5, 1],
    residual: ([a = 0, b = 0, c = 0]) => [10 * (c - (10 * Math.atan(b / a)) / (2 * Math.PI)), 10 * (Math.hypot(a, b) - 1), c],
    solution: [1, 0, 0],
  },
  {
    name: '13. Powell, singular',
    equations: ['x1 + 10*x2 = 0', 'sqrt(5)*(x3 - x4) = 0', '(x2 - 2*x3)^2 = 0', 'sqrt(10)*(x1 - x4)^2 = 0'],
    start: [3, -1, 0, 1],
    residual: ([a = 0, b = 0, c = 0, d = 0]) => [a + 10 * b, c - d, (b - 2 * c) ** 2, (a - d) ** 2],
    solution: [0, 0, 0, 0],
  },
  {
    name: '14. Wood',
    equations: [
      '10*(x2 - x1^2) = 0', '1 - x1 = 0', 'sqrt(90)*(x4 - x3^2) = 0', '1 - x3 = 0', 'sqrt(10)*(x2 + x4 - 2) = 0',
      '(x2 - x4)/sqrt(10) = 0',
    ], // prettier-ignore
    start: [-3, -1, -3, -1],
    residual: ([a = 0, b = 0, c = 0, d = 0]) => [b - a * a, 1 - a, d - c * c, 1 - c, b + d - 2, b - d],
    solution: [1, 1, 1, 1],
  },
  {
    name: '21. Rosenbrock, extended to 8',
    equations: range(4).flatMap((k) => [`10*(x${2 * k} - x${2 * k - 1}^2) = 0`, `1 - x${2 * k - 1} = 0`]),
    start: range(4).flatMap(() => [-1.2, 1]),
    residual: (x) => range(4).flatMap((k) => [10 * (x[2 * k - 1]! - x[2 * k - 2]! ** 2), 1 - x[2 * k - 2]!]),
    solution: range(8).map(() => 1),
  },
  {
    name: '25. variably dimensioned, 4',
    equations: [
      ...names(4).map((x) => `${x} - 1 = 0`),
      `${sumOf(range(4).map((j) => `${j}*(x${j} - 1)`))} = 0`,
      `(${sumOf(range(4).map((j) => `${j}*(x${j} - 1)`))})^2 = 0`,
    ],
    start: range(4).map((j) => 1 - j / 4),
    residual: (x) => x.map((at) => at - 1),
    solution: [1, 1, 1, 1],
  },
  {
    name: '26. trigonometric, 3',
    equations: range(3).map(
      (i) => `3 - (${sumOf(names(3).map((x) => `cos(${x} rad)`))}) + ${i}*(1 - cos(x${i} rad)) - sin(x${i} rad) = 0`,
    ),
    start: [1 / 3, 1 / 3, 1 / 3],
    residual: (x) => {
      const all = total(x.map(Math.cos))
      return x.map((at, k) => 3 - all + (k + 1) * (1 - Math.cos(at)) - Math.sin(at))
    },
  },
  {
    name: '27. Brown, almost linear, 5',
    equations: [
      ...range(4).map((i) => `x${i} + ${sumOf(names(5))} = 6`),
      `${names(5).join('*')} = 1`,
    ],
    start: range(5).map(() => 0.5),
    residual: (x) => [...range(4).map((i) => x[i - 1]! + total(x) - 6), x.reduce((a, b) => a * b, 1) - 1],
  },
  boundaryValue(4),
  boundaryValue(10),
  integralEquation(3),
  integralEquation(8),
  {
    name: '30. Broyden, tridiagonal, 8',
    equations: range(8).map((i) => `(3 - 2*x${i})*x${i} ${i > 1 ? `- x${i - 1}` : ''} ${i < 8 ? `- 2*x${i + 1}` : ''} + 1 = 0`), // prettier-ignore
    start: range(8).map(() => -1),
    residual: (x) => range(8).map((i) => (3 - 2 * x[i - 1]!) * x[i - 1]! - (x[i - 2] ?? 0) - 2 * (x[i] ?? 0) + 1),
  },
  {
    name: '31. Broyden, banded, 6',
    equations: range(6).map((i) => {
      const near = range(6).filter((j) => j !== i && j >= i - 5 && j <= i + 1)
      return `x${i}*(2 + 5*x${i}^2) + 1 - (${sumOf(near.map((j) => `x${j}*(1 + x${j})`))}) = 0`
    }),
    start: range(6).map(() => -1),
    residual: (x) =>
      range(6).map((i) => {
        const near = range(6).filter((j) => j !== i && j >= i - 5 && j <= i + 1)
        return x[i - 1]! * (2 + 5 * x[i - 1]! ** 2) + 1 - total(near.map((j) => x[j - 1]! * (1 + x[j - 1]!)))
      }),
  },
  chebyquad(2, [0.211324865405187, 0.788675134594813]),
  chebyquad(3, [0.146446609406726, 0.5, 0.853553390593274]),
  chebyquad(4, [0.10267276385411694, 0.40620376295746, 0.5937962370425399, 0.8973272361458831]),
  chebyquad(5, [0.083751256499510, 0.312729295223209, 0.5, 0.687270704776791, 0.916248743500490]),
] // prettier-ignore

/** A solution as numbers. */
function numbersOf(value: Value | null): number[] {
  if (value?.kind !== 'parts') return []
  return [...value.parts.values()].map((part) => {
    const inner = bare(part)
    return inner.kind === 'number' && inner.im === 0 ? inner.re : NaN
  })
}

test.each(SYSTEMS.map((system) => [system.name, system] as const))('%s', (_, system) => {
  const all = names(system.start.length)
  const near = all.map((name, k) => `${name} = ${system.start[k]}`).join(', ')
  const lines = [`sought ${all.join(', ')}`, ...system.equations, `determine near ${near}`]
  const results = reckon(lines, { timeLimit: 5_000 })
  results.forEach(({ error }, k) => expect([lines[k], error?.message]).toEqual([lines[k], undefined]))
  const x = numbersOf(results.at(-1)!.value)
  const size = Math.max(1, ...x.map(Math.abs))
  for (const rest of system.residual(x)) expect(Math.abs(rest)).toBeLessThan(1e-9 * size)
  system.solution?.forEach((expected, k) => expect(Math.abs(x[k]! - expected)).toBeLessThanOrEqual(1e-9 * Math.max(1e-5, Math.abs(expected), size * 1e-3))) // prettier-ignore
})

const solve = (equation: string, more = '', before: readonly string[] = []) =>
  reckon([...before, 'sought x', equation, `determine ${more}`], { timeLimit: 3_000 }).at(-1)!

/** All values of the one sought name. */
function valuesOf(equation: string, more = '', before: readonly string[] = []): readonly number[] {
  const { value, error } = solve(equation, more, before)
  if (error || value?.kind !== 'parts') return []
  const part = bare(value.parts.get('x')!)
  if (part.kind === 'sweep') return part.im ? [NaN] : [...part.re]
  return part.kind === 'number' ? [part.re] : part.kind === 'angle' ? [part.radians] : []
}

describe('one equation in one name', () => {
  /** Worked out with mpmath to 30 digits: `findroot` from brackets, `lambertw`, or in closed form. */
  test.each([
    ['e^(-x/0.005) = 0.1', '', [0.01151292546497023]],
    ['x*ln(x) = -0.2', '', [0.07865836028685176, 0.7716909740176942]],
    ['x*e^x = 1', '', [0.5671432904097838]],
    ['x*e^x = -0.1', '', [-3.577152063957297, -0.11183255915896297]],
    ['2^x = x^2', '', [-0.766664695962123, 2, 4]],
    ['x - cos(x rad) = 0', 'near x = 1', [0.7390851332151607]],
    ['sin(x rad) = x/2', 'from x = -3 to 3', [-1.895494267033981, 0, 1.895494267033981]],
    ['tan(x rad) = x', 'from x = 0.1 to 12', [4.493409457909064, 7.725251836937707, 10.904121659428899]],
    [
      'sin((1/x) rad) = 0',
      'from x = 0.05 to 1',
      [
        0.05305164769729845, 0.06366197723675814, 0.07957747154594767, 0.1061032953945969, 0.15915494309189535,
        0.3183098861837907,
      ],
    ],
    ['abs(x - 3) = 2', '', [1, 5]],
    ['abs(1/(1 + j*x)) = 1/sqrt(2)', '', [-1, 1]],
    ['sqrt(x) + x = 6', '', [4]],
    ['lg(x) = 2.5', '', [316.22776601683796]],
    ['x^x = 2', '', [1.5596104694623694]],
    ['cosh(x) = 2', '', [-1.3169578969248168, 1.3169578969248168]],
    ['dB(x) = -3', '', [-0.7079457843841379, 0.7079457843841379]],
    ['arg(1 + j*x) = 30°', '', [0.5773502691896257]],
    ['(x - 1)^2*e^x = 0', '', [1]],
    ['e^(-x) = x^3 - 2x', 'from x = -3 to 3', [1.4685982439345]],
    ['1/x = 0.001*x', '', [-31.622776601683793, 31.622776601683793]],
    ['1e-12*e^(x/0.026) - 1e-12 = 5e-3', '', [0.5806502974890932]],
  ] as const)('%s %s', (equation, more, expected) => {
    const found = valuesOf(equation, more)
    expect(found).toHaveLength(expected.length)
    expected.forEach((value, k) => expect(Math.abs(found[k]! - value)).toBeLessThanOrEqual(2e-12 * Math.max(1, Math.abs(value)))) // prettier-ignore
  })

  test.each([
    'e^x = 0', 'e^(-x) = 0', 'tanh(x) = 1', '1/(x^2 + 1) = 0', 'arctan(x) = 90°', 'e^x = -1', 'sqrt(x) = -2', 'abs(x) = -1',
    'ln(x) + ln(-x) = 1000', 'x + 1/(x - 1) - 1/(x - 1) = x + 1', 'cosh(x) = 0.5', '1/ln(x) = 0', 'e^(-x^2) = 0', 'sqrt(x^2) + 1 = 0',
    'x/abs(x) = 0',
  ])('%s has no solution, and none is found', (equation) => {
    const { error, value } = solve(equation)
    expect([equation, error === null && value]).toEqual([equation, false])
  }) // prettier-ignore

  test('what repeats itself needs bounds, and has all solutions between them', () => {
    expect(solve('sin(x) = 0.5').error?.code).toBe('periodic-needs-range')
    expect(solve('5∠x = 3 + 4j').error?.code).toBe('periodic-needs-range')
    expect(solve('e^(j*x) = 1').error?.code).toBe('periodic-needs-range')
    expect(valuesOf('sin(2pi*50*x rad) = 0.5', 'from x = 0 to 1')).toHaveLength(100)
    const times = valuesOf('325*sin(2pi*50*x rad) = 100', 'from x = 0 to 0.02')
    expect(times.map((t) => 325 * Math.sin(100 * Math.PI * t))).toEqual([
      expect.closeTo(100, 8),
      expect.closeTo(100, 8),
    ])
  })

  test('an angle that is sought comes out as one, a bare number in the unit of the conventions', () => {
    const asked = (more: string, angle: 'deg' | 'rad' = 'deg') =>
      reckon(['sought x', 'sin(x) = 0.5', `determine ${more}`], { angle })
    const degrees = asked('from x = 0° to 90°').at(-1)!
    expect(degrees.text).toBe('x = 30°')
    expect(asked('near x = 25').at(-1)!.text).toBe('x = 30')
    expect(asked('near x = 0.5', 'rad').at(-1)!.text).toBe('x = 0.5236')
    expect(asked('near x = 25')[1]!.view.unitDependent || asked('near x = 25')[2]!.view.unitDependent).toBe(true)
    expect(solve('x = arctan(3/4) + 10°').text).toBe('x = 46.87°')
  })

  test('complex solutions are found where a start is complex', () => {
    const found = solve('e^x = -1', 'near x = 3j').text
    expect(found).toBe('x = 0 + 3.1416j')
    expect(solve('cosh(x) = 0.5', 'near x = 1j').text).toBe('x = 0 + 1.0472j')
  })

  test('a term without a derivative is named with its line', () => {
    const { error } = solve('floor(x) + x = 3')
    expect(error?.message).toContain('floor(x) in line 2')
  })
})

describe('several equations', () => {
  const both = (equations: readonly string[], more = '') =>
    reckon(['sought x, y', ...equations, `determine ${more}`], { timeLimit: 3_000 }).at(-1)!

  /** Solution sets in closed form. */
  test.each([
    [['x^2 + y^2 = 25', 'x*y = 12'], [[-4, -3], [-3, -4], [3, 4], [4, 3]]],
    [['x^2 + y^2 = 5', 'x^2 - y^2 = 3'], [[-2, -1], [-2, 1], [2, -1], [2, 1]]],
    [['x + y = 7', 'x*y = 12'], [[3, 4], [4, 3]]],
    [['y = x^2', 'x = y^2'], [[0, 0], [1, 1]]],
    [['e^x*y = 2', 'x - y = ln(2) - 1'], [[Math.LN2, 1]]],
    [['sqrt(x) + y = 4', 'x + sqrt(y) = 10'], [[9, 1]]],
    [['x*y = 6', 'x^2*y = 12'], [[2, 3]]],
  ])('%s', (equations, expected) => {
    const { value, error } = both(equations)
    expect(error).toBeNull()
    if (value?.kind !== 'parts') throw new Error('answers')
    const columns = [...value.parts.values()].map((part) => {
      const inner = bare(part)
      return inner.kind === 'sweep' ? [...inner.re].map((re, k) => (Math.abs(inner.im?.[k] ?? 0) > 1e-9 ? NaN : re)) : inner.kind === 'number' && inner.im === 0 ? [inner.re] : [NaN]
    })
    const found = columns[0]!.map((x, k) => [x, columns[1]![k]!]).filter(([x]) => !Number.isNaN(x))
    for (const [x, y] of expected)
      expect([x, y, found.some(([a, b]) => Math.abs(a! - x!) < 1e-9 && Math.abs(b! - y!) < 1e-9)]).toEqual([x, y, true])
    for (const [a, b] of found) expect([a, b, expected.some(([x, y]) => Math.abs(a! - x!) < 1e-9 && Math.abs(b! - y!) < 1e-9)]).toEqual([a, b, true]) // prettier-ignore
  }) // prettier-ignore

  test('of several solutions near picks one, and pairs stay together', () => {
    expect(both(['x^2 + y^2 = 25', 'x*y = 12'], 'near x = 3.1, y = 4').text).toBe('x = 3, y = 4')
    expect(both(['x + y = 7', 'x*y = 12'], 'near x = 5').text).toBe('x = 4, y = 3')
    const several = reckon(['sought x, y', 'x + y = 7', 'x*y = 12', 'determine', 'x*y', 'x + y'])
    for (const k of [4, 5]) {
      const value = several[k]!.value
      if (value?.kind !== 'sweep') throw new Error('a sweep')
      expect([...value.re].map((z) => Math.round(z * 1e9) / 1e9)).toEqual(k === 4 ? [12, 12] : [7, 7])
    }
  })

  test('as many solutions as there can be leave no more; else it is said that there may be', () => {
    expect(both(['x^2 + y^2 = 25', 'x*y = 12']).view.readout).toMatchObject({ text: '2 equations, 2 sought, four solutions found' }) // prettier-ignore
    expect(both(['e^x*y = 2', 'x + y = 1.7']).view.readout).toMatchObject({ text: expect.stringContaining('there may be more') }) // prettier-ignore
  })

  test('a multiple root is said to be one; rounded ones that may be one are hinted at', () => {
    const of = (equation: string) => reckon(['sought x', equation, 'determine']).at(-1)!
    expect(of('(x - 1)^2*(x - 4) = 0').view.readout).toMatchObject({ text: '1 equation, 1 sought, two solutions; number 1 is double' }) // prettier-ignore
    expect(of('x^3 = 0').text).toBe('x = 0')
    expect(of('x^3 = 0').view.readout).toMatchObject({ text: '1 equation, 1 sought, one solution; it is threefold' })
    expect(of('x^2 - 2*sqrt(2)*x + 2 = 0').hints.map((h) => h.code)).toEqual(['roots-cluster'])
  })

  test('too few are said to be', () => {
    expect(both(['x*y = 1']).error?.code).toBe('equations-few')
    expect(both(['x*sin(y rad) = 1'], 'near x = 1, y = 1').error?.code).toBe('equations-few')
  })
})
