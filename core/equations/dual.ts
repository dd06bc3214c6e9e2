import { standardName } from '../functions/registry'
import type { Apply, Node } from '../notation/tree'
import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { factorOf } from '../quantities/attach'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'
import { holomorphic } from './derivatives'
import { hasSought } from './form'

/**
 * Terms as functions of real variables, with exact derivatives: dual numbers over the tree (A. Griewank and A. Walther,
 * Evaluating Derivatives, 2nd ed., ch. 3). Complex values are split into parts where that is asked for, so that
 * magnitudes, conjugates and parts have derivatives, too. All numbers are in coherent units, angles in radians.
 */

/** A complex value with its derivatives by each variable, and the size of what it is put together of. */
export interface Dual extends Complex {
  readonly dRe: Float64Array
  readonly dIm: Float64Array
  /** The sum of the magnitudes of the terms, with what becomes of them: rounding is a share of this. */
  readonly size: number
}

/** Which variables stand for a sought value: its real part, and its imaginary part where it has one. */
export interface Variable {
  readonly re: number
  readonly im: number | null
}

export interface Compiling {
  readonly variables: ReadonlyMap<string, Variable>
  readonly count: number
  /** The value of a term without sought names. */
  value(node: Node): Value | null
  /** How many radians one of a bare number is where an angle is needed; 1 where the term is one already. */
  radiansPerUnit(node: Node): number
}

export type Compiled = (x: Float64Array) => Dual

/** The difference of two closed terms as a function of the variables; the term in it that has no derivative. */
export function compileEquation(left: Node, right: Node, how: Compiling): Compiled | Node {
  const compiler = new Compiler(how)
  const [a, b] = [compiler.of(left), compiler.of(right)]
  return compiler.rough ?? ((x) => difference(a(x), b(x)))
}

class Compiler {
  /** The first term that has no derivative, or none that is known. */
  rough: Node | null = null
  private readonly none: Float64Array

  constructor(private readonly how: Compiling) {
    this.none = new Float64Array(how.count)
  }

  private without(node: Node): Compiled {
    this.rough ??= node
    const { none } = this
    return () => ({ ...NOTHING, dRe: none, dIm: none, size: 0 })
  }

  of(node: Node): Compiled {
    if (!hasSought(node)) return this.constant(node)
    switch (node.type) {
      case 'name':
        return this.variable(node.name, node)
      case 'group':
        return this.of(node.inner)
      case 'sign': {
        const inner = this.of(node.operand)
        return node.sign === '-' ? (x) => scaled(inner(x), -1) : inner
      }
      case 'sum': {
        const [a, b] = [this.of(node.left), this.of(node.right)]
        return node.sign === '-' ? (x) => difference(a(x), b(x)) : (x) => sum(a(x), b(x))
      }
      case 'product': {
        const [a, b] = [this.of(node.left), this.of(node.right)]
        if (node.sign === 'mod') return this.without(node)
        return node.sign === '/' ? (x) => quotient(a(x), b(x)) : (x) => product(a(x), b(x))
      }
      case 'parallel': {
        const [a, b] = [this.of(node.left), this.of(node.right)]
        return (x) => parallel(a(x), b(x))
      }
      case 'power':
        return this.power(this.of(node.base), node.base, node.exponent)
      case 'root': {
        const inner = this.of(node.operand)
        return this.called('sqrt', inner, node)
      }
      case 'bars': {
        const inner = this.of(node.inner)
        return (x) => magnitude(inner(x))
      }
      case 'mark': {
        const inner = this.of(node.operand)
        return node.sign === 'T' ? inner : (x) => conjugate(inner(x))
      }
      case 'united': {
        const inner = this.of(node.operand)
        const factor = factorOf(node.unit.unit).re
        return (x) => scaled(inner(x), factor)
      }
      case 'postfix': {
        if (node.sign === '!') return this.without(node)
        const inner = this.of(node.operand)
        return node.sign === 'deg' ? (x) => scaled(inner(x), Math.PI / 180) : inner
      }
      case 'polar': {
        const size = this.of(node.magnitude)
        const turn = this.angled(node.angle)
        return (x) => product(size(x), cis(turn(x)))
      }
      case 'apply':
        return this.apply(node)
      default:
        return this.without(node)
    }
  }

  private constant(node: Node): Compiled {
    const value = this.how.value(node)
    const inner = value && bare(value)
    const { none } = this
    if (inner?.kind === 'number') {
      const dual: Dual = { re: inner.re, im: inner.im, dRe: none, dIm: none, size: C.abs(inner) }
      return () => dual
    }
    if (inner?.kind !== 'angle') return this.without(node)
    const dual: Dual = { re: inner.radians, im: 0, dRe: none, dIm: none, size: Math.abs(inner.radians) }
    return () => dual
  }

  private variable(name: string, node: Node): Compiled {
    const found = this.how.variables.get(name)
    if (!found) return this.without(node)
    const { re, im } = found
    const dRe = new Float64Array(this.how.count)
    dRe[re] = 1
    if (im === null) {
      const { none } = this
      return (x) => ({ re: x[re] as number, im: 0, dRe, dIm: none, size: Math.abs(x[re] as number) })
    }
    const dIm = new Float64Array(this.how.count)
    dIm[im] = 1
    return (x) => {
      const [p, q] = [x[re] as number, x[im] as number]
      return { re: p, im: q, dRe, dIm, size: Math.hypot(p, q) }
    }
  }

  /** A term where an angle is needed. */
  private angled(node: Node): Compiled {
    const inner = this.of(node)
    const factor = this.how.radiansPerUnit(node)
    return factor === 1 ? inner : (x) => scaled(inner(x), factor)
  }

  private power(base: Compiled, baseNode: Node, exponentNode: Node): Compiled {
    if (!hasSought(exponentNode)) {
      const value = this.how.value(exponentNode)
      const inner = value && bare(value)
      if (inner?.kind !== 'number') return this.without(exponentNode)
      return (x) => toPower(base(x), inner)
    }
    const exponent = this.of(exponentNode)
    const natural = isE(baseNode)
    return natural ? (x) => exponential(exponent(x)) : (x) => exponential(product(exponent(x), logarithm(base(x))))
  }

  private called(name: string, inner: Compiled, node: Node): Compiled {
    const found = holomorphic(name)
    if (!found) return this.without(node)
    return (x) => {
      const z = inner(x)
      const w = found.value(z)
      return chained(z, w, found.slope(z, w))
    }
  }

  private apply(node: Apply): Compiled {
    const plain = this.function(node)
    if (node.raised === null) return plain
    return this.power(plain, node, node.raised)
  }

  private function(node: Apply): Compiled {
    const name = standardName(node.name, node.args.length) ?? node.name
    const [only, second, third] = node.args
    if (!only) return this.without(node)
    const split = PARTS.get(name)
    if (split) {
      if (node.args.length !== 1) return this.without(node)
      const inner = this.of(only)
      return (x) => split(inner(x))
    }
    const joined = JOINED.get(name)
    if (joined) {
      const terms = node.args.map((arg) => this.of(arg))
      return (x) => terms.map((term) => term(x)).reduce(joined)
    }
    switch (name) {
      case 'arctan2': {
        if (!second) return this.without(node)
        const [y, u] = [this.of(only), this.of(second)]
        return (x) => argument(sum(u(x), turned(y(x))))
      }
      case 'log': {
        if (!second) return this.without(node)
        const [z, base] = [this.of(only), this.of(second)]
        return (x) => quotient(logarithm(z(x)), logarithm(base(x)))
      }
      case 'root': {
        if (!second) return this.without(node)
        const [z, n] = [this.of(only), this.of(second)]
        return (x) => exponential(quotient(logarithm(z(x)), n(x)))
      }
      case 'wave': {
        if (!second || !third) return this.without(node)
        const [v, w, t] = [this.of(only), this.of(second), this.of(third)]
        return (x) => real(product(v(x), cis(product(w(x), t(x)))))
      }
      case 'radians':
        return this.angled(only)
      case 'degrees': {
        const inner = this.angled(only)
        return (x) => scaled(inner(x), 180 / Math.PI)
      }
      default: {
        if (node.args.length !== 1) return this.without(node)
        const turn = holomorphic(name)?.angle === 'in'
        return this.called(name, turn ? this.angled(only) : this.of(only), node)
      }
    }
  }
}

/** True of e, in brackets or not. */
export function isE(node: Node): boolean {
  return node.type === 'group' ? isE(node.inner) : node.type === 'constant' && node.name === 'e'
}

function combined(a: Float64Array, b: Float64Array, p: number, q: number): Float64Array {
  const made = new Float64Array(a.length)
  for (let k = 0; k < a.length; k += 1) made[k] = p * (a[k] as number) + q * (b[k] as number)
  return made
}

/** p·da + q·db with complex factors, as real and imaginary parts. */
function slopes(a: Dual, p: Complex, b: Dual, q: Complex): Pick<Dual, 'dRe' | 'dIm'> {
  const n = a.dRe.length
  const dRe = new Float64Array(n)
  const dIm = new Float64Array(n)
  for (let k = 0; k < n; k += 1) {
    const [s, t, u, v] = [a.dRe[k] as number, a.dIm[k] as number, b.dRe[k] as number, b.dIm[k] as number]
    dRe[k] = times(p.re, s) - times(p.im, t) + times(q.re, u) - times(q.im, v)
    dIm[k] = times(p.re, t) + times(p.im, s) + times(q.re, v) + times(q.im, u)
  }
  return { dRe, dIm }
}

/** 0 times anything is 0: what does not depend on a variable stays so where a slope is infinite. */
const times = (a: number, d: number): number => (d === 0 ? 0 : a * d)

const ONE: Complex = { re: 1, im: 0 }
const NOTHING: Complex = { re: 0, im: 0 }

function sum(a: Dual, b: Dual): Dual {
  return { re: a.re + b.re, im: a.im + b.im, dRe: combined(a.dRe, b.dRe, 1, 1), dIm: combined(a.dIm, b.dIm, 1, 1), size: a.size + b.size } // prettier-ignore
}

function difference(a: Dual, b: Dual): Dual {
  return { re: a.re - b.re, im: a.im - b.im, dRe: combined(a.dRe, b.dRe, 1, -1), dIm: combined(a.dIm, b.dIm, 1, -1), size: a.size + b.size } // prettier-ignore
}

function scaled(a: Dual, by: number): Dual {
  return { re: a.re * by, im: a.im * by, dRe: a.dRe.map((d) => d * by), dIm: a.dIm.map((d) => d * by), size: a.size * Math.abs(by) } // prettier-ignore
}

function product(a: Dual, b: Dual): Dual {
  const { re, im } = C.multiply(a, b)
  return { re, im, ...slopes(a, b, b, a), size: a.size * b.size }
}

function quotient(a: Dual, b: Dual): Dual {
  const value = C.divide(a, b)
  const inverse = C.divide(ONE, b)
  const slope = C.multiply(value, inverse)
  const under = C.abs(b)
  return {
    ...value,
    ...slopes(a, inverse, b, { re: -slope.re, im: -slope.im }),
    size: (a.size / under) * (b.size / under),
  }
}

function parallel(a: Dual, b: Dual): Dual {
  return quotient(product(a, b), sum(a, b))
}

/** f(z) with f′(z). */
function chained(z: Dual, w: Complex, slope: Complex): Dual {
  return { re: w.re, im: w.im, ...slopes(z, slope, z, NOTHING), size: C.abs(w) + C.abs(slope) * z.size }
}

function exponential(z: Dual): Dual {
  const w = C.exp(z)
  return chained(z, w, w)
}

function logarithm(z: Dual): Dual {
  return chained(z, C.log(z), C.divide(ONE, z))
}

function toPower(z: Dual, exponent: Complex): Dual {
  if (exponent.im === 0 && Number.isInteger(exponent.re) && Math.abs(exponent.re) <= 64) {
    const n = exponent.re
    if (n === 0) return { ...ONE, dRe: z.dRe.map(() => 0), dIm: z.dIm.map(() => 0), size: 1 }
    const below = C.powerInteger(z, n - 1)
    const w = C.multiply(below, z)
    const value = n > 0 ? w : C.powerInteger(z, n)
    return { ...value, ...slopes(z, { re: n * below.re, im: n * below.im }, z, NOTHING), size: n > 0 ? z.size ** n : chained(z, value, { re: n * below.re, im: n * below.im }).size } // prettier-ignore
  }
  const w = C.power(z, exponent)
  return chained(z, w, C.multiply(exponent, C.divide(w, z)))
}

function cis(turn: Dual): Dual {
  return exponential(turned(turn))
}

/** j·z. */
function turned(z: Dual): Dual {
  return { re: -z.im, im: z.re, dRe: z.dIm.map((d) => -d), dIm: z.dRe, size: z.size }
}

function conjugate(z: Dual): Dual {
  return { re: z.re, im: -z.im, dRe: z.dRe, dIm: z.dIm.map((d) => -d), size: z.size }
}

function real(z: Dual): Dual {
  return { re: z.re, im: 0, dRe: z.dRe, dIm: z.dRe.map(() => 0), size: z.size }
}

function imaginary(z: Dual): Dual {
  return { re: z.im, im: 0, dRe: z.dIm, dIm: z.dIm.map(() => 0), size: z.size }
}

/** |z|, which at 0 has no derivative: 0 stands for it. */
function magnitude(z: Dual): Dual {
  const value = C.abs(z)
  const [p, q] = value === 0 ? [0, 0] : [z.re / value, z.im / value]
  const dRe = combined(z.dRe, z.dIm, p, q)
  return { re: value, im: 0, dRe, dIm: z.dRe.map(() => 0), size: z.size }
}

/** arg z = Im ln z. */
function argument(z: Dual): Dual {
  return imaginary({ ...logarithm(z), size: Math.abs(C.arg(z)) + z.size / Math.max(C.abs(z), Number.MIN_VALUE) })
}

function decibels(z: Dual): Dual {
  const by = 20 / Math.LN10
  return scaled(real(logarithm(magnitude(z))), by)
}

/** The real cube root of a real number, else the principal one. */
function cubeRoot(z: Dual): Dual {
  const third = 1 / 3
  if (z.im !== 0) return toPower(z, { re: third, im: 0 })
  const w = Math.cbrt(z.re)
  return chained(z, { re: w, im: 0 }, { re: third / (w * w), im: 0 })
}

const PARTS: ReadonlyMap<string, (z: Dual) => Dual> = new Map([
  ['abs', magnitude],
  ['re', real],
  ['im', imaginary],
  ['conj', conjugate],
  ['arg', argument],
  ['dB', decibels],
  ['cbrt', cubeRoot],
])

const JOINED: ReadonlyMap<string, (a: Dual, b: Dual) => Dual> = new Map([
  ['sum', sum],
  ['product', product],
  ['par', parallel],
])
