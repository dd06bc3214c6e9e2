import { pmatrix, rowsText } from '../format/arrays'
import { algebraMatrix as matrixOf } from '../algebra/polyMatrix'
import type { AlgebraMatrixValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf, Writing } from './kind'

const latex = ({ rows, cols, items }: AlgebraMatrixValue, to: Writing): string =>
  pmatrix(
    rows,
    cols,
    items.map((item) => to.latex(item)),
  )

/** Matrices with unknowns in them. */
export const algebraMatrix: KindOf<AlgebraMatrixValue> = {
  ...PLAIN,
  words: 'a matrix with unknowns',
  text: ({ rows, cols, items }, to) =>
    rowsText(
      rows,
      cols,
      items.map((item) => to.text(item)),
    ),
  readout: (value, to) => ({ shape: 'algebra', latex: latex(value, to), text: to.text(value) }),
  fields: (value, to) => ({
    kind: 'matrix',
    rows: value.rows,
    cols: value.cols,
    exact: false,
    text: to.text(value),
    items: value.items.map((item) => to.fields(item)),
  }),
  copies: { ...plainCopies<AlgebraMatrixValue>((text) => text), latex },
  equals: () => null,
  entries: {
    range: 'index-row-range',
    sides: ({ rows, cols }) => [rows, cols],
    take(m, rows, cols) {
      const across = cols?.at ?? Array.from({ length: m.cols }, (_, k) => k)
      const items = rows.at.flatMap((r) => across.flatMap((c) => m.items[r * m.cols + c] ?? []))
      const [only] = items
      return items.length === 1 && only ? only : matrixOf(rows.at.length, across.length, items)
    },
  },
}
