import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '#shared/conventions'
import type { Line } from '#shared/folio'
import { applyOperation } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { duplicated, movedBy, movedTo, removed, toggled, turned } from './lineChanges'

const state = (...lines: (string | Line)[]): FolioState => ({
  title: 'T',
  conventions: DEFAULT_CONVENTIONS,
  lines: lines.map((l) => (typeof l === 'string' ? { id: `id-${l}`, source: l } : l)),
})
const ids = (...names: string[]): Set<string> => new Set(names.map((n) => `id-${n}`))
const done = (before: FolioState, operations: readonly Operation[]): string =>
  operations
    .reduce<FolioState>((s, o) => applyOperation(s, o)!, before)
    .lines.map((l) => l.source)
    .join('')
const abcde = state('a', 'b', 'c', 'd', 'e')

test('copies stand below the last of the lines', () => {
  let k = 0
  const operations = duplicated(abcde, ids('d', 'b'), () => `new-${(k += 1)}`)
  expect(done(abcde, operations)).toBe('abcdbde')
})

test.each([
  [['b'], -1, 'bacde'],
  [['b', 'c'], -1, 'bcade'],
  [['b', 'c'], 1, 'adbce'],
  [['a', 'b'], -1, 'abcde'],
  [['d', 'e'], 1, 'abcde'],
  [['a', 'c'], -1, 'acbde'],
  [['b', 'e'], 1, 'acbde'],
] as const)('%j moved by %i', (names, by, expected) =>
  expect(done(abcde, movedBy(abcde, ids(...names), by))).toBe(expected),
)

test('moving up and down again gives the first order, unless the end was met', () => {
  fc.assert(
    fc.property(fc.subarray(['b', 'c', 'd']), (names) => {
      const chosen = ids(...names)
      const up = movedBy(abcde, chosen, -1).reduce<FolioState>((s, o) => applyOperation(s, o)!, abcde)
      if (names.length === 3 || !names.includes('d')) expect(done(up, movedBy(up, chosen, 1))).toBe('abcde')
      expect(up.lines).toHaveLength(5)
    }),
  )
})

test('dropped at a place, together', () => {
  expect(done(abcde, movedTo(abcde, ids('a', 'd'), 2))).toBe('bcade')
  expect(done(abcde, movedTo(abcde, ids('e'), 0))).toBe('eabcd')
  expect(done(abcde, movedTo(abcde, ids('a'), 99))).toBe('bcdea')
})

test('removed', () => expect(done(abcde, removed(abcde, ids('a', 'e', 'zz')))).toBe('bcd'))

test('a mark is set on all, and taken off where all have it', () => {
  const some = state('a', { id: 'id-b', source: 'b', hidden: true })
  expect(toggled(some, ids('a', 'b'), 'hidden')).toEqual([{ type: 'mark', id: 'id-a', marks: { hidden: true } }])
  expect(toggled(some, ids('b'), 'hidden')).toEqual([{ type: 'mark', id: 'id-b', marks: { hidden: false } }])
})

test('entries to notes and back', () => {
  const remark = state({ id: 'id-r', source: '# The lamp' }, 'a = 1')
  const after = (s: FolioState, operations: readonly Operation[]) =>
    operations.reduce<FolioState>((x, o) => applyOperation(x, o)!, s)
  const notes = after(remark, turned(remark, new Set(['id-r', 'id-a = 1'])))
  expect(notes.lines).toEqual([
    { id: 'id-r', source: 'The lamp', note: true },
    { id: 'id-a = 1', source: 'a = 1', note: true },
  ])
  expect(after(notes, turned(notes, new Set(['id-r', 'id-a = 1']))).lines).toEqual([
    { id: 'id-r', source: '# The lamp' },
    { id: 'id-a = 1', source: 'a = 1' },
  ])
})
