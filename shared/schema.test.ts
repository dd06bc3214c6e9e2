import { conventionsSchema, DEFAULT_CONVENTIONS, someConventionsSchema } from './conventions'
import { bytesOf, ENCLOSED_BYTES_MOST, enclosureNameSchema, enclosureSchema } from './enclosure'
import { answerSchema, folioFileSchema, folioSchema, lineSchema, titleSchema } from './folio'
import { LINE_LENGTH_MAX, LINES_MAX, TITLE_LENGTH_MAX } from './limits'
import { operationSchema, saveSchema } from './operations'
import { freshCurve, freshPlate, plateSchema } from './plate'
import { idSchema } from './schema'

/** What crosses the wire is held to its bounds on both sides: each is tried at its edge and one beyond it. */

interface Schema {
  safeParse(value: unknown): { readonly success: boolean; readonly error?: { readonly issues: readonly { readonly message: string }[] } } // prettier-ignore
}
const fits = (schema: Schema, ...values: unknown[]): void =>
  expect(values.map((value) => [value, schema.safeParse(value).success])).toEqual(values.map((value) => [value, true]))
const fails = (schema: Schema, ...values: unknown[]): void =>
  expect(values.map((value) => [value, schema.safeParse(value).success])).toEqual(values.map((value) => [value, false]))

const ID = 'line-0001'
const folio = {
  id: 'folio-01', title: 'Lamp', revision: 0, conventions: DEFAULT_CONVENTIONS, lines: [], createdAt: '', changedAt: '',
  binnedAt: null,
} // prettier-ignore

test('identifiers are 8 to 40 letters and digits', () => {
  fits(idSchema, 'a'.repeat(8), 'a'.repeat(40), 'A-Z_09-az')
  fails(idSchema, 'a'.repeat(7), 'a'.repeat(41), 'with space', 'ümlaut-12', 12345678, null)
})

test('a title has something besides space, is trimmed, and is not too long', () => {
  fits(titleSchema, 'x', 'x'.repeat(TITLE_LENGTH_MAX), `  ${'x'.repeat(TITLE_LENGTH_MAX)}  `)
  fails(titleSchema, '', '   ', 'x'.repeat(TITLE_LENGTH_MAX + 1))
  expect(titleSchema.parse('  Lamp ')).toBe('Lamp')
  expect(answerSchema.parse(' 1 a ')).toBe('1 a')
  fails(answerSchema, ' ', 'x'.repeat(25))
})

test('a line is text with the marks that there are, and with no others', () => {
  fits(lineSchema, { id: ID, source: '' }, { id: ID, source: 'x'.repeat(LINE_LENGTH_MAX), note: true, folded: true, hidden: true, answer: '1' }) // prettier-ignore
  fails(lineSchema, { id: ID }, { id: ID, source: 'x'.repeat(LINE_LENGTH_MAX + 1) }, { id: ID, source: '', note: false }, { id: ID, source: '', colour: 'red' }) // prettier-ignore
})

test('of a folio what is not said is as usual; lines are counted', () => {
  expect(folioSchema.parse(folio)).toMatchObject({ plates: [], enclosures: [], head: { course: '', sheet: '', date: '' } }) // prettier-ignore
  const lines = (n: number) => Array.from({ length: n }, (_, k) => ({ id: `line-${String(k).padStart(5, '0')}`, source: '' })) // prettier-ignore
  fits(folioSchema, { ...folio, lines: lines(LINES_MAX) })
  fails(folioSchema, { ...folio, lines: lines(LINES_MAX + 1) }, { ...folio, revision: -1 }, { ...folio, revision: 0.5 }, { ...folio, binnedAt: undefined }, { ...folio, more: 1 }) // prettier-ignore
  // A file may have more than is known: it may come from a later version.
  fits(folioFileSchema, { title: 'T', lines: [{ source: 'a' }], more: 1 })
  expect(folioFileSchema.parse({ title: 'T', lines: [] }).conventions).toEqual({})
})

test('conventions: an old folio has decimal degrees, a change says only what changes', () => {
  const { degrees, ...old } = DEFAULT_CONVENTIONS
  expect(degrees).toBe('decimal')
  expect(conventionsSchema.parse(old)).toEqual(DEFAULT_CONVENTIONS)
  fits(conventionsSchema, { ...old, digits: 2 }, { ...old, digits: 16 })
  fails(conventionsSchema, { ...old, digits: 1 }, { ...old, digits: 17 }, { ...old, digits: 2.5 }, { ...old, letter: 'k' }, {}) // prettier-ignore
  fits(someConventionsSchema, {}, { letter: 'i' })
  fails(someConventionsSchema, { letters: 'i' }, { letter: null })
})

test('plates: fresh ones fit; numbers are finite, circles have a radius, lists are bounded', () => {
  const plane = freshPlate('plate-001')
  fits(plateSchema, plane, freshCurve('plate-002', ['dB'], [ID], 'Curve'))
  fits(plateSchema, { ...plane, circles: [{ re: 0, im: -1, radius: 0.5 }], range: { left: -1, right: 1, bottom: 0, top: 2 } }) // prettier-ignore
  for (const radius of [0, -1, Infinity, NaN]) fails(plateSchema, { ...plane, circles: [{ re: 0, im: 0, radius }] })
  fails(plateSchema, { ...plane, kind: 'curve' }, { ...plane, grid: 'dots' }, { ...plane, caption: 'x'.repeat(201) }, { ...plane, dress: { [ID]: { width: 7 } } }, { ...plane, dress: { [ID]: { hue: 8 } } }, { ...plane, chains: Array(41).fill(ID) }) // prettier-ignore
  fails(plateSchema, freshCurve('plate-002', [], [ID], 'No part'))
})

test('measured data: a name that a line can say, counts from one, and no more than there is room for', () => {
  fits(enclosureNameSchema, 'lamp.s1p', 'Ω 1')
  fails(enclosureNameSchema, '', 'with "quotes"', 'a\nb', 'x'.repeat(121))
  const matrix = (rows: number) => ({ kind: 'matrix' as const, name: 'm', block: 'block-001', rows, cols: 1024, complex: true }) // prettier-ignore
  const most = ENCLOSED_BYTES_MOST / 8 / 2 / 1024
  expect(bytesOf(matrix(most))).toBe(ENCLOSED_BYTES_MOST)
  fits(enclosureSchema, matrix(1), matrix(most))
  fails(enclosureSchema, matrix(0), matrix(most + 1))
  expect(enclosureSchema.safeParse(matrix(most + 1)).error?.issues[0]?.message).toBe('at most 64 MB of numbers')
})

test('operations are of the sorts there are; a save has at least one and says its revision', () => {
  const rename = { type: 'rename', title: 'New' }
  fits(operationSchema, rename, { type: 'remove', id: ID }, { type: 'move', id: ID, to: 0 }, { type: 'head', head: { course: 'EE' } }, { type: 'mark', id: ID, marks: { folded: false, answer: '' } }) // prettier-ignore
  fails(operationSchema, { type: 'rename', title: ' ' }, { type: 'move', id: ID, to: -1 }, { type: 'vanish' }, { type: 'edit', id: ID, source: 'a' }, null) // prettier-ignore
  fits(saveSchema, { revision: 0, operations: [rename] }, { revision: 3, key: 'save-key-1', operations: [rename] })
  fails(saveSchema, { revision: 0, operations: [] }, { operations: [rename] }, { revision: 0, operations: [rename], force: true }) // prettier-ignore
})

test('what is wrong is said in a sentence', () => {
  const said = (schema: Schema, value: unknown): string => schema.safeParse(value).error?.issues[0]?.message ?? ''
  expect(said(idSchema, 'short')).toBe('an identifier of 8 to 40 letters and digits')
  expect(said(titleSchema, ' ')).toBe('a title')
  expect(said(titleSchema, 5)).toContain('expected string')
  expect(said(lineSchema, { id: ID, source: 'x'.repeat(LINE_LENGTH_MAX + 1) })).toMatch(/^Too big/)
})
