import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'

/**
 * What sought values measure, from what equations ask of it: a small system of equations between products of powers,
 * solved one at a time by substitution. Used for dimensions, and for how often a value is an angle.
 */
export interface Group<T> {
  readonly one: T
  times(a: T, b: T): T
  power(a: T, exponent: Rational): T
  /** True where it measures nothing. */
  isOne(a: T): boolean
}

/** A known measure times powers of those that are looked for. */
export interface Powers<T> {
  readonly factor: T
  readonly of: ReadonlyMap<string, Rational>
}

const ONE = Q.whole(1)
const MINUS_ONE = Q.whole(-1)

export class Unifier<T> {
  private readonly solved = new Map<string, Powers<T>>()

  constructor(private readonly group: Group<T>) {}

  known(factor: T): Powers<T> {
    return { factor, of: new Map() }
  }

  named(name: string): Powers<T> {
    return { factor: this.group.one, of: new Map([[name, ONE]]) }
  }

  times(a: Powers<T>, b: Powers<T>): Powers<T> {
    const of = new Map(a.of)
    for (const [name, exponent] of b.of) {
      const sum = Q.add(of.get(name) ?? Q.ZERO, exponent) ?? Q.ZERO
      if (Q.isZero(sum)) of.delete(name)
      else of.set(name, sum)
    }
    return { factor: this.group.times(a.factor, b.factor), of }
  }

  power(a: Powers<T>, exponent: Rational): Powers<T> {
    if (Q.isZero(exponent)) return this.known(this.group.one)
    const of = new Map([...a.of].map(([name, e]) => [name, Q.multiply(e, exponent) ?? Q.ZERO]))
    return { factor: this.group.power(a.factor, exponent), of }
  }

  over(a: Powers<T>, b: Powers<T>): Powers<T> {
    return this.times(a, this.power(b, MINUS_ONE))
  }

  /** Both measure the same; false where that cannot be. */
  equate(a: Powers<T>, b: Powers<T>): boolean {
    const whole = this.reduced(this.over(a, b))
    const first = [...whole.of][0]
    if (!first) return this.group.isOne(whole.factor)
    const [name, exponent] = first
    const rest: Powers<T> = { factor: whole.factor, of: new Map([...whole.of].slice(1)) }
    const inverse = Q.divide(MINUS_ONE, exponent)
    if (!inverse) return false
    const value = this.power(rest, inverse)
    for (const [other, old] of this.solved) this.solved.set(other, this.withName(old, name, value))
    this.solved.set(name, value)
    return true
  }

  /** What a product comes to, as far as it is known. */
  reduced(a: Powers<T>): Powers<T> {
    let found = a
    for (const name of a.of.keys()) {
      const value = this.solved.get(name)
      if (value) found = this.withName(found, name, value)
    }
    return found
  }

  /** What a name measures; nothing where no equation tells. */
  measureOf(name: string): T {
    return this.reduced(this.named(name)).factor
  }

  private withName(a: Powers<T>, name: string, value: Powers<T>): Powers<T> {
    const exponent = a.of.get(name)
    if (!exponent) return a
    const of = new Map(a.of)
    of.delete(name)
    return this.times({ factor: a.factor, of }, this.power(value, exponent))
  }
}
