import * as fc from 'fast-check'
import { titleSchema } from './folio'
import type { Line } from './folio'
import { ownTitle, UNNAMED } from './folioTitle'

const entry = (source: string): Line => ({ id: 'line-0001', source })
const note = (source: string): Line => ({ id: 'line-0002', source, note: true })

test.each([
  ['nothing', [], UNNAMED],
  ['empty lines', [entry(''), note(' \n')], UNNAMED],
  ['a line', [entry(''), entry('Z  =  12 + 5j')], 'Z = 12 + 5j'],
  ['a remark', [entry('# Two numbers'), entry('3 + 4j')], 'Two numbers'],
  ['a heading below a line', [entry('Z = 3'), note('Some words\n## The **second** sheet ##')], 'The second sheet'],
  ['a note with no heading', [note('\n- first of all\nmore')], 'first of all'],
])('%s', (_name, lines, title) => {
  expect(ownTitle(lines)).toBe(title)
})

test('whatever stands in the lines, it is a title that can be kept', () => {
  const line = fc.record({ id: fc.constant('line-0001'), source: fc.string({ maxLength: 400, unit: 'grapheme' }) })
  const noted = line.map((l): Line => ({ ...l, note: true }))
  fc.assert(
    fc.property(fc.array(fc.oneof(line, noted), { maxLength: 6 }), (lines) => {
      expect(titleSchema.parse(ownTitle(lines))).toBe(ownTitle(lines).trim())
    }),
  )
})
