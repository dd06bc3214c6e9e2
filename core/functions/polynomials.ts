import * as P from '../algebra/polynomial'
import { isZero } from '../values/beyond'
import { rootsOf } from '../algebra/roots'
import type { Roots } from '../algebra/roots'
import { parts } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import type { Node } from '../notation/tree'
import type { Context } from '../operators/context'
import { integer, valueList } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value, VectorValue } from '../values/types'
import { first, free } from './measures'
import { coefficientMeasures, ofUnknown } from './otherMeasures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'

/** The chapter on polynomials. An example has its unknown from the surroundings: `s`. */

const p = [take.algebraic('p')] as const
const listOrPolynomial = [take.polynomialOrList('p')] as const

/** A polynomial (no ratio) in at most one unknown, or a vector of coefficients, from the highest power down. */
function listOf(name: string, value: Algebraic | VectorValue): readonly NumberValue[] | Failure {
  if (value.kind === 'vector') {
    const numbers = value.items.flatMap((item) => (item.kind === 'number' ? [item] : []))
    if (numbers.length === value.items.length) return numbers
    return failure('argument-kind', { signature: `${name}(p)`, name: 'p', needs: 'algebra', kind: value.kind })
  }
  const { top, bottom } = parts(value)
  if (P.degree(bottom) > 0) return failure('ratio-given', { name })
  return P.coefficients(top) ?? failure('one-unknown', { name, names: top.unknowns.join(', ') })
}

/** Roots of rounded coefficients that may be off by a larger share of their size are told of. */
const OFF_TOLD = 1e-10

function roots(name: string, list: readonly NumberValue[] | Failure, context: Context): Value | Failure {
  if ('kind' in list) return list
  if (list.length < 2 || list.slice(0, -1).every((c) => isZero(c))) {
    const [only] = list.slice(-1)
    if (only && isZero(only)) return failure('roots-of-zero')
    return failure('no-roots', { name })
  }
  const found = rootsOf(list)
  if ('kind' in found) return found
  if (context.at) hintRoots(found, context.at, context)
  return valueList(found.values)
}

/** Says of roots that lie near one another, or may be off by much, that they do. */
export function hintRoots({ clustered, off }: Pick<Roots, 'clustered' | 'off'>, node: Node, context: Context): void {
  const share = off.toExponential(0)
  if (clustered) context.hint('roots-cluster', node, { off: share })
  else if (off > OFF_TOLD) context.hint('roots-off', node, { off: share })
}

function ofRatio(name: 'zeros' | 'poles', value: Algebraic, context: Context): Value | Failure {
  const { top, bottom } = parts(value)
  const wanted = name === 'zeros' ? top : bottom
  const list = P.coefficients(wanted)
  if (!list) return failure('one-unknown', { name, names: wanted.unknowns.join(', ') })
  return roots(name, list, context)
}

export const polynomialFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'roots',
    measures: ofUnknown,
    group: 'polynomials',
    marks: 'cross',
    parameters: listOrPolynomial,
    summary:
      'The roots of a polynomial, or of its coefficients from the highest power down, each as often as it counts.',
    examples: [
      { entry: 'roots([1, 2, 5])', gives: '[-1 - 2j, -1 + 2j]' },
      { entry: 'roots([1, -3, 2])', gives: '[1, 2]' },
      { entry: 'roots([1, -2, 1])', gives: '[1, 1]' },
    ],
    apply: ([of], context) => roots('roots', listOf('roots', of), context),
  }),
  define({
    name: 'coefficients',
    measures: coefficientMeasures,
    group: 'polynomials',
    parameters: listOrPolynomial,
    summary: 'The coefficients of a polynomial in one unknown, from the highest power down.',
    examples: [
      { before: ['unknown s'], entry: 'coefficients((s + 1)^2)', gives: '[1, 2, 1]' },
      { before: ['unknown s'], entry: 'coefficients(s^3 - 1)', gives: '[1, 0, 0, -1]' },
      { before: ['unknown s'], entry: 'coefficients((s + 1)^10)[6]', gives: '252' },
    ],
    apply: ([of]) => {
      const list = listOf('coefficients', of)
      return 'kind' in list ? list : valueList(list)
    },
  }),
  define({
    name: 'expand',
    measures: first,
    group: 'polynomials',
    parameters: p,
    summary: 'A polynomial multiplied out. Every result already is; of a ratio both parts are.',
    examples: [
      { before: ['unknown s'], entry: 'expand(s*(s + 2))', gives: 's^2 + 2s' },
      { before: ['unknown s'], entry: 'expand((s + 1)^3)', gives: 's^3 + 3s^2 + 3s + 1' },
      { before: ['unknown s'], entry: 'expand((s + 0.1)*(s + 0.2))', gives: 's^2 + 0.3s + 0.02' },
    ],
    apply: ([value]) => value,
  }),
  define({
    name: 'degree',
    measures: free,
    group: 'polynomials',
    parameters: p,
    summary: 'The degree of a polynomial: the highest sum of powers of a term.',
    examples: [
      { before: ['unknown s'], entry: 'degree(s^3 - s)', gives: '3' },
      { entry: 'degree(5)', gives: '0' },
      { before: ['unknown s'], entry: 'degree((s + 1)^5 - s^5)', gives: '4' },
    ],
    apply: ([value]) => {
      const { top, bottom } = parts(value)
      return P.degree(bottom) > 0 ? failure('ratio-given', { name: 'degree' }) : integer(P.degree(top))
    },
  }),
  define({
    name: 'zeros',
    measures: ofUnknown,
    group: 'polynomials',
    marks: 'ring',
    parameters: [take.algebraic('H')],
    summary: 'The zeros of a ratio of polynomials: the roots of its numerator.',
    examples: [
      { before: ['unknown s'], entry: 'zeros((s + 2)/(s^2 + 1))', gives: '[-2]' },
      { before: ['unknown s'], entry: 'zeros((s^2 + 1)/s)', gives: '[0 - 1j, 0 + 1j]' },
      { before: ['unknown s'], entry: 'zeros((s^2 - 3s + 2)/(s - 1))', gives: '[2]' },
    ],
    apply: ([h], context) => ofRatio('zeros', h, context),
  }),
  define({
    name: 'poles',
    measures: ofUnknown,
    group: 'polynomials',
    marks: 'cross',
    parameters: [take.algebraic('H')],
    summary: 'The poles of a ratio of polynomials: the roots of its denominator.',
    examples: [
      { before: ['unknown s'], entry: 'poles(s/(s^2 + 3s + 2))', gives: '[-2, -1]' },
      { before: ['unknown s'], entry: 'poles(1/(s^2 + 2s + 5))', gives: '[-1 - 2j, -1 + 2j]' },
      { before: ['unknown s'], entry: 'poles((s + 1)/((s + 1)*(s + 2)))', gives: '[-2]' },
    ],
    apply: ([h], context) => ofRatio('poles', h, context),
  }),
]
