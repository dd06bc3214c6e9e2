import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { reckon } from '../testing'
import type { Kind, Value } from '../values/types'
import { copyText, curveOf, doublesOf, equalValues, exactness, identical, isKind, kindOf, kindWords, pointOf, readout, tableRows, valueData, valueFields, valueText } from './kinds' // prettier-ignore

/** The value of the last of some lines. */
function value(...lines: string[]): Value {
  const last = reckon(lines).at(-1)
  if (!last?.value) throw new Error(`${lines.join('; ')}: ${last?.error?.message}`)
  return last.value
}

/** A value of each kind. */
const ONE_OF_EACH: Readonly<Record<Kind, Value>> = {
  number: value('3 + 4j'),
  angle: value('36°52\'12"'),
  text: value('"a^b"'),
  truth: value('1 < 2'),
  vector: value('[1, 2j]'),
  matrix: value('[[1, 2], [3, 4]]'),
  sweep: value('t = 0 to 1 step 0.25', '2t'),
  polynomial: value('unknown s', 's^2 + 1'),
  'algebra-matrix': value('unknown s', '[[s, 1], [2, s]]'),
  parts: value('lu([[1, 2], [3, 4]])'),
  check: value('1 ~~ 1.0'),
  function: value('f(x) = x^2'),
  quantity: value('(3 + 4j) ohm'),
  delayed: value('unknown s', '3/(s + 1)*e^(-2s)'),
  'time-function': value('unknown s, t', 'inverse_laplace(2/(s + 1), t)'),
}
const kinds = Object.keys(ONE_OF_EACH).filter(isKind)

test('every kind is in the table, with words of its own', () => {
  expect(new Set(kinds.map(kindWords)).size).toBe(15)
  for (const kind of kinds) expect([kind, ONE_OF_EACH[kind].kind]).toEqual([kind, kind])
})

test.each([
  ['number', 'twin', '3 + 4j', '5 ∠ 53.13°', '3 + 4\\mathrm{j}'],
  ['angle', 'single', '36.87°', null, '36.87^{\\circ}'],
  ['text', 'words', '"a^b"', null, '\\text{a\\textasciicircum{}b}'],
  ['truth', 'words', 'true', null, '\\text{true}'],
  ['vector', 'list', '[1, 0 + 2j]', '[1, 2 ∠ 90°]', '\\begin{pmatrix} 1 \\\\ 0 + 2\\mathrm{j} \\end{pmatrix}'],
  ['matrix', 'grid', '[[1, 2], [3, 4]]', null, '\\begin{pmatrix} 1 & 2 \\\\ 3 & 4 \\end{pmatrix}'],
  ['sweep', 'sweep', 'sweep([0, 0.5, 1, 1.5, 2])', null, null],
  ['polynomial', 'algebra', 's^2 + 1', null, '{s}^{2} + 1'],
  ['algebra-matrix', 'algebra', '[[s, 1], [2, s]]', null, '\\begin{pmatrix} s & 1 \\\\ 2 & s \\end{pmatrix}'],
  [
    'parts',
    'words',
    '.lower .upper .permutation',
    null,
    '.\\,\\mathrm{lower}.\\,\\mathrm{upper}.\\,\\mathrm{permutation}',
  ],
  ['check', 'words', 'agrees to 2 significant figures', null, '\\text{agrees to 2 significant figures}'],
  ['function', 'none', null, null, null],
  ['delayed', 'algebra', '3/(s + 1)*e^(-2s)', null, '\\dfrac{3}{s + 1}\\,\\mathrm{e}^{-2\\,s}'],
  ['time-function', 'algebra', '2*e^(-t)', null, '2\\,\\mathrm{e}^{-t}'],
  ['quantity', 'twin', '(3 + 4j) Ω', '5 ∠ 53.13° Ω', '\\left( 3 + 4\\mathrm{j} \\right)\\,\\Omega'],
] as const)('%s is shown as %s and copied in each form', (kind, shape, shown, polar, latex) => {
  const one = ONE_OF_EACH[kind]
  expect(readout(one, DEFAULT_CONVENTIONS).shape).toBe(shape)
  expect(copyText(one, 'shown', DEFAULT_CONVENTIONS)).toBe(shown)
  expect(copyText(one, 'polar', DEFAULT_CONVENTIONS)).toBe(polar)
  expect(copyText(one, 'latex', DEFAULT_CONVENTIONS)).toBe(latex)
})

test('the headless fields name the kind; a matrix with unknowns is a matrix there', () => {
  for (const kind of kinds)
    expect(valueFields(ONE_OF_EACH[kind], DEFAULT_CONVENTIONS).kind).toBe(
      { 'algebra-matrix': 'matrix', quantity: 'number' }[kind as string] ?? kind,
    )
})

test('two kinds are equal only where they mean the same', () => {
  expect(equalValues(value('[1, 2]'), value('[[1], [2]]'))).toBe(true)
  expect(equalValues(value('[[1], [2]]'), value('[1, 3]'))).toBe(false)
  expect(equalValues(value('unknown s', '(s + 1) - s'), value('1'))).toBe(true)
  for (const a of kinds)
    for (const b of kinds)
      expect([a, b, equalValues(ONE_OF_EACH[a], ONE_OF_EACH[b])]).toEqual([
        a,
        b,
        equalValues(ONE_OF_EACH[b], ONE_OF_EACH[a]),
      ])
})

const entry = fc.oneof(
  fc.integer({ min: -9999, max: 9999 }).map(String),
  fc.tuple(fc.integer({ min: -99, max: 99 }), fc.integer({ min: 1, max: 99 })).map(([n, d]) => `(${n}/${d})`),
  fc.double({ min: 1e-9, max: 1e6, noNaN: true }).map((x) => `(${String(x).replace('e+', 'e')})`),
  fc.tuple(fc.integer({ min: -99, max: 99 }), fc.integer({ min: 1, max: 99 })).map(([a, b]) => `(${a} + ${b}j)`),
  fc.constantFrom('sqrt(2)', 'pi', '(1/3 + 2/7j)', 'exp(j)'),
)
const source = fc.oneof(
  entry,
  fc.array(entry, { minLength: 1, maxLength: 5 }).map((items) => `[${items.join(', ')}]`),
  fc.array(fc.tuple(entry, entry), { minLength: 1, maxLength: 4 }).map((rows) => `[${rows.map((r) => `[${r.join(', ')}]`).join(', ')}]`), // prettier-ignore
  fc.array(entry, { minLength: 1, maxLength: 4 }).map((items) => `sweep([${items.join(', ')}])`),
  fc.integer({ min: -720, max: 720 }).map((n) => `${n / 2}°`),
)

test('a value copied in full is the same value when it is pasted', () => {
  fc.assert(
    fc.property(source, (text) => {
      const before = value(text)
      const copied = copyText(before, 'full', DEFAULT_CONVENTIONS)
      const after = value(copied ?? '')
      const same = before.kind === 'sweep' || equalValues(before, after)
      expect([text, copied, after.kind, same]).toEqual([text, copied, before.kind, true])
      expect(valueText(after, DEFAULT_CONVENTIONS)).toBe(valueText(before, DEFAULT_CONVENTIONS))
    }),
    { numRuns: 300 },
  )
})

test('the same line is worth an identical value, and another one is not', () => {
  fc.assert(
    fc.property(source, source, (a, b) => {
      const [x, again, y] = [value(a), value(a), value(b)]
      // Nothing is said of numbers of many digits, nor of sweeps along a range without a name.
      if (!/\d{9}|sweep/.test(a)) expect([a, identical(x, again)]).toEqual([a, true])
      if (identical(x, y)) expect(equalValues(x, y) ?? true).toBe(true)
    }),
    { numRuns: 200 },
  )
})

test('entries are taken as they are written', () => {
  const names = fc
    .integer({ min: 1, max: 5 })
    .chain((rows) => fc.tuple(fc.constant(rows), fc.integer({ min: 1, max: 5 })))
  fc.assert(
    fc.property(names, ([rows, cols]) => {
      const at = (r: number, c: number): number => 10 * r + c
      const text = Array.from(
        { length: rows },
        (_, r) => `[${Array.from({ length: cols }, (__, c) => at(r, c)).join(', ')}]`,
      )
      const m = value(`[${text.join(', ')}]`)
      const { entries } = kindOf(m)
      const one = (k: number) => ({ at: [k], single: true })
      expect(entries?.sides(m)).toEqual([rows, cols])
      for (let r = 0; r < rows; r += 1)
        for (let c = 0; c < cols; c += 1) expect(entries?.take(m, one(r), one(c))).toMatchObject({ re: at(r, c) })
    }),
    { numRuns: 30 },
  )
})

test('what is undefined in a matrix is not shown as zero', () => {
  expect(readout(value('inv([[inf, 1], [0, 1]])'), DEFAULT_CONVENTIONS)).toMatchObject({
    cells: ['undefined', 'undefined', 'undefined', 'undefined'],
  })
})

test('only numbers are exact or rounded, and say how much of them is on show', () => {
  expect(exactness(value('1/3'), DEFAULT_CONVENTIONS)).toEqual({ shown: 'exact-rounded', fraction: '1/3' })
  expect(exactness(value('1/4'), DEFAULT_CONVENTIONS)).toEqual({ shown: 'exact', fraction: null })
  expect(exactness(value('sqrt(2)'), DEFAULT_CONVENTIONS)).toEqual({ shown: 'rounded', fraction: null })
  for (const kind of kinds)
    expect(exactness(ONE_OF_EACH[kind], DEFAULT_CONVENTIONS) === null).toBe(kind !== 'number' && kind !== 'quantity')
})

test('large values weigh what they hold; small ones nothing', () => {
  expect(doublesOf(value('identity(200)'))).toBe(80_000)
  expect(doublesOf(value('t = 0 to 999', 'exp(j*t)'))).toBe(3000)
  expect(doublesOf(value('5'))).toBe(0)
})

test('on the plane, in curves, in tables and in files stand only what can', () => {
  expect(pointOf(value('3 + 4j'))).toEqual({ re: 3, im: 4 })
  expect(pointOf(value('[3, 4]'))).toEqual({ re: 3, im: 4 })
  expect(pointOf(value('[3, 4, 5]'))).toBeNull()
  // What is behind a delay has a frequency response.
  expect(kinds.filter((kind) => curveOf(ONE_OF_EACH[kind]))).toEqual(['sweep', 'delayed'])
  expect(kinds.filter((kind) => tableRows(ONE_OF_EACH[kind], 0, 2, DEFAULT_CONVENTIONS))).toEqual(['sweep'])
  expect(kinds.filter((kind) => valueData(ONE_OF_EACH[kind], 'x'))).toEqual(['vector', 'matrix', 'sweep'])
  expect(tableRows(ONE_OF_EACH.sweep, 1, 2, DEFAULT_CONVENTIONS)?.rows).toEqual([
    { parameter: '0.25', value: '0.5' },
    { parameter: '0.5', value: '1' },
  ])
})
