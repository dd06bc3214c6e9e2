import { algebraMatrices, algebraTranspose } from '../algebra/polyMatrix'
import { negated } from '../algebra/ratio'
import * as A from '../values/arithmetic'
import { degrees, radians } from '../values/convert'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { exactReal, integer } from '../values/make'
import { asMatrix, mapMatrix, turned } from '../values/matrices'
import { plainNumber, throughQuantity } from '../quantities/through'
import type { Measures } from '../quantities/shape'
import { conjugated, Measure } from '../units/measure'
import type { Kind, NumberValue, QuantityValue, Value } from '../values/types'
import { mapVector } from '../values/vectors'
import { scaleAngle } from './rules'

/** The rules of the signs that stand before or behind one operand, one entry for each kind. */

export type UnarySign = '+' | '-' | 'deg' | 'rad' | 'T' | 'H' | '*'

type Rules = { readonly [K in Kind]?: (value: Extract<Value, { kind: K }>) => Value | Failure }

const conjugate = (z: NumberValue): NumberValue => A.conjugate(z)
const itself = (value: Value): Value => value

/** Degrees or radians of a real number, and of every entry of a vector. */
function unitRules(sign: 'deg' | 'rad', convert: (x: NumberValue) => Value): Rules {
  return {
    number: (x) => (x.im === 0 ? convert(x) : failure('angle-real', { kind: 'number' })),
    vector: (v) => mapVector(v, (item) => unary(sign, item)),
    angle: () => failure('angle-twice'),
  }
}

function transposeRules(hermitian: boolean): Rules {
  const flipped = (value: Value): Value | Failure => {
    const array = asMatrix(value)
    return array ? turned(array, hermitian) : refused(hermitian ? 'H' : 'T', value)
  }
  return { number: hermitian ? conjugate : itself, angle: itself, vector: flipped, matrix: flipped }
}

const RULES: { readonly [S in UnarySign]: Rules } = {
  '-': {
    number: A.negate,
    angle: (a) => scaleAngle(a, exactReal({ n: -1, d: 1 })),
    vector: (v) => mapVector(v, negate),
    matrix: (m) => mapMatrix(m, negate),
    polynomial: negated,
    delayed: (d) => ({ ...d, ratio: d.ratio.kind === 'number' ? A.negate(d.ratio) : negated(d.ratio) }),
    'algebra-matrix': (m) => algebraMatrices('*', m, integer(-1)),
  },
  '+': { number: itself, angle: itself, polynomial: itself, delayed: itself },
  T: { ...transposeRules(false), 'algebra-matrix': algebraTranspose },
  H: transposeRules(true),
  '*': {
    number: conjugate,
    angle: itself,
    vector: (v) => mapVector(v, (item) => (item.kind === 'number' ? conjugate(item) : item)),
    matrix: (m) => mapMatrix(m, conjugate),
  },
  deg: unitRules('deg', degrees),
  rad: unitRules('rad', radians),
}

/** A sign on a value; a kind without a rule is an error that names it. */
export function unary(sign: UnarySign, value: Value): Value | Failure {
  if (value.kind === 'quantity') return unaryOnQuantity(sign, value)
  return ruled(RULES[sign], value) ?? refused(sign, value)
}

function unaryOnQuantity(sign: UnarySign, value: QuantityValue): Value | Failure {
  if (sign === 'deg' || sign === 'rad') {
    const plain = plainNumber(value)
    return plain ? unary(sign, plain) : refused(sign, value)
  }
  return throughQuantity(
    value,
    (inner) => unary(sign, inner),
    (measures) => signedMeasures(sign, measures),
  )
}

/** What of a measure a sign changes: a transpose turns rows and columns round, a conjugate is remembered. */
export function signedMeasures(sign: UnarySign, measures: Measures): Measures {
  const conjugate = sign === 'H' || sign === '*'
  if (measures instanceof Measure) return conjugate ? conjugated(measures) : measures
  // A column has its units in its rows: they are marked before it is turned.
  const marked = conjugate ? measures.scaled(conjugated) : measures
  return sign === 'T' || sign === 'H' ? marked.transposed : marked
}

function ruled<K extends Kind>(rules: Rules, value: Extract<Value, { kind: K }>): Value | Failure | null {
  const rule: ((value: Extract<Value, { kind: K }>) => Value | Failure) | undefined = rules[value.kind]
  return rule ? rule(value) : null
}

function refused(sign: UnarySign, { kind }: Value): Failure {
  switch (sign) {
    case 'deg':
    case 'rad':
      return failure('angle-real', { kind })
    case 'T':
    case 'H':
    case '*':
      return failure('wrong-kind', { what: `^${sign}`, kind })
    case '+':
      return failure('wrong-kind', { what: '+', kind })
    case '-':
      return failure('wrong-kind', { what: '−', kind })
  }
}

/** −a. */
export function negate(a: Value): Value | Failure {
  return unary('-', a)
}
