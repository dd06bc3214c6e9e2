import * as fc from 'fast-check'
import { BODY_LIMIT, LINE_LENGTH_MAX, SAVE_OPERATIONS_MAX } from './limits'
import { saveSchema } from './operations'
import type { Operation } from './operations'
import { freshPart, hasRoom, PART_OPERATIONS, partsOf, withOperation } from './parts'
import { freshPlate } from './plate'

const edit = (id: string, source: string, was: string): Operation => ({ type: 'edit', id, source, was })
const operation = fc.oneof(
  fc.record({
    type: fc.constant('edit' as const),
    id: fc.constantFrom('line-0001', 'line-0002'),
    source: fc.integer({ min: 0, max: LINE_LENGTH_MAX }).map((n) => '∠'.repeat(n)),
    was: fc.constant(''),
  }),
  fc.constant<Operation>({ type: 'rename', title: 'x' }),
  fc.constant<Operation>({ type: 'plate', plate: freshPlate('plate-0001') }),
)

test('however much there is, every part fits one request, and nothing is left out or changes its place', () => {
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 40 }), (operations) => {
      const parts = partsOf(operations)
      expect(parts.flatMap((p) => p.operations)).toEqual(operations)
      for (const { key, operations: some } of parts) {
        const body = JSON.stringify({ revision: 1_000_000, key, operations: some })
        expect(Buffer.byteLength(body)).toBeLessThan(BODY_LIMIT)
        expect(saveSchema.safeParse(JSON.parse(body)).success).toBe(true)
      }
      expect(new Set(parts.map((p) => p.key)).size).toBe(parts.length)
    }),
    { numRuns: 60 },
  )
})

test('the worst text there is, twice in one edit, fits one request', () => {
  const worst = '\u0001'.repeat(LINE_LENGTH_MAX)
  const [part] = partsOf([edit('line-0001', worst, worst)])
  expect(Buffer.byteLength(JSON.stringify({ revision: 0, ...part }))).toBeLessThan(BODY_LIMIT)
})

test('many small operations make parts of a few hundred', () => {
  const many = Array.from({ length: 20_000 }, (_, k) => edit(`line-${k}`.padEnd(9, 'x'), 'a', 'b'))
  const parts = partsOf(many)
  expect(parts).toHaveLength(20_000 / PART_OPERATIONS)
  expect(PART_OPERATIONS).toBeLessThanOrEqual(SAVE_OPERATIONS_MAX)
})

test('two edits of one line in a row are one', () => {
  const part = withOperation(withOperation(freshPart(), edit('line-0001', 'a', '')), edit('line-0001', 'ab', 'a'))
  expect(part.operations).toEqual([edit('line-0001', 'ab', '')])
  expect(withOperation(part, edit('line-0002', 'x', '')).operations).toHaveLength(2)
})

test('a part takes one operation at least, and no more than it has room for', () => {
  const long = edit('line-0001', 'x'.repeat(LINE_LENGTH_MAX), 'y'.repeat(LINE_LENGTH_MAX))
  expect(hasRoom(freshPart(), long)).toBe(true)
  expect(hasRoom(freshPart([long, long]), long)).toBe(false)
})
