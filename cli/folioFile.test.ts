import { readFileSync } from 'node:fs'
import * as fc from 'fast-check'
import { faultSentence } from '#core/exchange/told'
import { DEMO_FOLIOS } from '../server/db/demo'
import type { FolioFile } from '../shared/folio'
import { FOLIO_FILE_VERSION, folioFileJsonSchema, readFolioFile, writeFolioFile } from '../shared/folioFile'
import { freshCurve, freshPlate } from '../shared/plate'

const id = fc.stringMatching(/^[A-Za-z0-9_-]{8,20}$/)
const text = fc.string({ unit: 'binary', maxLength: 40 })
const mark = fc.option(fc.constant(true as const), { nil: undefined })
const line = fc.record({ id, source: text, note: mark, folded: mark, hidden: mark, varied: mark, watched: mark, answer: fc.option(fc.constantFrom('1 a', '2'), { nil: undefined }) }) // prettier-ignore
const plate = fc.oneof(
  fc.tuple(id, fc.array(id, { maxLength: 3 })).map(([own, on]) => ({ ...freshPlate(own, false), on })),
  fc.tuple(id, fc.array(id, { maxLength: 3 })).map(([own, on]) => freshCurve(own, ['dB', 'angle'], on, 'A curve')),
)
const set = fc.record({ id, name: fc.constantFrom('', 'dry'), values: fc.dictionary(id, text, { maxKeys: 3 }) })
const folios = fc.record({
  title: fc.stringMatching(/^[A-Za-z0-9 ]{1,20}$/).map((t) => t.trim() || 'T'),
  conventions: fc.record({ angle: fc.constantFrom('deg', 'rad'), digits: fc.integer({ min: 2, max: 16 }) }, { requiredKeys: [] }), // prettier-ignore
  lines: fc.array(line, { maxLength: 6 }),
  plates: fc.array(plate, { maxLength: 3 }),
  head: fc.record({ course: fc.constantFrom('', 'C'), sheet: fc.constantFrom('', '3'), date: fc.constant('') }),
  sets: fc.array(set, { maxLength: 8 }),
})

test('any folio written and read is the same in every field, plates too', () => {
  fc.assert(
    fc.property(folios, (folio) => {
      const file = JSON.parse(JSON.stringify(folio)) as FolioFile
      const read = readFolioFile(writeFolioFile(file))
      expect(read).toEqual({ kind: 'folio', file })
    }),
    { numRuns: 300 },
  )
})

test('the demonstration comes back as it went', () => {
  for (const folio of DEMO_FOLIOS) expect(readFolioFile(writeFolioFile(folio))).toEqual({ kind: 'folio', file: folio })
})

const said = (content: string): string => {
  const read = readFolioFile(content)
  return read.kind === 'fault' ? faultSentence(read) : 'read'
}

test('a file from before versions is read; a newer one is refused by its number', () => {
  expect(said('{"title": "x", "lines": []}')).toBe('read')
  expect(said(`{"version": ${FOLIO_FILE_VERSION + 1}, "title": 5}`)).toBe(
    `The folio file has version ${FOLIO_FILE_VERSION + 1}; this program reads up to version ${FOLIO_FILE_VERSION}. A newer one of it will open the file.`,
  )
})

test.each([
  ['{"title": ', 'its JSON is damaged'],
  ['{"title": "x", "lines": 3}', 'This is not a folio file: lines: '],
  ['{"lines": []}', 'This is not a folio file: title: '],
  [`{"title": "x", "lines": [{"source": "${'x'.repeat(200_001)}"}]}`, 'lines.0.source'],
  [`${'['.repeat(10_000)}${']'.repeat(10_000)}`, 'This is not a folio file'],
  ['{"title": "x", "lines": [], "enclosures": [{"kind": "matrix", "name": "a", "block": "../../x", "rows": 1, "cols": 1, "complex": false}]}', 'enclosures.0.block'],
])('%.40j is refused, and says where', (content, sentence) => expect(said(content)).toContain(sentence)) // prettier-ignore

test('the schema in the documents is the one that reads files (npm run schema)', () => {
  const kept: unknown = JSON.parse(readFileSync('docs/folio-file.schema.json', 'utf8'))
  expect(kept).toEqual(JSON.parse(JSON.stringify(folioFileJsonSchema())))
})
