import * as fc from 'fast-check'
import { newId } from './id'
import {
  applyOperation,
  difference,
  fullFor,
  invertOperation,
  operationSchema,
  saveSchema,
  stillStands,
} from './operations'
import type { FolioState, Operation } from './operations'
import { freshPlate } from './plate'
import { idSchema } from './schema'
import { folioOf as folio, lineId as id } from './testing'

const sources = (state: FolioState | null): string[] => state!.lines.map((l) => l.source)

/** Operations that may or may not fit a folio of five lines. */
const operation: fc.Arbitrary<Operation> = fc.oneof(
  fc.record({
    type: fc.constant('insert' as const),
    at: fc.nat(7),
    line: fc.record({ id: fc.integer({ min: 3, max: 9 }).map(id), source: fc.string() }),
  }),
  fc.record({ type: fc.constant('remove' as const), id: fc.nat(6).map(id) }),
  fc.record({ type: fc.constant('edit' as const), id: fc.nat(6).map(id), source: fc.string(), was: fc.constant('') }),
  fc.record({ type: fc.constant('move' as const), id: fc.nat(6).map(id), to: fc.nat(7) }),
  fc.record({
    type: fc.constant('convene' as const),
    conventions: fc.record({
      angle: fc.constantFrom('deg' as const, 'rad' as const),
      digits: fc.integer({ min: 2, max: 16 }),
    }),
  }),
  fc.record({ type: fc.constant('rename' as const), title: fc.constantFrom('A', 'B') }),
  fc.record({
    type: fc.constant('plate' as const),
    plate: fc
      .record({
        id: fc.nat(2).map((k) => `plate-000${k}`),
        caption: fc.constantFrom('A', 'B'),
        unitCircle: fc.boolean(),
      })
      .map((some) => ({ ...freshPlate('plate-0000'), ...some })),
  }),
  fc.record({ type: fc.constant('unplate' as const), id: fc.nat(3).map((k) => `plate-000${k}`) }),
  fc.record({
    type: fc.constant('mark' as const),
    id: fc.nat(6).map(id),
    marks: fc.record(
      { note: fc.boolean(), folded: fc.boolean(), hidden: fc.boolean(), varied: fc.boolean(), watched: fc.boolean() },
      { requiredKeys: [] },
    ),
  }),
  fc.record({
    type: fc.constant('set' as const),
    set: fc.record({
      id: fc.nat(9).map((k) => `set-0000${k}`),
      name: fc.constantFrom('', 'A'),
      values: fc.dictionary(fc.nat(6).map(id), fc.string()),
    }),
  }),
  fc.record({ type: fc.constant('unset' as const), id: fc.nat(9).map((k) => `set-0000${k}`) }),
)

test('every operation has an inverse that brings back the state before it', () => {
  const start = folio('a', 'b', 'c', 'd', 'e')
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 20 }), (operations) => {
      let state = start
      const inverses: Operation[] = []
      for (const o of operations) {
        const back = invertOperation(state, o)
        const next = applyOperation(state, o)
        if (!next || !back) continue
        state = next
        inverses.unshift(back)
      }
      for (const o of inverses) state = applyOperation(state, o)!
      expect(state).toEqual(start)
    }),
  )
})

test('what does not fit is refused, not guessed', () => {
  const state = folio('a', 'b')
  expect(applyOperation(state, { type: 'remove', id: id(7) })).toBeNull()
  expect(applyOperation(state, { type: 'edit', id: id(7), source: 'x', was: '' })).toBeNull()
  expect(applyOperation(state, { type: 'move', id: id(7), to: 0 })).toBeNull()
  expect(applyOperation(state, { type: 'insert', at: 0, line: { id: id(1), source: 'x' } })).toBeNull()
})

test('moving counts places in the list without the line', () => {
  expect(sources(applyOperation(folio('a', 'b', 'c', 'd'), { type: 'move', id: id(0), to: 2 }))).toEqual([
    'b',
    'c',
    'a',
    'd',
  ])
  expect(sources(applyOperation(folio('a', 'b', 'c', 'd'), { type: 'move', id: id(3), to: 0 }))).toEqual([
    'd',
    'a',
    'b',
    'c',
  ])
})

describe('the schemas refuse what is forged', () => {
  test.each([
    { type: 'edit', id: 'x', source: '', was: '' },
    { type: 'edit', id: id(1), source: 'x'.repeat(200_001), was: '' },
    { type: 'insert', at: -1, line: { id: id(1), source: '' } },
    { type: 'convene', conventions: { digits: 99 } },
    { type: 'convene', conventions: { colour: 'red' } },
    { type: 'rename', title: '   ' },
    { type: 'drop tables' },
    { type: 'remove', id: id(1), extra: true },
    null,
  ])('%o', (data) => expect(operationSchema.safeParse(data).success).toBe(false))
  test('an empty save', () => expect(saveSchema.safeParse({ revision: 0, operations: [] }).success).toBe(false))
})

test('identifiers are valid and do not repeat', () => {
  const ids = Array.from({ length: 500 }, () => newId())
  expect(new Set(ids).size).toBe(500)
  for (const one of ids) expect(idSchema.safeParse(one).success).toBe(true)
})

test('the difference of two states leads from the one to the other', () => {
  const start = folio('a', 'b', 'c', 'd', 'e')
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 12 }), fc.array(operation, { maxLength: 12 }), (some, others) => {
      const after = (operations: readonly Operation[]): FolioState =>
        operations.reduce<FolioState>((state, o) => applyOperation(state, o) ?? state, start)
      const [from, to] = [after(some), after(others)]
      const reached = difference(from, to).reduce<FolioState>((state, o) => applyOperation(state, o)!, from)
      expect(reached).toEqual(to)
      expect(difference(to, to)).toEqual([])
    }),
  )
})

test('an operation stands as long as the state shows what it did', () => {
  const start = folio('a', 'b', 'c', 'd', 'e')
  fc.assert(
    fc.property(operation, operation, (first, second) => {
      const state = applyOperation(start, first)
      if (!state) return
      expect(stillStands(state, first)).toBe(true)
      // What somebody else has written over it is not taken back.
      const later = second.type === 'edit' && first.type === 'insert' ? { ...second, id: first.line.id } : second
      const next = applyOperation(state, later)
      if (next && later.type === 'edit' && first.type === 'edit' && later.id === first.id)
        expect(stillStands(next, first)).toBe(later.source === first.source)
      if (next && later.type === 'edit' && first.type === 'insert')
        expect(stillStands(next, first)).toBe(later.source === first.line.source)
    }),
  )
})

describe('room in a folio', () => {
  const insert = (source: string): Operation => ({ type: 'insert', at: 0, line: { id: id(9_999), source } })
  const long = 'x'.repeat(200_000)
  test('lines and characters have an end, and which one it is can be said', () => {
    const many = folio(...Array.from({ length: 5_000 }, () => ''))
    expect(fullFor(many, insert(''))).toBe('lines')
    const large = folio(...Array.from({ length: 20 }, () => long))
    expect(fullFor(large, insert('y'))).toBe('length')
    expect(fullFor(large, { type: 'edit', id: id(0), source: `${long}y`, was: long })).toBe('length')
    expect(fullFor(large, { type: 'edit', id: id(0), source: 'short', was: long })).toBeNull()
    expect(applyOperation(large, insert('y'))).toBeNull()
  })
  test('a note of 200 000 characters fits one save', () => {
    expect(saveSchema.safeParse({ revision: 0, operations: [insert(long)] }).success).toBe(true)
  })
})
