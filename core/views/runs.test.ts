import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { readoutText } from '../format/readout'
import { withValue } from '../notation/valuePart'
import { reckon } from '../testing'
import { RunsReckoner } from './runs'
import type { RunsAccount, RunsTask } from './runs'

const ids = (sources: readonly string[]) => sources.map((source, k) => ({ id: String(k), source }))
const set = (id: string, values: Readonly<Record<string, string>>) => ({ id, values })
const settings = { ...DEFAULT_CONVENTIONS, timeLimit: 700 }
const account = (task: RunsTask, by = new RunsReckoner()): RunsAccount => by.reckon(task, settings)

const LAMP = ['V = 230/_0', 'R = 12', 'L = 16m', 'Z = R + j*2*pi*50*L', 'I = V / Z']
const lamp: RunsTask = {
  lines: ids(LAMP),
  varied: ['1', '2'],
  watched: ['4', '3'],
  sets: [set('cold', { 1: '10' }), set('long', { 1: '15 # warm', 2: '32m' })],
}

test('the lamp circuit under two sets: rows, heads, entries, both forms and differences', () => {
  const { columns, varied, watched } = account(lamp)
  expect(columns).toEqual(['', 'cold', 'long'])
  expect(varied.map(({ head, cells }) => [head, ...cells.map((c) => c.entry)])).toEqual([
    ['R', '12', '10', '15 # warm'],
    ['L', '16m', '16m', '32m'],
  ])
  expect(varied.map(({ cells }) => cells.map((c) => c.other))).toEqual([
    [false, true, true],
    [false, false, true],
  ])
  const [current, impedance] = watched
  expect(current?.head).toBe('I')
  // By Python's complex numbers: 230/(12 + 2j*pi*50*0.016) and so on, to five figures.
  expect(current?.cells.map((c) => c.readout)).toEqual([
    { shape: 'twin', rectangular: '16.306 - 6.8301j', polar: '17.678 ∠ -22.728°' },
    { shape: 'twin', rectangular: '18.361 - 9.2292j', polar: '20.55 ∠ -26.687°' },
    { shape: 'twin', rectangular: '10.581 - 7.0913j', polar: '12.737 ∠ -33.83°' },
  ])
  expect(current?.cells.map((c) => readoutText(c.difference))).toEqual(['', '2.0552 - 2.3991j', '-5.725 - 0.26116j'])
  expect(impedance?.cells.map((c) => readoutText(c.difference))).toEqual(['', '-2 + 0j', '3 + 5.0265j'])
  expect(impedance?.cells[1]?.figures).toMatchObject({ kind: 'complex', re: 10, im: expect.closeTo(5.026548, 5) })
})

test('an error stays in its column, where it was made and where it is felt', () => {
  const broken = { ...lamp, sets: [set('bad', { 1: '10 +' }), set('good', { 1: '10' })] }
  const { varied, watched } = account(broken)
  expect(varied[0]?.cells.map((c) => c.problem !== null)).toEqual([false, true, false])
  expect(watched[0]?.cells.map((c) => c.problem !== null)).toEqual([false, true, false])
  expect(watched[0]?.cells[1]).toMatchObject({
    readout: { shape: 'none' },
    difference: { shape: 'none' },
    figures: null,
  })
})

test('what has no difference has none; arrays, angles and sweeps have one', () => {
  const lines = ids([
    'a = 2',
    't = "a is " + a',
    'v = [a, 2a]',
    'p = a*10°',
    's = a * (1 to 3 step 1)',
    'a > 2',
    'a to 6 step 3',
  ])
  const task = { lines, varied: ['0'], watched: ['1', '2', '3', '4', '5', '6'], sets: [set('three', { 0: '3' })] }
  const differences = account(task).watched.map((row) => readoutText(row.cells[1]!.difference))
  expect(differences).toEqual(['', '[1, 2]', '10°', '3 points, 1 … 3', '', ''])
})

const entry = fc.constantFrom('1', '-2', '3+4j', '5∠30°', '1/3', '[1, 2]', '1/0', '(', 'b + 1', '"text"', '0')
test('each column is what the folio with those values says, whatever was reckoned before', () => {
  const many = new RunsReckoner()
  fc.assert(
    fc.property(fc.array(fc.dictionary(fc.constantFrom('0', '1'), entry), { maxLength: 8 }), entry, (list, own) => {
      const lines = [`a = ${own}`, 'b = 2 # twice', 'c = a * b - 1', 'abs(c) + a']
      const sets = list.map((values, k) => set(String(k), values))
      const found = account({ lines: ids(lines), varied: ['0', '1'], watched: ['2', '3'], sets }, many)
      const columns = [{}, ...list].map((values: Readonly<Record<string, string>>) =>
        reckon(lines.map((line, k) => (values[k] === undefined ? line : withValue(line, values[k])))),
      )
      found.watched.forEach((row, r) =>
        row.cells.forEach((cell, k) => {
          const there = columns[k]?.[r + 2]
          expect(cell.problem).toBe(there?.error?.message ?? null)
          expect(cell.readout).toEqual(there?.view.readout)
        }),
      )
    }),
    { numRuns: 60 },
  )
})

test('measured data is there under every set, also where it comes later', () => {
  const reckoner = new RunsReckoner()
  const lines = ids(['k = 2', 'd = enclosure("U")', 'k * (d.U[1] + d.U[2])'])
  const task = { lines, varied: ['0'], watched: ['2'], sets: [set('three', { 0: '3' })] }
  expect(account(task, reckoner).watched[0]?.cells.every((c) => c.problem !== null)).toBe(true)
  const column = { name: 'U', unit: '', order: 1, re: Float64Array.of(1, 4), im: null }
  reckoner.enclose('U', 'block', {
    kind: 'table',
    rows: 2,
    columns: [{ ...column, name: 't', re: Float64Array.of(0, 1) }, column],
    parameter: 0,
  })
  const sums = account(task, reckoner).watched[0]?.cells.map((c) => readoutText(c.readout))
  expect(sums).toEqual(['10', '15'])
  reckoner.unenclose('U')
  expect(account(task, reckoner).watched[0]?.cells.every((c) => c.problem !== null)).toBe(true)
})
