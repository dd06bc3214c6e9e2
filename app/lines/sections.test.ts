import type { Line } from '#shared/folio'
import { headingLevel, sectionOf, tuckedAway } from './sections'

const note = (source: string, folded?: true): Line => ({
  id: source,
  source,
  note: true,
  ...(folded ? { folded } : {}),
})
const entry = (source: string, folded?: true): Line => ({ id: source, source, ...(folded ? { folded } : {}) })

test.each([
  [note('# Given'), 1],
  [note('### Deep\nmore'), 3],
  [note('plain text'), null],
  [note('#no space'), null],
  [entry('# a remark'), 7],
  [entry('a = 1  # trailing'), null],
])('%j is a heading of level %s', (line, level) => expect(headingLevel(line)).toBe(level))

const lines = [
  note('# A'), entry('a = 1'), note('## B'), entry('b = 2'), entry('# remark'), entry('c = 3'), note('# D'), entry('d = 4'),
] // prettier-ignore
const ids = (list: readonly Line[]): string[] => list.map((l) => l.id)

test('a section goes down to the next heading of its level or above', () => {
  expect(ids(sectionOf(lines, 0))).toEqual(['a = 1', '## B', 'b = 2', '# remark', 'c = 3'])
  expect(ids(sectionOf(lines, 2))).toEqual(['b = 2', '# remark', 'c = 3'])
  expect(ids(sectionOf(lines, 4))).toEqual(['c = 3'])
  expect(ids(sectionOf(lines, 6))).toEqual(['d = 4'])
  expect(sectionOf(lines, 1)).toEqual([])
  expect(sectionOf(lines, 99)).toEqual([])
})

test('a folded heading tucks its section away, a folded line only itself', () => {
  const folded = [note('# A', true), entry('a = 1'), note('# D'), entry('d = 4', true), entry('e = 5')]
  expect([...tuckedAway(folded)]).toEqual(['a = 1'])
  expect(tuckedAway(lines).size).toBe(0)
})
