import { eigenOf, SCALINGS } from '../matrices/eigenpairs'
import type { EigenValues, Scaling } from '../matrices/eigenpairs'
import { isFinite, zeros } from '../linear/dense'
import * as L from '../matrices/linearAlgebra'
import {
  algebraSolve,
  algebraDeterminant,
  algebraInverse,
  algebraCharpoly,
  algebraTrace,
  algebraTranspose,
} from '../algebra/polyMatrix'
import type { Context } from '../operators/context'
import { sideBySide, stacked } from '../operators/arrays'
import { hintCondition } from '../operators/conditioning'
import { integer, valueList, real, vector } from '../values/make'
import {
  asMatrix,
  ENTRIES_MOST,
  EXACT_MOST,
  fromDense,
  identityMatrix,
  itemAt,
  itemsOf,
  likeOperands,
  matrixOf,
  turned,
} from '../values/matrices'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AlgebraMatrixValue, MatrixValue, NumberValue, PartsValue, Value, VectorValue } from '../values/types'
import * as M from './matrixMeasures'
import { free, ratio } from './measures'
import type { MeasureRule } from '../signatures/definition'
import { define } from '../signatures/definition'
import type { Example, FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'

/** The chapters on matrices and on building them. */

const A = [take.matrix('A')] as const
const AB = [take.matrix('A'), take.column('b')] as const

type Apply = (m: MatrixValue, context: Context) => Value | Failure

/** A column for the linear algebra, which knows matrices only; the parameter has seen that its entries are numbers. */
function asColumn(of: MatrixValue | VectorValue): MatrixValue {
  const found = asMatrix(of)
  if (!found) throw new Error('its parameter takes a vector of numbers only')
  return found
}

/** What is particular about a function of a matrix. */
interface Particulars {
  readonly spellings?: readonly string[]
  /** What it does with unknowns among the entries. */
  readonly algebra?: (m: AlgebraMatrixValue) => Value | Failure
  /** It has a meaning for entries that are not finite, too. */
  readonly infinite?: true
  /** What its result measures. */
  readonly measures?: MeasureRule
}

function ofMatrix(
  name: string,
  summary: string,
  examples: readonly Example[],
  apply: Apply,
  { spellings = [], algebra, infinite, measures }: Particulars = {},
): FunctionDefinition {
  return define({
    ...(algebra ? { algebra: (of: AlgebraMatrixValue) => algebra(of) } : {}),
    ...(measures ? { measures } : {}),
    name,
    group: 'matrices',
    parameters: A,
    spellings,
    summary,
    examples,
    apply: ([of], context) => knowing(of, (m) => apply(m, context), infinite),
  })
}

/**
 * What cannot be known is undefined: a matrix with entries that are not finite has a result of the
 * shape that is due, and no value in it.
 */
function knowing(m: MatrixValue, apply: (m: MatrixValue) => Value | Failure, infinite = false): Value | Failure {
  if (infinite || isFinite(m.dense)) return apply(m)
  // Known exactly, and larger than a double: that is no infinity.
  if (m.exact !== null) return failure('too-large')
  const shaped = apply(diagonalOnes(m.rows, m.cols))
  return shaped.kind === 'failure' ? shaped : undefinedLike(shaped)
}

function diagonalOnes(rows: number, cols: number): MatrixValue {
  const one = zeros(rows, cols)
  for (let k = 0; k < Math.min(rows, cols); k += 1) one.re[k * (cols + 1)] = 1
  return fromDense(one)
}

/** The same kind and shape, with nothing known of it. */
function undefinedLike(value: Value): Value {
  if (value.kind === 'number') return real(NaN)
  if (value.kind === 'vector') return { ...value, items: value.items.map(undefinedLike) }
  if (value.kind === 'matrix') return fromDense({ ...value.dense, re: value.dense.re.map(() => NaN) })
  if (value.kind === 'parts')
    return { ...value, parts: new Map([...value.parts].map(([name, part]) => [name, undefinedLike(part)])) }
  return value
}

type Taking = (e: EigenValues) => Value

/** What is taken of the eigenvalues and eigenvectors; that there are too few is said. */
function eigen(name: string, a: MatrixValue, scaling: Scaling, context: Context, pick: Taking): Value | Failure {
  return knowing(a, (m) => {
    const found = eigenOf(m, name, scaling)
    if ('kind' in found) return found
    if (found.defective && context.at) context.hint('defective', context.at)
    else if (found.near && context.at) context.hint('nearly-defective', context.at)
    return pick(found)
  })
}

/** The eigenvectors of a matrix; how they are scaled is said by a second argument. */
function eigenPart(
  name: string,
  summary: string,
  examples: readonly Example[],
  pick: Taking,
  measures: MeasureRule,
): FunctionDefinition {
  return define({
    name,
    group: 'matrices',
    measures,
    parameters: [take.matrix('A'), take.optional(take.text('scaling'))],
    summary,
    examples,
    apply: ([a, wanted], context) => {
      const scaling = wanted ? SCALINGS.find((s) => s === wanted.text) : 'unit'
      if (!scaling) return failure('domain', { name, needs: `"unit", "largest" or "smallest" as its second argument` })
      return eigen(name, a, scaling, context, pick)
    },
  })
}

const pairs = ({ values, vectors }: EigenValues): PartsValue => ({
  kind: 'parts',
  of: 'eigenpairs',
  parts: new Map<string, Value>([
    ['values', valueList(values)],
    ['vectors', vectors],
  ]),
})

const TWO = '[[1, 2], [3, 4]]'

export const matrixFunctions: readonly FunctionDefinition[] = [
  ofMatrix(
    'det',
    'Determinant of a square matrix, also |A|.',
    [
      { entry: `det(${TWO})`, gives: '-2' },
      { entry: 'det([[2, 0], [0, 3]])', gives: '6' },
      { entry: 'det([[1, 2, 3], [4, 5, 6], [7, 8, 9]])', gives: '0' },
    ],
    L.determinant,
    { algebra: algebraDeterminant, infinite: true, measures: M.determinant },
  ),
  ofMatrix(
    'inv',
    'Inverse of a square matrix, also A^-1.',
    [
      { entry: `inv(${TWO})`, gives: '[[-2, 1], [1.5, -0.5]]' },
      { entry: 'inv([[2, 0], [0, 4]])', gives: '[[0.5, 0], [0, 0.25]]' },
      {
        entry: 'inv([[1, 1/2, 1/3], [1/2, 1/3, 1/4], [1/3, 1/4, 1/5]])',
        gives: '[[9, -36, 30], [-36, 192, -180], [30, -180, 180]]',
      },
    ],
    (m, context) => {
      hintCondition(m, context, context.at)
      return L.inverse(m)
    },
    { spellings: ['inverse'], algebra: algebraInverse, measures: M.inverse },
  ),
  ofMatrix(
    'transpose',
    'Transpose, also A^T.',
    [
      { entry: `transpose(${TWO})`, gives: '[[1, 3], [2, 4]]' },
      { entry: 'transpose([1, 2])', gives: '[[1, 2]]' },
      { entry: 'transpose([[1, 2, 3], [4, 5, 6]])', gives: '[[1, 4], [2, 5], [3, 6]]' },
    ],
    (m) => turned(m, false),
    { algebra: algebraTranspose, infinite: true, measures: M.transposed },
  ),
  ofMatrix(
    'tr',
    'Trace: the sum of the diagonal.',
    [
      { entry: `tr(${TWO})`, gives: '5' },
      { entry: 'tr(identity(3))', gives: '3' },
      { entry: 'tr([[0.1, 0, 0], [0, 0.2, 0], [0, 0, -0.3]])', gives: '0' },
    ],
    L.trace,
    { spellings: ['trace'], algebra: algebraTrace, infinite: true, measures: M.alongOf('the trace') },
  ),
  ofMatrix(
    'rank',
    'Rank: the number of independent rows.',
    [
      { entry: 'rank([[1, 2], [2, 4]])', gives: '1' },
      { entry: 'rank(identity(3))', gives: '3' },
      { entry: 'rank([[1, 2, 3], [4, 5, 6], [7, 8, 9]])', gives: '2' },
    ],
    L.rank,
    { measures: free },
  ),
  ofMatrix(
    'ref',
    'A row echelon form with leading ones.',
    [
      { entry: `ref(${TWO})`, gives: '[[1, 2], [0, 1]]' },
      { entry: 'ref([[0, 1], [2, 0]])', gives: '[[1, 0], [0, 1]]' },
      { entry: 'ref([[1, 2, 3], [2, 4, 7]])', gives: '[[1, 2, 3], [0, 0, 1]]' },
    ],
    L.echelon,
    { measures: M.echelon },
  ),
  ofMatrix(
    'rref',
    'The reduced row echelon form.',
    [
      { entry: `rref(${TWO})`, gives: '[[1, 0], [0, 1]]' },
      { entry: 'rref([[1, 2, 5], [3, 4, 6]])', gives: '[[1, 0, -4], [0, 1, 4.5]]' },
      { entry: 'rref([[0.1, 0.2], [0.3, 0.6]])', gives: '[[1, 2], [0, 0]]' },
    ],
    L.reduced,
    { measures: M.echelon },
  ),
  ofMatrix(
    'nullspace',
    'Columns that span the null space, the x with A·x = 0.',
    [
      { entry: 'nullspace([[1, 2], [2, 4]])', gives: '[-2, 1]' },
      { entry: 'nullspace([[1, 1]])', gives: '[-1, 1]' },
      { entry: 'nullspace([[1, 2, 3], [4, 5, 6], [7, 8, 9]])', gives: '[1, -2, 1]' },
    ],
    L.nullSpace,
    { measures: M.nullSpace },
  ),
  ofMatrix(
    'cond',
    'Condition number in the 2-norm: how many times an error may grow in solving.',
    [
      { entry: 'cond([[2, 0], [0, 1]])', gives: '2' },
      { entry: 'cond(identity(3))', gives: '1' },
      { entry: 'cond([[1, 1], [1, 1.0001]])', gives: '40002' },
    ],
    (m) => real(L.condition(m)),
    { measures: ratio },
  ),
  define({
    name: 'solve',
    measures: M.solution,
    group: 'matrices',
    parameters: AB,
    algebra: (a, b) => algebraSolve(a, b),
    summary: 'The x with A·x = b, for square A; b may have several columns.',
    examples: [
      { entry: `solve(${TWO}, [5, 6])`, gives: '[-4, 4.5]' },
      { entry: 'solve([[2, 1], [1, 3]], [3, 5])', gives: '[0.8, 1.4]' },
      { entry: 'solve([[1e-20, 1], [1, 1]], [1, 2])', gives: '[1, 1]' },
    ],
    apply: ([m, b], context) => {
      hintCondition(m, context, context.at)
      return likeOperands(
        knowing(m, (known) => L.solve(known, asColumn(b))),
        b,
      )
    },
  }),
  define({
    name: 'lsq',
    measures: M.leastSquares,
    group: 'matrices',
    parameters: AB,
    summary: 'The x for which ||A·x − b|| is least.',
    examples: [
      { entry: 'lsq([[1, 0], [1, 1], [1, 2]], [1, 2, 3])', gives: '[1, 1]' },
      { entry: 'lsq([[1], [1], [1]], [1, 2, 6])', gives: '[3]' },
      { entry: 'lsq([[1, 1], [1e-8, 0], [0, 1e-8]], [2, 1e-8, 1e-8])', gives: '[1, 1]' },
    ],
    apply: ([a, b]) =>
      likeOperands(
        knowing(a, (m) => L.leastSquares(m, asColumn(b))),
        b,
      ),
  }),
  ofMatrix(
    'lu',
    'Parts .lower .upper .permutation with permutation·A = lower·upper.',
    [
      { entry: `lu(${TWO}).upper[1, 1]`, gives: '3' },
      { entry: 'lu([[1, 2], [3, 4]]).lower[2, 1]', gives: '0.33333' },
      { entry: 'lu([[0, 1], [1, 0]]).permutation', gives: '[[0, 1], [1, 0]]' },
    ],
    L.luParts,
    { measures: M.luMeasures },
  ),
  ofMatrix(
    'qr',
    'Parts .orthonormal .triangular with A = orthonormal·triangular.',
    [
      { entry: 'qr([[3, 1], [4, 2]]).triangular[1, 1]', gives: '5' },
      { entry: 'qr([[3, 1], [4, 2]]).orthonormal[1, 1]', gives: '0.6' },
      { entry: 'qr([[3e200, 1], [4e200, 2]]).triangular[1, 1]', gives: '5e200' },
    ],
    L.qrParts,
    { measures: M.qrMeasures },
  ),
  ofMatrix(
    'svd',
    'Parts .left .singular .right with A = left·diag(singular)·rightᴴ.',
    [
      { entry: 'svd([[3, 0], [0, 4]]).singular', gives: '[4, 3]' },
      { entry: 'svd([[1, 1], [1, 1]]).singular', gives: '[2, 0]' },
      { entry: 'svd([[1e-200, 0], [0, 2e-200]]).singular', gives: '[2e-200, 1e-200]' },
    ],
    L.svdParts,
    { measures: M.svdMeasures },
  ),
  ofMatrix(
    'cholesky',
    'The lower triangular L with A = L·Lᴴ, for Hermitian positive definite A.',
    [
      { entry: 'cholesky([[4, 2], [2, 5]])', gives: '[[2, 0], [1, 2]]' },
      { entry: 'cholesky([[25, 15, -5], [15, 18, 0], [-5, 0, 11]])', gives: '[[5, 0, 0], [3, 3, 0], [-1, 1, 3]]' },
      { entry: 'cholesky([[1e-200, 0], [0, 4e-200]])', gives: '[[1e-100, 0], [0, 2e-100]]' },
    ],
    L.choleskyOf,
    { measures: M.choleskyMeasures },
  ),
  define({
    name: 'eigenvalues',
    group: 'matrices',
    measures: M.alongOf('the eigenvalues'),
    marks: 'cross',
    parameters: A,
    summary: 'Eigenvalues, in ascending order of their real parts.',
    examples: [
      { entry: 'eigenvalues([[2, 1], [1, 2]])', gives: '[1, 3]' },
      { entry: 'eigenvalues([[0, 1], [-1, 0]])', gives: '[0 + 1j, 0 - 1j]' },
      { entry: 'eigenvalues([[2, 1], [0, 2]])', gives: '[2, 2]' },
    ],
    apply: ([a], context) => eigen('eigenvalues', a, 'unit', context, (e) => valueList(e.values)),
  }),
  eigenPart(
    'eigenvectors',
    'Eigenvectors as columns, in the order of eigenvalues(A): of length 1, or with "largest" or "smallest" that entry made 1; of several units with the largest made 1.',
    [
      { entry: 'eigenvectors([[2, 0], [0, 3]])', gives: '[[1, 0], [0, 1]]' },
      { entry: 'eigenvectors([[0, 1], [-2, -3]], "largest")', gives: '[[-0.5, 1], [1, -1]]' },
      { entry: 'eigenvectors([[2, 1], [1, 2]], "largest")', gives: '[[1, 1], [-1, 1]]' },
    ],
    (e) => e.vectors,
    M.eigenvectorMeasures,
  ),
  eigenPart(
    'eigenpairs',
    'Parts .values .vectors, in the same order.',
    [
      { entry: 'eigenpairs([[2, 0], [0, 3]]).values', gives: '[2, 3]' },
      { entry: 'eigenpairs([[0, 1], [-2, -3]]).values', gives: '[-2, -1]' },
      { entry: 'eigenpairs([[1, 1e-9], [0, 1]]).values', gives: '[1, 1]' },
    ],
    pairs,
    M.eigenpairMeasures,
  ),
  ofMatrix(
    'charpoly',
    'Coefficients of det(λ·1 − A), from the highest power down.',
    [
      { entry: `charpoly(${TWO})`, gives: '[1, -5, -2]' },
      { entry: 'charpoly([[0, 1], [-2, -3]])', gives: '[1, 3, 2]' },
      { entry: 'charpoly([[0.1, 0], [0, 0.2]])', gives: '[1, -0.3, 0.02]' },
    ],
    L.charpoly,
    { algebra: algebraCharpoly, measures: M.characteristic },
  ),
  ofMatrix(
    'expm',
    'The exponential of a square matrix, Σ Aᵏ/k!.',
    [
      { entry: 'expm([[0, 0], [0, 0]])', gives: '[[1, 0], [0, 1]]' },
      { entry: 'expm([[0, 1], [0, 0]])', gives: '[[1, 1], [0, 1]]' },
      { entry: 'expm([[-49, 24], [-64, 31]])', gives: '[[-0.73576, 0.55182], [-1.4715, 1.1036]]' },
    ],
    L.exponential,
    { measures: M.matrixExponential },
  ),
]

/** So many rows and columns; with one number as many of both. */
function sizes(m: NumberValue, n: NumberValue = m): { readonly rows: number; readonly cols: number } | Failure {
  const [rows, cols] = [m.re, n.re]
  if (rows < 1 || cols < 1) return failure('domain', { name: 'the size', needs: 'whole numbers from 1 up' })
  if (rows * cols > ENTRIES_MOST) return failure('matrix-too-large', { count: rows * cols, limit: ENTRIES_MOST })
  return { rows, cols }
}

function filled(name: string, value: number, examples: readonly Example[]): FunctionDefinition {
  return define({
    name,
    group: 'building',
    parameters: [take.whole('m'), take.optional(take.whole('n'))],
    summary: `A matrix of m rows and n columns filled with ${value}; with one number a square one.`,
    examples,
    apply: ([m, n]) => {
      const shape = sizes(m, n)
      if ('kind' in shape) return shape
      const count = shape.rows * shape.cols
      if (count > EXACT_MOST) {
        const dense = zeros(shape.rows, shape.cols)
        dense.re.fill(value)
        return fromDense(dense, false)
      }
      const item = integer(value)
      return matrixOf(shape.rows, shape.cols, Array.from({ length: count }, () => item)) // prettier-ignore
    },
  })
}

function joined(
  name: string,
  summary: string,
  examples: readonly Example[],
  join: (blocks: readonly MatrixValue[]) => MatrixValue | Failure,
): FunctionDefinition {
  return define({
    name,
    group: 'building',
    measures: M.joinedBlocks(name === 'beside' ? 'cols' : 'rows'),
    parameters: [take.array('a')],
    repeats: true,
    summary,
    examples,
    apply: (args) => {
      const blocks = args.flatMap((a) => asMatrix(a) ?? [])
      const value = blocks.length === args.length ? join(blocks) : failure('entries-are-numbers', { kind: 'text' })
      return likeOperands(value, ...args)
    },
  })
}

export const buildingFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'identity',
    group: 'building',
    parameters: [take.whole('n')],
    summary: 'The identity matrix of order n.',
    examples: [
      { entry: 'identity(2)', gives: '[[1, 0], [0, 1]]' },
      { entry: 'identity(1)', gives: '[[1]]' },
      { entry: '3*identity(2)', gives: '[[3, 0], [0, 3]]' },
    ],
    apply: ([n]) => {
      const shape = sizes(n)
      return 'kind' in shape ? shape : identityMatrix(shape.rows)
    },
  }),
  filled('zero_matrix', 0, [
    { entry: 'zero_matrix(1, 3)', gives: '[[0, 0, 0]]' },
    { entry: 'zero_matrix(2, 2)', gives: '[[0, 0], [0, 0]]' },
    { entry: 'size(zero_matrix(3, 1))', gives: '[3, 1]' },
  ]),
  filled('ones', 1, [
    { entry: 'ones(2, 2)', gives: '[[1, 1], [1, 1]]' },
    { entry: 'ones(1, 3)', gives: '[[1, 1, 1]]' },
    { entry: 'ones(2, 2)*[1, 2]', gives: '[3, 3]' },
  ]),
  define({
    name: 'diag',
    measures: M.diagonal,
    group: 'building',
    parameters: [take.array('a')],
    summary: 'Of a vector the matrix with it as diagonal; of a matrix its diagonal as a vector.',
    examples: [
      { entry: 'diag([1, 2])', gives: '[[1, 0], [0, 2]]' },
      { entry: `diag(${TWO})`, gives: '[1, 4]' },
      { entry: 'det(diag([1e200, 1e-200, 2]))', gives: '2' },
    ],
    apply: ([value]) => {
      if (value?.kind === 'matrix') {
        const length = Math.min(value.rows, value.cols)
        return valueList(Array.from({ length }, (_, k) => itemAt(value, k * (value.cols + 1))))
      }
      const column = value ? asMatrix(value) : null
      if (!column) return failure('entries-are-numbers', { kind: value?.kind ?? 'text' })
      const n = column.rows
      const zero: NumberValue = integer(0)
      const items = Array.from({ length: n * n }, (_, k) => (k % (n + 1) === 0 ? itemAt(column, k / (n + 1)) : zero))
      return matrixOf(n, n, items)
    },
  }),
  joined(
    'beside',
    'Blocks of one height side by side.',
    [
      { entry: 'beside([1, 2], [3, 4])', gives: '[[1, 3], [2, 4]]' },
      { entry: 'beside(identity(2), [5, 6])', gives: '[[1, 0, 5], [0, 1, 6]]' },
      { entry: 'beside([[1], [2]], [3, 4])', gives: '[[1, 3], [2, 4]]' },
    ],
    sideBySide,
  ),
  joined(
    'beneath',
    'Blocks of one width, one below the other.',
    [
      { entry: 'beneath([1, 2], [3, 4])', gives: '[1, 2, 3, 4]' },
      { entry: 'beneath([[1, 2]], [[3, 4]])', gives: '[[1, 2], [3, 4]]' },
      { entry: 'beneath(identity(2), [[5, 6]])', gives: '[[1, 0], [0, 1], [5, 6]]' },
    ],
    stacked,
  ),
  define({
    name: 'row',
    measures: M.line('row'),
    group: 'building',
    parameters: [take.matrix('A'), take.whole('k')],
    summary: 'Row k of a matrix, also A[k, all].',
    examples: [
      { entry: `row(${TWO}, 2)`, gives: '[[3, 4]]' },
      { entry: 'row([[1, 2], [3, 4]], 1)', gives: '[[1, 2]]' },
      { entry: 'row(identity(3), 3)', gives: '[[0, 0, 1]]' },
    ],
    apply: ([m, { re: k }]) => {
      if (k < 1 || k > m.rows) return failure('index-row-range', { count: m.rows })
      return matrixOf(1, m.cols, itemsOf(m).slice((k - 1) * m.cols, k * m.cols))
    },
  }),
  define({
    name: 'col',
    measures: M.line('col'),
    group: 'building',
    parameters: [take.matrix('A'), take.whole('k')],
    summary: 'Column k of a matrix, also A[all, k].',
    examples: [
      { entry: `col(${TWO}, 2)`, gives: '[2, 4]' },
      { entry: 'col([[1, 2], [3, 4]], 1)', gives: '[1, 3]' },
      { entry: 'col(identity(2), 2)', gives: '[0, 1]' },
    ],
    apply: ([m, { re: k }]) => {
      if (k < 1 || k > m.cols) return failure('index-column-range', { count: m.cols })
      return vector(Array.from({ length: m.rows }, (_, r) => itemAt(m, r * m.cols + k - 1)))
    },
  }),
  define({
    name: 'size',
    measures: free,
    group: 'building',
    parameters: [take.matrix('A')],
    summary: 'The vector [rows, columns].',
    examples: [
      { entry: 'size([[1, 2, 3], [4, 5, 6]])', gives: '[2, 3]' },
      { entry: 'size([1, 2, 3])', gives: '[3, 1]' },
      { entry: 'size(identity(4))', gives: '[4, 4]' },
    ],
    apply: ([m]) => {
      return valueList([integer(m.rows), integer(m.cols)])
    },
  }),
]
