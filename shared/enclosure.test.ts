import * as fc from 'fast-check'
import { sameData } from '../core/measured/data'
import type { Column, Data } from '../core/measured/data'
import { applyOperation, difference, invertOperation, stillStands } from './operations'
import type { FolioState, Operation } from './operations'
import { DEFAULT_CONVENTIONS } from './conventions'
import { bytesOf, dataFrom, describe as describeData, enclosureSchema, lineNameOf, numbersOf } from './enclosure'

const numbers = (count: number) => fc.array(fc.double(), { minLength: count, maxLength: count }).map((list) => Float64Array.from(list)) // prettier-ignore
const matrix = fc
  .tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 }))
  .chain(([rows, cols]) => fc.record({ kind: fc.constant('matrix' as const), rows: fc.constant(rows), cols: fc.constant(cols), re: numbers(rows * cols), im: fc.option(numbers(rows * cols)) })) // prettier-ignore
const tableOf = (rows: number) =>
  fc.array(
    fc.integer({ min: 1, max: 3 }).chain((order) => fc.record({ name: fc.string({ maxLength: 9 }), unit: fc.string({ maxLength: 3 }), order: fc.constant(order), re: numbers(rows * order ** 2), im: fc.option(numbers(rows * order ** 2)) })), // prettier-ignore
    { minLength: 1, maxLength: 4 },
  )
const table = fc.integer({ min: 1, max: 5 }).chain((rows) => tableOf(rows).map((columns: Column[]): Data => ({ kind: 'table', rows, columns, parameter: -1 }))) // prettier-ignore

test('data comes back from its numbers bit for bit, and from nothing else', () => {
  fc.assert(
    fc.property(fc.oneof(matrix, table), (data) => {
      const enclosure = describeData('x.csv', 'block-0001', data)
      const bytes = numbersOf(data)
      expect(bytes.length).toBe(bytesOf(enclosure))
      const back = dataFrom(enclosure, bytes)
      expect(back !== null && sameData(back, data)).toBe(true)
      expect(dataFrom(enclosure, bytes.subarray(8))).toBeNull()
      expect(enclosureSchema.safeParse(JSON.parse(JSON.stringify(enclosure))).success).toBe(true)
    }),
    { numRuns: 200 },
  )
})

test('what would be too large, or has a name that no line could say, is refused', () => {
  const good = { kind: 'matrix', name: 'a.mtx', block: 'block-0001', rows: 2, cols: 2, complex: false }
  expect(enclosureSchema.safeParse(good).success).toBe(true)
  for (const wrong of [{ rows: 4000, cols: 4000 }, { name: 'a"b' }, { name: '' }, { name: 'a\nb' }, { block: '../x' }])
    expect(enclosureSchema.safeParse({ ...good, ...wrong }).success).toBe(false)
})

test('a line is named after the file', () => {
  const named = (name: string) => lineNameOf({ kind: 'matrix', name, block: '', rows: 1, cols: 1, complex: false })
  expect(['lamp.s1p', 'Run 7.csv', '2.mtx', 'ü.csv', '.csv'].map(named)).toEqual(['lamp', 'Run_7', 'c2', 'u', 'data'])
})

const state: FolioState = {
  title: 'T',
  conventions: DEFAULT_CONVENTIONS,
  lines: [{ id: 'line-0001', source: 'a' }],
  plates: [],
  enclosures: [],
  head: { course: '', sheet: '', date: '' },
}
const enclose = (name: string, block: string): Operation => ({
  type: 'enclose',
  enclosure: { kind: 'matrix', name, block, rows: 1, cols: 1, complex: false },
})

test('whatever was done to enclosures, answers and the head: taking it back gives what was, and a difference leads there', () => {
  const step = fc.oneof(
    fc.tuple(fc.constantFrom('a.csv', 'b.csv'), fc.constantFrom('block-0001', 'block-0002')).map(([n, b]) => enclose(n, b)),
    fc.constantFrom('a.csv', 'b.csv').map((name): Operation => ({ type: 'unenclose', name })),
    fc.record({ course: fc.string({ maxLength: 4 }), date: fc.string({ maxLength: 4 }) }).map((head): Operation => ({ type: 'head', head })),
    fc.constantFrom('', '1 a', '1 b').map((answer): Operation => ({ type: 'mark', id: 'line-0001', marks: { answer } })),
  ) // prettier-ignore
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      let now = state
      const back: Operation[] = []
      for (const operation of steps) {
        const inverse = invertOperation(now, operation)
        const next = applyOperation(now, operation)
        if (!next || !inverse) continue
        expect(stillStands(next, operation)).toBe(true)
        back.unshift(inverse)
        now = next
      }
      let led: FolioState = state
      for (const operation of difference(state, now)) led = applyOperation(led, operation) ?? led
      expect(byName(led)).toEqual(byName(now))
      let undone = now
      for (const operation of back) undone = applyOperation(undone, operation) ?? undone
      expect(byName(undone)).toEqual(byName(state))
    }),
  )
})

/** The order of enclosures says nothing. */
const byName = (s: FolioState) => ({ ...s, enclosures: [...(s.enclosures ?? [])].sort((a, b) => a.name.localeCompare(b.name)) }) // prettier-ignore
