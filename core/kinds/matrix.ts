import { inRows, pmatrix, rowsText } from '../format/arrays'
import type { Conventions } from '../format/conventions'
import { fractionText, fullNumber } from '../format/full'
import { numeral } from '../format/json'
import type { Json } from '../format/json'
import { numberLatex } from '../format/latex'
import { formatNumber, formatPolar, NOISE, quiet, quietBelow } from '../format/number'
import type { GridReadout } from '../format/readout'
import { largest } from '../linear/dense'
import * as G from '../numbers/gaussian'
import * as A from '../values/arithmetic'
import { ofSort } from '../values/make'
import { asMatrix, asVector, itemAt, itemsOf, matrixOf } from '../values/matrices'
import type { MatrixValue, NumberValue, VectorValue } from '../values/types'
import { csvNumber, csvText, PLAIN } from './kind'
import type { KindOf } from './kind'

/** Rows and columns of a matrix that a readout carries at most. */
const GRID_MOST = 24

/** Matrices of numbers. */
export const matrix: KindOf<MatrixValue> = {
  ...PLAIN,
  words: 'a matrix',
  text: (value, { conventions }) => written(value, (item) => formatNumber(item, conventions)),
  readout: (value, { conventions }) => grid(value, conventions),
  fields(m, { conventions }) {
    const { rows, cols, exact, dense } = m
    const inOrder = (entry: (k: number) => Json): Json =>
      Array.from({ length: rows }, (_, r) => Array.from({ length: cols }, (__, c) => entry(r * cols + c)))
    return {
      kind: 'matrix',
      rows,
      cols,
      re: inOrder((k) => numeral(dense.re[k] ?? NaN)),
      im: inOrder((k) => numeral(dense.im[k] ?? NaN)),
      exact: exact !== null,
      ...(exact ? { fraction: inOrder((k) => fractionText(exact.entries[k] ?? G.ZERO, conventions.letter)) } : {}),
    }
  },
  copies: {
    shown: (value, to) => to.text(value),
    full: (value, { conventions }) => written(value, (item) => fullNumber(item, conventions)),
    polar: (value, { conventions }) =>
      value.complex ? written(value, (item) => formatPolar(item, conventions)) : null,
    latex: (m, { conventions }) =>
      pmatrix(
        m.rows,
        m.cols,
        itemsOf(m).map((item) => numberLatex(item.im === 0 ? ofSort(item, false) : item, conventions)),
      ),
    csv(m, { conventions }) {
      const cells = itemsOf(m).map((item) => cellOf(item, conventions))
      return inRows(m.rows, m.cols, cells)
        .map((row) => row.join(','))
        .join('\r\n')
    },
    record: (value, to) => csvText(to.text(value)),
  },
  equals(a, b) {
    if (b.kind === 'vector') return sameColumns(b, a)
    return b.kind === 'matrix' ? sameEntries(a, b) : null
  },
  identical(x, y, same) {
    if (x.rows !== y.rows || x.cols !== y.cols || x.complex !== y.complex) return false
    // Exact matrices are compared by their exact entries: they can differ where the doubles do not.
    if (x.exact || y.exact)
      return x.exact !== null && y.exact !== null && itemsOf(x).every((z, k) => same(z, itemAt(y, k)))
    const [p, q] = [x.dense, y.dense]
    return p.re.every((v, k) => Object.is(v, q.re[k])) && p.im.every((v, k) => Object.is(v, q.im[k]))
  },
  entries: {
    range: 'index-row-range',
    sides: ({ rows, cols }) => [rows, cols],
    take(m, rows, cols) {
      const across = cols?.at ?? Array.from({ length: m.cols }, (_, k) => k)
      const items = rows.at.flatMap((r) => across.map((c) => itemAt(m, r * m.cols + c)))
      const [only] = items
      if (only && rows.single && (cols ? cols.single : m.cols === 1)) return only
      const part = matrixOf(rows.at.length, across.length, items)
      return cols?.single ? asVector(part) : part
    },
  },
  doubles: ({ rows, cols }) => 2 * rows * cols,
  data: ({ rows, cols, dense, complex }) => ({
    kind: 'matrix',
    rows,
    cols,
    re: dense.re,
    im: complex ? dense.im : null,
  }),
}

function written(m: MatrixValue, entry: (item: NumberValue) => string): string {
  return rowsText(m.rows, m.cols, itemsOf(m).map(entry))
}

/** A complex entry as text that spreadsheets take for a number of that sort. */
function cellOf(z: NumberValue, { letter }: Conventions): string {
  const { re, im } = quiet(z)
  return im === 0 ? csvNumber(re) : `${csvNumber(re)}${im < 0 ? '-' : '+'}${csvNumber(Math.abs(im))}${letter}`
}

function sameEntries(a: MatrixValue, b: MatrixValue): boolean {
  if (a.rows !== b.rows || a.cols !== b.cols) return false
  const others = itemsOf(b)
  return itemsOf(a).every((x, k) => A.equal(x, others[k] ?? x))
}

/** A vector and a matrix of one column are compared as columns; `null` where the vector holds other things than numbers. */
export function sameColumns(v: VectorValue, m: MatrixValue): boolean | null {
  const column = asMatrix(v)
  return column && sameEntries(m, column)
}

function grid(m: MatrixValue, conventions: Conventions): GridReadout {
  const [shownRows, shownCols] = [Math.min(m.rows, GRID_MOST), Math.min(m.cols, GRID_MOST)]
  // Noise is measured by the largest entry of the matrix.
  const most = largest(m.dense)
  const floor = Number.isFinite(most) ? NOISE * most : 0
  const shown = Array.from({ length: shownRows * shownCols }, (_, k) =>
    quietBelow(itemAt(m, Math.floor(k / shownCols) * m.cols + (k % shownCols)), floor),
  )
  const plain = (z: NumberValue): string => formatNumber(z.im === 0 ? ofSort(z, false) : z, conventions)
  return {
    shape: 'grid',
    rows: m.rows,
    cols: m.cols,
    shownRows,
    shownCols,
    cells: shown.map(plain),
    polar: m.complex ? shown.map((z) => (z.im === 0 && z.re >= 0 ? plain(z) : formatPolar(z, conventions))) : null,
  }
}
