import { probed } from './probe'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import type { Node } from '../notation/tree'
import { NONE } from '../units/dimension'
import { PLAIN } from '../units/measure'
import type { Measure } from '../units/measure'
import { isWild, measureOf } from '../quantities/shape'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'
import { hasSought } from './form'
import type { LinearForm } from './form'
import type { Equation, LookedFor } from './group'
import { Unifier } from './unify'
import type { Powers } from './unify'

/** What each sought name measures, and whether it is an angle: both follow from the equations. */
export interface Sorts {
  readonly measures: ReadonlyMap<string, Measure>
  readonly angles: ReadonlySet<string>
}

/** An equation that contradicts what the others say of the units. */
export interface Misfit {
  readonly kind: 'misfit'
  readonly line: number
  readonly one: Measure
  readonly other: Measure
}

const ofMeasures = {
  one: PLAIN,
  times: (a: Measure, b: Measure) => a.times(b),
  power: (a: Measure, exponent: Rational) => (exponent.n === -1 && exponent.d === 1 ? PLAIN.over(a) : a.to(exponent)),
  isOne: (a: Measure) => a.dimension === NONE,
}
const ofAngles = {
  one: Q.ZERO,
  times: (a: Rational, b: Rational) => Q.add(a, b) ?? Q.ZERO,
  power: (a: Rational, exponent: Rational) => Q.multiply(a, exponent) ?? Q.ZERO,
  isOne: (a: Rational) => Q.isZero(a),
}

/** The value of a term without sought names. */
export type ValueOf = (node: Node) => Value | null

export function sortsOf(
  names: readonly string[],
  equations: readonly Equation[],
  looked: LookedFor,
  valueOf: ValueOf,
): Sorts | Misfit {
  if (looked.near.size + looked.between.size === 0 && equations.every(isPlain))
    return { measures: NO_MEASURES, angles: NO_ANGLES }
  const sorter = new Sorter(valueOf)
  for (const equation of equations) {
    const misfit = sorter.equation(equation)
    if (misfit) return misfit
  }
  for (const [name, value] of looked.near) sorter.like(name, value)
  for (const [name, bounds] of looked.between) for (const bound of bounds) sorter.like(name, bound)
  return {
    measures: new Map(names.map((name) => [name, asAskedFor(sorter.measures.measureOf(name), name, looked)])),
    angles: new Set(names.filter((name) => !Q.isZero(sorter.angles.measureOf(name)))),
  }
}

const NO_MEASURES: Sorts['measures'] = new Map()
const NO_ANGLES: Sorts['angles'] = new Set()

/** A linear equation without units and angles. */
function isPlain({ form }: Equation): boolean {
  return form.kind === 'linear' && [...form.factors.values(), form.constant].every((x) => x === null || (x.kind !== 'quantity' && !isAngle(x))) // prettier-ignore
}

/** What is looked for in rad/s is a rate, though its equations know only that it is one of 1/s. */
function asAskedFor(found: Measure, name: string, { near, between }: LookedFor): Measure {
  const given = [near.get(name), ...(between.get(name) ?? [])].find((value) => value?.kind === 'quantity')
  const asked = given && measureOf(given)
  return asked?.dimension === found.dimension ? asked : found
}

/** What a term measures; `null` fits anything. */
interface Sort {
  readonly measure: Powers<Measure> | null
  readonly angle: Powers<Rational> | null
}

const ANYTHING: Sort = { measure: null, angle: null }
const isAngle = (value: Value): boolean => {
  const inner = bare(value)
  return inner.kind === 'angle' || (inner.kind === 'sweep' && inner.of === 'angle')
}

class Sorter {
  readonly measures = new Unifier<Measure>(ofMeasures)
  readonly angles = new Unifier<Rational>(ofAngles)
  private conflict: readonly [Measure, Measure] | null = null
  private fresh = 0

  constructor(private readonly valueOf: ValueOf) {}

  equation({ line, left, right, form }: Equation): Misfit | null {
    this.conflict = null
    if (form.kind === 'linear') this.linear(form)
    else this.alike(this.of(left), this.of(right))
    const found = this.conflict as readonly [Measure, Measure] | null
    return found && { kind: 'misfit', line, one: found[0], other: found[1] }
  }

  /** Every term of a linear equation measures what its constant does. */
  private linear({ constant, factors }: LinearForm): void {
    let whole: Sort = constant === null ? ANYTHING : this.sortOf(constant, true)
    for (const [name, factor] of factors) {
      if (!hasOneMeasure(factor) || isWild(factor)) continue
      const term = this.times(this.sortOf(factor, false), this.named(name))
      whole = this.alike(whole, term)
    }
  }

  like(name: string, value: Value): void {
    this.alike(this.named(name), this.sortOf(value, false))
  }

  private named(name: string): Sort {
    return { measure: this.measures.named(name), angle: this.angles.named(name) }
  }

  /** Bare numbers beside angles are read as angles: as constants of sums they say nothing. */
  private sortOf(value: Value, constant: boolean): Sort {
    if (isWild(value) || !hasOneMeasure(value)) return ANYTHING
    const angle = isAngle(value) ? Q.ONE : constant ? null : Q.ZERO
    return {
      measure: this.measures.known(isAngle(value) ? PLAIN : measureOf(value)),
      angle: angle && this.angles.known(angle),
    }
  }

  private alike(a: Sort, b: Sort): Sort {
    if (a.measure && b.measure && !this.measures.equate(a.measure, b.measure))
      this.conflict ??= [this.measures.reduced(a.measure).factor, this.measures.reduced(b.measure).factor]
    // An angle beside a number is read, not refused.
    if (a.angle && b.angle) this.angles.equate(a.angle, b.angle)
    return { measure: a.measure ?? b.measure, angle: a.angle ?? b.angle }
  }

  private times(a: Sort, b: Sort): Sort {
    return {
      measure: a.measure && b.measure && this.measures.times(a.measure, b.measure),
      angle: a.angle && b.angle && this.angles.times(a.angle, b.angle),
    }
  }

  private power(a: Sort, exponent: Rational): Sort {
    return {
      measure: a.measure && this.measures.power(a.measure, exponent),
      angle: a.angle && this.angles.power(a.angle, exponent),
    }
  }

  private plain(turn = false): Sort {
    return { measure: this.measures.known(PLAIN), angle: this.angles.known(turn ? Q.ONE : Q.ZERO) }
  }

  /** The term measures nothing: an exponent, the argument of a function of numbers. */
  private mustBePlain(node: Node): void {
    const { measure } = this.of(node)
    if (measure) this.alike({ measure, angle: null }, this.plain())
  }

  private anything(): Sort {
    this.fresh += 1
    return this.named(`?${this.fresh}`)
  }

  private of(node: Node): Sort {
    if (!hasSought(node)) {
      const value = this.valueOf(node)
      return value ? this.sortOf(value, true) : ANYTHING
    }
    switch (node.type) {
      case 'name':
        return this.named(node.name)
      case 'group':
      case 'bars':
        return this.of(node.inner)
      case 'sign':
      case 'mark':
        return this.of(node.operand)
      case 'sum':
        return this.alike(this.of(node.left), this.of(node.right))
      case 'product': {
        const [a, b] = [this.factor(node.left), this.factor(node.right)]
        return node.sign === '/' ? this.times(a, this.power(b, Q.whole(-1))) : this.times(a, b)
      }
      case 'parallel':
        return this.alike(this.of(node.left), this.of(node.right))
      case 'root':
        return this.power(this.of(node.operand), HALF)
      case 'power':
        return this.raised(node.base, node.exponent)
      case 'polar':
        this.mustBePlain(node.angle)
        return this.of(node.magnitude)
      case 'united': {
        const inner = this.of(node.operand)
        return this.times(inner, {
          measure: this.measures.known(node.unit.unit.measure),
          angle: this.angles.known(Q.ZERO),
        })
      }
      case 'postfix':
        if (node.sign === '!') return this.anything()
        this.mustBePlain(node.operand)
        return this.plain(true)
      case 'apply':
        return this.applied(node)
      default:
        return this.anything()
    }
  }

  /** As a factor a number is a number. */
  private factor(node: Node): Sort {
    if (hasSought(node)) return this.of(node)
    const value = this.valueOf(node)
    return value ? this.sortOf(value, false) : ANYTHING
  }

  private raised(base: Node, exponent: Node): Sort {
    if (hasSought(exponent)) {
      this.mustBePlain(exponent)
      this.mustBePlain(base)
      return this.plain()
    }
    const value = this.valueOf(exponent)
    const inner = value && bare(value)
    const known = inner?.kind === 'number' && inner.im === 0 ? inner.exact?.re : undefined
    if (known) return this.power(this.of(base), known)
    this.mustBePlain(base)
    return this.plain()
  }

  private applied(node: Extract<Node, { type: 'apply' }>): Sort {
    const [only] = node.args
    const rule = probed(node.name, node.args.length)
    if (!rule || !only) {
      for (const arg of node.args) this.of(arg)
      return this.anything()
    }
    let whole: Sort = ANYTHING
    if (rule.needs !== 'alike') for (const arg of node.args) this.mustBePlain(arg)
    else for (const arg of node.args) whole = this.alike(whole, this.factor(arg))
    const result = rule.power === null ? this.plain(rule.angle) : this.power(whole, rule.power)
    const { raised } = node
    if (raised === null) return result
    const value = hasSought(raised) ? null : this.valueOf(raised)
    const exponent = value?.kind === 'number' ? value.exact?.re : undefined
    return exponent ? this.power(result, exponent) : this.anything()
  }
}

const HALF = Q.rational(1, 2) ?? Q.ONE

/** A bare 0 fits any unit, reckoned or not: a sum of voltages that is nothing. */
function hasOneMeasure(value: Value): boolean {
  if (value.kind !== 'quantity') return true
  return value.measure.uniform !== null
}
