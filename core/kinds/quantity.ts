import { inRows, rowsText, pmatrix } from '../format/arrays'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import type { Json } from '../format/json'
import { isCompound } from '../format/parts'
import type { Readout, Twin } from '../format/readout'
import { factorOf, inUnit } from '../quantities/attach'
import type { Drawn } from '../scene/drawn'
import type { InUnit } from '../scene/unitScales'
import { entryUnits, shownUnit } from '../quantities/shown'
import { compact, shapeOf } from '../quantities/shape'
import { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import { PER_SECOND } from '../units/marks'
import { Measure, PLAIN as PLAIN_MEASURE } from '../units/measure'
import { coherentUnit } from '../units/named'
import { unitLatex } from '../units/typeset'
import type { Unit } from '../units/unit'
import { asMatrix, itemAt } from '../values/matrices'
import { bare, quantity as quantityOf } from '../values/quantity'
import type { Bare, QuantityValue, Value } from '../values/types'
import { csvText, PLAIN } from './kind'
import { sweepRows } from './sweep'
import type { SweepRows } from './sweep'
import type { Fields, KindOf, Writing } from './kind'

/** The kinds of the values that have units, which this kind asks for whatever it does not change. */
type KindsOf = (value: Value) => KindOf<Value>

/** The same writing in which prefixes stand at the units, not at the digits. */
type Plainly = (to: Writing) => Writing

/** Values with units: shown as their numbers in a unit, and the unit behind them. */
export const quantityKind = (kindOf: KindsOf, plainly: Plainly): KindOf<QuantityValue> => ({
  ...PLAIN,
  words: 'a value with a unit',
  text: (value, as) => written(value, plainly(as), (inner) => plainly(as).text(inner)),
  readout(value, as, name) {
    const to = plainly(as)
    const shown = inShown(value, to)
    if (shown) return withUnit(kindOf(shown.value).readout(shown.value, to, name), shown.unit)
    return entriesReadout(value, to, kindOf)
  },
  fields(value, as): Fields {
    const to = plainly(as)
    const shown = inShown(value, to)
    if (shown) return { ...to.fields(shown.value), ...(shown.unit.text === '' ? {} : { unit: shown.unit.text }) }
    const units = (entryUnits(value) ?? []).map((unit): Json => unit?.text ?? '')
    const [rows, cols] = shapeOf(value.value) ?? [units.length, 1]
    return { ...to.fields(value.value), units: value.value.kind === 'matrix' ? inRows(rows, cols, units) : units }
  },
  copies: {
    shown: (value, as) => written(value, plainly(as), (inner) => plainly(as).text(inner)),
    full: (value, as) => written(value, plainly(as), (inner) => plainly(as).full(inner)),
    polar(value, as) {
      const to = plainly(as)
      const shown = inShown(value, to)
      const text = shown && to.polar(shown.value)
      return text === null ? null : behind(text, shown?.unit ?? null)
    },
    latex(value, as) {
      const to = plainly(as)
      const shown = inShown(value, to)
      if (!shown) return mixedLatex(value, to)
      const inner = to.latex(shown.value)
      const whole = needsBrackets(to.text(shown.value)) ? `\\left( ${inner} \\right)` : inner
      return shown.unit.text === '' ? inner : `${whole}\\,${unitLatex(shown.unit)}`
    },
    csv(value, to) {
      const shown = inShown(value, to)
      if (!shown)
        return entryTexts(value, to, (item) => to.text(item))
          .map(csvText)
          .join('\r\n')
      return headed(kindOf(shown.value).copies?.csv(shown.value, to) ?? '', shown.value, shown.unit)
    },
    record(value, to, complex) {
      const shown = inShown(value, to)
      return shown ? to.record(shown.value, complex) : csvText(to.text(value))
    },
  },
  exactness(value, conventions) {
    const unit = shownUnit(value, withoutPrefixes(conventions))
    const inner = unit ? inUnit(value.value, unit) : value.value
    return kindOf(inner).exactness(inner, conventions)
  },
  equals: (a, b, equal) => (b.kind === 'quantity' && alikeMeasures(a, b) ? equal(a.value, b.value) : null),
  ordered: true,
  order: (a, b) => kindOf(a.value).order(a.value, bare(b)),
  identical: (a, b, same) =>
    sameMeasure(a, b) && a.unit?.text === b.unit?.text && a.asWritten === b.asWritten && same(a.value, b.value),
  entries: {
    range: 'entry-range',
    sides: (value) => kindOf(value.value).entries?.sides(value.value) ?? [0, null],
    take(value, first, second) {
      const found = kindOf(value.value).entries?.take(value.value, first, second)
      if (!found || found.kind === 'failure') return found ?? value.value
      return taken(value, bare(found), first.at, second?.at ?? null)
    },
  },
  real: (value) => (value.measure instanceof Measure && value.measure.dimension === NONE ? kindOf(value.value).real(value.value) : null), // prettier-ignore
  doubles: (value, of) => of(value.value),
  drawn(value, role, as, shown) {
    const to = plainly(as)
    const inside = inShown(value, to)
    if (!inside) return null
    const drawn = kindOf(inside.value).drawn(inside.value, role, to, shown)
    return drawn && coherent(drawn, inside.unit, value)
  },
  point: (value) => kindOf(value.value).point(value.value),
  curve(value) {
    const unit = shownUnit(value, WIDE)
    const inner = unit ? inUnit(value.value, unit) : value.value
    const found = kindOf(inner).curve(inner)
    // Along an unknown that is one over a time go radians in that time.
    const perSecond = [...(value.unknowns?.values() ?? [])].some((m) => m.dimension === PER_SECOND)
    const data = found && perSecond ? { ...found, xUnit: 'rad/s' } : found
    if (!data || !unit || unit.text === '') return data
    return { ...data, unit: unit.text, in: unitOfDrawing(unit, value) }
  },
  data(value, name) {
    const unit = shownUnit(value, WIDE)
    if (!unit) return null
    const inner = inUnit(value.value, unit)
    const data = kindOf(inner).data(inner, name)
    if (data?.kind !== 'table') return data
    const last = data.columns.length - 1
    return { ...data, columns: data.columns.map((c, k) => (k === last ? { ...c, unit: c.unit || unit.text } : c)) }
  },
})

/** In the style with prefixes the unit has the prefix. */
export function withoutPrefixes(conventions: Conventions): Conventions {
  return conventions.style === 'prefix' ? { ...conventions, style: 'plain' } : conventions
}

/** Curves choose their prefix by all digits. */
const WIDE: Conventions = { ...DEFAULT_CONVENTIONS, digits: 12 }

/** The number in the unit that it is shown in; `null` of an array of several units. */
function inShown(value: QuantityValue, to: Writing): { readonly value: Bare; readonly unit: Unit } | null {
  const unit = shownUnit(value, to.conventions)
  return unit && { value: inUnit(value.value, unit), unit }
}

/** Where a unit behind a text would belong to its last part only. */
function needsBrackets(text: string): boolean {
  if (text.startsWith('[') || text.startsWith('(')) return isTwoTerms(text)
  return text.includes('/') || isCompound(text) || isTwoTerms(text)
}

const isTwoTerms = (text: string): boolean => !text.startsWith('[') && !text.includes('∠') && / [+-] /.test(text)

function behind(text: string, unit: Unit | null): string {
  if (!unit || unit.text === '' || text === 'undefined') return text
  const whole = needsBrackets(text) ? `(${text})` : text
  return `${whole} ${unit.text}`
}

function written(value: QuantityValue, to: Writing, write: (inner: Value) => string): string {
  const shown = inShown(value, to)
  if (shown) return behind(write(shown.value), shown.unit)
  const { value: inner } = value
  const texts = entryTexts(value, to, write)
  if (inner.kind === 'matrix') return rowsText(inner.rows, inner.cols, texts)
  return `[${texts.join(', ')}]`
}

/** The entries of an array of several units, each with its own. */
function entryTexts(value: QuantityValue, to: Writing, write: (inner: Value) => string): readonly string[] {
  return entriesOf(value).map((item) => (item.kind === 'quantity' ? written(item, to, write) : write(item)))
}

/** The entries as quantities of their own, row by row. */
function entriesOf({ value, measure }: QuantityValue): readonly Value[] {
  const items: readonly Value[] = value.kind === 'vector' ? value.items : value.kind === 'algebra-matrix' ? value.items : matrixItems(value) // prettier-ignore
  if (measure instanceof Measure) return items.map((item) => quantityOf(bare(item), measure))
  const cols = measure.cols.length
  return items.map((item, k) => {
    const of = measure.entry(Math.floor(k / cols), k % cols)
    return of ? quantityOf(bare(item), of) : item
  })
}

function matrixItems(value: Bare): readonly Value[] {
  const matrix = asMatrix(value)
  return matrix ? Array.from({ length: matrix.rows * matrix.cols }, (_, k) => itemAt(matrix, k)) : []
}

/** What is drawn, its coordinates in coherent units and its texts with the unit. */
function coherent(drawn: Drawn, unit: Unit, value: QuantityValue): Drawn {
  if (unit.text === '') return drawn
  const found = unitOfDrawing(unit, value)
  const entries = drawn.entries.map((entry) => ({
    ...entry,
    re: entry.re * found.factor,
    im: entry.im * found.factor,
    rectangular: `${bracketed(entry.rectangular, unit)} ${unit.text}`,
    polar: `${entry.polar} ${unit.text}`,
  }))
  return { ...drawn, entries, unit: found }
}

function unitOfDrawing(unit: Unit, { measure }: QuantityValue): InUnit {
  const of = measure.uniform ?? PLAIN_MEASURE
  return { key: of.dimension.key, text: coherentUnit(of).text, factor: factorOf(unit).re }
}

function bracketed(text: string, unit: Unit): string {
  return unit.text !== '' && needsBrackets(text) ? `(${text})` : text
}

/** A readout of the numbers, with the unit once for all of them. */
function withUnit(shown: Readout, unit: Unit): Readout {
  if (unit.text === '' || shown.shape === 'none') return shown
  const text = (t: string): string => bracketed(t, unit)
  const side = (t: string | Twin): string | Twin =>
    typeof t === 'string' ? text(t) : { rectangular: text(t.rectangular), polar: t.polar }
  switch (shown.shape) {
    case 'twin':
      return { ...shown, rectangular: text(shown.rectangular), unit: unit.text }
    case 'single':
      return { ...shown, text: text(shown.text), unit: unit.text }
    case 'sweep':
      return { ...shown, first: side(shown.first), last: side(shown.last), unit: unit.text }
    case 'words':
      return shown
    default:
      return { ...shown, unit: unit.text }
  }
}

function entriesReadout(value: QuantityValue, to: Writing, kindOf: KindsOf): Readout {
  const { value: inner } = value
  if (inner.kind === 'matrix') {
    const shown = kindOf(inner).readout(inner, to, null)
    if (shown.shape !== 'grid') return shown
    const texts = entryTexts(value, to, (item) => to.text(item))
    const cells = Array.from({ length: shown.shownRows * shown.shownCols }, (_, k) => {
      const [r, c] = [Math.floor(k / shown.shownCols), k % shown.shownCols]
      return texts[r * inner.cols + c] ?? ''
    })
    return { ...shown, cells, polar: null }
  }
  if (inner.kind === 'vector') {
    const entries = entriesOf(value).map((item) => {
      const one = item.kind === 'quantity' ? kindOf(item).readout(item, to, null) : null
      if (one?.shape === 'twin') return { rectangular: `${one.rectangular} ${one.unit ?? ''}`.trim(), polar: `${one.polar} ${one.unit ?? ''}`.trim() } // prettier-ignore
      return to.text(item)
    })
    return { shape: 'list', entries: entries.slice(0, 60), count: entries.length, size: null }
  }
  if (inner.kind === 'algebra-matrix') return { shape: 'algebra', latex: mixedLatex(value, to), text: to.text(value) }
  return kindOf(inner).readout(inner, to, null)
}

function mixedLatex(value: QuantityValue, to: Writing): string {
  const texts = entriesOf(value).map((item) => to.latex(item))
  const [rows, cols] = shapeOf(value.value) ?? [texts.length, 1]
  return pmatrix(rows, cols, texts)
}

/** The head of a table with the unit behind each quantity, as quotients (ISO 80000-1, 7.1.4); a head of its own where there is none. */
function headed(csv: string, value: Bare, { text }: Unit): string {
  if (text === '') return csv
  const [head = '', ...rows] = csv.split('\r\n')
  const named = /^[a-z]/i.test(head)
  if (!named) return value.kind === 'matrix' ? csv : [`value / ${text}`, head, ...rows].join('\r\n')
  const heads = head.split(',').map((h) => (!VALUES.has(h) ? h : `${h} / ${text}`))
  return [heads.join(','), ...rows].join('\r\n')
}

const VALUES: ReadonlySet<string> = new Set(['re', 'im', 'magnitude', 'value'])

/** True where two measure the same, whatever unit they are shown in. */
function alikeMeasures({ measure: x }: QuantityValue, { measure: y }: QuantityValue): boolean {
  return x === y || (x instanceof Measure && y instanceof Measure && x.dimension === y.dimension)
}

function sameMeasure(a: QuantityValue, b: QuantityValue): boolean {
  const [x, y] = [a.measure, b.measure]
  if (!sameUnknowns(a, b)) return false
  if (x === y) return true
  if (!(x instanceof ArrayMeasures) || !(y instanceof ArrayMeasures)) return false
  return x.rows.length === y.rows.length && x.cols.length === y.cols.length && x.rows.every((_, r) => x.cols.every((__, c) => x.entry(r, c) === y.entry(r, c))) // prettier-ignore
}

function sameUnknowns({ unknowns: x }: QuantityValue, { unknowns: y }: QuantityValue): boolean {
  if (x === y) return true
  return x !== null && y !== null && x.size === y.size && [...x].every(([name, of]) => y.get(name) === of)
}

/** Rows of the table of a sweep, in the unit that it is shown in. */
export function quantityRows(value: QuantityValue, from: number, wanted: number, to: Writing): SweepRows | null {
  const shown = inShown(value, to)
  if (!shown || shown.value.kind !== 'sweep') return null
  return { ...sweepRows(shown.value, from, wanted, to), unit: shown.unit.text }
}

/** What is taken out of an array, with what it measures. */
function taken(value: QuantityValue, found: Bare, rows: readonly number[], cols: readonly number[] | null): Value {
  const { measure, unit, asWritten, unknowns } = value
  const more = { unit, asWritten, unknowns }
  // A point of a sweep measures what the sweep does.
  if (measure instanceof Measure || value.value.kind === 'sweep') return quantityOf(found, measure, more)
  const across = cols ?? measure.cols.map((_, k) => k)
  if (!shapeOf(found)) {
    const of = measure.entry(rows[0] ?? 0, across[0] ?? 0)
    return of ? quantityOf(found, of) : found
  }
  const picked = measure.picked(rows, across)
  const turned = found.kind === 'vector' && picked.rows.length === 1 && picked.cols.length > 1 ? picked.transposed : picked // prettier-ignore
  return quantityOf(found, compact(turned))
}
