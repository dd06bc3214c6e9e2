import { findAmong, fitness } from './finding'
import type { Finding } from './finding'

const finding = (label: string, detail = '', also = ''): Finding => ({
  id: label, group: 'Actions', label, detail, also, run: () => undefined,
}) // prettier-ignore

const list = [
  finding('Undo'),
  finding('Duplicate line'),
  finding('Z_lamp', '2.4 + 3.14j'),
  finding('sinh(z)', 'hyperbolic sine'),
  finding('sin(x)', 'sine'),
  finding('Stroll', 'line by line', 'present show'),
]
const labels = (asked: string): string[] => findAmong(list, asked, 10).map((f) => f.label)

test.each([
  ['', list.map((f) => f.label)],
  ['und', ['Undo']],
  ['line', ['Duplicate line', 'Stroll']],
  ['sin', ['sinh(z)', 'sin(x)']],
  ['sine hyper', ['sinh(z)']],
  ['lamp', ['Z_lamp']],
  ['PRESENT', ['Stroll']],
  ['nothing like it', []],
])('%j finds %j', (asked, expected) => expect(labels(asked)).toEqual(expected))

test('a whole label comes before a beginning, and that before a part', () => {
  expect(fitness(finding('z'), 'z')).toBeGreaterThan(fitness(finding('zeta'), 'z'))
  expect(fitness(finding('zeta'), 'z')).toBeGreaterThan(fitness(finding('a z'), 'z'))
  expect(fitness(finding('a z'), 'z')).toBeGreaterThan(fitness(finding('abz'), 'z'))
})

test('not more than asked for', () => expect(findAmong(list, '', 2)).toHaveLength(2))
