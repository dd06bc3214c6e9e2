import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from './conventions'
import { newId } from './id'
import { LINES_MAX } from './limits'
import { mergeSentence, rebase } from './merge'
import { applyOperation, invertOperation } from './operations'
import type { FolioState, Operation } from './operations'
import { folioOf as folio, lineId as id } from './testing'

const sources = (state: FolioState): string[] => state.lines.map((l) => l.source)
const edit = (k: number, source: string, was: string): Operation => ({ type: 'edit', id: id(k), source, was })
const remove = (k: number, was?: string): Operation => ({
  type: 'remove',
  id: id(k),
  ...(was === undefined ? {} : { was }),
})
const after = (state: FolioState, operations: readonly Operation[]): FolioState =>
  operations.reduce((s, o) => applyOperation(s, o) ?? s, state)

describe('putting local operations on top of what others did', () => {
  test('different lines are merged', () => {
    const merged = rebase(folio('a', 'B'), [edit(0, 'A', 'a')], newId)
    expect(sources(merged.state)).toEqual(['A', 'B'])
    expect(merged.kept).toBe(0)
    expect(mergeSentence(merged)).toBeNull()
  })
  test('two texts of one line are both kept, one below the other', () => {
    const theirs = folio('a', 'theirs', 'c')
    const merged = rebase(theirs, [edit(1, 'mine', 'b'), edit(1, 'mine, later', 'mine')], newId)
    expect(sources(merged.state)).toEqual(['a', 'theirs', 'mine, later', 'c'])
    expect(mergeSentence(merged)).toBe('A line was changed in two places: both texts are kept, one below the other.')
    expect(after(theirs, merged.operations)).toEqual(merged.state)
    expect(merged.copies.size).toBe(1)
  })
  test('the text of a line that was removed elsewhere is a line again, where it stood', () => {
    const base = folio('a', 'b', 'c')
    const merged = rebase(after(base, [remove(1, 'b')]), [edit(1, 'mine', 'b')], newId, base)
    expect(sources(merged.state)).toEqual(['a', 'mine', 'c'])
    expect([merged.kept, merged.revived]).toEqual([0, 1])
    expect(mergeSentence(merged)).toContain('your text is a line again')
  })
  test('a removal that had not seen an edit leaves the line, and says so', () => {
    const merged = rebase(folio('a', 'b, better'), [remove(1, 'b')], newId)
    expect(sources(merged.state)).toEqual(['a', 'b, better'])
    expect(mergeSentence(merged)).toBe('A line that you deleted had been changed elsewhere: the changed line stays.')
  })
  test('a line that was edited here and then removed takes nothing of theirs with it', () => {
    const merged = rebase(folio('theirs'), [edit(0, 'mine', 'a'), remove(0, 'mine')], newId)
    expect(sources(merged.state)).toEqual(['theirs'])
    expect([merged.kept, merged.spared]).toEqual([0, 1])
  })
  test('a removal that is older than such care is carried out as it was', () => {
    expect(sources(rebase(folio('a', 'x'), [remove(1)], newId).state)).toEqual(['a'])
  })
  test('removing what is removed already is no trouble', () => {
    expect(rebase(folio('a'), [remove(5, 'z')], newId).operations).toEqual([])
  })
  test('new lines come to stand below the neighbour they were written under', () => {
    const base = folio('a', 'b', 'c')
    const theirs = {
      ...base,
      lines: [{ id: 'line-9998', source: 'top' }, { id: 'line-9999', source: 'top 2' }, ...base.lines],
    }
    const insert: Operation = { type: 'insert', at: 2, line: { id: newId(), source: 'b and a half' } }
    expect(sources(rebase(theirs, [insert], newId, base).state)).toEqual([
      'top',
      'top 2',
      'a',
      'b',
      'b and a half',
      'c',
    ])
  })
  test('what the folio has no room for any more is given back, not lost', () => {
    const theirs = folio(...Array.from({ length: LINES_MAX }, () => 'x'))
    const insert: Operation = { type: 'insert', at: 0, line: { id: newId(), source: 'mine' } }
    const merged = rebase(theirs, [insert], newId)
    expect(merged.unfit).toEqual([insert])
    expect(merged.state.lines).toHaveLength(LINES_MAX)
  })
})

/** What a session does, step by step on what it sees; each text it writes is its own. */
type Move = readonly ['edit' | 'remove' | 'insert' | 'move' | 'undo', number, number]
const moves = (most: number): fc.Arbitrary<Move[]> =>
  fc.array(
    fc.tuple(
      fc.constantFrom(
        'edit' as const,
        'edit' as const,
        'remove' as const,
        'insert' as const,
        'move' as const,
        'undo' as const,
      ),
      fc.nat(9),
      fc.nat(9),
    ),
    { maxLength: most },
  )

function session(
  start: FolioState,
  list: readonly Move[],
  author: string,
): { operations: Operation[]; end: FolioState } {
  let state = start
  const operations: Operation[] = []
  const undo: Operation[] = []
  list.forEach(([what, where, to], k) => {
    const line = state.lines[where % Math.max(1, state.lines.length)]
    const text = `${author}${k}`
    const operation: Operation | undefined =
      what === 'undo'
        ? undo.pop()
        : what === 'insert'
          ? { type: 'insert', at: where, line: { id: newId(), source: text } }
          : !line
            ? undefined
            : what === 'edit'
              ? { type: 'edit', id: line.id, source: text, was: line.source }
              : what === 'remove'
                ? { type: 'remove', id: line.id, was: line.source }
                : { type: 'move', id: line.id, to }
    const back = operation && invertOperation(state, operation)
    const next = operation && applyOperation(state, operation)
    if (!operation || !back || !next) return
    if (what !== 'undo') undo.push(back)
    state = next
    operations.push(operation)
  })
  return { operations, end: state }
}

test('no text that its author left standing is lost to the other, whatever both do', () => {
  const start = folio('a', 'b', 'c', 'd', 'e')
  fc.assert(
    fc.property(moves(8), moves(8), (mine, theirs) => {
      const [own, other] = [session(start, mine, 'mine '), session(start, theirs, 'theirs ')]
      const merged = rebase(other.end, own.operations, newId, start)
      const left = sources(merged.state)
      // What either side wrote and did not take away itself stands in the merged folio.
      for (const text of sources(own.end).filter((t) => t.startsWith('mine '))) expect(left).toContain(text)
      for (const text of sources(other.end).filter((t) => t.startsWith('theirs '))) expect(left).toContain(text)
      // The operations that are sent lead from their state to the merged one.
      expect(after(other.end, merged.operations)).toEqual(merged.state)
      expect(new Set(merged.state.lines.map((l) => l.id)).size).toBe(merged.state.lines.length)
      expect(merged.unfit).toEqual([])
    }),
    { numRuns: 3_000 },
  )
})

test('measured data of two windows stands side by side; of one name the later numbers count, and none are mixed', () => {
  const enclose = (name: string, block: string): Operation => ({
    type: 'enclose',
    enclosure: { kind: 'matrix', name, block, rows: 1, cols: 1, complex: false },
  })
  const base: FolioState = { title: 'T', conventions: DEFAULT_CONVENTIONS, lines: [], enclosures: [] }
  const done = (state: FolioState, ...operations: Operation[]): FolioState =>
    operations.reduce((before, o) => applyOperation(before, o) ?? before, state)
  const theirs = done(base, enclose('a.csv', 'block-0001'), enclose('c.csv', 'block-0002'))
  const merged = rebase(
    theirs,
    [enclose('b.csv', 'block-0003'), enclose('c.csv', 'block-0004')],
    () => 'fresh-0001',
    base,
  )
  expect(merged.state.enclosures?.map((e) => [e.name, e.block])).toEqual([
    ['a.csv', 'block-0001'],
    ['c.csv', 'block-0004'],
    ['b.csv', 'block-0003'],
  ])
  expect(merged.operations).toHaveLength(2)
  expect(merged.unfit).toEqual([])
})
