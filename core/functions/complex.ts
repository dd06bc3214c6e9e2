import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { isBeyond, isNegative, isZero } from '../values/beyond'
import { argumentOf, complexNumber, exactNumber, exactReal, valueList, multipleOfPi, real } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value, NumberValue, VectorValue } from '../values/types'
import { euclideanNorm, mapVector } from '../values/vectors'
import { free, keep } from './measures'
import { anyRoot, conjugate, imaginaryPart, realPart } from './otherMeasures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { angleSweep, numberSweep } from '../values/sweeps'
import { absoluteAngle } from './numbers'
import { anglesOf, conjugated, magnitudes } from '../values/sweepLoops'
import { realLoop } from './loops'

/** The real (or imaginary) part, exact where it is known. */
function part(z: NumberValue, which: 're' | 'im'): NumberValue {
  if (z.exact) return exactReal(z.exact[which])
  if (z.pi) return multipleOfPi({ re: z.pi[which], im: Q.ZERO })
  return real(z[which])
}

/** The principal n-th root: magnitude |z|^(1/n), argument arg(z)/n. */
function principalRoot(z: NumberValue, n: number): NumberValue | Failure {
  if (n === 2) return A.squareRoot(z)
  const size = C.abs(z)
  if (z.im === 0 && z.re >= 0 && !isNegative(z)) {
    const exact = z.exact && A.exactNthRoot(z.exact.re, n)
    if (exact) return exactNumber({ re: exact, im: Q.ZERO }, z.complex)
    const root = n === 3 ? Math.cbrt(z.re) : Math.pow(z.re, 1 / n)
    return A.farNthRoot(z, n) ?? A.rounded({ re: root, im: 0 }, z.complex, z)
  }
  const length = isBeyond(z) ? A.magnitude(z) : null
  const far = length && (length.kind === 'failure' ? length : A.farNthRoot(length, n))
  if (far?.kind === 'failure') return far
  const magnitude = far ? far.re : n === 3 ? Math.cbrt(size) : Math.pow(size, 1 / n)
  const argument = argumentOf(z)
  const turns = argument.turns && Q.multiply(argument.turns, { n: 1, d: n })
  if (turns) {
    const unit = A.onUnitCircle(turns)
    return A.rounded({ re: unit.re * magnitude, im: unit.im * magnitude }, true, z)
  }
  return A.rounded(C.polar(magnitude, argument.radians / n), true, z)
}

const z = take.number('z')

/** The length of a vector; values in a row that are none have a magnitude each. */
export function magnitudeOfVector(v: VectorValue): Value | Failure {
  if (!v.list) return euclideanNorm(v)
  return mapVector(v, (item) =>
    item.kind === 'number' ? A.magnitude(item) : failure('wrong-kind', { what: '| |', kind: item.kind }),
  )
}

export const complexFunctions: readonly FunctionDefinition[] = [
  define({
    name: 're',
    measures: realPart,
    group: 'complex',
    loop: realLoop(({ re }) => re),
    parameters: [z],
    summary: 'Real part of z.',
    examples: [
      { entry: 're(3 - 4j)', gives: '3' },
      { entry: 're(5∠60°)', gives: '2.5' },
      { entry: 're(1e300∠90°)', gives: '0' },
    ],
    apply: ([of]) => part(of, 're'),
  }),
  define({
    name: 'im',
    measures: imaginaryPart,
    group: 'complex',
    loop: realLoop(({ re, im }) => im ?? new Float64Array(re.length)),
    parameters: [z],
    summary: 'Imaginary part of z, a real number.',
    examples: [
      { entry: 'im(3 - 4j)', gives: '-4' },
      { entry: 'im([1 + 2j, 3 - 4j])', gives: '[2, -4]' },
      { entry: 'im(5∠180°)', gives: '0' },
    ],
    apply: ([of]) => part(of, 'im'),
  }),
  define({
    name: 'abs',
    measures: keep,
    group: 'complex',
    ofAngle: absoluteAngle,
    whole: 'norm(A) or det(A)',
    loop: realLoop(magnitudes),
    typesetting: { as: 'enclosed', before: '\\left| ', after: ' \\right|' },
    parameters: [take.number('z')],
    spellings: ['mag', 'magnitude'],
    summary:
      'Magnitude of z, also written |z|; of a vector its length, of roots and the like one for each. Entry by entry it is each(abs(v)).',
    examples: [
      { entry: 'abs(3 + 4j)', gives: '5' },
      { entry: 'abs(3e200 + 4e200j)', gives: '5e200' },
      { entry: 'abs(-7)', gives: '7' },
    ],
    ofVector: magnitudeOfVector,
    apply: ([of]) => A.magnitude(of),
  }),
  define({
    name: 'arg',
    givesAngle: true,
    measures: free,
    group: 'complex',
    loop: (value, sweep) => angleSweep(sweep.axis, anglesOf(value)),
    parameters: [z],
    spellings: ['phase'],
    ofVector: (v) => failure('vector-argument', { count: v.items.length }),
    summary: 'Argument of z, an angle in (−180°, 180°].',
    examples: [
      { entry: 'arg(1 + 1j)', gives: '45°' },
      { entry: 'arg(-2)', gives: '180°' },
      { entry: 'arg(1e-200 + 1e-200j)', gives: '45°' },
    ],
    apply: ([value]) => {
      return Number.isNaN(value.re) ? real(NaN) : argumentOf(value)
    },
  }),
  define({
    name: 'conj',
    measures: conjugate,
    group: 'complex',
    loop: (value, sweep) => numberSweep(sweep.axis, value.re, conjugated(value).im),
    typesetting: { as: 'enclosed', before: '\\overline{', after: '}' },
    parameters: [z],
    spellings: ['conjugate'],
    summary: 'Conjugate of z: the imaginary part changes its sign. Also written z^*.',
    examples: [
      { entry: 'conj(3 + 4j)', gives: '3 - 4j' },
      { entry: 'conj(5∠30°)', gives: '4.3301 - 2.5j' },
      { entry: 'conj(1/3 + j/7)*(1/3 + j/7)', gives: '0.13152 + 0j' },
    ],
    apply: ([of]) => A.conjugate(of),
  }),
  define({
    name: 'cis',
    group: 'complex',
    parameters: [take.angle('θ')],
    summary: 'cos θ + j sin θ, the number of magnitude 1 and argument θ.',
    examples: [
      { entry: 'cis(90°)', gives: '0 + 1j' },
      { entry: 'cis(-45°)', gives: '0.70711 - 0.70711j' },
      { entry: 'cis(360000090°)', gives: '0 + 1j' },
    ],
    apply: ([angle]) => (angle.kind === 'number' ? A.exponential(multiplyByUnit(angle)) : A.onUnitCircleAt(angle)),
  }),
  define({
    name: 'root',
    measures: anyRoot,
    group: 'complex',
    typesetting: { as: 'indexed radical' },
    parameters: [z, take.whole('n')],
    summary: 'Principal n-th root of z.',
    examples: [
      { entry: 'root(27, 3)', gives: '3' },
      { entry: 'root(-8, 3)', gives: '1 + 1.7321j' },
      { entry: 'root(1e-300, 3)', gives: '1e-100' },
    ],
    apply: ([value, { re: n }]) =>
      n < 1 ? failure('domain', { name: 'root', needs: 'a root of order 1 or more' }) : principalRoot(value, n),
  }),
  define({
    name: 'everyroot',
    measures: anyRoot,
    group: 'complex',
    parameters: [z, take.whole('n')],
    summary: 'All n-th roots of z as a vector, from the principal root anticlockwise.',
    examples: [
      { entry: 'everyroot(16, 4)', gives: '[2 + 0j, 0 + 2j, -2 + 0j, 0 - 2j]' },
      { entry: 'everyroot(-1, 2)', gives: '[0 + 1j, 0 - 1j]' },
      { entry: 'everyroot(8j, 3)', gives: '[1.7321 + 1j, -1.7321 + 1j, 0 - 2j]' },
    ],
    apply: ([value, { re: n }]) => {
      if (n < 1 || n > 1000) return failure('domain', { name: 'everyroot', needs: 'an order from 1 to 1000' })
      if (isZero(value)) return valueList([exactNumber(G.ZERO, true)])
      const principal = principalRoot(value, n)
      if (principal.kind === 'failure') return principal
      const roots: Value[] = []
      for (let k = 0; k < n; k += 1) {
        const root = A.multiply(principal, A.onUnitCircle(Q.rational(k, n) ?? Q.ZERO))
        if (root.kind === 'failure') return root
        roots.push(root)
      }
      return valueList(roots)
    },
  }),
]

function multiplyByUnit(value: NumberValue): NumberValue {
  return complexNumber({ re: -value.im, im: value.re })
}
