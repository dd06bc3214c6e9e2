import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Conventions } from './conventions'
import { DEFAULT_CONVENTIONS } from './conventions'
import { readoutToLatex } from './latex'
import type { CopyForm } from '../kinds/kind'
import { copyText } from '../kinds/kinds'

const copy = (entry: string, form: CopyForm, conventions: Partial<Conventions> = {}): string | null =>
  copyText(reckon([entry], conventions)[0]!.value!, form, { ...DEFAULT_CONVENTIONS, ...conventions })

test.each([
  ['3 + 4j', 'shown', '3 + 4j'],
  ['1/3', 'shown', '0.33333'],
  ['1/3', 'full', '1/3'],
  ['sqrt(2)', 'full', '1.4142135623730951'],
  ['sqrt(2) + sqrt(2)*j', 'full', '1.4142135623730951 + 1.4142135623730951j'],
  ['-sqrt(2)*j', 'full', '-1.4142135623730951j'],
  ['1e-7*sqrt(2)', 'full', '1.4142135623730952e-7'],
  ['3 + 4j', 'polar', '5 ∠ 53.13°'],
  ['7', 'polar', null],
  ['[3 + 4j, 2]', 'polar', '[5 ∠ 53.13°, 2]'],
  ['[1, 2]', 'polar', null],
  ['30°', 'full', '30°'],
  ['"a word"', 'shown', '"a word"'],
  ['3 + 4j', 'latex', '3 + 4\\mathrm{j}'],
  ['[1/2, 3]', 'csv', '0.5\r\n3'],
  ['[1 + 2j, 3]', 'csv', 're,im\r\n1,2\r\n3,0'],
  ['[30°, 60°]', 'csv', 'degrees\r\n30\r\n60'],
  ['"say \\"no\\", twice"', 'csv', null],
] as const)('%s as %s', (entry, form, expected) => {
  if (expected === null && form === 'csv') expect(reckon([entry])[0]!.error?.code).toBe('missing-operator')
  else expect(copy(entry, form)).toBe(expected)
})

test.each([
  ['5 ∠ 53.13°', '5 \\,\\angle\\, 53.13^{\\circ}'],
  ['1.486e4', '1.486 \\times 10^{4}'],
  ['-2.5e-3', '-2.5 \\times 10^{-3}'],
  ['1/3 - 2j/3', '\\frac{1}{3} - \\frac{2\\mathrm{j}}{3}'],
  ['3pi/4 rad', '\\frac{3\\pi}{4}\\,\\mathrm{rad}'],
  ['14.86k', '14.86\\,\\mathrm{k}'],
])('%s as LaTeX', (text, latex) => expect(readoutToLatex(text, 'j')).toBe(latex))

test('a text with a comma is quoted in CSV', () => expect(copy('"a, b"', 'csv')).toBe('"a, b"'))

test('what is copied in full reads back as the very same value', () => {
  const double = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e300, max: 1e300 })
  fc.assert(
    fc.property(double, double, (re, im) => {
      const written = `${re} + (${im})*sqrt(1)*j`.replace(/e\+/g, 'e')
      const before = reckon([written])[0]!.value
      if (before?.kind !== 'number') return
      const text = copyText(before, 'full', DEFAULT_CONVENTIONS)
      expect(reckon([text!])[0]!.value).toMatchObject({ re: before.re, im: before.im })
    }),
  )
})
