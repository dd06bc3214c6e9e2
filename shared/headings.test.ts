import MarkdownIt from 'markdown-it'
import * as fc from 'fast-check'
import { firstHeading, leadingHeading } from './headings'

test.each([
  ['# One', { level: 1, text: 'One' }],
  ['   ### Three ##  ', { level: 3, text: 'Three' }],
  ['## C# and F#', { level: 2, text: 'C# and F#' }],
  ['#no blank', null],
  ['####### seven', null],
  ['words\n## Below', null],
  ['', null],
])('the heading that %j begins with', (note, found) => expect(leadingHeading(note)).toEqual(found))

test('the first heading may stand below other text', () => {
  expect(firstHeading('words\n\n## Below **all** ##\n# Later')).toEqual({ level: 2, text: 'Below **all**' })
  expect(firstHeading('words')).toBeNull()
})

const markdown = new MarkdownIt()
const row = fc.constantFrom(
  '# a',
  '## b ##',
  '   ### c d',
  '#x',
  '# a #b',
  '###### e # ',
  'words',
  '## *f* `g`',
  '#\tt',
)
test('they are those that Markdown draws', () => {
  fc.assert(
    fc.property(fc.array(row, { minLength: 1, maxLength: 4 }), (rows) => {
      // Blank rows keep what is no heading from running on.
      const note = rows.join('\n\n')
      const tokens = markdown.parse(note, {})
      const at = tokens.findIndex((t) => t.type === 'heading_open')
      const drawn = at < 0 ? null : { level: Number(tokens[at]?.tag.slice(1)), text: tokens[at + 1]?.content }
      expect(firstHeading(note)).toEqual(drawn)
      expect(leadingHeading(note)).toEqual(tokens[0]?.type === 'heading_open' ? drawn : null)
    }),
  )
})
