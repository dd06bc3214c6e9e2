import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { asRadians, inAngleUnit } from '../values/convert'
import { algebraInverse, algebraMatrices, hasUnknowns } from '../algebra/polyMatrix'
import { delayedOperator, exponentialOf } from '../algebra/delayed'
import { algebraic } from '../algebra/ratio'
import { angleOf, angleOfTurns, exactReal, real, text, truth } from '../values/make'
import type { AngleValue, Kind, NumberValue, Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AngleUnit } from '../values/convert'
import type { Comparison } from '../notation/tree'
import { matrixPower } from '../matrices/linearAlgebra'
import {
  asMatrix,
  isInner,
  itemAt,
  likeOperands,
  mapMatrix,
  product as matrixProduct,
  zipMatrices,
} from '../values/matrices'
import { equalValues, kindOf } from '../kinds/kinds'
import { mapVector, zipVectors } from '../values/vectors'

/** The rules of each operator, one entry for each pair of kinds. */

export type BinarySign = '+' | '-' | '*' | '/' | 'mod' | '^' | '||'

/** What an operator needs to know besides its operands. */
export interface OperatorContext {
  readonly angleUnit: AngleUnit
  readonly exponent: boolean
  /** Told that a bare number beside an angle was read in the unit of the conventions. */
  bareSide(side: 'left' | 'right'): void
  /** A value as it is written into a text; where that is left out, nothing is joined with texts but texts. */
  written?(value: Value): string
}

/** An operator outside an exponent, where no bare number is told of. */
export class Plainly implements OperatorContext {
  readonly exponent = false

  constructor(private readonly context: { readonly angleUnit: AngleUnit; written(value: Value): string }) {}

  written(value: Value): string {
    return this.context.written(value)
  }

  /** Asked for only where it matters: reading it makes the line depend on the unit. */
  get angleUnit(): AngleUnit {
    return this.context.angleUnit
  }

  bareSide(): void {
    // Nobody is told.
  }
}

type Rule = (a: Value, b: Value, context: OperatorContext) => Value | Failure
type Member<K extends Kind> = Extract<Value, { kind: K }>

/** By sign, then by the kind on the left, then by the kind on the right. */
const rules = new Map<BinarySign, Map<Kind, Map<Kind, Rule>>>()

function define<L extends Kind, R extends Kind>(
  left: L,
  sign: BinarySign,
  right: R,
  rule: (a: Member<L>, b: Member<R>, context: OperatorContext) => Value | Failure,
): void {
  const bySign = rules.get(sign) ?? new Map<Kind, Map<Kind, Rule>>()
  const byLeft = bySign.get(left) ?? new Map<Kind, Rule>()
  rules.set(sign, bySign)
  bySign.set(left, byLeft)
  byLeft.set(right, (a, b, context) => rule(a as Member<L>, b as Member<R>, context))
}

/** Applies an operator; a pair of kinds without a rule is an error that names both. */
export function binary(sign: BinarySign, a: Value, b: Value, context: OperatorContext): Value | Failure {
  const rule = rules.get(sign)?.get(a.kind)?.get(b.kind)
  return rule ? rule(a, b, context) : failure('wrong-kinds', { sign, left: a.kind, right: b.kind })
}

/** The commonest case of all, without the way through the table. */
export function onNumbers(sign: BinarySign | 'implicit', a: NumberValue, b: NumberValue): NumberValue | Failure {
  if (sign === '*') return A.multiply(a, b)
  if (sign === '+') return A.add(a, b)
  if (sign === '-') return A.subtract(a, b)
  if (sign === '/') return A.divide(a, b)
  return otherOnNumbers(sign, a, b)
}

function otherOnNumbers(
  sign: Exclude<BinarySign | 'implicit', '*' | '+' | '-' | '/'>,
  a: NumberValue,
  b: NumberValue,
): NumberValue | Failure {
  switch (sign) {
    case 'implicit':
      return A.multiply(a, b)
    case '^':
      return A.power(a, b)
    case '||':
      return A.parallel(a, b)
    case 'mod':
      return A.modulo(a, b)
  }
}

for (const sign of ['+', '-', '*', '/', 'mod', '^', '||'] as const) {
  define('number', sign, 'number', (a, b) => onNumbers(sign, a, b))
}
/** Most characters of a text. */
export const TEXT_MOST = 1_000_000

function joined(a: string, b: string): Value | Failure {
  return a.length + b.length > TEXT_MOST ? failure('text-too-long', { limit: TEXT_MOST }) : text(a + b)
}

define('text', '+', 'text', (a, b) => joined(a.text, b.text))
for (const kind of [
  'number',
  'angle',
  'truth',
  'vector',
  'matrix',
  'polynomial',
  'algebra-matrix',
  'quantity',
] as const) {
  define('text', '+', kind, (a, b, context) => {
    const written = context.written?.(b)
    return written === undefined ? failure('wrong-kinds', { sign: '+', left: 'text', right: kind }) : joined(a.text, written) // prettier-ignore
  })
  define(kind, '+', 'text', (a, b, context) => {
    const written = context.written?.(a)
    return written === undefined ? failure('wrong-kinds', { sign: '+', left: kind, right: 'text' }) : joined(written, b.text) // prettier-ignore
  })
}

// Angles among themselves.

function angleSum(a: AngleValue, b: AngleValue, sign: 1 | -1): AngleValue {
  const turns = a.turns && b.turns && (sign > 0 ? Q.add(a.turns, b.turns) : Q.subtract(a.turns, b.turns))
  return turns ? angleOfTurns(turns) : angleOf(a.radians + sign * b.radians)
}

define('angle', '+', 'angle', (a, b) => angleSum(a, b, 1))
define('angle', '-', 'angle', (a, b) => angleSum(a, b, -1))
define('angle', '/', 'angle', (a, b) => {
  const ratio = a.turns && b.turns && Q.divide(a.turns, b.turns)
  return ratio ? exactReal(ratio) : A.divide(asRadians(a), asRadians(b))
})
define('angle', 'mod', 'angle', (a, b) => {
  const turns = a.turns && b.turns && !Q.isZero(b.turns) ? Q.modulo(a.turns, b.turns) : null
  if (turns) return angleOfTurns(turns)
  const rest = A.modulo(real(a.radians), real(b.radians))
  return rest.kind === 'number' ? angleOf(rest.re) : rest
})

// Angles with numbers.

export function scaleAngle(a: AngleValue, factor: NumberValue): AngleValue {
  const turns = a.turns && factor.exact && Q.multiply(a.turns, factor.exact.re)
  return turns ? angleOfTurns(turns) : angleOf(a.radians * factor.re)
}

function angleTimes(a: AngleValue, z: NumberValue, context: OperatorContext): Value | Failure {
  if (z.im === 0 && !context.exponent) return scaleAngle(a, z)
  if (context.exponent) return A.multiply(asRadians(a), z)
  return failure('angle-with-complex', { sign: '*' })
}

define('angle', '*', 'number', angleTimes)
define('number', '*', 'angle', (z, a, context) => angleTimes(a, z, context))
define('angle', '/', 'number', (a, z, context) => {
  if (context.exponent) return A.divide(asRadians(a), z)
  if (z.im !== 0) return failure('angle-with-complex', { sign: '/' })
  const turns = a.turns && z.exact && Q.divide(a.turns, z.exact.re)
  if (turns) return angleOfTurns(turns)
  const ratio = A.divide(real(a.radians), z)
  return ratio.kind === 'number' ? angleOf(ratio.re) : ratio
})

function angleAndNumber(sign: 1 | -1, angleFirst: boolean) {
  return (a: AngleValue, z: NumberValue, context: OperatorContext): Value | Failure => {
    if (context.exponent) {
      const x = asRadians(a)
      const [left, right] = angleFirst ? [x, z] : [z, x]
      return sign > 0 ? A.add(left, right) : A.subtract(left, right)
    }
    if (z.im !== 0) return failure('angle-with-complex', { sign: sign > 0 ? '+' : '-' })
    context.bareSide(angleFirst ? 'right' : 'left')
    const other = inAngleUnit(z, context.angleUnit)
    return angleFirst ? angleSum(a, other, sign) : angleSum(other, a, sign)
  }
}

for (const sign of ['+', '-'] as const) {
  const value = sign === '+' ? 1 : -1
  const first = angleAndNumber(value, true)
  const second = angleAndNumber(value, false)
  define('angle', sign, 'number', first)
  define('number', sign, 'angle', (z, a, context) => second(a, z, context))
}

// Elsewhere an angle counts as its radians.

for (const sign of ['^', '||', '*'] as const) {
  define('angle', sign, 'angle', (a, b, context) => binary(sign, asRadians(a), asRadians(b), context))
}
for (const sign of ['^', '||', 'mod'] as const) {
  define('angle', sign, 'number', (a, b, context) => binary(sign, asRadians(a), b, context))
  define('number', sign, 'angle', (a, b, context) => binary(sign, a, asRadians(b), context))
}
define('number', '/', 'angle', (a, b) => A.divide(a, asRadians(b)))

// Vectors: sums entry by entry, products with numbers.

for (const sign of ['+', '-'] as const) {
  define('vector', sign, 'vector', (a, b, context) => zipVectors(a, b, (x, y) => binary(sign, x, y, context)))
  for (const other of ['number', 'angle'] as const) {
    define('vector', sign, other, () => failure('vector-plus-number', { sign, kind: 'vector' }))
    define(other, sign, 'vector', () => failure('vector-plus-number', { sign, kind: 'vector' }))
  }
}
for (const other of ['number', 'angle'] as const) {
  define('vector', '*', other, (v, x, context) => mapVector(v, (item) => binary('*', item, x, context)))
  define('vector', '/', other, (v, x, context) => mapVector(v, (item) => binary('/', item, x, context)))
  define(other, '*', 'vector', (x, v, context) => mapVector(v, (item) => binary('*', x, item, context)))
}
for (const sign of ['*', '/', '^', '||', 'mod'] as const) {
  define('vector', sign, 'vector', () => failure('vector-product', { sign }))
}

// Matrices: sums of one shape, products with numbers, matrix products, whole powers.

function matrices(a: Value, b: Value, sign: BinarySign, context: OperatorContext): Value | Failure {
  if (sign !== '||' && sign !== 'mod' && sign !== '^' && (hasUnknowns(a) || hasUnknowns(b)))
    return algebraMatrices(sign, a, b)
  const [left, right] = [asMatrix(a), asMatrix(b)]
  if (!left || !right) return failure('entries-are-numbers', { kind: 'text' })
  const value =
    sign === '*' ? matrixProduct(left, right) : zipMatrices(left, right, sign, (x, y) => binary(sign, x, y, context))
  return sign === '*' && value.kind === 'matrix' && isInner(left, right) ? itemAt(value, 0) : likeOperands(value, a, b)
}

for (const [left, right] of [
  ['matrix', 'matrix'],
  ['matrix', 'vector'],
  ['vector', 'matrix'],
] as const) {
  for (const sign of ['+', '-', '*'] as const)
    define(left, sign, right, (a, b, context) => matrices(a, b, sign, context))
  define(left, '/', right, () => failure('matrix-division'))
  for (const sign of ['^', '||', 'mod'] as const) define(left, sign, right, () => failure('vector-product', { sign }))
}
for (const other of ['number', 'angle'] as const) {
  define('matrix', '*', other, (m, x, context) => mapMatrix(m, (item) => binary('*', item, x, context)))
  define('matrix', '/', other, (m, x, context) => mapMatrix(m, (item) => binary('/', item, x, context)))
  define(other, '*', 'matrix', (x, m, context) => mapMatrix(m, (item) => binary('*', x, item, context)))
  for (const sign of ['+', '-'] as const) {
    define('matrix', sign, other, () => failure('vector-plus-number', { sign, kind: 'matrix' }))
    define(other, sign, 'matrix', () => failure('vector-plus-number', { sign, kind: 'matrix' }))
  }
}
define('matrix', '^', 'number', (m, x) => matrixPower(m, x))

// Polynomials and matrices of them.

for (const sign of ['+', '-', '*', '/', '^', '||'] as const) {
  define('polynomial', sign, 'polynomial', (p, q) => algebraic(sign, p, q))
  define('polynomial', sign, 'number', (p, x) => algebraic(sign, p, x))
  define('number', sign, 'polynomial', (x, p) => algebraic(sign, x, p))
  define('polynomial', sign, 'angle', (p, a) => algebraic(sign, p, asRadians(a)))
  define('angle', sign, 'polynomial', (a, p) => algebraic(sign, asRadians(a), p))
}
// e to the power of an unknown is a delay; what is behind one is reckoned as ratios are.

for (const sign of ['+', '-', '*', '/', '^', '||'] as const) {
  define('delayed', sign, 'delayed', (p, q) => delayedOperator(sign, p, q))
  for (const other of ['number', 'polynomial'] as const) {
    define('delayed', sign, other, (p, q) => delayedOperator(sign, p, q))
    define(other, sign, 'delayed', (p, q) => delayedOperator(sign, p, q))
  }
}
define('number', '^', 'polynomial', (x, p) =>
  x.re === Math.E && x.im === 0 && !x.exact ? exponentialOf(p) : algebraic('^', x, p),
)

for (const sign of ['+', '-', '*', '/'] as const) {
  for (const other of ['algebra-matrix', 'matrix', 'vector', 'number', 'polynomial'] as const) {
    define('algebra-matrix', sign, other, (a, b) => algebraMatrices(sign, a, b))
    define(other, sign, 'algebra-matrix', (a, b) => algebraMatrices(sign, a, b))
  }
  for (const array of ['matrix', 'vector'] as const) {
    define(array, sign, 'polynomial', (a, p) => algebraMatrices(sign, a, p))
    define('polynomial', sign, array, (p, a) => algebraMatrices(sign, p, a))
  }
}
define('algebra-matrix', '^', 'number', (m, x) => {
  if (x.re === -1 && x.im === 0) return algebraInverse(m)
  if (x.im !== 0 || !Number.isInteger(x.re) || x.re < 1 || x.re > 64) return failure('matrix-exponent')
  let value: Value | Failure = m
  for (let k = 1; k < x.re && value.kind !== 'failure'; k += 1) value = algebraMatrices('*', value, m)
  return value
})

/** A comparison of two values of one kind; numbers have an order only where both are real. */
export function compare(sign: Comparison, a: Value, b: Value, angleUnit: () => AngleUnit): Value | Failure {
  if (a.kind === 'angle' && b.kind === 'number' && b.im === 0)
    return compare(sign, a, inAngleUnit(b, angleUnit()), angleUnit)
  if (a.kind === 'number' && b.kind === 'angle' && a.im === 0)
    return compare(sign, inAngleUnit(a, angleUnit()), b, angleUnit)
  if (sign === '==' || sign === '!=') {
    const same = equalValues(a, b)
    if (same === null) return failure('not-comparable', { left: a.kind, right: b.kind })
    return truth(same === (sign === '=='))
  }
  const { ordered, order } = kindOf(a)
  if (a.kind !== b.kind || !ordered) return failure('not-comparable', { left: a.kind, right: b.kind })
  const less = order(a, b)
  if (less === null) {
    const complex = a.kind === 'number' && b.kind === 'number' && (a.im !== 0 || b.im !== 0)
    return complex ? failure('no-order', { sign }) : truth(false)
  }
  const results = { '<': less < 0, '<=': less <= 0, '>': less > 0, '>=': less >= 0 }
  return truth(results[sign])
}
