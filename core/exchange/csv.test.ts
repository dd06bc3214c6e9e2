import * as fc from 'fast-check'
import { guessTable, readTable } from './csv'
import type { ReadTable } from './csv'
import { PLAIN_CSV, SPREADSHEET, TSV, writeCsv, writeScalars } from './csvOut'
import type { Column, Data, DataTable } from '../measured/data'
import { sameData } from '../measured/data'
import { decode, encode } from './encoding'
import { INSTRUMENT_FILES } from './instruments.testing'
import { faultSentence, remarkSentence } from './told'
import { asking } from '../oracles.testing'
import { python } from './python.testing'

function read(text: string): ReadTable {
  const guess = guessTable(text)
  if (guess.kind === 'fault') throw new Error(faultSentence(guess))
  const found = readTable(text, guess.reading)
  if (found.kind === 'fault') throw new Error(faultSentence(found))
  return found
}

function table(text: string): DataTable {
  const { data } = read(text)
  if (data.kind !== 'table') throw new Error('a matrix')
  return data
}

describe('tables as instruments write them come in unaltered, with no click at all', () => {
  test.each(INSTRUMENT_FILES.map((file) => [file.what, file] as const))('%s', (_, file) => {
    const decoded = decode(file.bytes)
    if (decoded.kind === 'fault') throw new Error(faultSentence(decoded))
    const { data, told } = read(decoded.text)
    if (data.kind !== 'table') throw new Error('a matrix')
    expect(data.columns.map((c) => c.name)).toEqual(file.names)
    expect(data.columns.map((c) => c.unit)).toEqual(file.units)
    expect(data.rows).toBe(file.rows)
    for (const [column, row, re, im] of file.at) {
      expect(data.columns[column]?.re[row]).toBe(re)
      if (im === undefined) expect(data.columns[column]?.im).toBeNull()
      else expect(data.columns[column]?.im?.[row]).toBeCloseTo(im, 14)
    }
    const cells = told.find((r) => r.code === 'cells-undefined')
    expect(cells ? remarkSentence(cells) : '').toMatch(
      file.undefinedCells === undefined ? /^$/ : new RegExp(`^${file.undefinedCells} cells? (is|are) undefined`),
    )
  })
})

test('what the reader did is said', () => {
  const { told } = read('Bridge\nf,Z,note\n400,1,a\n200,,b\n200,3,c\n')
  expect(told.map(remarkSentence)).toEqual([
    '1 line before the table was passed over.',
    'Columns without numbers were left out: note.',
    '1 cell is undefined, the first in line 4, column 2 (empty).',
    'f does not rise from row to row; the order of the file is kept.',
    'f takes 1 value more than once.',
  ])
})

test('a choice other than the guess is followed', () => {
  const text = 'a;b\n1,5;2,5\n3,5;4,5\n'
  const guess = guessTable(text, { separator: ';', mark: ',' })
  if (guess.kind === 'fault') throw new Error(faultSentence(guess))
  const { reading } = guess
  const joined = {
    ...reading,
    parameter: -1,
    sources: [
      { ...reading.sources[0]!, name: 'z', second: 1, form: 'MA' as const, angle: 'rad' as const, skip: false },
    ],
  }
  const found = readTable(text, joined)
  if (found.kind === 'fault' || found.data.kind !== 'table') throw new Error('no table')
  expect(found.data.columns[0]?.re[0]).toBeCloseTo(1.5 * Math.cos(2.5), 14)
  const asMatrix = readTable(text, { ...reading, as: 'matrix' })
  expect(asMatrix).toMatchObject({ kind: 'read', data: { kind: 'matrix', rows: 2, cols: 2, re: Float64Array.of(1.5, 2.5, 3.5, 4.5) } }) // prettier-ignore
})

test('numbers alone are a matrix, unless their first column rises', () => {
  expect(read('1,2\n0,4\n5,6\n').data).toMatchObject({ kind: 'matrix', rows: 3, cols: 2 })
  expect(read('1,2\n2,4\n3,6\n').data).toMatchObject({ kind: 'table', parameter: 0 })
})

test.each([
  ['no numbers here\nat all\n', 'No table of numbers'],
  [`${'1,'.repeat(2000)}1\n${'2,'.repeat(2000)}2\n`, 'The table has 2001 columns; up to 1000 are read.'],
])('%.30j is refused', (text, sentence) => {
  const guess = guessTable(text)
  expect(guess.kind === 'fault' ? faultSentence(guess) : 'read').toContain(sentence)
})

const numbers = (count: number) => fc.array(fc.double({ noDefaultInfinity: true }).filter((x) => Math.abs(x) < 9e36 || Math.abs(x) > 1e38 || Number.isNaN(x)), { minLength: count, maxLength: count }) // prettier-ignore
const heads = fc.stringMatching(/^[A-Z][a-z]{2}[a-z]?$/)

/** Tables whose first column rises, with complex columns among the others. */
const tables = fc.integer({ min: 2, max: 6 }).chain((rows) =>
  fc
    .record({
      steps: fc.array(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), { minLength: rows, maxLength: rows }),
      columns: fc.array(
        fc.record({
          name: heads,
          unit: fc.constantFrom('', 'V', 'Ω', 'kHz'),
          re: numbers(rows),
          im: fc.option(numbers(rows)),
        }),
        { minLength: 1, maxLength: 3 },
      ),
    })
    .filter(({ columns }) => new Set(columns.map((c) => c.name)).size === columns.length)
    .map(({ steps, columns }): DataTable => {
      let at = 0
      const f = Float64Array.from(steps, (step) => (at += step))
      const own: Column = { name: 't', unit: 's', order: 1, re: f, im: null }
      const rest = columns.map(({ name, unit, re, im }): Column => ({ name: `q${name}`, unit, order: 1, re: Float64Array.from(re), im: im && Float64Array.from(im) })) // prettier-ignore
      return { kind: 'table', rows, columns: [own, ...rest], parameter: 0 }
    }),
)

test('any table written and read is the same, bit for bit: with commas, tabs, and for a spreadsheet', () => {
  fc.assert(
    fc.property(tables, fc.constantFrom(PLAIN_CSV, TSV, SPREADSHEET), (data, style) => {
      const decoded = decode(encode(writeCsv(data, style)))
      const found = decoded.kind === 'text' ? table(decoded.text) : null
      expect(found && found.columns.map((c) => [c.name, c.unit])).toEqual(data.columns.map((c) => [c.name, c.unit]))
      expect(found && sameData(found, data)).toBe(true)
    }),
    { numRuns: 400 },
  )
})

test('a matrix written and read is the same, bit for bit', () => {
  const matrix: Data = {
    kind: 'matrix',
    rows: 2,
    cols: 2,
    re: Float64Array.of(1, -0, 1 / 3, 4e-300),
    im: Float64Array.of(0, 5, 6, 7),
  }
  for (const m of [matrix, { ...matrix, im: null }])
    expect(sameData(read(writeCsv(m, PLAIN_CSV, 'Zm')).data, m)).toBe(true)
})

test('by magnitude and angle the unit stands in the head', () => {
  const z: DataTable = {
    kind: 'table',
    rows: 1,
    parameter: -1,
    columns: [{ name: 'Z', unit: 'Ω', order: 1, re: Float64Array.of(0), im: Float64Array.of(2) }],
  }
  expect(writeCsv(z, { ...PLAIN_CSV, form: 'polar' })).toBe('abs(Z) / Ω,arg(Z) / °\r\n2,90\r\n')
  expect(writeCsv(z, { ...PLAIN_CSV, form: 'polar', angle: 'rad' })).toContain('arg(Z) / rad')
})

test('for a spreadsheet nothing that a name says is run', () => {
  const text = writeScalars([{ name: '=cmd()', re: 1.5, im: -2 }], SPREADSHEET)
  expect(text).toBe("\uFEFFname;re;im\r\n'=cmd();1,5;-2\r\n")
})

asking(['Python'], 'another reader', () => {
  test('reads what is written', () => {
    const samples = fc.sample(tables, 40)
    const found = python(
      `import csv
print(json.dumps([list(csv.reader(open(f, newline="", encoding="utf-8"))) for f in files]))`,
      samples.map((data) => writeCsv(data)),
    ) as string[][][]
    samples.forEach((data, k) => {
      const [head = [], ...rows] = found[k] ?? []
      const columns = data.columns.flatMap(({ re, im, name }) => (im ? [[`re(${name})`, re], [`im(${name})`, im]] as const : [[name, re]] as const)) // prettier-ignore
      expect(head.map((h) => h.split(' / ')[0])).toEqual(columns.map(([name]) => name))
      expect(rows).toHaveLength(data.rows)
      rows.forEach((row, r) => {
        columns.forEach(([, values], c) => {
          const x = values[r] ?? NaN
          if (Number.isNaN(x)) expect(row[c]).toBe('')
          else expect(Object.is(Number(row[c]), x)).toBe(true)
        })
      })
    })
  })
})
