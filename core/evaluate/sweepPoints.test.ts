import { reckon } from '../testing'
import type { Value } from '../values/types'
import { pointAt } from '../values/sweeps'

/** A sweep equals its points: whatever is computed from it is, at each point, what the point alone gives. */

const POINTS = [
  '-2',
  '-1',
  '-0.5',
  '0',
  '0.5',
  '1',
  '2',
  '3',
  '30',
  '45',
  '60',
  '90',
  '180',
  '270',
  '360',
  '3.6e11',
  '1e200',
  '-1e200',
  '1e-200',
]

const TERMS = [
  'x + 1', 'x - 1', '1 - x', '-x', '2x', 'x*x', 'x^2', 'x^3', 'x^-1', 'x^0', 'x^0.5', 'x^-2', '2^x', '1/x', '2j/x', '(1/x)^2', 'x/x', 'x/(x - 1)', '(x + 1j)/x',
  'x*1j', 'x + 2j', '(x + 1j)*(x - 1j)', '1/(x + 1j)', 'x || 2', 'x || 2j', 'abs(x)', 'abs(x + 1j)', 'arg(x + 1j)', 'conj(x + 1j)', 're(x*1j)', 'im(x*1j)',
  'sqrt(x)', 'sqrt(x + 1j)', 'cbrt(x)', 'exp(x/100)', 'exp(x*1j)', 'ln(x)', 'lg(x)', 'lb(x)', 'dB(x)', 'dB(x + 1j)', 'from_dB(x/100)',
  'sin(x)', 'cos(x)', 'tan(x)', 'cot(x)', 'sec(x)', 'csc(x)', 'arctan(x)', 'sinh(x/100)', 'cosh(x/100)', 'tanh(x)', 'arsinh(x)',
  'sin(x°)', 'cos(x°)', 'tan(x°)', '5∠x', 'cis(x)', 'round(x)', 'floor(x/7)', 'ceil(x/7)', 'trunc(x/7)', 'sign(x)', 'x mod 7', 'min(x, 1)', 'max(x, 1)', 'rms(x)', 'peak(x)',
  'x > 1', 'x == 1', 'if(x > 1, x, -x)', 'degrees(x°)', 'x°', 'arg(5∠x)', 'x*30°', '[x, 1]', '[[x, 1], [0, 1]]', 'norm([x, 1])', 'wave(5∠30°, 2, x)', 'x*pi', 'inf*x', 'x - inf', '0/0 + x',
] // prettier-ignore

/**
 * Where a point alone is exact and the sweep holds its double, they are different numbers (10^200 is no double):
 * what depends on its last digits cannot be compared there. A sweep of angles holds radians.
 */
function pointsFor(term: string): readonly string[] {
  const small = /x°|\*pi/.test(term)
  const turned = /sin|cos|tan|cot|sec|csc|∠|cis|mod/.test(term)
  return POINTS.filter((p) => (small ? Math.abs(Number(p)) <= 1e6 : !turned || Math.abs(Number(p)) < 1e15))
}

/** What of a value can be compared. */
function plain(value: Value | null, code: string | undefined): unknown {
  if (!value) return code ?? 'nothing'
  switch (value.kind) {
    case 'number':
      return [value.re, value.im]
    case 'angle':
      return ['angle', value.radians]
    case 'vector':
      return value.items.map((item) => plain(item, undefined))
    case 'matrix':
      return [...value.dense.re, ...value.dense.im]
    case 'truth':
      return value.truth
    default:
      return value.kind
  }
}

const near = (a: unknown, b: unknown): boolean => {
  if (typeof a === 'number' && typeof b === 'number') {
    if (Object.is(a, b) || a === b) return true
    return Number.isFinite(a) && Number.isFinite(b) && Math.abs(a - b) <= 4e-15 * Math.max(Math.abs(a), Math.abs(b))
  }
  if (Array.isArray(a) && Array.isArray(b)) {
    const size = Math.max(...a.concat(b).map((x) => (typeof x === 'number' && Number.isFinite(x) ? Math.abs(x) : 0)))
    return (
      a.length === b.length &&
      a.every(
        (x, k) =>
          near(x, b[k]) ||
          (typeof x === 'number' && typeof b[k] === 'number' && Math.abs(x - (b[k] as number)) <= 1e-15 * size),
      )
    )
  }
  return a === b
}

describe.each(['deg', 'rad'] as const)('in %s', (angle) => {
  test.each(TERMS)('%s', (term) => {
    // A point that fails makes the whole sweep an error: each stands in a sweep of two of its kind.
    const differences: unknown[] = []
    for (const point of pointsFor(term)) {
      const alone = reckon([`x = ${point}`, term], { angle })[1]!
      const swept = reckon([`x = sweep([${point}, ${point}])`, term], { angle })[1]!
      const value = swept.value?.kind === 'sweep' ? pointAt(swept.value, 1) : swept.value
      const [one, other] = [plain(alone.value, alone.error?.code), plain(value, swept.error?.code)]
      if (!near(one, other)) differences.push([point, one, other])
    }
    expect(differences).toEqual([])
  })
})
