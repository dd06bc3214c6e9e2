import { spokenMath } from './spokenMath'

test.each([
  ['\\dfrac{3}{4}', '3 over 4'],
  ['\\dfrac{a + b}{2}', 'a plus b all over 2 end of fraction'],
  ['\\sqrt{2}', 'root of 2 end of root'],
  ['\\sqrt[3]{8}', 'root of order 3 of 8 end of root'],
  ['{3}^{2} + {4}^{2}', '3 squared plus 4 squared'],
  ['{a}^{n}', 'a to the power n'],
  ['5 \\,\\angle\\, 30^{\\circ}', '5 angle 30 degrees'],
  ['3 - 4\\mathrm{j}', '3 minus 4 j'],
  ['\\left( 1 \\cdot 2 \\right)', 'open 1 times 2 close'],
  ['\\htmlData{span=0-1}{R_{1}} \\approx 3.5', 'R 1 is about 3.5'],
  ['\\begin{pmatrix} 1 & 2 \\\\ 3 & 4 \\end{pmatrix}', 'matrix: row 1: 1, 2; row 2: 3, 4; end of matrix'],
  ['{A}^{\\mathsf{T}}', 'A transposed'],
  ['x = -1', 'x equals minus 1'],
  ['a \\parallel b', 'a in parallel with b'],
])('%s is said %s', (latex, said) => expect(spokenMath(latex)).toBe(said))

test('what is not finished or not known is said as far as it goes', () => {
  expect(spokenMath('\\dfrac{1}{')).toMatch(/^1/)
  expect(spokenMath('')).toBe('')
  expect(spokenMath('\\unknown{x}')).toBe('unknown x')
})
