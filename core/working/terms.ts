import * as N from '../notation/nodes'
import type { ChainSign, Form, Node, Sum, UnitTerm, Valued } from '../notation/tree'
import * as G from '../numbers/gaussian'
import { coherentUnit } from '../units/named'
import type { Measure } from '../units/measure'
import * as A from '../values/arithmetic'
import { exactNumber, exactReal, integer, multipleOfPi, real } from '../values/make'
import type { NumberValue, Value } from '../values/types'

/** Terms that no line has: what stands in a working. They have no place in a text. */

export const valued = (value: Value, form: Form = 'plain'): Valued => N.valued(value, form, 0, 0)
export const whole = (n: number): Valued => valued(integer(n))
export const sum = (a: Node, b: Node, sign: Sum['sign'] = '+'): Node => N.sum(sign, a, b, 0, 0)
export const difference = (a: Node, b: Node): Node => N.sum('-', a, b, 0, 0)
export const times = (a: Node, b: Node, sign: ChainSign = '*'): Node => N.product(sign, a, b, 0, 0)
export const over = (a: Node, b: Node): Node => N.product('/', a, b, 0, 0)
export const power = (a: Node, b: Node): Node => N.power(a, b, 0, 0)
export const squared = (a: Node): Node => N.power(a, whole(2), 0, 0)
export const grouped = (a: Node): Node => N.group(a, false, 0, 0)
export const radical = (a: Node): Node => N.root(a, 0, 0)
export const minus = (a: Node): Node => N.sign('-', a, 0, 0)
export const polar = (size: Node, angle: Node): Node => N.polar(size, angle, 0, 0)
export const call = (name: string, ...args: readonly Node[]): Node => N.apply(name, true, null, args, 0, 0)
export const column = (entries: readonly Node[]): Node => N.list(entries, 0, 0)
export const equation = (left: Node, right: Node): Node => N.compare(left, [{ sign: '==', node: right }], 0, 0)
export const named = (text: string): Node => N.name(text, 0, 0)

const IMAGINARY = N.constant('imaginary', exactNumber(G.I, true), 0, 0)

/** j times a term. */
export const imaginary = (a: Node): Node => N.product('implicit', IMAGINARY, a, 0, 0)

/** Terms one after another with one sign between them; `none` where there is none. */
export function joined(terms: readonly Node[], sign: '+' | '*', none: Node): Node {
  const [first, ...rest] = terms
  if (!first) return none
  return rest.reduce((left, right) => (sign === '+' ? sum(left, right) : times(left, right)), first)
}

/** A number in the coherent unit of a measure. */
export function inUnitOf(node: Node, measure: Measure | null): Node {
  if (measure === null) return node
  const unit = coherentUnit(measure)
  if (unit.text === '') return node
  const term: UnitTerm = { unit, words: [], again: null, from: 0, to: 0 }
  return N.united(node, term, 0, 0)
}

/** The real part, exact where the number is. */
export function realPart(z: NumberValue): NumberValue {
  if (z.pi) return multipleOfPi(G.fromRational(z.pi.re))
  return z.exact ? exactReal(z.exact.re) : real(z.re)
}

/** The imaginary part, a real number. */
export function imaginaryPart(z: NumberValue): NumberValue {
  if (z.pi) return multipleOfPi(G.fromRational(z.pi.im))
  return z.exact ? exactReal(z.exact.im) : real(z.im)
}

export const negated = (z: NumberValue): NumberValue => A.negate(z)
export const isZero = (z: NumberValue): boolean => z.re === 0 && z.im === 0
export const isNegative = (z: NumberValue): boolean => z.im === 0 && z.re < 0

/** The number that a result is; a number that is not one is undefined. */
export function numberOr(value: Value | { readonly kind: 'failure' }): NumberValue {
  return value.kind === 'number' ? value : real(NaN)
}
