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
