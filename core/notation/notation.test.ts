import * as fc from 'fast-check'
import { reckon } from '../testing'

const value = (...lines: string[]) => reckon(lines).at(-1)!
const rectangular = (...lines: string[]): string => value(...lines).text
const code = (...lines: string[]): string | undefined => value(...lines).error?.code
const hintCodes = (...lines: string[]): string[] => value(...lines).hints.map((h) => h.code)

describe('numbers', () => {
  test.each([
    ['12', '12'],
    ['.5', '0.5'],
    ['1.2e-3', '0.0012'],
    ['4.7k', '4700'],
    ['33n', '3.3e-8'],
    ['10u * 1M', '10'],
    ['10kj', '0 + 10000j'],
    ['4k7', '4700'],
    ['2R2', '2.2'],
    ['2pi', '6.2832'],
    ['2e', '5.4366'],
    ['2e3', '2000'],
    ['4j', '0 + 4j'],
    ['4i', '0 + 4j'],
    ['j*4', '0 + 4j'],
    ['j(2+3)', '0 + 5j'],
    ['3 + j4', '3 + 4j'],
    ['3 + j4.5', '3 + 4.5j'],
    ['3 + j1e-1', '3 + 0.1j'],
    ['3 − 4j', '3 - 4j'],
    ['2 × 3 ÷ 4', '1.5'],
    ['2·3', '6'],
    ['√16', '4'],
    ['√2²', '2'],
    ['2⁻¹', '0.5'],
    ['1/∞', '0'],
  ])('%s is %s', (entry, text) => expect(rectangular(entry)).toBe(text))

  test('letters after digits: names come before units and prefixes', () => {
    expect(rectangular('n = 3', '2n')).toBe('6')
    expect(hintCodes('n = 3', '2n')).toContain('prefix-shadowed')
    expect(rectangular('i = 2', '4i')).toBe('8')
    expect(rectangular('i = 2', '4j')).toBe('0 + 4j')
    expect(rectangular('j4 = 7', '3 + j4')).toBe('10')
  })
})

describe('precedence follows written mathematics', () => {
  test.each([
    ['-2^2', '-4'],
    ['2^3^2', '512'],
    ['2^-1', '0.5'],
    ['4j^2', '-4 + 0j'],
    ['1/4j', '0 - 0.25j'],
    ['3(4+1)', '15'],
    ['7 mod 3', '1'],
    ['-7 mod 3', '2'],
    ['6/2*3', '9'],
    ['5!', '120'],
    ['2^3!', '64'],
    ['10∠30° / 2∠-15°', '3.5355 + 3.5355j'],
    ['-5∠30°', '-4.3301 - 2.5j'],
    ['2∠-3pi/4 rad', '-1.4142 - 1.4142j'],
    ['pi/4 rad', '45°'],
    ['pi/4 rad * 2', '90°'],
    ['6 || 3', '2'],
    ['1/2 || 1/2', '0.25'],
    ['1 + 6 || 3', '3'],
    ['(1+2j)^*', '1 - 2j'],
    ['sin^2(30°)', '0.25'],
    ['|3+4j|*2', '10'],
    ['||3|+2|', '5'],
    ['|1 + |3+4j||', '6'],
    ['1 < 2 < 3', 'true'],
    ['3 != 3', 'false'],
    ['3!=6', 'true'],
    ['not 1 > 2 and 2 >= 2', 'true'],
    ['"ab" + "c"', 'abc'],
  ])('%s is %s', (entry, text) => {
    expect(rectangular(entry)).toBe(text)
  })

  test('a number before a name multiplies at the level of * and /', () => {
    expect(rectangular('x = 3', '1/2x')).toBe('1.5')
    expect(hintCodes('x = 3', '1/2x')).toEqual(['implicit-after-quotient'])
    expect(rectangular('x = 3', '2x^2')).toBe('18')
  })

  test('what may surprise is hinted', () => {
    expect(hintCodes('-2^2')).toEqual(['negative-power'])
    expect(hintCodes('2k^2')).toEqual(['prefix-power'])
    expect(hintCodes('1/4j')).toEqual(['quotient-imaginary'])
    expect(hintCodes('3/4 || 2')).toEqual(['parallel-quotient'])
    expect(hintCodes('5<30')).toEqual(['angle-sign'])
  })

  test('a hint’s fix replaces its span', () => {
    const line = value('x = 3', '1/2x')
    const [hint] = line.hints
    const [first] = hint!.fixes
    expect('1/2x'.slice(0, hint!.from) + first!.replacement + '1/2x'.slice(hint!.to)).toBe('1/(2x)')
  })
})

describe('lines that can be read in two ways are refused with both', () => {
  test.each([
    // A complex number times an angle has no meaning: that reading is not offered.
    ['5∠2*30°', ['5∠(2*30°)']],
    ['5∠30°^2', ['(5∠30°)^2', '5∠(30°^2)']],
    ['|2||3|', ['|*|', ' || ']],
    ['sin^-1(0.5)', ['arcsin(0.5)', '1/sin(0.5)']],
    ['log(100)', ['ln(100)', 'lg(100)']],
  ])('%s', (entry, replacements) => {
    expect(value(entry).error!.fixes.map((f) => f.replacement)).toEqual(replacements)
  })
  test('with names', () => {
    expect(code('x = 2', '5∠2x')).toBe('angle-bracketing')
    expect(code('x = 2', '2^2x')).toBe('power-bracketing')
    expect(code('t = 30°', '5∠t+30°')).toBe('angle-bracketing')
    expect(code('3+4j∠30°')).toBe('angle-bracketing')
    expect(value('x = 2', 'x/2 rad').error!.fixes.map((f) => f.replacement)).toEqual(['(x/2) rad', 'x/(2 rad)'])
  })
})

describe('errors have a code, a place and a sentence', () => {
  test.each([
    ['2 3', 'missing-operator', 1, 2],
    ['(1+2)(3)', 'missing-operator', 5, 5],
    ['2 +', 'unfinished', 3, 3],
    ['(1 + 2', 'unclosed', 6, 6],
    ['1 + 2)', 'unbalanced', 5, 6],
    ['pi/4 = x', 'not-definable', 0, 8],
    ['3 = 4', 'not-definable', 0, 5],
    ['foo + 1', 'unknown-name', 0, 3],
    ['mod = 3', 'reserved-word', 0, 3],
    ['pi = 3', 'constant-reserved', 0, 2],
    ['j = 3', 'letter-reserved', 0, 1],
    ['sin = 3', 'function-reserved', 0, 3],
    ['sin + 1', 'function-needs-bracket', 0, 3],
    ['sin()', 'argument-count', 0, 5],
    ['gcd(1.5, 2)', 'argument-kind', 4, 7],
    ['arctan2(1)', 'argument-count', 0, 10],
    ['3 @ 4', 'odd-character', 2, 3],
    ['"ab', 'text-not-closed', 0, 3],
    ['10^400', 'too-large', 0, 6],
    ['1e999', 'too-large', 0, 5],
    ['x = x + 1', 'self-reference', 4, 5],
    ['f(x) = f(x-1)', 'recursive', 7, 8],
    ['1 < 2j', 'no-order', 0, 6],
    ['(2+j)∠30°', 'magnitude-real', 0, 5],
    ['30°°', 'angle-twice', 0, 4],
    ['if(1, 2, 3)', 'truth-needed', 3, 4],
    ['1, 2', 'stray-comma', 0, 4],
  ])('%s: %s at %d–%d', (entry, expected, from, to) => {
    const { error } = value(entry)
    expect(error).toMatchObject({ code: expected, from, to })
    expect(error!.message).toMatch(/\S{2,} .*[.?…]$/)
    expect(error!.message).not.toContain('undefined')
  })

  test('a sentence names what is near: another case, a misspelling, names run together', () => {
    expect(value('Zlamp = 3', 'zlamp + 1').error!.fixes[0]!.replacement).toBe('Zlamp')
    expect(value('current = 3', 'curent').error!.fixes.map((f) => f.replacement)).toContain('current')
    const run = value('w = 2', 'L = 3', 'jwL').error!
    expect(run.code).toBe('names-run-together')
    expect(run.fixes[0]!.replacement).toBe('j*w*L')
  })

  test('a name that is defined further down says where', () => {
    const [first] = reckon(['x + 1', '2', 'x = 5'])
    expect(first!.error).toMatchObject({ code: 'defined-below' })
    expect(first!.error!.message).toContain('line 3')
  })

  test('calling what is not a function offers the product', () => {
    const { error } = value('x = 3', 'x(4+1)')
    expect(error).toMatchObject({ code: 'not-a-function', from: 0, to: 2 })
    expect(error!.fixes[0]!.replacement).toBe('x*(')
  })

  test('a line in error does not stop the others; what waits for it says so', () => {
    const lines = reckon(['Z = 3 +', 'I = 1/Z', '2 + 2'])
    expect(lines[1]!.error).toMatchObject({ code: 'waits-for' })
    expect(lines[1]!.error!.message).toContain('line 1')
    expect(lines[2]!.text).toBe('4')
  })

  test('a caret before T is a transpose, unless T is kept: then both readings are offered', () => {
    expect(rectangular('(1+2j)^T')).toBe('1 + 2j')
    expect(rectangular('(1+2j)^H')).toBe('1 - 2j')
    const { error } = value('T = 2', 'x = 3', 'x^T')
    expect(error!.code).toBe('transpose-number')
    expect(error!.fixes.map((f) => f.replacement)).toEqual(['x^(T)', 'x'])
  })

  test('the word angle and the sign @ where ∠ is meant', () => {
    for (const entry of ['5 angle 30', '5@30']) {
      const { error } = value(entry)
      const fixed = entry.slice(0, error!.from) + error!.fixes[0]!.replacement + entry.slice(error!.to)
      expect(rectangular(fixed)).toBe('4.3301 + 2.5j')
    }
  })

  test('swapping the sides of pi/4 = x is one fix', () => {
    expect(value('pi/4 = x').error!.fixes[0]!.replacement).toBe('x = pi/4')
  })
})

describe('no input throws', () => {
  const pieces = [
    '1', '2.5', '.', 'e', '1e', '1e-3', 'x', 'Z_1', 'sin', 'sin(', 'if(', 'pi', 'j', 'j4', 'i', '4j', '2k', '4k7', '°', 'deg',
    'rad', '∠', '/_', '+', '-', '*', '/', '^', '^*', '^T', '(', ')', '[', ']', '|', '||', '!', '=', '==', '!=', '<', '~~', ',',
    'mod', 'and', 'or', 'not', 'where', 'within', '%', '"', "'", '#', '√', '²', '⁻¹', '∞', 'prev', ' ', '36°52\'12"', '𝛼', '\u0000',
  ] // prettier-ignore
  test('strings of tokens', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pieces), { maxLength: 14 }), (tokens) => {
        const [line] = reckon([tokens.join('')])
        if (line!.error) {
          expect(line!.error.from).toBeLessThanOrEqual(line!.error.to)
          expect(line!.error.message).not.toContain('cannot be read (')
        }
      }),
      { numRuns: 3000 },
    )
  })
  test('any text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (text) => {
        expect(reckon([text.replace(/[\r\n]/g, ' ')])).toHaveLength(1)
      }),
      { numRuns: 1500 },
    )
  })
  test('deep nesting and long lines', () => {
    expect(code('('.repeat(5000) + '1')).toBe('too-deep')
    expect(code('-'.repeat(5000) + '1')).toBe('too-deep')
    expect(code('2^'.repeat(4000) + '1')).toBe('too-deep')
    expect(code('1+'.repeat(6000) + '1')).toBe('line-too-long')
    expect(code('|'.repeat(3000))).toBe('too-deep')
    expect(code('√'.repeat(4000) + '1')).toBe('too-deep')
    expect(code('!'.repeat(10))).toBe('operand-expected')
  })
  test('rows of terms are read up to a limit that is said', () => {
    const row = (sign: string, count: number): string => Array.from({ length: count }, () => '1').join(sign)
    expect(rectangular(row('+', 800))).toBe('800')
    for (const sign of ['+', '*', ' || ', ' and ']) expect(code(row(sign, 1500))).toBe('too-many-terms')
    expect(code('1' + '!'.repeat(3000))).toBe('too-many-terms')
    expect(code('1' + '^*'.repeat(3000))).toBe('too-many-terms')
  })
})
