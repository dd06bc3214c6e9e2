import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Reckoned } from '../testing'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

const last = (...lines: string[]): Reckoned => reckon(['unknown s, z, K', ...lines], SLOW).at(-1)!
const said = (...lines: string[]): string[] => last(...lines).hints.map(({ message }) => message)
const STABLE = 'Stable: no root lies to the right of the imaginary axis or on the axis.'

describe('the array of Routh', () => {
  test.each([
    // Textbook arrays, worked out by hand with fractions.
    ['s^3 + 6s^2 + 11s + 6', '[[1, 11], [6, 6], [10, 0], [6, 0]]', [STABLE]],
    ['s^4 + 2s^3 + 3s^2 + 4s + 5', '[[1, 3, 5], [2, 4, 0], [1, 5, 0], [-6, 0, 0], [5, 0, 0]]', ['2 roots lie to the right of the imaginary axis.']], // prettier-ignore
    ['s^3 + s^2 + 2s + 24', '[[1, 2], [1, 24], [-22, 0], [24, 0]]', ['2 roots lie to the right of the imaginary axis.']], // prettier-ignore
    ['2s^2 - 3s - 5', '[[2, -5], [-3, 0], [-5, 0]]', ['One root lies to the right of the imaginary axis.']],
    ['s^2 + 4', '[[1, 4], [2, 0], [4, 0]]', ['No root to the right of the imaginary axis, 2 on the axis.', 'Row 2 was 0 throughout: it is the derivative of the row above it, taken as a polynomial, which has roots opposite one another.']], // prettier-ignore
    ['s^5 + 2s^4 + 24s^3 + 48s^2 - 25s - 50', '[[1, 24, -25], [2, 48, -50], [8, 96, 0], [24, -50, 0], [112.67, 0, 0], [-50, 0, 0]]', ['One root lies to the right of the imaginary axis, 2 on the axis.', 'Row 3 was 0 throughout: it is the derivative of the row above it, taken as a polynomial, which has roots opposite one another.']], // prettier-ignore
    ['s^4 + s^3 + 2s^2 + 2s + 3', '[[1, 2, 3], [1, 2, 0], [ε, 3, 0], [(2ε - 3)/ε, 0, 0], [3, 0, 0]]', ['2 roots lie to the right of the imaginary axis.', 'The first entry of row 3 was 0: ε stands for a small positive number.']], // prettier-ignore
    ['s^3 + sqrt(2)*s^2 + 3s + 1', '[[1, 3], [1.4142, 1], [2.2929, 0], [1, 0]]', [STABLE]],
    ['s', '[[1], [1]]', ['No root to the right of the imaginary axis, 1 on the axis.', 'Row 2 was 0 throughout: it is the derivative of the row above it, taken as a polynomial, which has roots opposite one another.']], // prettier-ignore
  ])('of %s', (p, array, hints) => {
    const found = last(`routh(${p})`)
    expect(found.text).toBe(array)
    expect(found.hints.map(({ message }) => message)).toEqual(hints)
  })

  test.each([
    ['s^3 + 3s^2 + 2s + K', '0 < K < 6'],
    ['s^3 + 8s^2 + 15s + K', '0 < K < 120'],
    ['s^2 + K*s + 1', 'K > 0'],
    ['s + K^2', 'K < 0 or K > 0'],
    ['s + K^2 + 1', 'every K'],
    ['s^4 + 2s^3 + (4 + K)*s^2 + 9s + 25', 'K > 109/18'],
    ['s^3 + K*s^2 + 2s + 4', 'K > 2'],
    ['K*s^2 + 3s + 2 - K', '0 < K < 2'],
    ['s^3 + 2s^2 + (K^2 - 2)*s + 1', 'K < -1.5811 or K > 1.5811'],
    ['s^3 + sqrt(2)*s^2 + s + K', '0 < K < 1.4142'],
  ])('%s is stable for %s', (p, range) => expect(said(`routh(${p})`)).toContain(`Stable for ${range}.`))

  test('for no value', () => expect(said('routh(s^3 + K*s^2 + K)')).toContain('Not stable for any value.'))

  const lists = fc.array(fc.integer({ min: -6, max: 9 }), { minLength: 2, maxLength: 6 })
  test('what it counts is what the roots say, to the right and on the axis', () => {
    fc.assert(
      fc.property(lists, fc.boolean(), (list, opposite) => {
        const p = [1, ...list].map((c, k) => `(${c})*s^${list.length - k}`).join(' + ')
        const written = opposite ? `(${p})*(s^2 + 3)*(s^2 - 2)` : p
        const { value } = last(`roots(${written})`)
        if (value?.kind !== 'vector') return
        const re = value.items.map((z) => (z.kind === 'number' ? z.re : NaN))
        // Roots of exact coefficients are known to the last place; on the axis the real part is nothing beside it.
        const right = re.filter((x) => x > 1e-13).length
        const axis = re.filter((x) => Math.abs(x) <= 1e-13).length
        const { hints, error } = last(`routh(${written})`)
        // Several ε in one array may outgrow the numbers that are kept.
        if (error) return expect(error.code).toBe('too-large')
        const first = hints[0]?.message
        const count = /^(No|One|\d+) root/.exec(first!)?.[1]
        expect([first === STABLE ? 0 : { No: 0, One: 1 }[count!] ?? Number(count), Number(/(\d+) on the axis/.exec(first!)?.[1] ?? 0)]).toEqual([right, axis]) // prettier-ignore
        return undefined
      }),
      { numRuns: 150 },
    )
  })

  test('its first column changes its sign as often as there are roots to the right', () => {
    fc.assert(
      fc.property(lists, (list) => {
        const p = [2, ...list].map((c, k) => `(${c})*s^${list.length - k}`).join(' + ')
        const { value, hints } = last(`routh(${p})`)
        if (value?.kind !== 'matrix' || hints.length > 1) return
        const column = Array.from({ length: value.rows }, (_, r) => value.dense.re[r * value.cols]!)
        const changes = column.filter((x, k) => k > 0 && x * column[k - 1]! < 0).length
        const word = changes === 0 ? /^(Stable|No root)/ : changes === 1 ? /^One root/ : new RegExp(`^${changes} roots`)
        expect(hints[0]!.message).toMatch(word)
      }),
      { numRuns: 150 },
    )
  })
})

describe('the array of Jury', () => {
  test.each([
    ['z^2 - 0.9z + 0.2', '[[0.2, -0.9, 1]]', 'Stable: no root lies outside the unit circle or on it.'],
    ['z^2 - 2.5z + 1', '[[1, -2.5, 1]]', 'One root lies outside the unit circle.'],
    ['z^2 - z + 1', '[[1, -1, 1]]', 'No root outside the unit circle, 2 on it.'],
    ['z^3 + 2z^2 + 1', '[[1, 0, 2, 1], [1, 2, 0, 1], [0, -2, 2, 0]]', 'One root lies outside the unit circle.'],
    ['(z + 1)*(z - 0.5)', '[[-0.5, 0.5, 1]]', 'No root outside the unit circle, 1 on it.'],
  ])('of %s', (p, array, says) => {
    const found = last(`jury(${p})`)
    expect(found.text).toBe(array)
    expect(found.hints.map(({ message }) => message)).toEqual([says])
  })

  test.each([
    ['z^2 - z + K', '0 < K < 1'],
    ['z^2 + K*z + 0.25', '-5/4 < K < 5/4'],
    ['z - K', '-1 < K < 1'],
    ['z^3 + K', '-1 < K < 1'],
  ])('%s is stable for %s', (p, range) => expect(said(`jury(${p})`)).toEqual([`Stable for ${range}.`]))

  test('what it counts is what the roots say', () => {
    const lists = fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 1, maxLength: 5 })
    fc.assert(
      fc.property(lists, (list) => {
        const p = [3, ...list].map((c, k) => `(${c})*z^${list.length - k}`).join(' + ')
        const { value } = last(`roots(${p})`)
        if (value?.kind !== 'vector') return
        const size = value.items.map((z) => (z.kind === 'number' ? Math.hypot(z.re, z.im) : NaN))
        const outside = size.filter((x) => x > 1 + 1e-12).length
        const on = size.filter((x) => Math.abs(x - 1) <= 1e-12).length
        const [first] = said(`jury(${p})`)
        if (outside === 0 && on === 0) expect(first).toMatch(/^Stable/)
        else expect(first).toMatch(new RegExp(`^${outside === 0 ? 'No root' : outside === 1 ? 'One root' : `${outside} roots`}.*${on > 0 ? `, ${on} on it` : 'circle'}\\.$`)) // prettier-ignore
      }),
      { numRuns: 150 },
    )
  })
})
