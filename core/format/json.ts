import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Gaussian } from '../numbers/gaussian'
import { unknownsOf } from '../algebra/ratio'
import { pointsOf } from '../values/sweeps'
import type { MatrixValue, SweepValue, Value } from '../values/types'
import type { Conventions } from './conventions'
import { formatPolar, formatRectangular, formatSingle } from './readout'

type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json }

/** JSON has no infinities: they are texts. */
function numeral(x: number): number | string {
  return Number.isFinite(x) ? x : Number.isNaN(x) ? 'NaN' : x > 0 ? 'Infinity' : '-Infinity'
}

/** `1/3`, `1/2 + 3/4j`: an exact value as text. */
export function fractionText(exact: Gaussian, letter: string): string {
  const re = Q.toText(exact.re)
  if (G.isReal(exact)) return re
  const negative = Q.sign(exact.im) < 0
  const size = negative ? Q.negate(exact.im) : exact.im
  const im = Q.isInteger(size) ? `${Q.toText(size)}${letter}` : `${size.n}${letter}/${size.d}`
  if (Q.isZero(exact.re)) return negative ? `-${im}` : im
  return `${re} ${negative ? '-' : '+'} ${im}`
}

/** A vector of numbers as arrays of parts; one of other kinds as a list of values. */
function vectorFields(items: readonly Value[], conventions: Conventions): Readonly<Record<string, Json>> {
  const numbers = items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  if (numbers.length < items.length)
    return { kind: 'vector', exact: false, items: items.map((item) => valueFields(item, conventions)) }
  const exact = numbers.flatMap((z) => (z.exact ? [z.exact] : []))
  const fields = {
    kind: 'vector',
    exact: exact.length === numbers.length,
    re: numbers.map((z) => numeral(z.re)),
    im: numbers.map((z) => numeral(z.im)),
  }
  return fields.exact ? { ...fields, fraction: exact.map((z) => fractionText(z, conventions.letter)) } : fields
}

/** A matrix as arrays of rows. */
function matrixFields(m: MatrixValue, conventions: Conventions): Readonly<Record<string, Json>> {
  const rows = (entry: (k: number) => Json): Json =>
    Array.from({ length: m.rows }, (_, r) => Array.from({ length: m.cols }, (__, c) => entry(r * m.cols + c)))
  const { exact, dense } = m
  return {
    kind: 'matrix',
    rows: m.rows,
    cols: m.cols,
    re: rows((k) => numeral(dense.re[k] ?? NaN)),
    im: rows((k) => numeral(dense.im[k] ?? NaN)),
    exact: exact !== null,
    ...(exact ? { fraction: rows((k) => fractionText(exact.entries[k] ?? G.ZERO, conventions.letter)) } : {}),
  }
}

/** A sweep as arrays of parts, of radians, or as a list of values. */
function sweepFields(sweep: SweepValue, conventions: Conventions): Readonly<Record<string, Json>> {
  const { count, re, im } = sweep
  const list = (x: Float64Array): Json[] => Array.from(x, numeral)
  if (sweep.of === 'angle') return { kind: 'sweep', count, radians: list(re) }
  if (sweep.of === 'number')
    return { kind: 'sweep', count, re: list(re), im: im ? list(im) : Array.from({ length: count }, () => 0) }
  return { kind: 'sweep', count, items: pointsOf(sweep).map((item) => valueFields(item, conventions)) }
}

/** The fields that a kind adds to a line of the headless contract. */
export function valueFields(value: Value, conventions: Conventions): Readonly<Record<string, Json>> {
  switch (value.kind) {
    case 'number': {
      const fields = {
        kind: 'number',
        exact: value.exact !== null,
        re: numeral(value.re),
        im: numeral(value.im),
        rectangular: formatSingle(value, conventions),
        polar: formatPolar(value, conventions),
      }
      const rectangular = value.im !== 0 || value.complex ? formatRectangular(value, conventions) : fields.rectangular
      return value.exact
        ? { ...fields, rectangular, fraction: fractionText(value.exact, conventions.letter) }
        : { ...fields, rectangular }
    }
    case 'angle':
      return { kind: 'angle', radians: numeral(value.radians), text: formatSingle(value, conventions) }
    case 'matrix':
      return matrixFields(value, conventions)
    case 'sweep':
      return sweepFields(value, conventions)
    case 'polynomial':
      return { kind: 'polynomial', text: formatSingle(value, conventions), unknowns: [...unknownsOf(value)] }
    case 'algebra-matrix':
      return {
        kind: 'matrix',
        rows: value.rows,
        cols: value.cols,
        exact: false,
        text: formatSingle(value, conventions),
        items: value.items.map((item) => valueFields(item, conventions)),
      }
    case 'parts':
      return {
        kind: 'parts',
        parts: Object.fromEntries([...value.parts].map(([name, part]) => [name, valueFields(part, conventions)])),
      }
    case 'vector':
      return vectorFields(value.items, conventions)
    case 'text':
      return { kind: 'text', value: value.text }
    case 'truth':
      return { kind: 'truth', value: value.truth }
    case 'check':
      return {
        kind: 'check',
        pass: value.pass,
        figures: value.figures,
        left: valueFields(value.left, conventions),
        right: valueFields(value.right, conventions),
      }
    case 'function':
      return { kind: 'function' }
  }
}
