import * as fc from 'fast-check'
import {
  begunName,
  cellsFromText,
  cellsToText,
  readGrid,
  resized,
  symmetricCells,
  transposedCells,
  writeGrid,
} from './grid'
import { parseLine } from './parser'

const read = (source: string) => readGrid(parseLine(source))

test.each([
  ['A = [[1, 2j], [x + 1, 5∠30°]]  # mesh', 'A', [['1', '2j'], ['x + 1', '5∠30°']], 'mesh'],
  ['[1, 1/3]', null, [['1'], ['1/3']], null],
  ['([[1, 2]])', null, [['1', '2']], null],
] as const)('%s', (source, name, cells, remark) => expect(read(source)).toEqual({ name, cells, remark })) // prettier-ignore

test.each(['A*B', 'x = 3', '[[1, 2], [3]]', '[k for k = 1 to 3]', '[[1, 2]', 'f(x) = [x, 1]', '[1, [2]]', ''])(
  '%s is no grid',
  (source) => expect(read(source)).toBeNull(),
)

test('what is written is read again, cell by cell, and the spans are those of the cells', () => {
  const cell = fc.constantFrom('1', '-2.5', '3+4j', '5∠30°', 'x', '1/3', '', 'sqrt(2)')
  const cells = fc
    .tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 }))
    .chain(([rows, cols]) =>
      fc.array(fc.array(cell, { minLength: cols, maxLength: cols }), { minLength: rows, maxLength: rows }),
    )
  fc.assert(
    fc.property(cells, fc.constantFrom(null, 'A'), fc.constantFrom(null, 'a remark'), (grid, name, remark) => {
      const { source, spans } = writeGrid({ name, cells: grid, remark })
      const filled = grid.map((row) => row.map((c) => (c === '' ? '0' : c)))
      expect(read(source)).toEqual({ name, cells: filled, remark })
      spans.forEach((row, r) => row.forEach(({ from, to }, c) => expect(source.slice(from, to)).toBe(filled[r]![c])))
    }),
  )
})

test('another size, transposed, symmetric', () => {
  const cells = [['1', '2'], ['3', '4']] // prettier-ignore
  expect(resized(cells, 1, 3)).toEqual([['1', '2', '']])
  expect(transposedCells(cells)).toEqual([['1', '3'], ['2', '4']]) // prettier-ignore
  expect(symmetricCells(cells)).toEqual([['1', '2'], ['2', '4']]) // prettier-ignore
})

test.each([
  ['1\t2\n3\t4\n', [['1', '2'], ['3', '4']]],
  ['1,2\r\n3,4', [['1', '2'], ['3', '4']]],
  ['1;"2"', [['1', '2']]],
  ['[[1, 2], [3, 4]]', [['1', '2'], ['3', '4']]],
  ['7', [['7']]],
])('pasted %j', (text, cells) => expect(cellsFromText(text)).toEqual(cells)) // prettier-ignore

test.each([
  ['A =', 'A'],
  ['  Z_mesh = [[ ', 'Z_mesh'],
  ['A = [[1', null],
  ['A', null],
  ['= [', null],
  ['A == ', null],
])('%j is begun under the name %j', (text, name) => expect(begunName(text)).toBe(name))

test('copied for a spreadsheet', () => expect(cellsToText([['1', '2'], ['3', '4']])).toBe('1\t2\n3\t4')) // prettier-ignore
