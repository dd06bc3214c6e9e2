import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Reckoned } from '../testing'
import { KNOWN_LOCI, KNOWN_SAMPLES } from './sampledAndLoci.expected'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

const last = (...lines: string[]): Reckoned => reckon(lines, SLOW).at(-1)!
const text = (...lines: string[]): string => last(...lines).text

function numbers(...lines: string[]): (readonly [number, number])[] {
  const { value, error } = last(...lines)
  const items = value?.kind === 'vector' ? value.items : value ? [value] : []
  if (error || items.length === 0) throw new Error(error?.message ?? 'nothing')
  return items.map((z) => {
    if (z.kind !== 'number') throw new Error(z.kind)
    return [z.re, z.im] as const
  })
}

/** Sums of products that are near nothing, in pairs that are the nearest. */
function farthest(a: readonly (readonly [number, number])[], b: readonly (readonly [number, number])[]): number {
  expect(a.length).toBe(b.length)
  const open = [...b]
  return Math.max(
    0,
    ...a.map((z) => {
      const away = open.map((w) => Math.hypot(z[0] - w[0], z[1] - w[1]))
      const k = away.indexOf(Math.min(...away))
      open.splice(k, 1)
      return away[k]! / Math.max(1, Math.hypot(...z))
    }),
  )
}

const coefficient = fc.oneof(
  fc.integer({ min: -9, max: 9 }).map(String),
  fc.constantFrom('sqrt(2)', 'pi', 'sqrt(3)/7', 'e', 'sin(1 rad)', '0.1', '1/3'),
)
const polynomial = (least: number, most: number): fc.Arbitrary<string> =>
  fc
    .tuple(fc.constantFrom('1', '2', 'sqrt(5)'), fc.array(coefficient, { minLength: least, maxLength: most }))
    .map(([lead, rest]) => [lead, ...rest].map((c, k) => `(${c})*s^${rest.length - k}`).join(' + '))
const ratio = fc.tuple(polynomial(0, 1), polynomial(1, 3)).map(([n, d]) => `(${n})/(${d})`)

describe('a closed loop', () => {
  const runs = Number(process.env['LOOP_RUNS'] ?? 250)
  test('has the order and the poles that algebra gives it, rounded or not', () => {
    fc.assert(
      fc.property(ratio, ratio, fc.constantFrom('G/(1 + G*H)', 'G/(G*H + 1)', '1/(1/G + H)'), (g, h, written) => {
        const lines = ['unknown s', `G = ${g}`, `H = ${h}`, 'T = closed_loop(G, H)', `Q = ${written}`]
        const all = reckon([...lines, 'order(T)', 'order(Q)', 'T == Q', 'poles(T)', 'poles(Q)'], SLOW)
        const failed = all.slice(3, 5).find(({ error }) => error)
        if (failed) {
          expect(['loop-without-answer', 'polynomial-by-zero']).toContain(failed.error?.code)
          return
        }
        const [order, other, , a, b] = all.slice(5)
        expect(order!.text).toBe(other!.text)
        if (a?.value?.kind !== 'vector' || b?.value?.kind !== 'vector') return
        const list = (v: Reckoned): (readonly [number, number])[] =>
          v.value?.kind === 'vector' ? v.value.items.map((z) => (z.kind === 'number' ? [z.re, z.im] as const : [NaN, NaN] as const)) : [] // prettier-ignore
        // 1/(1/G + H) is expanded in another order: rounding may move poles that are nearly one.
        expect(farthest(list(a), list(b))).toBeLessThan(2e-5)
      }),
      { numRuns: runs },
    )
  })

  test.each([
    ['a rounded loop has the poles of one, not of two', ['G = 1/(s^2 + sqrt(2)*s + 1)', 'order(G/(1 + G))'], '2'],
    ['a compensator beside its plant', ['C = (s + sqrt(2))/s', 'P = 3/((s + sqrt(2))*(s + sqrt(3)))', 'order(C*P/(1 + P*C))'], '2'], // prettier-ignore
    ['nothing that is only near goes', ['order((s + sqrt(2))/((s + 1.4142135623)*(s + 1)))'], '2'],
    ['a factor to a power', ['order((s + sqrt(2))/(s + sqrt(2))^3)'], '2'],
    ['three times a factor', ['order(3*(s + pi)/((s + pi)*(s + 1)))'], '1'],
    ['parallel branches over one denominator', ['D = s^2 + pi*s + 1', 'order(1/D + s/D)'], '2'],
    ['a power of s beside a rounded factor', ['order(s/(sqrt(5)*s^2 + 2s))'], '1'],
    ['a power of s times a rounded number', ['G = sqrt(5)*s/(s + 1)', 'H = 1/s', 'order(1/(1/G + H))'], '1'],
    ['a rounded number times a factor', ['order(1/(sqrt(5)*s + sqrt(5)) + 1/(s + 1))'], '1'],
    ['powers of s below and above', ['order((pi*s^3 + s^2)/(sqrt(2)*s^4 + e*s^3))'], '2'],
    ['the same coefficients before other powers', ['G = 1/(2s^2 + sqrt(3))', 'H = (2s + sqrt(3))/s', 'order(closed_loop(G, H) - 1/(1/G + H))', 'closed_loop(G, H) == 1/(1/G + H)'], 'true'], // prettier-ignore
    [
      'an exact factor inside another one',
      ['G = (2s + 1)/s', 'H = sqrt(5)/(2s^2 + 9s + 4)', 'order(1/(1/G + H))'],
      '2',
    ],
    ['and the same closed', ['G = (2s + 1)/s', 'H = sqrt(5)/(2s^2 + 9s + 4)', 'order(closed_loop(G, H))'], '2'],
    ['positive feedback is written as algebra', ['G = 2/(s + pi)', 'order(G/(1 - G))'], '1'],
  ])('%s', (_, lines, gives) => expect(text('unknown s', ...lines)).toBe(gives))

  test.each([
    ['C = (s - 1)/(s + 2)', 'P = 1/(s - 1)', 'C*P', 'The pole at 1 cancels against a zero of another line, and is still there inside: not internally stable.'], // prettier-ignore
    ['C = (s + 3)/s', 'P = 2/(s + 3)', 'C*P', 'The pole at -3 cancels against a zero of another line, and is still there inside.'], // prettier-ignore
    ['C = (s + sqrt(2))/s', 'P = 1/(s + sqrt(2))', 'P*C', 'The pole at -1.4142 cancels against a zero of another line, and is still there inside.'], // prettier-ignore
    ['C = s/(s + 1)', 'P = 4/s', 'closed_loop(P, C)', 'The pole at 0 cancels against a zero of another line, and is still there inside: not internally stable.'], // prettier-ignore
    ['C = (z - 1.5)/z', 'P = 1/(z - 1.5)', 'C*P', 'The pole at 1.5 cancels against a zero of another line, and is still there inside: not internally stable.'], // prettier-ignore
  ])('%s beside %s in %s: what goes is named', (c, p, entry, says) => {
    const { hints } = last('unknown s, z', c, p, entry)
    expect(hints.map(({ message }) => message)).toEqual([says])
  })

  test.each([
    ['one line', ['(s - 1)/((s - 1)*(s + 2))']],
    ['the algebra of a loop', ['G = 1/(s - 1)', 'G/(1 + G)']],
    ['poles that go against poles', ['P = 1/(s - 1)', 'N = 1 + P', 'P/N']],
    ['nothing in common', ['C = (s + 1)/s', 'P = 1/(s + 2)', 'C*P']],
  ])('%s is no cancellation between lines', (_, lines) => expect(last('unknown s', ...lines).hints).toEqual([]))
})

describe('what a transfer function tells', () => {
  test.each([
    ['modes(0.5/(z^2 - 1.5z + 0.7)).frequency', '[0.49258, 0.49258]'],
    ['modes(1/s^2).damping', '[undefined, undefined]'],
    ['modes(1/(s*(s + 4))).time_constant', '[0.25, ∞]'],
    ['modes(1/(s - 2)).damping', '[-1]'],
    ['error_constants(2/(s + 4))', 'type = 0, position = 0.5, velocity = 0, acceleration = 0'],
    ['error_constants(0.1/(z - 1))', 'type = 1, position = ∞, velocity = 0.1, acceleration = 0'],
    ['static_gain(-3/(s*(s + 1)))', '-∞'],
    ['order(e^(-s)/(s + 1))', 'error'],
    ['static_gain(e^(-s)*6/(s + 3))', '2'],
  ])('%s', (entry, gives) => {
    const { error, text: shown } = last('unknown s, z', entry)
    expect(error ? 'error' : shown).toBe(gives)
  })

  test.each([
    ['closed_loop(e^(-s)/s)', 'transfer-delayed'],
    ['closed_loop([1, 2])', 'transfer-needed'],
    ['closed_loop(-1)', 'loop-without-answer'],
    ['modes(1/(s + 2j))', 'transfer-complex'],
    ['margins(1/(s + q))', 'ratio-unknowns'],
    ['step_response(s, 1)', 'transfer-improper'],
    ['step_response(1/(s + 1), 2j)', 'argument-kind'],
    ['step_figures(1/(s - 1))', 'no-steady-state'],
    ['step_figures(1/s)', 'no-steady-state'],
    ['step_figures(9/(s^2 + 9))', 'no-steady-state'],
    ['peak_gain(1/s)', 'peak-infinite'],
    ['peak_gain(s)', 'peak-infinite'],
    ['margins(0)', 'transfer-zero'],
    ['relative_degree(0)', 'transfer-zero'],
    ['e^(2s)', 'delay-negative'],
    ['e^(s^2)', 'exponential-of-unknown'],
    ['e^(-s) + 1/(s + 1)', 'delayed-sum'],
    ['inverse_laplace(1/(z - 1), 2)', 'laplace-of-samples'],
    ['sampled(1/s, 0, z)', 'period-needed'],
    ['sampled(1/s, 0.1, 2)', 'unknown-needed'],
    ['sampled(e^(-0.25s)/s, 0.1, z)', 'delay-between-samples'],
    ['sampled(1/s, 0.1, z) + sampled(1/s, 0.2, z)', 'periods-differ'],
    ['bilinear(1/s, 1, z, 4)', 'prewarp-beyond'],
    ['routh(1/s)', 'ratio-given'],
    ['routh(s^2 + q*p)', 'one-unknown-and-parameter'],
    ['jury(5)', 'argument-kind'],
    ['delay_approximation(1, 40, s)', 'domain'],
  ])('%s is refused: %s', (entry, code) => expect(last('unknown s, z, q, p', entry).error?.code).toBe(code))
})

describe('the locus of the roots', () => {
  test.each(KNOWN_LOCI)('of %s at %d: each root, on a branch', (l, k, roots) => {
    expect(farthest(numbers('unknown s', `root_locus(${l}, ${k})`), roots)).toBeLessThan(1e-9)
  })

  test.each(KNOWN_LOCI.filter(([, k]) => k === 3000))('the branches of %s stay in one piece', (l) => {
    const steps = 400
    const { value, error } = reckon(['unknown s', `k = 0.01 to 40 count ${steps}`, `root_locus(${l}, k)`], {
      timeLimit: 10_000,
    }).at(-1)!
    if (value?.kind !== 'sweep') throw new Error(error?.message)
    const rows = value.items!.map((row) =>
      row.kind === 'vector'
        ? row.items.map((z) => (z.kind === 'number' ? ([z.re, z.im] as const) : ([NaN, NaN] as const)))
        : [],
    )
    // No point of a branch lies nearer to the continuation of another one, save where they meet.
    let swapped = 0
    for (let n = 1; n < steps; n += 1)
      rows[n]!.forEach((z, branch) => {
        const away = rows[n - 1]!.map((w) => Math.hypot(z[0] - w[0], z[1] - w[1]))
        const nearest = away.indexOf(Math.min(...away))
        if (nearest !== branch && away[branch]! > 1.5 * away[nearest]!) swapped += 1
      })
    expect(swapped).toBeLessThanOrEqual(2)
  })

  test('beyond a breakaway both go on, each to its own side', () => {
    expect(text('unknown s', 'root_locus(1/(s*(s + 2)), 0.999)')).toBe('[-1.0316 + 0j, -0.96838 + 0j]')
    expect(text('unknown s', 'root_locus(1/(s*(s + 2)), 1.25)')).toBe('[-1 + 0.5j, -1 - 0.5j]')
    expect(text('unknown s', 'root_locus(1/(s*(s + 2)), 1)')).toBe('[-1 + 0j, -1 + 0j]')
  })
})

describe('samples', () => {
  test.each(KNOWN_SAMPLES)('%s every %d behind a hold', (g, period, top, bottom) => {
    const found = (of: string): readonly number[] => numbers('unknown s, z', `H = sampled(${g}, ${period}, z)`, of).map(([re]) => re) // prettier-ignore
    // Numerators and denominators by what they are at as many points as it takes.
    for (const at of [2, -0.7, 3.5, 0.3, 11]) {
      const value = (list: readonly number[]): number => list.reduce((sum, c) => sum * at + c, 0)
      const [h] = found(`H where z = ${at}`)
      expect(Math.abs(h! / (value(top) / value(bottom)) - 1)).toBeLessThan(1e-10)
    }
    const order = bottom.length - 1
    expect(text('unknown s, z', `order(sampled(${g}, ${period}, z))`)).toBe(String(order))
  })

  test.each(['1/(s + 1)', '3/(s*(2s + 1))', '25/(s^2 + 2s + 25)', '(s + 3)/((s + 1)^2*(s + 5))'])(
    'of %s agree with its step response',
    (g) => {
      const lines = ['unknown s, z', `G = ${g}`, 'H = sampled(G, 0.2, z)']
      for (const k of [0, 1, 2, 7, 40]) {
        const [[a]] = [numbers(...lines, `step_response(H, ${k}*0.2)`)] as [[readonly [number, number]]]
        const [[b]] = [numbers(...lines, `step_response(G, ${k}*0.2)`)] as [[readonly [number, number]]]
        expect(Math.abs(a[0] - b[0])).toBeLessThan(1e-12 * Math.max(1, Math.abs(b[0])))
      }
    },
  )

  test('an integrator stays one, exactly', () => {
    expect(text('unknown s, z', 'static_gain(sampled(1/(s*(s + 1)), 0.1, z))')).toBe('∞')
    expect(last('unknown s, z', 'step_figures(sampled(1/(s*(s + 1)), 0.1, z))').error?.code).toBe('no-steady-state')
  })

  test('held between them', () => {
    expect(text('unknown s, z', 'step_response(sampled(1/(s + 1), 0.5, z), 0.74)')).toBe('0.39347')
  })

  test('prewarped they are right at one frequency', () => {
    const lines = ['unknown s, z', 'G = (s + 2)/(s^2 + 0.4s + 9)', 'H = bilinear(G, 0.3, z, 3)']
    expect(farthest(numbers(...lines, 'H where z = e^(j*0.9)'), numbers(...lines, 'G where s = 3j'))).toBeLessThan(
      1e-12,
    )
  })

  test('a delay of whole samples is so many poles at 0', () => {
    expect(text('unknown s, z', 'sampled(e^(-0.2s)/s, 0.1, z)')).toBe('0.1/(z^3 - z^2)')
  })
})
