import * as fc from 'fast-check'
import { reckon } from '../testing'

const outcome = (entry: string): string | number => {
  const [result] = reckon([entry])
  if (result!.error) return result!.error.code
  const { value } = result!
  return value?.kind === 'number' && value.im === 0 ? value.re : (result!.text ?? '')
}
const isExact = (entry: string): boolean => {
  const { value } = reckon([entry])[0]!
  return value?.kind === 'number' && value.exact !== null
}

describe('exact numbers beyond the range of doubles', () => {
  test.each([
    ['2^-1990/2^-2000', 1024],
    ['10^400/10^398', 100],
    ['2^-2000*2^2003', 8],
    // mpmath: log(2)*-2000, sqrt(2**2001), log10(7*10**399), log(10**400)
    ['ln(2^-2000)', -1386.2943611198907],
    ['ln(10^400)', 921.0340371976183],
    ['lg(10^400)', 400],
    ['lg(10^-400)', -400],
    ['lg(7*10^399)', 399.8450980400142],
    ['lb(2^3000)', 3000],
    ['log(3^900, 3)', 900],
    ['sqrt(2^2001)', 1.5153420044823246e301],
    ['sqrt(10^-401)', 3.1622776601683792e-201],
    ['sqrt(10^400)', 1e200],
    ['2^4000*2^4000', 'too-large'],
    ['2^4000*2^4000/2^7990', 'too-large'],
    ['1/2^-2000', 'too-large'],
    ['10^400', 'too-large'],
    ['10^400 + 0.5', 'too-large'],
    ['(-1)^(10^17+1)', -1],
    ['(-1)^(10^17+2)', 1],
    ['1^(10^30)', 1],
    ['min(1+1e-20,1)-1', 0],
    ['max(1+1e-20,1)-1', 1e-20],
    ['ln(1+0)', 0],
  ] as const)('%s', (entry, expected) => {
    const found = outcome(entry)
    if (typeof expected === 'string' || typeof found === 'string') expect(found).toBe(expected)
    else expect(Math.abs(found - expected)).toBeLessThanOrEqual(4e-16 * Math.abs(expected))
  })
  test('j to a whole power too large for a double turns by its last digit', () => {
    expect(reckon(['j^(10^17+1)'])[0]!.text).toBe('0 + 1j')
    expect(reckon(['(-j)^(10^17+2)'])[0]!.text).toBe('-1 + 0j')
  })
  test('a logarithm is exact only where the power proves it', () => {
    expect(isExact('lg(10^15)')).toBe(true)
    expect(isExact('lg(10^15+1)')).toBe(false)
    expect(isExact('lb(2^53+1)')).toBe(false)
    expect(isExact('log(3^40, 3)')).toBe(true)
    expect(isExact('log(3^40+1, 3)')).toBe(false)
    expect(isExact('cbrt((10^15+1)^3)')).toBe(true)
    expect(isExact('cbrt((10^5+1)^3+1)')).toBe(false)
  })

  const far = fc.tuple(fc.integer({ min: 2, max: 99 }), fc.integer({ min: -330, max: 330 }))
  test('products, quotients, roots and logarithms are those of the exponents', () => {
    fc.assert(
      fc.property(far, far, ([m, p], [n, q]) => {
        const [a, b] = [`${m}*10^${p}`, `${n}*10^${q}`]
        const logs = [Math.log10(m) + p, Math.log10(n) + q] as const
        const close = (entry: string, log: number): void => {
          const found = outcome(entry)
          if (log > 308.2) return void (log > 308.3 && expect([entry, found]).toEqual([entry, 'too-large']))
          if (log < -300 || typeof found === 'string') return
          expect([entry, Math.abs(Math.log10(found) - log) < 1e-11]).toEqual([entry, true])
        }
        close(`(${a})*(${b})`, logs[0] + logs[1])
        close(`(${a})/(${b})`, logs[0] - logs[1])
        close(`sqrt(${a})`, logs[0] / 2)
        expect(Math.abs((outcome(`lg(${a})`) as number) - logs[0])).toBeLessThan(1e-12 * Math.max(1, Math.abs(logs[0])))
        expect(Math.abs((outcome(`ln(${a})`) as number) - logs[0] * Math.LN10)).toBeLessThan(
          1e-11 * Math.max(1, Math.abs(logs[0])),
        )
      }),
      { numRuns: 400 },
    )
  })
})

describe('what is undefined makes the whole undefined', () => {
  test.each(['max(0/0, 1)', 'max(1, 0/0)', 'min(3, 0/0, 1)', 'min(0/0)', 'sum(1, 0/0)', 'mean(0/0, 2)'])(
    '%s',
    (entry) => {
      expect(outcome(entry)).toBeNaN()
    },
  )
})

describe('exact numbers of which a double would lose what counts', () => {
  // mpmath at 40 digits: log(1 + mpf(10)**-20), (1 + mpf(10)**-10)**(mpf(10)**10), acos(1 - mpf(10)**-20), …
  test.each([
    ['ln(1 + 1e-20)', 1e-20],
    ['lg(1 - 1e-20)', -4.342944819032518e-21],
    ['(1 + 1e-10)^1e10', 2.718281828323131],
    ['(1 - 1/1e12)^(1e12)', 0.36787944117125837],
    ['log(2, 1 + 1e-20)', 6.931471805599453e19],
    ['arccos(1 - 1e-20)/(1 rad)', 1.414213562373095e-10],
    ['root(10^401, 4)', 1.7782794100389228e100],
    ['dB(10^400)', 8000],
    ['dB(2^-2000)', -12041.199826559248],
    ['cbrt(-10^600)', -1e200],
    ['root(32/243, 5)', 2 / 3],
    ['sign(10^-400)', 1],
    ['(10^600)^(1/3)', 1e200],
    ['par(2^-2000, 2^-2000)*2^2001', 1],
    ['171!/170!', 171],
    ['binom(2000, 2)', 1999000],
    ['gcd(10^400, 6)', 2],
  ])('%s', (entry, expected) => {
    expect(Math.abs((outcome(entry) as number) / expected - 1)).toBeLessThan(4e-14)
  })

  test('what is too small for a double is not 0', () => {
    expect(reckon(['angle([0, -2^-600], [0, 2^-600])'])[0]?.text).toBe('180°')
    expect(reckon(['unit([2^-2000, 0])'])[0]?.text).toBe('[1, 0]')
    expect(reckon(['unknown s', 'coefficients(2^-2000*s + 1)[1]*2^2000'])[1]?.text).toBe('1')
    expect(isExact('arctan(2^-2000)')).toBe(false)
  })

  test('rounding a rounded number beyond all fractions does not make it exact', () => {
    expect(isExact('floor(pi*1e20)')).toBe(false)
    expect(isExact('round(pi*1e10)')).toBe(true)
    expect(isExact('round(pi*1e10, 9)')).toBe(false)
    expect(isExact('floor(10^400/3)/10^399')).toBe(true)
    expect(outcome('gcd(pi*1e20, 3)')).toBe('argument-kind')
  })
})

test('secant and cosecant far from the real axis', () => {
  // mpmath: sec(mpc(0.5, 705)), csc(mpc(0.5, -705)), sec(mpc(2, 310)), csc(mpc(-1, 350))
  const known: readonly (readonly [string, number, number])[] = [
    ['sec(0.5 + 705j)', 1.1660260118447807e-306, 6.370029134934288e-307],
    ['csc(0.5 - 705j)', 6.370029134934288e-307, 1.1660260118447807e-306],
    ['sec(2 + 310j)', -1.9453027611657788e-135, 4.2505640792599285e-135],
    ['csc(-1 + 350j)', -1.6710924418968247e-152, -1.0729961174856208e-152],
  ]
  for (const [entry, re, im] of known) {
    const { value } = reckon([entry])[0]!
    if (value?.kind !== 'number') throw new Error(entry)
    expect(Math.hypot(value.re - re, value.im - im)).toBeLessThan(1e-13 * Math.hypot(re, im))
  }
  expect(outcome('sec(1000j)')).toBe(0)
})

test.each([
  ['1e-200 to 1e200 per decade 1', 401, 1e-200, 1e200],
  ['1e300 to 1e-300 per decade 2', 1201, 1e300, 1e-300],
  ['1e-300 to 1e10 per decade 1', 311, 1e-300, 1e10],
])('%s', (entry, count, first, last) => {
  const { value } = reckon([entry])[0]!
  if (value?.kind !== 'sweep') throw new Error(entry)
  expect([value.count, value.re[0], value.re[count - 1]]).toEqual([count, first, last])
  for (let k = 1; k < count; k += 1) {
    const ratio = (value.re[k] ?? NaN) / (value.re[k - 1] ?? NaN)
    expect(Math.abs(Math.abs(Math.log10(ratio)) * (entry.endsWith('2') ? 2 : 1) - 1)).toBeLessThan(1e-9)
  }
})

test.each([
  ['0 to 1 step j', 'step-real'],
  ['0 to 1 step inf', 'step-real'],
  ['0 to 1 step 0', 'step-zero'],
  ['0 to inf', 'range-finite'],
  ['0 to 10^400', 'too-large'],
  ['[1, 2, 3][1 to 3 step 0.5]', 'step-whole'],
  ['sum(k for k = 1 to inf)', 'range-finite'],
])('%s says what is wrong', (entry, code) => expect(outcome(entry)).toBe(code))

describe('what is too large or too small in its sign', () => {
  test.each([
    ['sqrt(-1e-400)', '0 + 1e-200j'],
    ['sqrt(-2e-401)', '0 + 4.4721e-201j'],
    ['(-1e-400)^0.5', '0 + 1e-200j'],
    ['root(-8e-402, 3)', '1e-134 + 1.7321e-134j'],
    ['sqrt(1e-400)', '1e-200'],
  ])('%s is %s, as at any other size', (entry, expected) => expect(reckon([entry])[0]!.text).toBe(expected))

  const size = fc.integer({ min: -320, max: 320 })
  const number = fc.tuple(fc.integer({ min: -99, max: 99 }), size).map(([n, e]) => `${n}e${e}`)
  const rounded = fc.tuple(number, fc.boolean()).map(([n, exact]) => (exact ? n : `${n}*sqrt(2)`))
  const array = fc.oneof(
    fc.tuple(rounded, rounded).map(([a, b]) => `[${a}, ${b}]`),
    fc.tuple(rounded, rounded, rounded, rounded).map(([a, b, c, d]) => `[[${a}, ${b}], [${c}, ${d}]]`),
  )
  test('an array of finite numbers leads to finite entries, or to an error', () => {
    fc.assert(
      fc.property(array, array, rounded, fc.integer({ min: 0, max: 6 }), (a, b, x, way) => {
        const entry = [`${a}*${x}`, `${a} + ${b}`, `${a}*${b}`, `${a}^9`, `each(${a}*${b})`, `inv(${a})`, `expm(${a})`][way]! // prettier-ignore
        const { value } = reckon([entry])[0]!
        const entries = value?.kind === 'vector' ? value.items.flatMap((z) => (z.kind === 'number' ? [z.re, z.im] : [])) : value?.kind === 'matrix' ? [...value.dense.re, ...value.dense.im] : [] // prettier-ignore
        expect([entry, entries.every(Number.isFinite)]).toEqual([entry, true])
      }),
      { numRuns: 4000 },
    )
  })
})
