import { isComplex } from '../format/number'
import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { angleOf, angleOfTurns, argumentOf, integer, real } from '../values/make'
import { asDegrees } from '../values/convert'
import type { AngleValue, NumberValue, Value } from '../values/types'
import type { Failure } from '../values/failure'
import { guardCancelling } from './reals'
import {
  call, column, difference, grouped, imaginary, imaginaryPart, isZero, joined, minus, negated, numberOr, over, polar,
  power, radical, realPart, squared, sum, times, valued, whole,
} from './terms' // prettier-ignore
import { unbracketed } from './seen'
import { alike } from './work'
import type { Done, Progress } from './work'

/** Complex numbers in rectangular and in polar form. */

const value = (v: Value | Failure) => valued(numberOr(v))
const product = (a: NumberValue, b: NumberValue) => value(A.multiply(a, b))

/** Both parts of a term in one row: `a + jb`, a part that is 0 left out. */
function parts(re: Node | null, im: Node | null): Node {
  if (!im) return re ?? whole(0)
  return re ? sum(re, imaginary(im)) : imaginary(im)
}

/** Terms with their signs as one sum; `null` where there is none. */
function signed(terms: readonly { readonly sign: '+' | '-'; readonly node: Node }[]): Node | null {
  const [first, ...rest] = terms
  if (!first) return null
  const start = first.sign === '-' ? minus(first.node) : first.node
  return rest.reduce((left, { sign, node }) => sum(left, node, sign), start)
}

const bracketed = (node: Node | null): Node | null => (node?.type === 'sum' || node?.type === 'sign' ? grouped(node) : node) // prettier-ignore

/** (a + jb) ± (c + jd). */
export function complexSum(p: Progress, sign: '+' | '-'): Done | null {
  p.inRectangular(0)
  p.inRectangular(1)
  const [x, y] = [p.number(0), p.number(1)]
  if (!x || !y) return null
  guardCancelling(p, x, y)
  const part = (of: (z: NumberValue) => NumberValue): Node | null => {
    const [a, b] = [of(x), of(y)]
    return bracketed(
      signed([
        ...(isZero(a) ? [] : [{ sign: '+' as const, node: valued(a) }]),
        ...(isZero(b) ? [] : [{ sign, node: valued(b) }]),
      ]),
    )
  }
  // A real part and an imaginary one are a complex number as they stand.
  const apart = (isZero(imaginaryPart(x)) && isZero(realPart(y))) || (isZero(realPart(x)) && isZero(imaginaryPart(y)))
  if (apart) return p.done(sign === '+' ? 'add-parts' : 'subtract-parts')
  const made = parts(part(realPart), part(imaginaryPart))
  p.move(sign === '+' ? 'add-parts' : 'subtract-parts', p.inUnit(made))
  return p.done('parts-worked-out')
}

/** True where a factor is in polar form, or real so that it goes with one. */
function goesPolar(p: Progress): boolean {
  const polarOnes = p.operands.filter((o, k) => o.form === 'polar' && isComplex(p.number(k) ?? integer(0)))
  const others = p.operands.filter((o, k) => o.form !== 'polar' && isComplex(p.number(k) ?? integer(0)))
  return polarOnes.length > 0 && others.length === 0
}

/** Squares beyond the range of doubles: such figures are not written out. */
const tooLarge = (z: NumberValue): boolean => Math.max(Math.abs(z.re), Math.abs(z.im)) > 1e150

/** The same, or squares that vanish. */
const isExtreme = (z: NumberValue): boolean =>
  tooLarge(z) || (!isZero(z) && Math.max(Math.abs(z.re), Math.abs(z.im)) < 1e-150)

const WAYS = ['rectangular', 'polar'] as const

function inPolar(p: Progress): boolean {
  return p.way(WAYS, goesPolar(p) ? 'polar' : 'rectangular') === 'polar'
}

/** Magnitude and angle of an operand, and a step that brings it into polar form if need be. */
function polarParts(p: Progress, k: number): { readonly size: Node; readonly angle: Node } {
  const z = p.number(k) ?? integer(0)
  const done = p.operand(k)
  // As they are written, where they are.
  const written = unbracketed(done.node)
  if (written.type === 'polar' && done.value.kind === 'number' && written.angle.type !== 'literal') return { size: written.magnitude, angle: written.angle.type === 'sign' ? grouped(written.angle) : written.angle } // prettier-ignore
  if (done.form !== 'polar' && isComplex(z)) p.inPolar(k, 'rectangular-to-polar')
  return { size: valued(numberOr(A.magnitude(z))), angle: valued(argumentOf(z)) }
}

/** (a + jb)(c + jd), or of a real factor. */
export function complexProduct(p: Progress): Done | null {
  const [x, y] = [p.number(0), p.number(1)]
  if (!x || !y) return null
  if (isExtreme(x) || isExtreme(y)) return p.done('product-rectangular')
  if (inPolar(p)) {
    const [a, b] = [polarParts(p, 0), polarParts(p, 1)]
    if (!p.hasUnits) p.move('product-polar', polar(grouped(times(a.size, b.size)), grouped(sum(a.angle, b.angle))))
    return p.done('product-polar', 'polar')
  }
  p.inRectangular(0)
  p.inRectangular(1)
  const [a, b, c, d] = [realPart(x), imaginaryPart(x), realPart(y), imaginaryPart(y)]
  if (!isComplex(x) || !isComplex(y)) {
    const [k, re, im] = isComplex(x) ? [c, a, b] : [a, c, d]
    const factor = valued(k)
    const made = parts(isZero(re) ? null : times(factor, valued(re)), isZero(im) ? null : times(factor, valued(im)))
    if (isZero(re) || isZero(im)) return p.done('scale-parts')
    p.move('scale-parts', p.inUnit(made))
    return p.done('products-worked-out')
  }
  expandProduct(p, [a, b], [c, d])
  return p.done('parts-worked-out')
} // prettier-ignore

/** The four products, those with a zero left out. */
function expandProduct(
  p: Progress,
  [a, b]: readonly [NumberValue, NumberValue],
  [c, d]: readonly [NumberValue, NumberValue],
): void {
  const some = (u: NumberValue, v: NumberValue): boolean => !isZero(u) && !isZero(v)
  const row = (of: (u: NumberValue, v: NumberValue) => Node): Node =>
    parts(
      bracketed(
        signed([
          ...(some(a, c) ? [{ sign: '+' as const, node: of(a, c) }] : []),
          ...(some(b, d) ? [{ sign: '-' as const, node: of(b, d) }] : []),
        ]),
      ),
      bracketed(
        signed([
          ...(some(a, d) ? [{ sign: '+' as const, node: of(a, d) }] : []),
          ...(some(b, c) ? [{ sign: '+' as const, node: of(b, c) }] : []),
        ]),
      ),
    )
  p.move('product-rectangular', p.inUnit(row((u, v) => times(valued(u), valued(v)))))
  p.move('products-worked-out', p.inUnit(row(product)))
}

/** (a + jb)/(c + jd). */
export function complexQuotient(p: Progress): Done | null {
  const [x, y] = [p.number(0), p.number(1)]
  if (!x || !y) return null
  if (isZero(y)) return p.done(isZero(x) ? 'divide' : 'infinite')
  if (isExtreme(x) || isExtreme(y)) return p.done('conjugate-of-divisor')
  if (!isComplex(y) && !(goesPolar(p) && isComplex(x))) {
    p.inRectangular(0)
    const [re, im] = [realPart(x), imaginaryPart(x)]
    if (!isZero(re) && !isZero(im)) {
      p.move('divide-parts', p.inUnit(parts(over(valued(re), valued(realPart(y))), over(valued(im), valued(realPart(y))))))
      return p.done('parts-worked-out')
    }
    return p.done('divide-parts')
  }
  if (inPolar(p)) {
    const [a, b] = [polarParts(p, 0), polarParts(p, 1)]
    if (!p.hasUnits) p.move('quotient-polar', polar(grouped(over(a.size, b.size)), grouped(difference(a.angle, b.angle))))
    return p.done('quotient-polar', 'polar')
  }
  p.inRectangular(0)
  p.inRectangular(1)
  const conjugate = A.conjugate(y)
  const [a, b, c, d] = [realPart(x), imaginaryPart(x), realPart(y), imaginaryPart(y)]
  p.move('conjugate-of-divisor', p.inUnit(over(times(valued(x), valued(conjugate)), times(valued(y), valued(conjugate)))))
  const nonzero = [c, d].filter((z) => !isZero(z))
  const squares = joined(nonzero.map((z) => squared(valued(z))), '+', whole(0))
  const minusD = negated(d)
  const top = (of: (u: NumberValue, v: NumberValue) => Node): Node => {
    const pick = (terms: readonly (readonly ['+' | '-', NumberValue, NumberValue])[]) =>
      bracketed(signed(terms.filter(([, u, v]) => !isZero(u) && !isZero(v)).map(([sign, u, v]) => ({ sign, node: of(u, v) }))))
    return parts(pick([['+', a, c], ['-', b, minusD]]), pick([['+', a, minusD], ['+', b, c]]))
  }
  p.move('numerator-and-denominator', p.inUnit(over(top((u, v) => times(valued(u), valued(v))), squares)))
  const bottom = numberOr(A.multiply(y, conjugate))
  const numerator = numberOr(A.multiply(x, conjugate))
  p.move('products-worked-out', p.inUnit(over(valued(numerator), valued(realPart(bottom)))))
  const [re, im] = [realPart(numerator), imaginaryPart(numerator)]
  if (!isZero(re) && !isZero(im))
    p.move('divide-parts', p.inUnit(parts(over(valued(re), valued(realPart(bottom))), over(valued(im), valued(realPart(bottom))))))
  return p.done('parts-worked-out')
} // prettier-ignore

/** −(a + jb). */
export function complexNegative(p: Progress): Done | null {
  const done = p.operand(0)
  return done.form === 'polar' ? p.done('negative-polar', 'polar') : p.done('negative-parts')
}

/** The magnitude of a number: |z|, abs(z). */
export function magnitude(p: Progress): Done | null {
  const z = p.number(0)
  if (!z) return null
  if (!isComplex(z)) return p.done('absolute-value')
  if (p.operand(0).form === 'polar') return p.done('magnitude-of-polar')
  rootOfSquares(p, [realPart(z), imaginaryPart(z)], 'magnitude')
  return p.done('square-root')
}

/** √(a² + b² + …): the squares put in, worked out, added. */
export function rootOfSquares(p: Progress, components: readonly NumberValue[], rule: 'magnitude' | 'length'): void {
  if (components.some(tooLarge)) return
  const nonzero = components.filter((z) => !isZero(z))
  const zero = whole(0)
  const square = (z: NumberValue): Node => squared(isComplex(z) ? call('abs', valued(z)) : valued(z))
  const squareOf = (z: NumberValue): NumberValue => {
    const size = isComplex(z) ? numberOr(A.magnitude(z)) : z
    return numberOr(A.multiply(size, size))
  }
  p.move(rule, p.inUnit(radical(joined(nonzero.map(square), '+', zero))))
  const squares = nonzero.map(squareOf)
  p.move('squares-worked-out', p.inUnit(radical(joined(squares.map((s) => valued(s)), '+', zero))))
  const total = squares.reduce((a, b) => numberOr(A.add(a, b)), integer(0))
  if (squares.length > 1) p.move('sum-under-root', p.inUnit(radical(valued(total))), { depth: 'all' })
} // prettier-ignore

/** Where a point lies, and what that means for its argument. */
export function quadrantSaid(re: number, im: number, degrees: boolean): string {
  const half = degrees ? '180°' : 'π'
  if (re > 0) return im > 0 ? 'First quadrant (a > 0, b > 0): the arc tangent is the argument.' : 'Fourth quadrant (a > 0, b < 0): the arc tangent is the argument, it is negative.' // prettier-ignore
  return im > 0
    ? `Second quadrant (a < 0, b > 0): the arc tangent gives the opposite direction, so ${half} is added.`
    : `Third quadrant (a < 0, b < 0): the arc tangent gives the opposite direction, so ${half} is taken away.`
}

/** The argument: arg(z). */
export function argument(p: Progress): Done | null {
  const z = p.number(0)
  if (!z) return null
  if (p.operand(0).form === 'polar') return p.done('argument-of-polar')
  argumentSteps(p, z)
  return p.done(z.re === 0 || z.im === 0 ? 'argument-on-axis' : 'argument', undefined, onAxis(z, p))
}

function onAxis(z: NumberValue, p: Progress): { says?: string } {
  const half = p.conventions.angle === 'deg' ? ['0°', '180°', '90°', '−90°'] : ['0', 'π', 'π/2', '−π/2']
  if (isZero(z)) return { says: 'Zero has no direction: 0 is taken.' }
  if (z.im === 0) return { says: z.re > 0 ? `The point lies on the positive real axis: ${half[0]}.` : `The point lies on the negative real axis: ${half[1]}.` } // prettier-ignore
  if (z.re === 0) return { says: z.im > 0 ? `The point lies on the positive imaginary axis: ${half[2]}.` : `The point lies on the negative imaginary axis: ${half[3]}.` } // prettier-ignore
  return {}
}

/** arctan(b/a), and the half turn that its quadrant asks for. */
function argumentSteps(p: Progress, z: NumberValue): void {
  const [re, im] = [realPart(z), imaginaryPart(z)]
  if (isZero(re) || isZero(im)) return
  const made = argumentTerm(re, im)
  p.move('argument', made, { says: quadrantSaid(z.re, z.im, p.conventions.angle === 'deg') })
  if (z.re < 0) {
    const tangent = angleOf(Math.atan(z.im / z.re))
    p.move('inverse-tangent', z.im > 0 ? sum(valued(tangent), valued(HALF_TURN)) : difference(valued(tangent), valued(HALF_TURN))) // prettier-ignore
  }
}

const HALF_TURN = angleOfTurns(Q.ratio(1, 2))

function argumentTerm(re: NumberValue, im: NumberValue): Node {
  const tangent = call('arctan', over(valued(im), valued(re)))
  if (re.re > 0) return tangent
  return im.re > 0 ? sum(tangent, valued(HALF_TURN)) : difference(tangent, valued(HALF_TURN))
}

/** The other form of a result that is complex: how it comes about. */
export function otherForm(p: Progress, z: NumberValue): void {
  const unitOf = (node: Node): Node => p.inUnit(node)
  if (p.operand(0).form === 'polar') {
    const [size, angle] = [valued(numberOr(A.magnitude(z))), valued(argumentOf(z))]
    p.move('rectangular-form', unitOf(sum(times(size, call('cos', angle)), imaginary(times(size, call('sin', angle))))))
    p.done('parts-worked-out', 'plain')
    return
  }
  const [re, im] = [realPart(z), imaginaryPart(z)]
  if (isZero(re) || isZero(im) || tooLarge(z)) {
    p.done('polar-form', 'polar', onAxis(z, p))
    return
  }
  const squares = radical(sum(squared(valued(re)), squared(valued(im))))
  p.move('polar-form', unitOf(polar(squares, grouped(argumentTerm(re, im)))), { says: quadrantSaid(z.re, z.im, p.conventions.angle === 'deg') }) // prettier-ignore
  p.done('parts-worked-out', 'polar')
}

/** z^n with a complex base: squared out, or by de Moivre; other powers by e and ln. */
export function complexPower(p: Progress): Done | null {
  const [z, n] = [p.number(0), p.number(1)]
  if (!z || !n) return null
  const exponent = n.im === 0 ? n.exact?.re : null
  const base = p.operand(0)
  if (!exponent) return isZero(z) ? p.done('complex-power') : p.rewrite('complex-power', power(E, times(p.operand(1).node, call('ln', base.node)))) // prettier-ignore
  if (Q.isZero(exponent)) return p.done('power-zero')
  if (Q.equals(exponent, Q.ONE)) return p.done('power-one', base.form)
  if (isZero(z)) return p.done('repeated-product')
  const order = Q.toNumber(exponent)
  if (order === 2 && base.form !== 'polar' && !p.hasUnits) {
    const [a, b] = [realPart(z), imaginaryPart(z)]
    if (isZero(a) || isZero(b)) return p.done('square-complex')
    p.move('square-complex', parts(grouped(difference(squared(valued(a)), squared(valued(b)))), times(times(whole(2), valued(a)), valued(b)))) // prettier-ignore
    return p.done('parts-worked-out')
  }
  if (order < 0 && Q.isInteger(exponent) && base.form !== 'polar') {
    const positive = order === -1 ? base.node : power(base.node, whole(-order))
    return p.rewrite('negative-power', over(whole(1), positive))
  }
  return deMoivre(p, z, exponent)
}

const E = N.constant('e', real(Math.E), 0, 0)

function deMoivre(p: Progress, z: NumberValue, exponent: Q.Rational): Done | null {
  const was = p.operand(0).form
  const { value: result } = p
  const size = numberOr(A.magnitude(z))
  const angle = argumentOf(z)
  if (was !== 'polar' && isComplex(z)) p.inPolar(0, 'to-polar-for-power')
  const root = exponent.n === 1 && exponent.d !== 1
  const rule = root ? 'de-moivre-root' : 'de-moivre'
  if (Math.abs(Q.toNumber(exponent) * Math.log10(size.re)) > 150) return p.done(rule)
  if (!p.hasUnits) {
    const n = p.operand(1).node
    p.move(rule, polar(grouped(power(valued(size), n)), grouped(times(n, valued(angle)))))
  }
  if (was === 'polar') return p.done(rule, 'polar')
  if (result.kind === 'failure') return p.ended()
  p.move(rule, valued(result, 'polar'))
  return p.done('rectangular-form')
}

/** √z of a number that is not a positive real one. */
export function complexRoot(p: Progress, order: number): Done | null {
  const z = p.number(0)
  if (!z) return null
  if (isZero(z)) return p.done('square-root')
  const { value: result } = p
  if (result.kind === 'failure') return p.ended()
  if (!isComplex(z) || z.im === 0) {
    if (z.re >= 0) return p.done('square-root')
    if (order === 2 && !p.hasUnits) {
      p.move('root-of-negative', imaginary(radical(valued(negated(realPart(z))))))
      return p.done('square-root')
    }
  }
  const was = p.operand(0).form
  const size = numberOr(A.magnitude(z))
  if (was !== 'polar' && isComplex(z)) p.inPolar(0, 'to-polar-for-power')
  const rootOf = order === 2 ? radical(valued(size)) : call('root', valued(size), whole(order))
  if (!p.hasUnits) p.move('de-moivre-root', polar(rootOf, grouped(over(valued(argumentOf(z)), whole(order)))))
  if (was === 'polar') return p.done('de-moivre-root', 'polar')
  p.move('de-moivre-root', valued(result, 'polar'))
  return p.done('rectangular-form')
}

/** e to a complex power: a point on a circle. */
export function complexExponential(p: Progress, exponent: NumberValue | AngleValue): Done | null {
  const angle = exponent.kind === 'angle' ? exponent : angleIn(exponent)
  const around = (size: Node | null): void => {
    const circle = sum(call('cos', valued(angle)), imaginary(call('sin', valued(angle))))
    p.move(size ? 'exponential-of-complex' : 'euler', size ? times(size, grouped(circle)) : circle, exponent.kind === 'angle' ? {} : { says: said(angle, p) })
  }
  if (exponent.kind === 'angle' || exponent.re === 0) around(null)
  else around(call('exp', valued(realPart(exponent))))
  return p.done('parts-worked-out')
} // prettier-ignore

const said = (angle: AngleValue, p: Progress): string =>
  p.conventions.angle === 'deg'
    ? `The imaginary part is in radians: ${Number(asDegrees(angle).toPrecision(p.conventions.digits))}°.`
    : 'The imaginary part is in radians.'

function angleIn(z: NumberValue): AngleValue {
  const turns = z.pi ? Q.divide(z.pi.im, { n: 2, d: 1 }) : null
  return turns ? angleOfTurns(turns) : angleOf(z.im)
}

/** All n roots of a number, with their angles. */
export function allRoots(p: Progress): Done | null {
  const [z, n] = [p.number(0), p.number(1)]
  const { value: result } = p
  if (!z || !n || result.kind !== 'vector' || isZero(z) || n.re > 12 || p.hasUnits) return p.done('all-roots', 'polar')
  if (isComplex(z) && p.operand(0).form !== 'polar') p.inPolar(0, 'to-polar-for-power')
  const size = call('root', valued(numberOr(A.magnitude(z))), whole(n.re))
  const angle = valued(argumentOf(z))
  const turn = (k: number): Node => {
    const more = angleOfTurns(Q.whole(k))
    return grouped(over(k === 0 ? angle : grouped(sum(angle, valued(more))), whole(n.re)))
  }
  const entries = result.items.map((_, k) => polar(size, turn(k)))
  if (alike(p.work.tools.see(column(entries)).value, result)) p.move('all-roots', column(entries))
  return p.done('all-roots', 'polar')
}

/** conj(z), z^*. */
export function conjugateOf(p: Progress): Done | null {
  return p.operand(0).form === 'polar' ? p.done('conjugate-polar', 'polar') : p.done('conjugate')
}

/** ln z of what is not a positive real number. */
export function complexLogarithm(p: Progress): Done | null {
  const z = p.operand(0).node
  const radians = argumentOf(p.number(0) ?? integer(1))
  return p.rewrite('logarithm-of-complex', sum(call('ln', call('abs', z)), imaginary(call('radians', valued(radians)))))
}
