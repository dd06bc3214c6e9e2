import * as fc from 'fast-check'
import { reckon } from '../testing'
import * as C from '../numbers/complex'

const last = (...lines: string[]) => reckon(['unknown s, a, b', ...lines]).at(-1)!
const text = (...lines: string[]): string => {
  const { text: found, error } = last(...lines)
  return error ? error.code : found
}

describe('polynomials are expanded, collected and ordered by degree', () => {
  test.each([
    ['9a*b - 3a*b', '6a*b'],
    ['(s + 1)*(s - 2)', 's^2 - s - 2'],
    ['(a + b)^3', 'a^3 + 3a^2*b + 3a*b^2 + b^3'],
    ['s - s', '0'],
    ['(s + 1)^2 - s^2', '2s + 1'],
    ['1/3*s + s/6', '0.5s'],
    ['2j*s + s', '(1 + 2j)*s'],
    ['-s', '-s'],
    ['a^2*b + a*b^2 + a^3', 'a^3 + a^2*b + a*b^2'],
    ['s^2 == s*s', 'true'],
    ['s/2', '0.5s'],
    ['s*pi', '3.1416*s'.replace('*', '')],
    ['sum([s, s^2, 1])', 's^2 + s + 1'],
    ['product([s, s + 1])', 's^2 + s'],
  ])('%s is %s', (entry, expected) => expect(text(entry)).toBe(expected))
})

describe('quotients', () => {
  test.each([
    ['(s^2 - 1)/(s - 1)', 's + 1'],
    ['(a^2 - b^2)/(a - b)', 'a + b'],
    ['(s + 2)/(s^2 + 3s + 2)', '1/(s + 1)'],
    ['1/s + 1/(s + 1)', '(2s + 1)/(s^2 + s)'],
    ['s/(s + 1) + 1/(s + 1)', '1'],
    ['(1/s)^-1', 's'],
    ['s || s', '0.5s'],
    ['1/(0.01s + 1)', '1/(0.01s + 1)'],
    ['(s*pi + pi)/(s*pi + pi)', '1'],
    ['1/(a + b)', 'ratio-unknowns'],
    ['s/(s - s)', 'polynomial-by-zero'],
    ['s^0.5', 'polynomial-exponent'],
    ['s^1500*s^1500', 'degree-too-high'],
    ['sqrt(s)', 'no-unknowns'],
    ['|s|', 'no-unknowns'],
    ['5∠s', 'angle-real'],
    ['s > 1', 'not-comparable'],
  ])('%s: %s', (entry, expected) => expect(text(entry)).toBe(expected))
  test('rounded coefficients do not cancel by themselves', () =>
    expect(text('(s + sqrt(2))/(s^2 - 2)')).toBe('(s + 1.4142)/(s^2 - 2)'))
})

describe('where', () => {
  test.each([
    ['s^2 + 1 where s = 2', '5'],
    ['a*b + a where a = 2, b = 3', '8'],
    ['a*b + a where a = 2', '2b + 2'],
    ['a + b where a = b, b = a', 'a + b'],
    ['s^2 where s = s + 1', 's^2 + 2s + 1'],
    ['1/(1 + s) where s = 1j', '0.5 - 0.5j'],
    ['s^2 + 2s + 5 where s = [[1, 2], [3, 4]]', '[[14, 14], [21, 35]]'],
    ['roots((s^2 - a where a = 4))', '[-2, 2]'],
    ['count((s where s = (0 to 2)))', '3'],
    ['s where q = 2', 'unknown-name'],
    ['7 where s = 2', '7'],
    ['roots(s^2 where s = 2)', 'where-bracket'],
    ['s where', 'unfinished'],
  ])('%s: %s', (entry, expected) => {
    const found = text(entry)
    if (entry === 's where') expect(['where-form', 'unfinished']).toContain(found)
    else expect(found).toBe(expected)
  })
  test('over a sweep it is the frequency response', () => {
    const { value } = last('w = 1 to 3', 'H = 1/(1 + s*0.1)', 'H where s = j*w')
    if (value?.kind !== 'sweep') throw new Error('a sweep')
    for (let k = 0; k < 3; k += 1) {
      const z = C.divide({ re: 1, im: 0 }, { re: 1, im: 0.1 * (k + 1) })
      expect(value.re[k]).toBeCloseTo(z.re, 15)
      expect(value.im![k]).toBeCloseTo(z.im, 15)
    }
  })
  test('a polynomial vanishes at its companion matrix', () => {
    // The theorem of A. Cayley and W. R. Hamilton.
    expect(text('A = [[0, 1], [-2, -3]]', 'det(s*identity(2) - A) where s = A')).toBe('[[0, 0], [0, 0]]')
  })
})

describe('unknowns', () => {
  test('a value given later leaves what was made before algebraic, and that is pointed out', () => {
    const lines = reckon(['unknown s', 'p = s + 1', 's = 2', 'p', 's + 1'])
    expect(lines.map((l) => l.text)).toEqual(['', 's + 1', '2', 's + 1', '3'])
    expect(lines[2]!.hints.map((h) => h.code)).toContain('unknown-kept')
  })
  test('words of the notation and functions cannot be unknowns', () => {
    expect(reckon(['unknown sin'])[0]!.error?.code).toBe('function-reserved')
    expect(reckon(['unknown j'])[0]!.error?.code).toBe('letter-reserved')
    expect(reckon(['unknown'])[0]!.error?.code).toBe('reserved-word')
  })
})

describe('matrices with unknowns', () => {
  const A = 'A = [[0, 1], [-2, -3]]'
  test.each([
    ['det(s*identity(2) - A)', 's^2 + 3s + 2'],
    ['(s*identity(2) - A)[1, 2]', '-1'],
    ['inv(s*identity(2) - A)[1, 1]', '(s + 3)/(s^2 + 3s + 2)'],
    ['inv(s*identity(2) - A)*(s*identity(2) - A)', '[[1, 0], [0, 1]]'],
    ['tr([[s, 1], [2, s]])', '2s'],
    ['charpoly([[a, 1], [2, b]])', '[1, -a - b, a*b - 2]'],
    ['solve([[s, 1], [1, s]], [1, 0])[1]', 's/(s^2 - 1)'],
    ['[[s, 1], [1, s]]*[1, s]', '[2s, s^2 + 1]'],
    ['[[s, 1], [2, s]]^T', '[[s, 2], [1, s]]'],
    ['[[s, 1], [s, 1]]^-1', 'singular'],
    ['[[s, 1], [2, s]]*[1, 2, 3]', 'shapes-product'],
    ['eigenvalues([[s, 1], [2, s]])', 'no-unknowns'],
    ['det(s*identity(7) - identity(7))', 'algebra-order'],
    ['det(s*identity(2) - A) ~~ s^2 + 3s + 2', 'agrees to 15 significant figures'],
    ['det(s*identity(2) - A) ~~ s^2 + 3s + 3', 'does not agree: not even the first figure'],
  ])('%s: %s', (entry, expected) => expect(text(A, entry)).toBe(expected))
})

describe('roots', () => {
  const roots = (entry: string): C.Complex[] => {
    const { value, error } = last(entry)
    if (value?.kind !== 'vector') throw new Error(error?.message ?? 'not a vector')
    return value.items.flatMap((z) => (z.kind === 'number' ? [{ re: z.re, im: z.im }] : []))
  }
  test.each([
    ['roots(s^2 + 2s + 5)', '[-1 - 2j, -1 + 2j]'],
    ['roots([1, -6, 12, -8])', '[2, 2, 2]'],
    [
      'roots((s - 1)^4*(s + 2)^3*(s^2 + 1))',
      '[-2 + 0j, -2 + 0j, -2 + 0j, 0 - 1j, 0 + 1j, 1 + 0j, 1 + 0j, 1 + 0j, 1 + 0j]',
    ],
    ['roots(s^3)', '[0, 0, 0]'],
    ['roots(2s - 1)', '[0.5]'],
    ['roots([0, 0, 1, -2])', '[2]'],
    ['roots(7)', 'no-roots'],
    ['roots(s - s)', 'roots-of-zero'],
    ['roots(a*b)', 'one-unknown'],
    ['roots(1/s)', 'ratio-given'],
    ['zeros((s + 2)/(s^2 + 1))', '[-2]'],
    ['poles((s + 2)/(s^2 + 3s))', '[-3, 0]'],
    ['poles(s)', 'no-roots'],
  ])('%s: %s', (entry, expected) => expect(text(entry)).toBe(expected))
  // Worked out with mpmath 1.3 at 40 digits; see docs/expected-values.md.
  test.each([
    ['roots([1, 0, 0, 0, 0, -1])', [[-0.8090169943749475, -0.5877852522924731], [-0.8090169943749475, 0.5877852522924731], [0.30901699437494745, -0.9510565162951535], [0.30901699437494745, 0.9510565162951535], [1, 0]]],
    ['roots([2, -3, 1.5, 7, -4.25])', [[-1.2467367380367687, 0], [0.5861036842071043, 0], [1.080316526914832, -1.3194767181088027], [1.080316526914832, 1.3194767181088027]]],
    ['roots([1, -4.1, 6.3, -4.3, 1.1])', [[1, 0], [1, 0], [1, 0], [1.1, 0]]],
    ['roots([1, 0, -2, 0, -5])', [[-1.8572802003960462, 0], [0, -1.2039475664592616], [0, 1.2039475664592616], [1.8572802003960462, 0]]],
  ] as const)('%s', (entry, expected) => {
    const found = roots(entry)
    expect(found).toHaveLength(expected.length)
    found.forEach((z, k) => {
      expect(z.re).toBeCloseTo(expected[k]![0], 13)
      expect(z.im).toBeCloseTo(expected[k]![1], 13)
    })
  }) // prettier-ignore
  test('a cluster of rounded roots is pointed out', () => {
    expect(last('roots([1, -3*sqrt(2), 6, -2*sqrt(2)])').hints.map((h) => h.code)).toContain('roots-cluster')
    expect(last('roots([1, -3, 2])').hints).toEqual([])
  })
  test('of random polynomials: every root makes the polynomial small, and there are as many as its degree', () => {
    const coefficient = fc.integer({ min: -50, max: 50 })
    fc.assert(
      fc.property(fc.array(coefficient, { minLength: 3, maxLength: 9 }), (list) => {
        fc.pre(list[0] !== 0)
        const found = roots(`roots([${list.join(', ')}])`)
        expect(found).toHaveLength(list.length - 1)
        for (const z of found) {
          let value: C.Complex = { re: 0, im: 0 }
          let scale = 0
          for (const c of list) {
            value = C.add(C.multiply(value, z), { re: c, im: 0 })
            scale = scale * C.abs(z) + Math.abs(c)
          }
          expect(C.abs(value)).toBeLessThanOrEqual(1e-11 * scale)
        }
      }),
      { numRuns: 60 },
    )
  })
})

test('a text of a polynomial reads back as the same polynomial', () => {
  const term = fc.tuple(fc.integer({ min: -9, max: 9 }), fc.nat(3), fc.nat(2))
  fc.assert(
    fc.property(fc.array(term, { minLength: 1, maxLength: 5 }), (terms) => {
      const entry = terms.map(([c, n, m]) => `(${c})*a^${n}*b^${m}`).join(' + ')
      const shown = text(entry)
      expect(text(shown)).toBe(shown)
      expect(text(`${entry} == ${shown}`)).toBe('true')
    }),
    { numRuns: 80 },
  )
})

test('ratios are a field: sums and products agree with their values at a point', () => {
  const part = fc.constantFrom('s', '(s + 1)', '(s - 2)', '(s^2 + 1)', '(2s + 3)', '5')
  const ratio = fc.tuple(part, part).map(([x, y]) => `${x}/${y}`)
  fc.assert(
    fc.property(ratio, fc.constantFrom('+', '-', '*', '/'), ratio, (x, sign, y) => {
      const whole = last(`(${x}) ${sign} (${y}) where s = 0.7`).value
      const parts = last(`(${x.replaceAll('s', '0.7')}) ${sign} (${y.replaceAll('s', '0.7')})`.replaceAll('20.7', '2*0.7')).value // prettier-ignore
      if (whole?.kind !== 'number' || parts?.kind !== 'number') throw new Error('numbers')
      expect(Math.abs(whole.re - parts.re)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(parts.re)))
    }),
    { numRuns: 80 },
  )
})
