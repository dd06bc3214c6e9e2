import * as fc from 'fast-check'
import { valueText, withValue } from './valuePart'
import { parseLine } from './parser'
import { definedName } from './references'

test.each([
  ['R = 12', '12'],
  ['  Z_1 =  3+4j   # of the cable', '3+4j'],
  ['f(x, y) = x^2 + y', 'x^2 + y'],
  ['230/_0 # the mains', '230/_0'],
  ['T = "no # remark" # but this # one', '"no # remark"'],
  ['R =', ''],
  ['R = # none yet', ''],
  ['R = 12 +', '12 +'],
  ['3 == 4', '3 == 4'],
  ['y = x where x = 2', 'x where x = 2'],
  ['# only a remark', ''],
  ['', ''],
])('the value of %s is %s', (source, value) => {
  expect(valueText(source)).toBe(value)
})

test.each([
  ['R = 12 # of copper', '15k', 'R = 15k # of copper'],
  ['R = 12', ' R = 15 # tried', 'R = 15'],
  ['R =', '4', 'R =4'],
  ['5 ohm', '7', '7'],
  ['f(x) = x', 'x + 1', 'f(x) = x + 1'],
  ['T = "a # b"', '"c"', 'T = "c"'],
])('%s with %s', (source, value, expected) => {
  expect(withValue(source, value)).toBe(expected)
})

const value = fc.constantFrom('1', '-2.5', '3+4j', '230∠-20°', '[1, 2; 3]', '"# text"', 'a + b', '(1', '', '4k7')
const remark = fc.constantFrom('', ' # a remark', '#', ' ## twice', '  #"quoted"')
test('another value leaves name and remark as they are, and is read back; putting the first one back gives the line', () => {
  fc.assert(
    fc.property(fc.constantFrom('R = ', 'Z_1=', 'f(x) =  ', ''), value, value, remark, (head, first, second, tail) => {
      const source = head + first + tail
      const changed = withValue(source, second)
      expect(valueText(changed)).toBe(second)
      expect(parseLine(changed).remark).toBe(parseLine(source).remark)
      expect(definedName(parseLine(changed))).toBe(definedName(parseLine(source)))
      const words = (text: string): string => text.replace(/\s/g, '')
      expect(words(withValue(changed, first))).toBe(words(source))
      if (first !== '' && second !== '') expect(withValue(changed, first)).toBe(source)
    }),
  )
})
