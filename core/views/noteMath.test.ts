import { noteMath } from './noteMath'

const plain = (text: string): string | null => noteMath(text, 'j')?.replace(/\\htmlData\{[^}]*\}/g, '') ?? null

test.each([
  ['a/b', 'frac{'],
  ['V = 230/_0', '\\angle'],
  ['sqrt(3)', '\\sqrt'],
  ['R_1 || R_2', '\\parallel'],
  ['2x^2', 'x'],
])('%s is read in our notation', (text, part) => expect(plain(text)).toContain(part))

test.each(['\\frac{1}{2}', 'x_{max}', 'a +', '', '5 = 3', '(('])('%s is left to LaTeX', (text) =>
  expect(plain(text)).toBeNull(),
)
