import { refineRange } from './refine'

test.each([
  ['t = 0 to 10', 't = 0 to 10 step 0.25'],
  ['t = 0 to 10 step 0.5  # seconds', 't = 0 to 10 step 0.125  # seconds'],
  ['x = -1 to 1 count 6', 'x = -1 to 1 count 21'],
  ['f = 10 to 100k per decade 50', 'f = 10 to 100k per decade 200'],
  ['t = (0 to T step T/8)', 't = (0 to T step (T/8)/4)'],
  ['x = 0 to 1 count n', 'x = 0 to 1 count n*4'],
])('%s becomes %s', (source, finer) => expect(refineRange(source)).toBe(finer))

test.each(['x = 2*t', 'x = (0 to 1)^2', '0 to', '', '# 0 to 1'])('%s has no range of its own', (source) =>
  expect(refineRange(source)).toBeNull(),
)
