import { reckon } from '../testing'
import type { Reckoned } from '../testing'
import { KNOWN_FIGURES, KNOWN_SYSTEMS } from './systems.expected'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

const after = (line: string, ...entries: string[]): Reckoned[] => reckon(['unknown s', line, ...entries], SLOW).slice(2)

function numberOf({ value, error }: Reckoned): number {
  if (value?.kind === 'number') return value.re
  if (value?.kind === 'angle') return value.radians
  if (value?.kind === 'text') return NaN
  throw new Error(error?.message ?? `a ${value?.kind}`)
}

describe('forty-two systems', () => {
  test.each(KNOWN_SYSTEMS)('$name: the step response', ({ line, times, step }) => {
    const found = after(line, ...times.map((t) => `step_response(G, ${t})`))
    if (step === null) {
      for (const one of found) expect(one.error?.code).toBe('transfer-improper')
      return
    }
    const peak = Math.max(...step.map(Math.abs))
    found.forEach((one, k) => expect(Math.abs(numberOf(one) - step[k]!) / peak).toBeLessThan(1e-9))
  })

  test.each(KNOWN_SYSTEMS)('$name: the same over a sweep', ({ line, times, step }) => {
    if (step === null) return
    const [, , y] = after(line, `v = [${times.join(', ')}]`, 't = sweep(v)', 'y = step_response(G, t)')
    const sweep = y?.value?.kind === 'sweep' ? y.value : null
    const peak = Math.max(...step.map(Math.abs))
    expect(sweep?.count).toBe(times.length)
    step.forEach((value, k) => expect(Math.abs(sweep!.re[k]! - value) / peak).toBeLessThan(1e-9))
  })

  test.each(KNOWN_SYSTEMS)('$name: its margins as an open loop', ({ line, phase, gain }) => {
    const all = after(line, 'M = margins(G)', ...['phase', 'phase_at', 'gain', 'gain_at'].map((part) => `M.${part}`))
    const values = all.slice(1).map(numberOf)
    const wanted = [...(phase ?? [NaN, NaN]), ...(gain ?? [NaN, NaN])]
    wanted.forEach((value, k) => {
      const found = values[k]!
      if (Number.isFinite(value) && value !== 0) expect(Math.abs(found - value) / Math.abs(value)).toBeLessThan(1e-9)
      else expect(found).toBe(value)
    })
  })
})

describe('the figures of a step response', () => {
  test.each(KNOWN_FIGURES)('$line', ({ line, peakAt, ...known }) => {
    const wanted = { ...known, peak_at: peakAt }
    const found = after(line, 'F = step_figures(G)', ...Object.keys(wanted).map((part) => `F.${part}`)).slice(1)
    Object.values(wanted).forEach((value, k) => {
      const number = numberOf(found[k]!)
      // An extreme is flat: its place is known to half as many digits as its height.
      const digits = Object.keys(wanted)[k] === 'peak_at' ? 1e-8 : 1e-9
      if (value === null) expect(number).toBeNaN()
      else expect(Math.abs(number - value)).toBeLessThanOrEqual(digits * Math.max(1e-3, Math.abs(value)))
    })
  })

  test.each([
    ['(s + 0.2)/(s + 1)^2', 'overshoot', '1.146'],
    ['s/(s + 1)^2', 'rise', 'none'],
    ['s/(s + 1)^2', 'settling', '6.8339'],
    ['s/(s + 1)^2', 'peak', '0.36788'],
    ['-2/(s + 1)', 'final', '-2'],
    ['-2/(s + 1)', 'overshoot', '0'],
    ['5', 'settling', '0'],
    ['1e6/(s^2 + 2s + 1e6)', 'overshoot', '0.99686'],
    ['0.5/(z - 0.5)', 'rise', '3'],
    ['0.5/(z - 0.5)', 'settling', '6'],
    ['(1 - 1.5 + 0.7)/(z^2 - 1.5z + 0.7)', 'peak_at', '7'],
  ])('of %s: %s is %s', (g, part, gives) => {
    expect(reckon(['unknown s, z', `step_figures(${g}).${part}`], SLOW).at(-1)!.text).toBe(gives)
  })
})

describe('a response to anything', () => {
  const twin = (line: string, other: string): void => {
    const [a, b] = [line, other].map((one) => after('G = 3/((s + 1)*(s^2 + s + 4))', 't = 0 to 6 step 0.25', one).at(-1)!.value) // prettier-ignore
    if (a?.kind !== 'sweep' || b?.kind !== 'sweep') throw new Error('two sweeps')
    a.re.forEach((x, k) => expect(Math.abs(x - b.re[k]!)).toBeLessThan(1e-12))
  }
  test('a number is put in from 0 on', () => twin('response(G, 2.5, t)', '2.5*step_response(G, t)'))
  test('1 is the transform of an impulse', () => twin('response(G, s/s^1*(1/s)*s, t)', 'response(G, 1, t)'))
  test('1/s that of a step', () => twin('response(G, 1/s, t)', 'step_response(G, t)'))
  test('a ramp by its transform and by its values', () => twin('response(G, 1/s^2, t)', 'response(G, t, t)'))
  test('poles that the input shares are multiple ones', () => twin('response(G, 1/(s + 1), t)', 'inverse_laplace(G/(s + 1), t)')) // prettier-ignore
  test('behind a delay it comes later', () => twin('step_response(G*e^(-0.5s), t)', 'step_response(G, t - 0.5)'))
  test('values with poles that all but coincide', () => {
    const g = '1/((s + 1)*(s + 1.0000001)*(s + 1.0000002))'
    const [a, b] = ['response(G, t, t)', 'response(G, 1/s^2, t)'].map((one) => after(`G = ${g}`, 't = 0 to 6 step 0.25', one).at(-1)!.value) // prettier-ignore
    if (a?.kind !== 'sweep' || b?.kind !== 'sweep') throw new Error('two sweeps')
    a.re.forEach((x, k) => expect(Math.abs(x - b.re[k]!)).toBeLessThan(1e-9))
  })
})
