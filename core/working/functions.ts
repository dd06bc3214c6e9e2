import { closedLoop, marginsChapter, partialFractionsChapter, routhChapter, sensitivityOf } from './control'
import { isComplex } from '../format/number'
import { findFunction } from '../functions/registry'
import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'
import { angleFrom } from '../quantities/through'
import { inAngleUnit } from '../values/convert'
import { angleOf, integer } from '../values/make'
import { asMatrix } from '../values/matrices'
import { bare } from '../values/quantity'
import type { AngleValue, NumberValue } from '../values/types'
import {
  allRoots, argument, complexExponential, complexLogarithm, complexRoot, conjugateOf, magnitude,
} from './complexNumbers' // prettier-ignore
import { characteristicPolynomial, eigenvalues, eigenvectors } from './eigen'
import { determinant, inverse, nullspace, reduced, solution, trace } from './matrices'
import { rootsChapter } from './polynomials'
import type { Rule } from './rules'
import {
  call, column, grouped, imaginary, imaginaryPart, isZero, joined, negated, over, power, radical, realPart, sum,
  times, valued, whole,
} from './terms' // prettier-ignore
import {
  angleBetween, crossProduct, distance, dotProduct, projection, rowOf, unitVector, vectorLength,
} from './vectors' // prettier-ignore
import type { Chapter, Done, Progress } from './work'

/** What the functions of the registry are by hand, each under its name. */

const simply = (rule: Rule): Chapter => (p) => p.done(rule) // prettier-ignore

/** What is not written out by hand is said in the words of the handbook. */
const bySummary = (rule: Rule): Chapter => (p) => p.done(rule, undefined, { says: summaryOf(p) }) // prettier-ignore

const summaryOf = ({ node }: Progress): string =>
  (node.type === 'apply' ? findFunction(node.name)?.summary : undefined) ?? ''

const degreesSaid = (p: Progress): string =>
  p.conventions.angle === 'deg' ? 'A calculator has to be set to degrees.' : 'A calculator has to be set to radians.'

/** The operand as an angle: a bare number is one in the unit of the conventions. */
function asAngle(p: Progress): AngleValue | null {
  const { value } = p.operand(0)
  const inner = value.kind === 'quantity' ? angleFrom(value, '') : value
  if (inner.kind === 'angle') {
    if (value.kind === 'quantity') p.readAs(0, { node: valued(inner), value: inner, form: 'plain' })
    return inner
  }
  if (inner.kind !== 'number' || inner.im !== 0) return null
  const angle = inAngleUnit(inner, p.conventions.angle)
  // Read as it stands: a step only where that is written otherwise than the number.
  p.readAs(0, { node: valued(angle), value: angle, form: 'plain' })
  return angle
}

const TWELFTHS: Q.Rational = Q.whole(24)

/** A quarter, a sixth, an eighth, a twelfth of a turn and their multiples. */
function onUnitCircle({ turns }: AngleValue): boolean {
  const parts = turns && Q.multiply(turns, TWELFTHS)
  return parts !== null && Q.isInteger(parts)
}

/** sin, cos, tan and their kin of an angle; of complex numbers by the addition theorems. */
function trigonometric(rule: Rule, ofComplex: Chapter): Chapter {
  return (p) => {
    if (p.operand(0).value.kind === 'sweep') return p.done('along-sweep')
    const angle = asAngle(p)
    if (!angle) return p.number(0) && isComplex(p.number(0) ?? integer(0)) ? ofComplex(p) : p.done('function-of-entries')
    return onUnitCircle(angle) ? p.done('unit-circle') : p.done(rule, undefined, { says: degreesSaid(p) })
  }
} // prettier-ignore

/** sin(a + jb) and cos(a + jb). */
function ofComplexSine(which: 'sin' | 'cos'): Chapter {
  return (p) => {
    const z = p.number(0)
    if (!z || p.hasUnits) return p.done('definition')
    const a = valued(angleOf(z.re))
    const b = valued(imaginaryPart(z))
    const [first, second] = which === 'sin' ? ['sin', 'cos'] : ['cos', 'sin']
    const left = times(call(first ?? '', a), call('cosh', b))
    const right = imaginary(grouped(times(call(second ?? '', a), call('sinh', b))))
    return p.rewrite(which === 'sin' ? 'sine-of-complex' : 'cosine-of-complex', sum(left, right, which === 'sin' ? '+' : '-'))
  }
} // prettier-ignore

function tangentOfComplex(p: Progress): Done | null {
  const { node } = p.operand(0)
  return p.rewrite('tangent', over(call('sin', node), call('cos', node)))
}

/** degrees, radians: of an angle, or of a number that is read as one. */
function ofAngle(rule: Rule): Chapter {
  return (p) => {
    asAngle(p)
    return p.done(rule)
  }
}

/** cot, sec, csc. */
function reciprocal(of: string): Chapter {
  return (p) => {
    asAngle(p)
    return p.rewrite('reciprocal-function', over(whole(1), call(of, p.operand(0).node)))
  }
}

/** A function of one real number that is looked up; of a complex number by another rule. */
function lookedUp(rule: Rule, ofComplex: Chapter = simply('definition')): Chapter {
  return (p) => {
    const z = p.number(0)
    if (!z) return p.done(p.operand(0).value.kind === 'sweep' ? 'along-sweep' : 'function-of-entries')
    return z.im !== 0 || (p.value.kind === 'number' && p.value.im !== 0) ? ofComplex(p) : p.done(rule)
  }
}

function inverseTrigonometric(rule: Rule): Chapter {
  return (p) => p.done(p.number(0)?.im === 0 ? rule : 'definition')
}

function exponential(p: Progress): Done | null {
  const { value } = p.operand(0)
  if (value.kind === 'angle') return complexExponentialOf(p, value)
  const z = p.number(0)
  if (!z) return p.done('function-of-entries')
  return isComplex(z) && z.im !== 0 ? complexExponential(p, z) : p.done('exponential')
}

const complexExponentialOf = (p: Progress, angle: AngleValue): Done | null =>
  p.value.kind === 'number' && isComplex(p.value) ? complexExponential(p, angle) : p.done('exponential')

function squareRoot(p: Progress): Done | null {
  const z = p.number(0)
  if (!z) return p.done('function-of-entries')
  return isComplex(z) || z.re < 0 ? complexRoot(p, 2) : p.done('square-root')
}

function nthRoot(p: Progress): Done | null {
  const [z, n] = [p.number(0), p.number(1)]
  if (!z || !n) return p.done('function-of-entries')
  if (isComplex(z) || z.re < 0) return complexRoot(p, n.re)
  return n.re === 2 ? p.done('square-root') : p.done('root-as-power')
}

function logarithmIn(p: Progress): Done | null {
  const [x, base] = [p.operand(0).node, p.operand(1).node]
  return p.rewrite('change-of-base', over(call('ln', x), call('ln', base)))
}

function logarithm(rule: Rule, base: Node | null): Chapter {
  return lookedUp(rule, (p) => {
    if (!p.number(0) || isZero(p.number(0) ?? integer(0))) return p.done(rule)
    return base === null ? complexLogarithm(p) : p.rewrite('change-of-base', over(call('ln', p.operand(0).node), call('ln', base))) // prettier-ignore
  })
}

function arctangentOfTwo(p: Progress): Done | null {
  const [y, x] = [p.operand(0).node, p.operand(1).node]
  return p.hasUnits ? p.done('argument') : p.rewrite('argument', call('arg', sum(x, imaginary(y))))
}

/** The argument, and what `arg` says of the quadrant. */
function argumentOrEntries(p: Progress): Done | null {
  return p.number(0) ? argument(p) : p.done('function-of-entries')
}

function magnitudeOf(p: Progress): Done | null {
  const inner = bare(p.operand(0).value)
  if (inner.kind === 'vector') return vectorLength(p)
  if (inner.kind === 'matrix') return p.done('function-of-entries')
  return p.number(0) ? magnitude(p) : p.done(inner.kind === 'angle' ? 'absolute-value' : 'along-sweep')
}

function normOf(p: Progress): Done | null {
  return bare(p.operand(0).value).kind === 'vector' ? vectorLength(p) : p.done('definition', undefined, { says: 'The largest singular value: ‖A‖ is the square root of the largest eigenvalue of AᴴA.' }) // prettier-ignore
}

function onCircle(p: Progress): Done | null {
  const angle = asAngle(p)
  if (!angle) return p.done('euler')
  p.move('euler', sum(call('cos', valued(angle)), imaginary(call('sin', valued(angle)))))
  return p.done('parts-worked-out')
}

function decibel(p: Progress): Done | null {
  const z = p.number(0)
  if (!z || isZero(z) || p.hasUnits) return p.done('decibel')
  const size = z.im === 0 && z.re > 0 && !isComplex(z) ? p.operand(0).node : call('abs', p.operand(0).node)
  return p.rewrite('decibel', times(whole(20), call('lg', size)))
}

function instantaneous(p: Progress): Done | null {
  const [V, w, t] = [p.number(0), p.operand(1), p.operand(2)]
  if (!V || p.hasUnits || isZero(V)) return p.done('instantaneous-value')
  const turned = N.postfix('rad', grouped(times(w.node, t.node)), 0, 0)
  const phase = sum(turned, call('arg', p.operand(0).node))
  return p.rewrite('instantaneous-value', times(call('abs', p.operand(0).node), call('cos', phase)))
}

/** Sums and products of several values, or of the entries of a vector. */
function ofRow(sign: '+' | '*'): Chapter {
  return (p) => {
    const terms = rowOf(p)
    const rule = sign === '+' ? 'add' : 'multiply'
    if (!terms || terms.length > 12 || terms.length === 0 || p.hasUnits) return p.done(rule)
    if (p.operands.length === 1 && terms.length > 1) p.move(rule, joined(terms, sign, whole(0)))
    return p.done(rule)
  }
}

function meanOf(p: Progress): Done | null {
  const terms = rowOf(p)
  if (!terms || terms.length > 12 || terms.length === 0 || p.hasUnits) return p.done('mean')
  return p.rewrite('mean', over(joined(terms, '+', whole(0)), whole(terms.length)))
}

function parallelOf(p: Progress): Done | null {
  const terms = rowOf(p)
  return terms ? parallel(p, terms) : p.done('parallel-of-many')
}

/** Two in parallel by product over sum, more by their reciprocals. */
export function parallel(p: Progress, terms: readonly Node[]): Done | null {
  const values = terms.map((t) => bareNumber(p, t))
  if (values.some((z) => z && isZero(z))) return p.done('parallel-of-zero')
  if (values.some((z) => z && !Number.isFinite(z.re))) return p.done('parallel-of-infinite')
  const [a, b] = terms
  if (terms.length === 2 && a && b) return p.rewrite('parallel-of-two', over(times(a, b), sum(a, b)))
  if (terms.length > 8 || terms.length < 2) return p.done('parallel-of-many')
  return p.rewrite('parallel-of-many', over(whole(1), joined(terms.map((t) => over(whole(1), t)), '+', whole(0)))) // prettier-ignore
}

function bareNumber(p: Progress, node: Node): NumberValue | null {
  const { value } = p.work.tools.see(node)
  if (value.kind === 'failure') return null
  const inner = bare(value)
  return inner.kind === 'number' ? inner : null
}

/** a mod n: what floored division leaves. */
export function modulo(p: Progress): Done | null {
  const [a, n] = [p.number(0), p.number(1)]
  const whole = a?.bottom === 1 && n?.bottom === 1 && n.re !== 0 && !p.hasUnits
  return p.done('modulo', undefined, whole ? { says: `${a.re} = ${Math.floor(a.re / n.re)} · ${n.re} + ${a.re - n.re * Math.floor(a.re / n.re)}` } : {}) // prettier-ignore
}

/** n! written out. */
export function factorial(p: Progress): Done | null {
  const n = p.number(0)
  if (!n || n.re > 12 || n.re < 2) return p.done('factorial')
  p.move('factorial', joined(Array.from({ length: n.re }, (_, k) => whole(k + 1)), '*', whole(1))) // prettier-ignore
  return p.done('products-worked-out')
}

function binomial(p: Progress): Done | null {
  const [n, k] = [p.number(0), p.number(1)]
  if (!n || !k || n.re > 20 || k.re < 0 || k.re > n.re || n.bottom !== 1 || k.bottom !== 1) return p.done('binomial')
  const top = (m: number): Node => N.postfix('!', whole(m), 0, 0)
  p.move('binomial', over(top(n.re), times(top(k.re), top(n.re - k.re))))
  return p.done('products-worked-out')
}

/** The Euclidean algorithm, one remainder after another. */
function euclid(p: Progress): Done | null {
  const [a, b] = [p.number(0), p.number(1)]
  if (p.operands.length !== 2 || !a || !b || a.bottom !== 1 || b.bottom !== 1) return p.done('divisor')
  let [x, y] = [Math.abs(a.re), Math.abs(b.re)]
  for (let k = 0; k < 40 && y !== 0; k += 1) {
    const rest = x % y
    p.move('euclid-step', call('gcd', whole(y), whole(rest)), { says: `${x} = ${Math.floor(x / y)} · ${y} + ${rest}` })
    ;[x, y] = [y, rest]
  }
  return p.done('divisor')
}

function leastCommonMultiple(p: Progress): Done | null {
  const [a, b] = [p.operand(0).node, p.operands[1]?.node]
  if (p.operands.length !== 2 || !b || (p.number(0)?.re ?? 0) * (p.number(1)?.re ?? 0) <= 0) return p.done('divisor')
  return p.rewrite('divisor', over(times(a, b), call('gcd', a, b)))
}

/** Beyond it an exponential is too large for a double, though half of it may not be. */
const EXPONENT_MOST = 700

function hyperbolic(rule: Rule, sign: '+' | '-'): Chapter {
  return (p) => {
    const x = p.number(0)
    if (!x || x.im !== 0 || p.hasUnits) return p.done('definition')
    if (Math.abs(x.re) > EXPONENT_MOST) return p.done(rule)
    const e = (z: NumberValue): Node => call('exp', valued(z))
    p.move(rule, over(grouped(sum(e(realPart(x)), e(negated(realPart(x))), sign)), whole(2)))
    return p.done('divide')
  }
}

/** Most entries of a matrix whose normal equations are written out. */
const NORMAL_MOST = 18

/** Least squares by the normal equations; where they would lose figures, in words. */
function leastSquares(p: Progress): Done | null {
  const [A, b] = [p.operand(0), p.operand(1)]
  const m = asMatrix(bare(A.value))
  if (!m || m.rows * m.cols > NORMAL_MOST || p.hasUnits) return bySummary('least-squares')(p)
  // Two terms that read the same: each is worked out in its place.
  const adjoint = (): Node => N.mark('H', A.node, false, 0, 0)
  return p.rewrite('least-squares', call('solve', times(adjoint(), A.node), times(adjoint(), b.node)), { says: 'Aᴴ is the conjugate transpose.' }) // prettier-ignore
}

const first = (p: Progress): Node => p.operand(0).node

/** The working of each function; what is not here is said by its definition. */
const BY_NAME: Readonly<Record<string, Chapter>> = {
  re: (p) => p.done(p.number(0) ? 'real-part' : 'function-of-entries'),
  im: (p) => p.done(p.number(0) ? 'imaginary-part' : 'function-of-entries'),
  abs: magnitudeOf,
  arg: argumentOrEntries,
  conj: (p) => (p.number(0) ? conjugateOf(p) : p.done('function-of-entries')),
  cis: onCircle,
  root: nthRoot,
  everyroot: allRoots,
  phasor: simply('as-phasor'),
  vec: simply('as-vector'),
  sqrt: squareRoot,
  cbrt: simply('cube-root'),
  exp: exponential,
  ln: logarithm('logarithm', null),
  lg: logarithm('decimal-logarithm', whole(10)),
  lb: logarithm('binary-logarithm', whole(2)),
  log: logarithmIn,
  sin: trigonometric('sine', ofComplexSine('sin')),
  cos: trigonometric('cosine', ofComplexSine('cos')),
  tan: trigonometric('tangent', tangentOfComplex),
  cot: reciprocal('tan'),
  sec: reciprocal('cos'),
  csc: reciprocal('sin'),
  arcsin: inverseTrigonometric('inverse-sine'),
  arccos: inverseTrigonometric('inverse-cosine'),
  arctan: inverseTrigonometric('inverse-tangent'),
  arctan2: arctangentOfTwo,
  sinh: hyperbolic('hyperbolic-sine', '-'),
  cosh: hyperbolic('hyperbolic-cosine', '+'),
  tanh: (p) => (p.number(0)?.im === 0 ? p.rewrite('hyperbolic-tangent', over(call('sinh', first(p)), call('cosh', first(p)))) : p.done('definition')),
  arsinh: simply('inverse-hyperbolic'),
  arcosh: simply('inverse-hyperbolic'),
  artanh: simply('inverse-hyperbolic'),
  degrees: ofAngle('to-degrees'),
  radians: ofAngle('to-radians'),
  round: simply('rounding'),
  floor: simply('rounding'),
  ceil: simply('rounding'),
  trunc: simply('rounding'),
  mod: modulo,
  gcd: euclid,
  lcm: leastCommonMultiple,
  binom: binomial,
  factorial,
  min: simply('smallest-of'),
  max: simply('largest-of'),
  sum: ofRow('+'),
  product: ofRow('*'),
  mean: meanOf,
  par: parallelOf,
  dB: decibel,
  from_dB: (p) => p.rewrite('from-decibel', power(whole(10), grouped(over(first(p), whole(20))))),
  rms: (p) => p.rewrite('effective-value', over(first(p), radical(whole(2)))),
  peak: (p) => p.rewrite('peak-value', times(first(p), radical(whole(2)))),
  wave: instantaneous,
  dot: dotProduct,
  cross: crossProduct,
  norm: normOf,
  unit: unitVector,
  angle: angleBetween,
  dist: distance,
  proj: projection,
  count: simply('counted'),
  sort: simply('ordered'),
  reverse: simply('ordered'),
  det: determinant,
  inv: inverse,
  transpose: simply('transposed'),
  tr: trace,
  rank: (p) => reduced(p, 'rank'),
  rref: (p) => reduced(p, 'rref'),
  ref: (p) => reduced(p, 'ref'),
  nullspace,
  solve: solution,
  lsq: leastSquares,
  eigenvalues,
  eigenvectors,
  eigenpairs: eigenvectors,
  charpoly: characteristicPolynomial,
  lu: bySummary('numerically'),
  qr: bySummary('numerically'),
  svd: bySummary('numerically'),
  cholesky: bySummary('numerically'),
  expm: bySummary('numerically'),
  cond: bySummary('numerically'),
  closed_loop: closedLoop,
  sensitivity: sensitivityOf,
  partial_fractions: partialFractionsChapter,
  routh: routhChapter,
  margins: marginsChapter,
  roots: (p) => rootsChapter(p, 'roots'),
  zeros: (p) => rootsChapter(p, 'zeros'),
  poles: (p) => rootsChapter(p, 'poles'),
  coefficients: simply('coefficients-read'),
  degree: simply('degree-read'),
  expand: simply('expanded'),
  row: simply('picked-entry'),
  col: simply('picked-entry'),
} // prettier-ignore

const CHAPTERS = new Map(Object.entries(BY_NAME))

/** A function of the registry. */
export function functionChapter(p: Progress, name: string): Done | null {
  const definition = findFunction(name)
  const inner = p.operands[0] && bare(p.operands[0].value)
  const sweep = p.operands.some(({ value }) => bare(value).kind === 'sweep')
  if (sweep) return p.done('along-sweep', undefined, { says: definition?.summary ?? '' })
  const [first] = definition?.parameters ?? []
  const array = inner?.kind === 'vector' || inner?.kind === 'matrix'
  const entryByEntry =
    definition?.parameters.length === 1 && !first?.whole && first?.needs !== 'text' && first?.needs !== 'truth'
  if (array && entryByEntry && !definition.repeats && name !== 'abs') return entries(p, name)
  const chapter = CHAPTERS.get(name)
  return chapter ? chapter(p) : p.done('definition', undefined, { says: definition?.summary ?? '' })
}

/** A function of every entry, written out where they are few. */
function entries(p: Progress, name: string): Done | null {
  const inner = bare(p.operand(0).value)
  if (inner.kind === 'vector' && inner.items.length <= 8 && !p.hasUnits)
    p.move('function-of-entries', column(inner.items.map((item) => call(name, valued(item)))))
  return p.done('function-of-entries')
}
