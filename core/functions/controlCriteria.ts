import { algebraMatrix } from '../algebra/polyMatrix'
import type { Algebraic } from '../algebra/ratio'
import { coefficientsOf, juryArray, routhArray } from '../control/criteria'
import type { Coefficients } from '../control/criteria'
import { stableRanges } from '../control/stableRange'
import type { Limit, StableRange } from '../control/stableRange'
import { sidesIn } from '../control/stability'
import { realFraction } from '../control/transfer'
import * as W from '../control/whole'
import type { Node } from '../notation/tree'
import type { Context } from '../operators/context'
import * as Q from '../numbers/rational'
import { integer, real } from '../values/make'
import { matrixOf } from '../values/matrices'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { free } from './measures'

/** Of the chapter on control: the arrays of Routh and of Jury, with what they say. */

const p = [take.polynomialOrList('p')] as const

function arrayOf(rows: readonly (readonly Algebraic[])[], exact: boolean): Value | Failure {
  const width = Math.max(...rows.map((row) => row.length))
  const items = rows.flatMap((row) => Array.from({ length: width }, (_, k) => row[k] ?? integer(0)))
  const numbers = items.flatMap((item) => (item.kind === 'number' ? [exact ? item : real(item.re)] : []))
  if (numbers.length === items.length) return matrixOf(rows.length, width, numbers)
  return algebraMatrix(rows.length, width, items)
}

/** How many roots lie where they should not, or for which values of the parameter none does. */
function tell(given: Coefficients, discrete: boolean, node: Node | null, context: Context): void {
  if (!node) return
  if (given.parameter !== null) {
    const ranges = stableRanges(given, discrete)
    if (ranges) context.hint('stable-range', node, { range: rangeWords(ranges, given.parameter, given.exact, context) })
    return
  }
  const numbers = given.list.flatMap((item) => (item.kind === 'number' ? [realFraction(item) ?? Q.ZERO] : []))
  const sides = sidesIn(W.trimmed([...W.overOne(numbers).whole].reverse()), discrete)
  if (sides) context.hint('roots-counted', node, { ...sides, discrete })
}

/** `0 < K < 30`. */
function rangeWords(ranges: readonly StableRange[], name: string, exactly: boolean, context: Context): string {
  const limit = ({ exact, x }: Limit): string => {
    if (exact && exactly) return Q.toText(exact)
    return context.written(real(x))
  }
  return ranges
    .map(({ from, to }) => {
      if (from && to) return `${limit(from)} < ${name} < ${limit(to)}`
      return from ? `${name} > ${limit(from)}` : to ? `${name} < ${limit(to)}` : `every ${name}`
    })
    .join(' or ')
}

function constant(given: Coefficients): boolean {
  return given.list.length < 2
}

export const criterionFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'routh',
    group: 'control',
    parameters: p,
    measures: free,
    summary:
      'The array of Routh. Its line says how many roots lie to the right; with a parameter, for which values none does. A first entry of 0 becomes ε, a row of zeros the derivative of the one above.',
    examples: [
      { before: ['unknown s'], entry: 'routh(s^3 + 6s^2 + 11s + 6)', gives: '[[1, 11], [6, 6], [10, 0], [6, 0]]' },
      { before: ['unknown s'], entry: 'routh(s^4 + s^3 + 3s^2 + 2s + 2)', gives: '[[1, 3, 2], [1, 2, 0], [1, 2, 0], [2, 0, 0], [2, 0, 0]]' }, // prettier-ignore
      { before: ['unknown s, K'], entry: 'routh(s^3 + 3s^2 + 2s + K)', gives: '[[1, 2], [3, K], [-0.33333K + 2, 0], [K, 0]]' }, // prettier-ignore
    ],
    apply: ([of], context) => {
      const given = coefficientsOf('routh', of)
      if ('kind' in given) return given
      if (constant(given)) return failure('no-roots', { name: 'roots' })
      const found = routhArray(given)
      if ('kind' in found) return found
      tell(given, false, context.at, context)
      if (context.at && found.small.length > 0)
        context.hint('routh-small', context.at, { rows: found.small.join(', ') })
      if (context.at && found.auxiliary.length > 0) context.hint('routh-auxiliary', context.at, { rows: found.auxiliary.join(', ') }) // prettier-ignore
      return arrayOf(found.rows, given.exact)
    },
  }),
  define({
    name: 'jury',
    group: 'control',
    parameters: p,
    measures: free,
    summary:
      'The array of Jury, coefficients from the lowest power up. Its line says how many roots do not lie inside the unit circle; with a parameter, for which values all do.',
    examples: [
      { before: ['unknown z'], entry: 'jury(z^2 - z + 0.25)', gives: '[[0.25, -1, 1]]' },
      {
        before: ['unknown z'],
        entry: 'jury(2z^3 + z^2 - 1)',
        gives: '[[-1, 0, 1, 2], [2, 1, 0, -1], [-3, -2, -1, 0]]',
      },
      { before: ['unknown z'], entry: 'jury(4z - 1)', gives: '[[-1, 4]]' },
    ],
    apply: ([of], context) => {
      const given = coefficientsOf('jury', of)
      if ('kind' in given) return given
      if (constant(given)) return failure('no-roots', { name: 'roots' })
      const found = juryArray(given)
      if (!Array.isArray(found)) return 'kind' in found ? found : failure('too-large')
      tell(given, true, context.at, context)
      return arrayOf(found, given.exact)
    },
  }),
]
