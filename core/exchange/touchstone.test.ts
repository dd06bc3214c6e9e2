import * as fc from 'fast-check'
import { sameData } from '../measured/data'
import type { Column } from '../measured/data'
import { faultSentence, remarkSentence } from './told'
import { PARAMETERS, readTouchstone } from './touchstone'
import type { Parameter, ReadNetwork } from './touchstone'
import { writeTouchstone } from './touchstoneOut'

function network(text: string, ports: number | null = null): ReadNetwork {
  const read = readTouchstone(text, ports)
  if (read.kind === 'fault') throw new Error(faultSentence(read))
  return read
}

function refused(text: string, ports: number | null = null): string {
  const read = readTouchstone(text, ports)
  return read.kind === 'fault' ? faultSentence(read) : 'read'
}

/** The entries of a point, by rows. */
function entries({ data }: ReadNetwork, point = 0): [number, number][] {
  const column = data.columns[1] as Column
  const size = column.order ** 2
  return Array.from({ length: size }, (_, k) => [
    column.re[point * size + k] ?? NaN,
    column.im?.[point * size + k] ?? NaN,
  ])
}

const frequencies = ({ data }: ReadNetwork): number[] => [...(data.columns[0]?.re ?? [])]

describe('version 1', () => {
  test('without an option line: GHz, S, magnitude and angle, 50 Ω', () => {
    const read = network('1 0.5 90\n2 0.5 180\n', 1)
    expect(frequencies(read)).toEqual([1e9, 2e9])
    expect(read.parameter).toBe('S')
    expect(entries(read)).toEqual([[0, 0.5]])
    expect(entries(read, 1)).toEqual([[-0.5, 0]])
    expect(read.told.map(remarkSentence)).toEqual(['Reference resistance 50 Ω.'])
  })

  test('each unit of frequency moves the point and rounds nothing', () => {
    for (const [unit, hz] of [
      ['Hz', 2.4],
      ['kHz', 2400],
      ['MHz', 2400000],
      ['GHz', 2400000000],
    ] as const)
      // prettier-ignore
      expect(frequencies(network(`# ${unit} S RI R 50\n2.4 1 0\n`, 1))).toEqual([hz])
    expect(frequencies(network('# MHz S RI\n0.1 1 0\n1.005e1 1 0\n', 1))).toEqual([100000, 10050000])
  })

  test('options in any order and case; only the first option line counts; remarks anywhere', () => {
    const read = network('! made up\n# r 75 db mhz s ! units\n1 -20 0 ! first\n# GHz S RI R 1\n2 -40 90\n', 1)
    expect(frequencies(read)).toEqual([1e6, 2e6])
    // −20 dB are a tenth, −40 dB a hundredth: 20 lg of the magnitude.
    expect(entries(read)[0]?.[0]).toBeCloseTo(0.1, 15)
    expect(entries(read, 1)[0]).toEqual([0, expect.closeTo(0.01, 16)])
    expect(read.told.map(remarkSentence)).toEqual(['Reference resistance 75 Ω.'])
  })

  test('two-ports stand as 11 21 12 22, all others by rows', () => {
    expect(entries(network('# Hz S RI\n1 11 0 21 0 12 0 22 0\n', 2)).map(([re]) => re)).toEqual([11, 12, 21, 22])
    const three = '# Hz S RI\n1 11 0 12 0 13 0\n 21 0 22 0 23 0\n 31 0 32 0 33 0\n'
    expect(entries(network(three, 3)).map(([re]) => re)).toEqual([11, 12, 13, 21, 22, 23, 31, 32, 33])
  })

  test('wrapped lines: four pairs at most on each, of four ports and of five', () => {
    for (const n of [4, 5]) {
      const rows = Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c) => `${r + 1}${c + 1} 0`))
      const wrapped = rows.map((row) =>
        [row.slice(0, 4).join(' '), row.slice(4).join(' ')].filter((l) => l !== '').join('\n '),
      )
      const read = network(`# Hz S RI\n1 ${wrapped.join('\n ')}\n2 ${wrapped.join('\n ')}\n`, n)
      expect(frequencies(read)).toEqual([1, 2])
      expect(entries(read, 1).map(([re]) => re)).toEqual(rows.flat().map((text) => Number(text.split(' ')[0])))
    }
  })

  test('how many ports, where no name says it, is told from the numbers of the first frequency, and said', () => {
    for (const [n, text] of [
      [1, '1 11 0\n2 11 0\n'],
      [2, '1 11 0 21 0 12 0 22 0\n2 11 0 21 0 12 0 22 0\n'],
      [3, '1 11 0 12 0 13 0\n 21 0 22 0 23 0\n 31 0 32 0 33 0\n'],
      [
        4,
        '1 11 0 12 0 13 0 14 0\n 1 0 1 0 1 0 1 0\n 1 0 1 0 1 0 1 0\n 1 0 1 0 1 0 1 0\n2 1 0 1 0 1 0 1 0\n 1 0 1 0 1 0 1 0\n 1 0 1 0 1 0 1 0\n 1 0 1 0 1 0 1 0\n',
      ],
    ] as const) {
      // prettier-ignore
      const read = network(`# Hz S RI\n${text}`)
      expect(read.data.columns[1]?.order).toBe(n)
      expect(read.told.map((r) => r.code)).toContain('ports-guessed')
    }
    expect(refused('# Hz S RI\n1 2 3 4 5\n')).toContain('How many ports these are cannot be told')
  })

  test.each([
    ['Z', [0.5 * 75, 0.5 * 75, 0.5 * 75, 0.5 * 75]],
    ['Y', [0.5 / 75, 0.5 / 75, 0.5 / 75, 0.5 / 75]],
    ['H', [0.5 * 75, 0.5, 0.5, 0.5 / 75]],
    ['G', [0.5 / 75, 0.5, 0.5, 0.5 * 75]],
    ['S', [0.5, 0.5, 0.5, 0.5]],
  ])('%s parameters are relative to R and are multiplied out; S stays S', (parameter, expected) => {
    const read = network(`# Hz ${parameter} RI R 75\n1 .5 0 .5 0 .5 0 .5 0\n`, 2)
    expect(entries(read).map(([re]) => re)).toEqual(expected)
    expect(read.data.columns[1]?.name).toBe(parameter)
    const said = read.told.map(remarkSentence).join(' ')
    expect(said).toContain(parameter === 'S' ? 'Reference resistance 75 Ω' : 'relative to 75 Ω')
  })

  test('noise data starts where the frequency of a two-port falls: it is left out and said', () => {
    const text = '# Hz S RI\n1 1 0 1 0 1 0 1 0\n2 1 0 1 0 1 0 1 0\n1 0.5 0.7 30 0.4\n2 0.6 0.7 40 0.5\n'
    const read = network(text, 2)
    expect(read.data.rows).toBe(2)
    expect(read.told.map(remarkSentence)).toContain('Noise data of 2 frequencies was left out.')
    expect(refused('# Hz S RI\n2 1 0\n1 1 0\n', 1)).toBe('Line 3: The frequency falls here, to 1 Hz; it should rise.')
  })
})

describe('version 2', () => {
  const two = (order: string, body: string, more = ''): string =>
    `[Version] 2.0\n# Hz Z RI R 50\n[Number of Ports] 2\n[Two-Port Data Order] ${order}\n[Number of Frequencies] 1\n${more}[Network Data]\n${body}\n[End]\n`

  test('numbers are not relative to R; the order of a two-port is stated', () => {
    expect(entries(network(two('21_12', '1 11 1 21 2 12 3 22 4')))).toEqual([[11, 1], [12, 3], [21, 2], [22, 4]]) // prettier-ignore
    expect(entries(network(two('12_21', '1 11 1 12 2 21 3 22 4')))).toEqual([[11, 1], [12, 2], [21, 3], [22, 4]]) // prettier-ignore
  })

  test('a reference for each port, over several lines', () => {
    const read = network(two('12_21', '1 1 0 2 0 3 0 4 0', '[Reference] 50\n75 ! second\n'))
    expect(read.told.map(remarkSentence)).toEqual(['Reference resistance 50, 75 Ω.'])
    expect(refused(two('12_21', '1 1 0 2 0 3 0 4 0', '[Reference] 50 75 100\n'))).toContain(
      '[Reference] has 3 of the 2',
    )
  })

  test('a triangle stands for both', () => {
    const three = (layout: string, body: string): string =>
      `[Version] 2.0\n# Hz S RI\n[Number of Ports] 3\n[Matrix Format] ${layout}\n[Network Data]\n${body}\n[End]\n`
    const whole = [11, 21, 31, 21, 22, 32, 31, 32, 33]
    expect(entries(network(three('Lower', '1 11 0\n21 0 22 0\n31 0 32 0 33 0'))).map(([re]) => re)).toEqual(whole)
    expect(entries(network(three('Upper', '1 11 0 21 0 31 0\n22 0 32 0\n33 0'))).map(([re]) => re)).toEqual(whole)
  })

  test('information is passed over, noise has its own part, what follows the end is nothing', () => {
    const text = two('12_21', '1 1 0 2 0 3 0 4 0\n[Noise Data]\n1 2 3 4 5\n2 3 4 5 6')
      .replace('[Network', '[Begin Information]\nanything: 5\n[End Information]\n[Network') // prettier-ignore
    const read = network(`${text}\nnot read`)
    expect(read.data.rows).toBe(1)
    expect(read.told.map(remarkSentence)).toContain('Noise data of 2 frequencies was left out.')
  })

  test.each([
    [two('12_21', '1 1 0 2 0 3 0 4 0').replace('[Number of Frequencies] 1', '[Number of Frequencies] 3'), 'says 3 frequencies and has 1'],
    [two('12_21', '1 1 0').replace('[Two-Port Data Order] 12_21\n', ''), '[Two-Port Data Order] should say'],
    [two('12_21', '1 1 0').replace('[Number of Ports] 2\n', ''), '[Number of Ports] should stand'],
    [two('12_21', '1 1 0 2'), 'has 4 of its 9 numbers: the file is cut off'],
    [two('12_21', '1 1 0', '[Mixed-Mode Order] D2,3 C2,3\n'), 'Line 6: Mixed-mode parameters are not read'],
    [two('12_21', '1 1 0', '[Colour] red\n'), 'Line 6: The keyword [Colour] red is not known here.'],
    ['[Version] 3.0\n', 'Line 1: Version 3.0 is not read here'],
  ])('%j is refused, and says why', (text, sentence) => {
    expect(refused(text)).toContain(sentence)
  }) // prettier-ignore
})

test.each([
  ['# Hz S RI\n1 x 0\n', 1, 'Line 2, column 3: “x” is not a number.'],
  ['# Hz S RI\n1 1e999 0\n', 1, 'Line 2, column 3: “1e999” is too large'],
  ['# Hz S XY\n1 1 0\n', 1, 'Line 1: “XY” is not known in the option line.'],
  ['# Hz S RI R -50\n1 1 0\n', 1, 'Line 1: “-50”'],
  ['# Hz H RI\n1 1 0\n', 1, 'H parameters are of two ports; the file has 1 port.'],
  ['# Hz S RI\n1 1 0\n2 1\n', 1, 'Line 3: The last frequency has 2 of its 3 numbers'],
  ['# Hz S RI\n', 1, 'There are no numbers in the file.'],
])('%j is refused, and says why', (text, ports, sentence) => {
  expect(refused(text, ports)).toContain(sentence)
})

/** Networks of every kind and size. */
const networks = fc
  .record({
    parameter: fc.constantFrom<Parameter>(...PARAMETERS),
    ports: fc.integer({ min: 1, max: 6 }),
    steps: fc.array(fc.double({ min: 1e-3, max: 1e9, noNaN: true }), { minLength: 1, maxLength: 5 }),
    seed: fc.array(fc.double({ noNaN: true, noDefaultInfinity: true }), { minLength: 360, maxLength: 360 }),
  })
  .map(({ parameter, ports, steps, seed }) => {
    const order = parameter === 'G' || parameter === 'H' ? 2 : ports
    let at = 0
    const f = Float64Array.from(steps, (step) => (at += step))
    const size = order * order * f.length
    const column: Column = {
      name: parameter,
      unit: '',
      order,
      re: Float64Array.from(seed.slice(0, size)),
      im: Float64Array.from(seed.slice(180, 180 + size)),
    }
    return { parameter, f, column }
  })

test('any network written and read is the same, bit for bit, whether its name says the ports or not', () => {
  fc.assert(
    fc.property(networks, fc.boolean(), ({ parameter, f, column }, named) => {
      const text = writeTouchstone(f, column, parameter, 'made up\nfor a test')
      if (typeof text !== 'string') throw new Error(faultSentence(text))
      const { data } = network(text, named ? column.order : null)
      const [own, values] = data.columns
      const bare = { ...column, unit: values?.unit ?? '' }
      const expected = { kind: 'table' as const, rows: f.length, parameter: 0 }
      expect(
        sameData(data, { ...expected, columns: [{ name: 'f', unit: 'Hz', order: 1, re: f, im: null }, bare] }),
      ).toBe(true)
      expect(own?.re).toEqual(f)
    }),
    { numRuns: 300 },
  )
})

test('a file is written with four pairs on a line, undefined points are left out and said', () => {
  const order = 5
  const re = Float64Array.from({ length: 50 }, (_, k) => k)
  re[30] = NaN
  const text = writeTouchstone(Float64Array.of(1, 2), { name: 'S', unit: '', order, re, im: null }, 'S', 'five ports')
  expect(String(text).split('\n').slice(0, 6)).toEqual([
    '! five ports',
    '! 1 undefined point left out',
    '# Hz S RI R 1',
    '1 0 0 1 0 2 0 3 0',
    '  4 0',
    '  5 0 6 0 7 0 8 0',
  ])
  const falling = writeTouchstone(Float64Array.of(2, 1), { name: 'S', unit: '', order: 1, re, im: null }, 'S', '')
  expect(typeof falling === 'string' ? '' : faultSentence(falling)).toContain('rises from point to point')
})
