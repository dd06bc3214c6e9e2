import * as fc from 'fast-check'
import type { Column, DataTable } from '../measured/data'
import { enclosedValue } from '../measured/enclosed'
import { partNames } from '../measured/partNames'
import { reckon } from '../testing'
import { FolioEvaluator } from './folio'

const column = (name: string, values: readonly number[], unit = '', im: readonly number[] | null = null, order = 1): Column => ({ name, unit, order, re: Float64Array.from(values), im: im && Float64Array.from(im) }) // prettier-ignore
const table = (columns: readonly Column[], rows: number, parameter = 0): DataTable => ({ kind: 'table', rows, columns, parameter }) // prettier-ignore

const lamp = { name: 'lamp.s1p', data: table([column('f', [1, 10, 100]), column('Z', [3, 1, 0], 'Ω', [4, 0, 2])], 3) }

/** The last line of a folio that has this data. */
const last = (lines: readonly string[], ...enclosed: (typeof lamp)[]) => reckon(lines, {}, enclosed).at(-1)!

test('its columns are sweeps along the parameter; a column of degrees holds angles', () => {
  expect(last(['a = enclosure("lamp.s1p", "numbers")', 'abs(a.Z)[1]'], lamp).text).toBe('5')
  expect(last(['a = enclosure("lamp.s1p", "numbers")', '(a.Z*a.f)[3]'], lamp).text).toBe('0 + 200j')
  const turns = { name: 't', data: table([column('phi', [0, 90, 180], '°'), column('x', [1, 2, 3])], 3) }
  expect(last(['t = enclosure("t")', 'sin(t.phi)[2]'], turns).text).toBe('1')
  expect(last(['t = enclosure("t")', 't.phi[3]'], turns).text).toBe('180°')
})

test('columns have the units of the file, whatever their prefix, and without them where that is asked for', () => {
  const bulb = { name: 'b.csv', data: table([column('f', [1, 2], 'kHz'), column('U', [10, 20], 'mV'), column('q', [3, 4], 'dB')], 2) } // prettier-ignore
  const at = (line: string): string => last(['b = enclosure("b.csv")', line], bulb).text
  expect(at('b.U[2]')).toBe('20 mV')
  expect(at('b.f[2]')).toBe('2 kHz')
  expect(at('(b.U/(2 mA))[1]')).toBe('5 Ω')
  // What is no unit here is a plain number.
  expect(at('b.q[1]')).toBe('3')
  expect(at('(b.U along b.f)[2]')).toBe('20 mV')
  expect(at('(b.U along (1.5 kHz to 2 kHz count 2))[1]')).toBe('15 mV')
  expect(last(['b = enclosure("b.csv")', 'b.U along sweep([1, 2])'], bulb).error?.code).toBe('unit-alike')
  const plain = (line: string): string => last(['b = enclosure("b.csv", "numbers")', line], bulb).text
  expect([plain('b.U[2]'), plain('b.f[2]'), plain('(b.U along b.f)[1]')]).toEqual(['20', '2', '10'])
  expect(last(['enclosure("b.csv", "volts")'], bulb).error?.code).toBe('domain')
})

test('n × n matrices in every row are a sweep of matrices', () => {
  const two = { name: 'n.s2p', data: table([column('f', [1, 2]), column('S', [1, 2, 3, 4, 5, 6, 7, 9], '', [0, 0, 0, 0, 0, 0, 0, 0], 2)], 2) } // prettier-ignore
  expect(last(['n = enclosure("n.s2p")', 'det(n.S)[1]'], two).text).toBe('-2 + 0j')
  expect(last(['n = enclosure("n.s2p")', '(n.S[1,2])[2]'], two).text).toBe('6 + 0j')
})

test('a matrix of whole numbers is exact', () => {
  const data = { kind: 'matrix' as const, rows: 2, cols: 2, re: Float64Array.of(1, 2, 3, 4), im: null }
  const { text, value } = reckon(['det(enclosure("m"))'], {}, [{ name: 'm', data }]).at(-1)!
  expect(text).toBe('-2')
  expect(value).toMatchObject({ exact: { re: { n: -2 } } })
})

test('what is not there says what is', () => {
  expect(last(['enclosure("x")'], lamp).error?.message).toBe('No file called “x” is kept with this folio. There are: “lamp.s1p”.') // prettier-ignore
  expect(last(['enclosure("lamp.s1p").X'], lamp).error?.message).toContain('.f, .Z')
})

test('names of columns become names of parts, none twice', () => {
  expect(partNames([{ name: 'Kanal 1' }, { name: '1st' }, { name: '' }, { name: 'Kanal-1' }, { name: 'µs' }])).toEqual([
    'Kanal_1', 'c1st', 'column_3', 'Kanal_1_2', 'us',
  ]) // prettier-ignore
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'grapheme' }), { maxLength: 12 }), (names) => {
      const parts = partNames(names.map((name) => ({ name })))
      expect(new Set(parts).size).toBe(names.length)
      const data = table(parts.map((name) => column(name, [1])), 1, -1) // prettier-ignore
      for (const part of parts) {
        if (/[^A-Za-z0-9_]/.test(part)) continue
        expect(reckon([`d = enclosure("d")`, `count(d.${part})`], {}, [{ name: 'd', data }]).at(-1)!.text).toBe('1')
      }
    }),
    { numRuns: 60 },
  )
})

test('only the lines that take it up are reckoned again when it comes, changes or goes', () => {
  const evaluator = new FolioEvaluator()
  evaluator.setLines(
    ['a = enclosure("lamp.s1p")', 'x = 5', 'a.f[1]', 'x + 1'].map((source, k) => ({ id: String(k), source })),
  )
  evaluator.enclosures.put('lamp.s1p', 'one', null)
  evaluator.update()
  expect(evaluator.result('0')?.evaluated.problem?.code).toBe('enclosure-loading')
  evaluator.enclosures.put('lamp.s1p', 'one', lamp.data)
  expect(evaluator.update()).toEqual(['0', '2'])
  evaluator.enclosures.put('lamp.s1p', 'two', table([column('f', [7])], 1))
  expect(evaluator.update()).toEqual(['0', '2'])
  expect(evaluator.result('2')?.evaluated.value).toMatchObject({ re: 7 })
  expect(evaluator.update()).toEqual([])
  evaluator.enclosures.put('lamp.s1p', 'two', null, true)
  evaluator.update()
  expect(evaluator.result('0')?.evaluated.problem?.code).toBe('enclosure-lost')
  evaluator.enclosures.remove('lamp.s1p')
  evaluator.update()
  expect(evaluator.result('0')?.evaluated.problem?.code).toBe('no-enclosure')
})

describe('Z along f', () => {
  /** A table with this parameter, in this order, and values at it. */
  const measured = (x: readonly number[], re: readonly number[], im: readonly number[]) => ({ name: 'm', data: table([column('x', x), column('z', re, '', im)], x.length) }) // prettier-ignore

  test('is linear in both parts between the points, the point itself at a point, undefined outside, and says so', () => {
    const m = measured([1, 2, 4], [10, 20, 0], [0, 2, -2])
    const line = (at: string) => last(['m = enclosure("m")', `f = ${at}`, '(m.z along f)[1]'], m)
    expect(line('1.5 to 2').text).toBe('15 + 1j')
    expect(line('2 to 3').text).toBe('20 + 2j')
    expect(line('3 to 4').text).toBe('10 + 0j')
    expect(line('0 to 1').text).toBe('undefined')
    const { hints } = last(['m = enclosure("m")', 'f = 0 to 5', 'm.z along f'], m)
    expect(hints.map((h) => h.message)).toEqual([
      '2 of the points lie outside of what was measured, where nothing is known.',
    ])
  })

  test('is the sweep itself on its own points, whatever the order of these', () => {
    const points = fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { minLength: 2, maxLength: 12 })
    const part = fc.double({ noNaN: true, noDefaultInfinity: true })
    fc.assert(
      fc.property(
        points.chain((x) => fc.tuple(fc.constant(x), fc.array(part, { minLength: 24, maxLength: 24 }))),
        ([x, parts]) => {
          const m = measured(x, parts.slice(0, x.length), parts.slice(12, 12 + x.length))
          const { value } = last(['m = enclosure("m")', 'm.z along m.x'], m)
          const own = enclosedValue('m', m.data)
          const z = own.kind === 'parts' ? own.parts.get('z') : undefined
          if (value?.kind !== 'sweep' || z?.kind !== 'sweep') throw new Error('sweeps')
          expect([value.re, value.im]).toEqual([z.re, z.im])
        },
      ),
    )
  })

  test('of a straight line is that line, anywhere between', () => {
    const slope = fc.integer({ min: -9, max: 9 })
    fc.assert(
      fc.property(slope, slope, fc.integer({ min: 2, max: 30 }), (a, b, count) => {
        const [{ value }] = [reckon([`x = 0 to 10 count ${count}`, `y = ${a}*x + ${b}j*x`, 'f = 0 to 10 step 0.7', 'y along f - (' + a + '*f + ' + b + 'j*f)']).at(-1)!] // prettier-ignore
        if (value?.kind !== 'sweep') throw new Error('a sweep')
        for (const part of [value.re, value.im ?? []]) for (const x of part) expect(Math.abs(x)).toBeLessThan(1e-12)
      }),
      { numRuns: 60 },
    )
  })

  test('is refused where one side is no sweep, and stands between products and sums', () => {
    expect(reckon(['x = 1 to 3', '5 along x']).at(-1)!.error?.message).toContain('In Z along f, Z must be a sweep')
    expect(reckon(['x = 1 to 3', 'x along 2']).at(-1)!.error?.message).toContain('In Z along f, f must be')
    expect(reckon(['x = 1 to 3', 'along = 2', '(x*along along x + 1)[3]']).at(-1)!.text).toBe('7')
  })
})
