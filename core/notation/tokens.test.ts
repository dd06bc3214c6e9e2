import * as fc from 'fast-check'
import { Tok } from './tokenKinds'
import { tokenize } from './tokens'

const TYPES = new Map([
  [Tok.odd, 'odd'],
  [Tok.text, 'text'],
  [Tok.dms, 'dms'],
  [Tok.number, 'number'],
])

const shown = (source: string): string =>
  tokenize(source)
    .slice(0, -1)
    .map((t) => `${TYPES.get(t.kind) ?? (t.kind < Tok.plus ? 'name' : 'sign')}:${t.text}`)
    .join(' ')

test.each([
  ['1.5e-3', 'number:1.5e-3'],
  ['2e', 'number:2 name:e'],
  ['2e3x', 'number:2e3 name:x'],
  ['2e+', 'number:2 name:e sign:+'],
  ['.5', 'number:.5'],
  ['1.', 'number:1.'],
  ['1.2.3', 'number:1.2 number:.3'],
  ['.', 'sign:.'],
  ['4k7', 'number:4 name:k7'],
  ['j4.5', 'name:j4.5'],
  ['j4', 'name:j4'],
  ['j4e-3k', 'name:j4e-3k'],
  ['j4x', 'name:j4x'],
  ['Z_lamp1', 'name:Z_lamp1'],
  ['Ω₀', 'name:Ω₀'],
  ['ünï', 'name:ünï'],
  ['a/_b', 'name:a sign:/_ name:b'],
  ['a / _b', 'name:a sign:/ name:_b'],
  ['∠ × ÷ − ≤ ≠ ≈ ∥', 'sign:/_ sign:* sign:/ sign:- sign:<= sign:!= sign:~~ sign:||'],
  ['x²', 'name:x sign:^ number:2'],
  ['x⁻¹²', 'name:x sign:^ sign:- number:12'],
  ['⁻', 'odd:⁻'],
  ['36°52\'12"', 'dms:36°52\'12"'],
  ["36 deg 52'", "dms:36 deg 52'"],
  ['36° x', 'number:36 sign:° name:x'],
  ['"a b" + “c”', 'text:a b sign:+ text:c'],
  ['"open', 'odd:"open'],
  ['1 # 2 # 3', 'number:1'],
  ['∞', 'name:inf'],
  ['√2', 'sign:√ number:2'],
  ['a||b', 'name:a sign:|| name:b'],
  ['n!=3', 'name:n sign:!= number:3'],
  ['1\u00a0+\u2009\u3000 2', 'number:1 sign:+ number:2'],
  ['$𝛼😀', 'odd:$ name:𝛼 odd:😀'],
])('%s', (source, expected) => expect(shown(source)).toBe(expected))

test('tokens cover the source in order, without gaps but for white space', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (text) => {
      // Behind the sign of a remark there are no tokens.
      const source = text.replaceAll('#', '+')
      let at = 0
      for (const token of tokenize(source)) {
        expect(token.from).toBeGreaterThanOrEqual(at)
        expect(source.slice(at, token.from).trim()).toBe('')
        expect(token.to).toBeGreaterThanOrEqual(token.from)
        at = token.to
      }
      expect(source.slice(at).trim()).toBe('')
    }),
    { numRuns: 2000 },
  )
})

test('a token knows whether white space comes before it', () => {
  expect(tokenize('a b(c) d').map((t) => t.spaced)).toEqual([true, true, false, false, false, true, true])
})
