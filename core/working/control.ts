import * as P from '../algebra/polynomial'
import { polynomialValue } from '../algebra/ratio'
import { coefficientsOf, routhArray } from '../control/criteria'
import { partialFractions } from '../control/fractions'
import type { RealFactor } from '../control/fractions'
import { marginsOf } from '../control/margins'
import { transferOf } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import { angleOf, exactReal, integer, real } from '../values/make'
import { bare } from '../values/quantity'
import type { NumberValue, Value } from '../values/types'
import { difference, equation, grouped, joined, named, negated, over, power, sum, times, valued, whole } from './terms'
import type { Done, Progress } from './work'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'

/** Loops, partial fractions, the array of Routh and margins, as they are worked out on paper. */

/** G/(1 + G·H). */
export function closedLoop(p: Progress): Done | null {
  const g = grouped(p.operand(0).node)
  const loop = p.operands.length > 1 ? times(g, grouped(p.operand(1).node)) : g
  return p.rewrite('loop-by-feedback', over(g, grouped(sum(whole(1), loop))))
}

export function sensitivityOf(p: Progress): Done | null {
  return p.rewrite('loop-sensitivity', over(whole(1), grouped(sum(whole(1), grouped(p.operand(0).node)))))
}

const transferIn = (value: Value): Transfer | null => {
  const g = transferOf('working', bare(value))
  return 'kind' in g || g.unknown === null ? null : g
}

/** The factors below; of each simple real pole the factor before its fraction, by covering it up; the rest by equating. */
export function partialFractionsChapter(p: Progress): Done | null {
  const g = p.hasUnits ? null : transferIn(p.operand(0).value)
  const found = g && partialFractions(g)
  const value = bare(p.operand(0).value)
  if (!g || !found || g.unknown === null || value.kind !== 'polynomial' || !value.bottom) return p.done('fractions-sum')
  const { unknown } = g
  const factors = found.fractions.map(({ factor }) => factor)
  const lead = value.bottom.terms[0]?.factor ?? integer(1)
  const node = (factor: RealFactor): Node => grouped(valued(polynomialValue(P.fromCoefficients(unknown, [...factor.list].reverse())))) // prettier-ignore
  const all = factors.map((factor) => (factor.times > 1 ? power(node(factor), whole(factor.times)) : node(factor)))
  const exact = factors.every(({ list }) => list.every((c) => c.exact))
  if (exact && lead.exact) {
    const product = joined(isOne(lead) ? all : [valued(lead), ...all], '*', whole(1))
    p.aside('factored-below', { kind: 'equation', node: equation(valued(polynomialValue(value.bottom)), product) }, '=')
  }
  const top = value.top
  let equated = 0
  for (const { factor, numerators } of found.fractions) {
    const [c = integer(0)] = numerators[0] ?? []
    const simple = factor.times === 1 && factor.list.length === 2 && exact && c.exact && lead.exact && g.exact
    if (!simple) {
      equated += numerators.length * (factor.list.length - 1)
      continue
    }
    const at = valued(negated(factor.list[0] ?? integer(0)))
    const others = factors.filter((other) => other !== factor)
    const below = others.map((other) => valueAt(other.list, other.times, factor))
    const above = valueOf(P.coefficients(top) ?? [], factor)
    if (!above || below.includes(null)) continue
    const numbers = below.flatMap((x) => (x ? [valued(x)] : []))
    const covered = joined(isOne(lead) ? numbers : [valued(lead), ...numbers], '*', whole(1))
    const letter = named(unknown)
    p.aside(
      'covered-up',
      { kind: 'equation', node: equation(letter, at) },
      '⇔',
      'The factor that is 0 there is covered up.',
    )
    p.aside('covered-up', { kind: 'equation', node: equation(over(valued(above), grouped(covered)), valued(c)) }, '=')
  }
  const says = equated > 0 ? `${equated} more ${equated === 1 ? 'factor comes' : 'factors come'} from equating coefficients.` : undefined // prettier-ignore
  return p.done('fractions-sum', undefined, says === undefined ? {} : { says })
}

const isOne = (z: NumberValue): boolean => z.re === 1 && z.im === 0

/** A polynomial, from the highest power down, at the root of a linear factor. */
function valueOf(list: readonly NumberValue[], { list: [constant = integer(0)] }: RealFactor): NumberValue | null {
  const at = constant.exact && Q.negate(constant.exact.re)
  let value: Q.Rational | null = Q.ZERO
  for (const c of list) {
    const product: Q.Rational | null = value && at && Q.multiply(value, at)
    value = product && c.exact ? Q.add(product, c.exact.re) : null
  }
  return value && exactReal(value)
}

function valueAt(list: readonly NumberValue[], times: number, factor: RealFactor): NumberValue | null {
  const value = valueOf([...list].reverse(), factor)?.exact?.re
  const raised = value && Q.power(value, times)
  return raised ? exactReal(raised) : null
}

/** Each entry of the array from the four above it. */
export function routhChapter(p: Progress): Done | null {
  const given = p.hasUnits ? null : coefficientsOf('routh', bare(p.operand(0).value))
  if (!given || 'kind' in given || given.parameter !== null || !given.exact) return p.done('routh-array')
  const array = routhArray(given)
  if ('kind' in array || array.small.length > 0 || array.auxiliary.length > 0) return p.done('routh-array')
  const at = (r: number, c: number): NumberValue => {
    const item = array.rows[r]?.[c]
    return item?.kind === 'number' ? item : integer(0)
  }
  const count = array.rows.length
  for (let r = 2; r < Math.min(count, 8); r += 1)
    for (let c = 0; c < Math.ceil((count - r) / 2); c += 1) {
      const [a0, a1, b0, b1] = [at(r - 2, 0), at(r - 2, c + 1), at(r - 1, 0), at(r - 1, c + 1)]
      const crossed = difference(times(bracketed(b0), bracketed(a1)), times(bracketed(a0), bracketed(b1)))
      p.aside('routh-entry', { kind: 'equation', node: equation(over(grouped(crossed), bracketed(b0)), valued(at(r, c))) }, '=', `Row ${r + 1}, place ${c + 1}.`) // prettier-ignore
    }
  return p.done('routh-array')
}

const bracketed = (z: NumberValue): Node => (z.re < 0 ? grouped(valued(z)) : valued(z))

/** Where the loop has the magnitude 1, and where it is real and negative, and what that leaves. */
export function marginsChapter(p: Progress): Done | null {
  const l = p.hasUnits ? null : transferIn(p.operand(0).value)
  if (!l || l.discrete) return p.done('margins-read')
  const { phase, gain } = marginsOf(l)
  const omega = named('omega')
  if (phase) {
    p.aside('gain-crossover', { kind: 'equation', node: equation(omega, valued(real(phase.at))) }, '⇔')
    const argument = angleOf(phase.value > 0 ? phase.value - Math.PI : phase.value + Math.PI)
    const half = valued(angleOf(phase.value > 0 ? Math.PI : -Math.PI))
    p.aside('phase-margin', { kind: 'equation', node: equation(sum(half, grouped(valued(argument))), valued(angleOf(phase.value))) }, '=') // prettier-ignore
  }
  if (gain && gain.at > 0 && Number.isFinite(gain.at)) {
    p.aside('phase-crossover', { kind: 'equation', node: equation(omega, valued(real(gain.at))) }, '⇔')
    p.aside('gain-margin', { kind: 'equation', node: equation(over(whole(1), valued(real(1 / gain.value))), valued(real(gain.value))) }, '=') // prettier-ignore
  }
  return p.done('margins-read')
}
