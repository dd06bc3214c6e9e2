import { isProse } from './prose'

test.each([
  'the current through the choke',
  'Find the apparent power.',
  'Mesh 1: what is sought?',
  'It doesn’t flow back',
])('%s is prose', (line) => expect(isProse(line)).toBe(true))

test.each([
  'I = V/Z',
  'the current = 3',
  'sum of a + b',
  'a to b step c',
  'x and y or z',
  'two words',
  'f(x) g(x) h(x)',
  '"a text that stands"',
  '2 3 4',
  'R1 R2 R3',
  '',
])('%s is none', (line) => expect(isProse(line)).toBe(false))
