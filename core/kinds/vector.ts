import { pmatrix } from '../format/arrays'
import { fractionText } from '../format/full'
import { numeral } from '../format/json'
import { formatNumber, isComplex, twin } from '../format/number'
import { formatAngle } from '../format/parts'
import type { VectorSize } from '../format/readout'
import type { Conventions } from '../format/conventions'
import type { Data } from '../measured/data'
import { locusPicture } from '../control/locusPicture'
import { drawnVector } from '../scene/drawn'
import { argumentOf, fromComponents, vector as vectorOf } from '../values/make'
import { euclideanNorm } from '../values/vectors'
import type { NumberValue, VectorValue } from '../values/types'
import { angleHead, csvText, PLAIN } from './kind'
import type { Fields, KindOf } from './kind'
import { sameColumns } from './matrix'
import { doublesOfAll } from './weight'

/** Entries of a vector that a readout carries at most. */
const ENTRIES_SHOWN = 60

/** The entries, where all of them are numbers. */
function numbersOf({ items }: VectorValue): readonly NumberValue[] | null {
  const numbers = items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  return numbers.length === items.length ? numbers : null
}

/** Columns of values, and values in a row. */
export const vector: KindOf<VectorValue> = {
  ...PLAIN,
  words: 'a vector',
  text: ({ items }, to) => `[${items.map((item) => to.text(item)).join(', ')}]`,
  readout(value, to) {
    const { items } = value
    if (items.some((item) => item.kind === 'polynomial'))
      return {
        shape: 'algebra',
        latex: column(items.map((item) => to.latex(item))),
        text: to.text(value),
      }
    const entries = items
      .slice(0, ENTRIES_SHOWN)
      .map((item) => (item.kind === 'number' && isComplex(item) ? twin(item, to.conventions) : to.text(item)))
    return { shape: 'list', entries, count: items.length, size: sizeOf(value, to.conventions) }
  },
  fields(value, to): Fields {
    const numbers = numbersOf(value)
    if (!numbers) return { kind: 'vector', exact: false, items: value.items.map((item) => to.fields(item)) }
    return { kind: 'vector', ...numberFields(numbers, to.conventions) }
  },
  copies: {
    shown: (value, to) => to.text(value),
    full: ({ items }, to) => `[${items.map((item) => to.full(item)).join(', ')}]`,
    polar({ items }, to) {
      const polar = items.map((item) => to.polar(item))
      if (polar.every((text) => text === null)) return null
      return `[${items.map((item, k) => polar[k] ?? to.text(item)).join(', ')}]`
    },
    latex: ({ items }, to) => column(items.map((item) => to.latex(item))),
    csv({ items }, to) {
      const complex = items.some((item) => item.kind === 'number' && isComplex(item))
      const angles = items.every((item) => item.kind === 'angle')
      const head = complex ? ['re,im'] : angles ? [angleHead(to.conventions)] : []
      return [...head, ...items.map((item) => to.record(item, complex))].join('\r\n')
    },
    record: (value, to) => csvText(to.text(value)),
  },
  equals(a, b, equal) {
    if (b.kind === 'matrix') return sameColumns(a, b)
    if (b.kind !== 'vector') return null
    return a.items.length === b.items.length && a.items.every((x, k) => equal(x, b.items[k] ?? x) === true)
  },
  identical: (a, b, same) =>
    a.items.length === b.items.length && a.items.every((item, k) => same(item, b.items[k] ?? b)),
  entries: {
    range: 'entry-range',
    sides: ({ items }) => [items.length, null],
    take({ items }, { at, single }) {
      const found = at.flatMap((k) => items[k] ?? [])
      const [only] = found
      return single && only ? only : vectorOf(found)
    },
  },
  doubles: ({ items }, of) => doublesOfAll(items, of),
  drawn(value, role, to, shown) {
    const drawn = drawnVector(value, role, to, shown)
    const branches = drawn && value.locusOf ? locusPicture(value.locusOf) : null
    return drawn && branches ? { ...drawn, branches } : drawn
  },
  point({ items }) {
    if (items.length !== 2) return null
    const [x, y] = items
    return x?.kind === 'number' && y?.kind === 'number' && x.im === 0 && y.im === 0 ? { re: x.re, im: y.re } : null
  },
  data: (value) => columnData(value),
}

const column = (entries: readonly string[]): string => pmatrix(entries.length, 1, entries)

function numberFields(numbers: readonly NumberValue[], { letter }: Conventions): Fields {
  const exact = numbers.flatMap((z) => (z.exact ? [z.exact] : []))
  const fields = {
    exact: exact.length === numbers.length,
    re: numbers.map((z) => numeral(z.re)),
    im: numbers.map((z) => numeral(z.im)),
  }
  return fields.exact ? { ...fields, fraction: exact.map((z) => fractionText(z, letter)) } : fields
}

function sizeOf(v: VectorValue, conventions: Conventions): VectorSize | null {
  const numbers = v.list ? null : numbersOf(v)
  if (!numbers || numbers.length < 2) return null
  const complex = numbers.some((z) => z.complex)
  if (!complex && numbers.length > 3) return null
  const length = euclideanNorm(v)
  if (length.kind !== 'number') return null
  const [x, y] = numbers
  const inPlane = numbers.length === 2 && !complex && x && y
  const direction = inPlane ? argumentOf(fromComponents(x, y)) : null
  return {
    magnitude: formatNumber(length, conventions),
    direction: direction ? formatAngle(direction, conventions) : null,
  }
}

/** Numbers as a matrix of one column. */
function columnData(v: VectorValue): Data | null {
  const numbers = numbersOf(v)
  if (!numbers) return null
  const part = (of: (z: NumberValue) => number): Float64Array => Float64Array.from(numbers, of)
  const im = numbers.some(isComplex) ? part((z) => z.im) : null
  return { kind: 'matrix', rows: numbers.length, cols: 1, re: part((z) => z.re), im }
}
