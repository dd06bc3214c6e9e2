import { isAlgebraic, isUnknown, unknownsOf } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import * as Q from '../numbers/rational'
import { asRadians, inAngleUnit } from '../values/convert'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { asMatrix, asVector, matrixOf } from '../values/matrices'
import type { Needed } from '../values/problemData'
import type {
  AlgebraMatrixValue, AngleValue, DelayedValue, MatrixValue, NumberValue, PolynomialValue, SweepValue, TextValue,
  TruthValue, Value, VectorValue,
} from '../values/types' // prettier-ignore
import type { Parameter } from './parameter'

/** The parameters that functions are declared with. What each takes, coerces and refuses stands here, and only here. */

type Read<T extends Value> = Parameter<T>['read']

const taking =
  (whole: boolean, unknowns: boolean) =>
  <T extends Value>(needs: Needed, read: Read<T>) =>
  (name: string) =>
    ({ name, needs, whole, unknowns, optional: false, read }) as const

/** A parameter of numbers: vectors and matrices go to it entry by entry. */
const ofEntries = taking(false, false)

/** A parameter that vectors and matrices come to whole. */
const ofWhole = taking(true, false)

/** A parameter of values with or without unknowns. */
const ofAlgebra = taking(true, true)

/** The same, which may be left out: only the last ones of a function can be. */
export function optional<P extends Parameter>(parameter: P): Omit<P, 'optional'> & { readonly optional: true } {
  return { ...parameter, optional: true }
}

const inRadians = (value: Value): NumberValue | null =>
  value.kind === 'number' ? value : value.kind === 'angle' ? asRadians(value) : null

/** Whole numbers are known to the unit: exact ones of any size, rounded ones while doubles tell all of them apart. */
function isWhole({ re, im, exact }: NumberValue): boolean {
  return im === 0 && (exact ? Q.isInteger(exact.re) : Number.isSafeInteger(re))
}

/** Any number; an angle counts as its radians. */
export const number = ofEntries('number', inRadians)

/** A real number; an angle counts as its radians. */
export const real = ofEntries('real', (value) => {
  const found = inRadians(value)
  return found?.im === 0 ? found : null
})

export const whole = ofEntries('whole', (value) => (value.kind === 'number' && isWhole(value) ? value : null))

/** An angle; a bare real number is read in the unit of the conventions and marked, a complex one counts radians. */
export const angle = ofEntries('angle', (value, node, context, { idleIn }): AngleValue | NumberValue | null => {
  if (value.kind === 'angle') return value
  if (value.kind !== 'number') return null
  if (value.im !== 0) return value
  context.bare(node, value)
  if (idleIn !== undefined && idleIn === context.angleUnit && !context.pointwise)
    context.hint(idleIn === 'deg' ? 'degrees-of-degrees' : 'radians-of-radians', node)
  return inAngleUnit(value, context.angleUnit)
})

/** Any number, or an angle as one. */
export const scalar = ofEntries('scalar', (value) => (value.kind === 'number' || value.kind === 'angle' ? value : null))

export const realOrAngle = ofEntries('real or angle', (value) =>
  value.kind === 'angle' || (value.kind === 'number' && value.im === 0) ? value : null,
)

export const truth = ofEntries('truth', (value): TruthValue | null => (value.kind === 'truth' ? value : null))

export const text = ofEntries('text', (value): TextValue | null => (value.kind === 'text' ? value : null))

/** A vector; a matrix of one column counts as one. */
export const vector = ofWhole('vector', (value): VectorValue | null => {
  if (value.kind === 'vector') return value
  const column = value.kind === 'matrix' && value.cols === 1 ? asVector(value) : null
  return column?.kind === 'vector' ? column : null
})

/** A matrix; a vector counts as a column, a number as one entry. */
export const matrix = ofWhole('matrix', (value): MatrixValue | null =>
  value.kind === 'number' ? matrixOf(1, 1, [value]) : asMatrix(value),
)

/** The same, a vector staying one, where what comes of it is to be one, too. */
export const column = ofWhole('matrix', (value): MatrixValue | VectorValue | null => {
  if (value.kind === 'number') return matrixOf(1, 1, [value])
  if (value.kind === 'matrix') return value
  return value.kind === 'vector' && asMatrix(value) ? value : null
})

/** A matrix, or a number that stands for one of any shape. */
export const matrixOrNumber = ofWhole('matrix', (value): MatrixValue | NumberValue | null =>
  value.kind === 'number' ? value : asMatrix(value),
)

/** A vector or a matrix, as it is. */
export const array = ofWhole('array', (value) => (value.kind === 'vector' || value.kind === 'matrix' ? value : null))

/** A polynomial or a ratio of two; a number is one without unknowns. */
export const algebraic = ofAlgebra('algebra', (value): Algebraic | null => (isAlgebraic(value) ? value : null))

/** A polynomial, or the vector of its coefficients. */
export const polynomialOrList = ofAlgebra('algebra', (value): Algebraic | VectorValue | null =>
  isAlgebraic(value) || value.kind === 'vector' ? value : null,
)

/** A name that is declared unknown, and nothing else: its own name is `unknownsOf` it. */
export const unknown = (name: string) =>
  ofAlgebra('algebra', (value, _node, _context, of): PolynomialValue | Failure => {
    const [only] = value.kind === 'polynomial' ? unknownsOf(value) : []
    if (value.kind === 'polynomial' && only !== undefined && isUnknown(value, only)) return value
    return failure('unknown-needed', { name: of.name, parameter: name })
  })(name)

/** A ratio of polynomials, with a delay before it or none. */
export type TransferValue = Algebraic | DelayedValue

/** A transfer function, or a loop. */
export const transfer = ofAlgebra('algebra', (value, _node, _context, { name }): TransferValue | Failure =>
  isAlgebraic(value) || value.kind === 'delayed' ? value : failure('transfer-needed', { name, kind: value.kind }),
)

/** The same at every point of a sweep, too. */
export const transfers = ofAlgebra(
  'algebra',
  (value, node, context, of): TransferValue | SweepValue | Failure | null =>
    value.kind === 'sweep' ? value : transfer('G').read(value, node, context, of),
)

const isRealSweep = (value: Value): value is SweepValue =>
  value.kind === 'sweep' && value.of === 'number' && value.im === null

const isTime = (value: Value): value is NumberValue | SweepValue =>
  isRealSweep(value) || (value.kind === 'number' && value.im === 0)

/** Real times: a number, or a sweep of them. */
export const times = ofAlgebra('real', (value) => (isTime(value) ? value : null))

/** The same, or an unknown that stands for the time. */
export const timesOrUnknown = ofAlgebra('real', (value) =>
  value.kind === 'polynomial' || isTime(value) ? value : null,
)

/** What is put into a system: a level, a transform, or the values of a sweep. */
export const input = ofAlgebra('algebra', (value): Algebraic | SweepValue | null =>
  isAlgebraic(value) || value.kind === 'sweep' ? value : null,
)

export const sweep = ofAlgebra('sweep', (value): SweepValue | null => (value.kind === 'sweep' ? value : null))

/** A sweep of real numbers or angles. */
export const realSweep = ofAlgebra('real sweep', (value): SweepValue | null =>
  value.kind === 'sweep' && value.of !== 'other' && value.im === null ? value : null,
)

/** Values in a row: a vector or a sweep, whichever of them is the usual one here. */
const values = (needs: 'sweep' | 'vector') =>
  ofAlgebra(needs, (value): SweepValue | VectorValue | null =>
    value.kind === 'sweep' || value.kind === 'vector' ? value : null,
  )
export const pointsOf = values('sweep')
export const entriesOf = values('vector')

/** Whatever has entries or points that can be counted. */
export const counted = ofAlgebra(
  'array',
  (value): VectorValue | MatrixValue | AlgebraMatrixValue | SweepValue | null => {
    const { kind } = value
    return kind === 'vector' || kind === 'matrix' || kind === 'algebra-matrix' || kind === 'sweep' ? value : null
  },
)

/** Whatever a term comes to: for words that evaluate their terms themselves. */
export const term = ofAlgebra('any', (value) => value)
