import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Reckoned } from '../testing'

/**
 * What must hold of any loop and any response: closed forms of the textbook (Åström and Murray, "Feedback Systems",
 * chapters 6 and 10; Ogata, "Modern Control Engineering", chapters 5 and 7), and laws of scaling, shifting and adding.
 */

const SLOW = { timeLimit: 20_000 }

function numbers(before: readonly string[], ...entries: string[]): number[] {
  return reckon(['unknown s, z', ...before, ...entries], SLOW)
    .slice(1 + before.length)
    .map((one, k) => numberOf(one, entries[k]!))
}

function numberOf({ value, error }: Reckoned, entry: string): number {
  if (value?.kind === 'number') return value.re
  if (value?.kind === 'angle') return value.radians
  if (value?.kind === 'text') return NaN
  throw new Error(`${entry}: ${error?.message ?? value?.kind}`)
}

const close = (a: number, b: number, within = 1e-9): void =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(within * Math.max(1, Math.abs(a), Math.abs(b)))

describe('the second order, by its closed forms', () => {
  const damping = [0.05, 0.1, 0.2, 0.35, 0.5, 0.6, 0.7071, 0.8, 0.9, 0.99]

  test.each(damping)('ζ = %d: overshoot and peak of the step', (zeta) => {
    const w = 3
    const [overshoot, at, peak] = numbers([`G = ${w * w}/(s^2 + 2*${zeta}*${w}*s + ${w * w})`, 'F = step_figures(G)'], 'F.overshoot', 'F.peak_at', 'F.peak') // prettier-ignore
    const root = Math.sqrt(1 - zeta * zeta)
    const wanted = Math.exp((-Math.PI * zeta) / root)
    close(overshoot!, wanted)
    close(peak!, 1 + wanted)
    close(at!, Math.PI / (w * root), 1e-8)
  })

  test.each(damping)('ζ = %d: the margins of ω²/(s(s + 2ζω))', (zeta) => {
    const w = 2
    const [phase, at, gain, delay] = numbers([`M = margins(${w * w}/(s*(s + 2*${zeta}*${w})))`], 'M.phase', 'M.phase_at', 'M.gain', 'M.delay') // prettier-ignore
    // The crossover is at ω·√(√(1 + 4ζ⁴) − 2ζ²), the margin arctan 2ζ over that root.
    const share = Math.sqrt(Math.sqrt(1 + 4 * zeta ** 4) - 2 * zeta * zeta)
    close(at!, w * share)
    close(phase!, Math.atan2(2 * zeta, share))
    close(delay!, Math.atan2(2 * zeta, share) / (w * share))
    expect(gain).toBeNaN()
  })

  test.each(damping)('ζ = %d: bandwidth and resonant peak', (zeta) => {
    const [band, peak] = numbers([`T = 1/(s^2 + 2*${zeta}*s + 1)`], 'bandwidth(T)', 'peak_gain(T)')
    const z = zeta * zeta
    close(band!, Math.sqrt(1 - 2 * z + Math.sqrt(4 * z * z - 4 * z + 2)))
    close(peak!, zeta < Math.SQRT1_2 ? 1 / (2 * zeta * Math.sqrt(1 - z)) : 1)
  })
})

test.each([0.01, 1, 7, 3600])('the first order with time constant %d: rise, settling, bandwidth', (tau) => {
  const [rise, settling, band] = numbers([`G = 5/(${tau}*s + 1)`, 'F = step_figures(G)'], 'F.rise', 'F.settling', 'bandwidth(G)') // prettier-ignore
  close(rise! / tau, Math.log(9))
  close(settling! / tau, Math.log(50))
  close(band! * tau, 1)
})

const pole = fc.tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 20 }))
/** A stable ratio with more poles than zeros, and its order. */
const stable = fc
  .tuple(
    fc.array(pole, { minLength: 1, maxLength: 3 }),
    fc.integer({ min: -6, max: 6 }),
    fc.integer({ min: 1, max: 9 }),
  )
  .map(([poles, zero, k]) => {
    const bottom = poles.map(([a, b]) => (b % 2 === 0 ? `(s + ${a / 4})` : `(s^2 + ${a / 4}*s + ${(a * a) / 64 + b})`))
    // With the order of two there is room for a zero.
    const order = poles.reduce((sum, [, b]) => sum + (b % 2 === 0 ? 1 : 2), 0)
    return `${k}*${order > 1 ? `(s + ${zero + 0.5})` : '1'}/(${bottom.join('*')})`
  })

describe('responses', () => {
  test('add up, and go with what they are multiplied by', () => {
    fc.assert(
      fc.property(stable, stable, fc.double({ min: 0.05, max: 5, noNaN: true }), (g, h, t) => {
        const [a, b, sum, twice] = numbers([`G = ${g}`, `H = ${h}`], `step_response(G, ${t})`, `step_response(H, ${t})`, `step_response(G + H, ${t})`, `step_response(-2*G, ${t})`) // prettier-ignore
        close(sum!, a! + b!)
        close(twice!, -2 * a!)
      }),
      { numRuns: 40 },
    )
  })

  test('the step response of s·G is the impulse response of G; an integrator takes it back', () => {
    fc.assert(
      fc.property(stable, fc.double({ min: 0.05, max: 4, noNaN: true }), (g, t) => {
        const [impulse, step, whole, again] = numbers([`G = ${g}`], `impulse_response(G, ${t})`, `step_response(s*G, ${t})`, `step_response(G, ${t})`, `impulse_response(G/s, ${t})`) // prettier-ignore
        close(step!, impulse!)
        close(again!, whole!)
      }),
      { numRuns: 40 },
    )
  })

  test('in the end there is the static gain, and at first the value at infinity', () => {
    fc.assert(
      fc.property(stable, (g) => {
        const [end, gain, first] = numbers([`G = ${g}`], 'step_response(G, 400)', 'static_gain(G)', 'step_response(G, 0)') // prettier-ignore
        close(end!, gain!)
        close(first!, 0)
      }),
      { numRuns: 40 },
    )
  })

  test('a delay puts them off; before it there is nothing', () => {
    fc.assert(
      fc.property(stable, fc.integer({ min: 1, max: 30 }), fc.integer({ min: 0, max: 60 }), (g, delay, after) => {
        const [T, t] = [delay / 8, (delay + after) / 8]
        const [late, early, before] = numbers([`G = ${g}`], `step_response(e^(-${T}s)*G, ${t})`, `step_response(G, ${after / 8})`, `step_response(e^(-${T}s)*G, ${T / 2})`) // prettier-ignore
        close(late!, early!)
        expect(before).toBe(0)
      }),
      { numRuns: 40 },
    )
  })
})

describe('scales', () => {
  const scale = fc.constantFrom('2', '1000', '1/64', '10^-6')

  test('of time: figures go with it, overshoot does not', () => {
    fc.assert(
      fc.property(stable, scale, (g, c) => {
        const lines = [`c = ${c}`, `G = ${g}`, 'H = G where s = c*s', 'A = step_figures(G)', 'B = step_figures(H)']
        const found = numbers(lines, 'A.settling', 'B.settling/c', 'A.overshoot', 'B.overshoot', 'A.final', 'B.final')
        const [a, b, c1, c2, e, f] = found
        for (const [x, y] of [[a, b], [c1, c2], [e, f]] as const) if (!Number.isNaN(x)) close(x!, y!, 1e-8) // prettier-ignore
      }),
      { numRuns: 25 },
    )
  })

  test('of a gain: the phase crossover stays, and the gain margin is what is left of it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.integer({ min: 2, max: 40 }), (a, b, k) => {
        // s(s + a)(s + b) + k has roots on the axis, at ±j√(ab), where k = ab(a + b) (Routh).
        const [above, below, at] = numbers([`M = margins(${k / 4}/(s*(s + ${a})*(s + ${b})))`], 'M.gain', 'M.gain_below', 'M.gain_at') // prettier-ignore
        const left = (a * b * (a + b)) / (k / 4)
        if (left === 1) return
        close(left > 1 ? above! : below!, left)
        expect(left > 1 ? below : above).toBeNaN()
        if (left > 1) close(at!, Math.sqrt(a * b))
      }),
      { numRuns: 40 },
    ) // prettier-ignore
  })

  test('the delay margin is where the closed loop with such a delay is on the edge', () => {
    for (const l of ['6/(s*(s + 1)*(s + 5))', '2/(s + 1)', '4/(s*(s + 3))', '10/(s^2 + s + 3)']) {
      const [delay] = numbers([`M = margins(${l})`], 'M.delay')
      for (const [share, says] of [[0.999, 'yes'], [1.001, 'no']] as const) {
        const stable = reckon(['unknown s', `margins(e^(-${delay! * share}s)*${l}).stable`], SLOW).at(-1)!
        expect(`${l} ${share} ${stable.text}`).toBe(`${l} ${share} ${says}`)
      }
    } // prettier-ignore
  })
})

describe('the least distance from −1', () => {
  test('is the reciprocal of the peak of the sensitivity', () => {
    fc.assert(
      fc.property(stable, (l) => {
        const [distance] = numbers([`L = ${l}`], 'margins(L).distance')
        // Through −1 itself the sensitivity has a pole on the axis, and no peak.
        if (distance! < 1e-9) return expect(reckon(['unknown s', `L = ${l}`, 'peak_gain(sensitivity(L))']).at(-1)!.error?.code).toBe('peak-infinite') // prettier-ignore
        const [peak] = numbers([`L = ${l}`], 'peak_gain(sensitivity(L))')
        close(distance! * peak!, 1, 1e-8)
      }),
      { numRuns: 25 },
    )
  })
})

test('sensitivity and its complement are 1 together', () => {
  fc.assert(
    fc.property(stable, (l) => {
      expect(reckon(['unknown s', `L = ${l}`, 'sensitivity(L) + closed_loop(L) == 1'], SLOW).at(-1)!.text).toBe('true')
    }),
    { numRuns: 25 },
  )
})
