import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { exactNumber, exactReal, multipleOfPi, real } from '../values/make'
import type { Value } from '../values/types'
import { NO_NAMES } from './bindScope'
import type { BindScope } from './bindScope'
import { imaginary, readCircuitImaginary } from './literals'
import { write } from './problem'
import * as N from './nodes'
import type { NameNode, Node } from './tree'
import { unknownName } from './unknown'
import { CONSTANTS } from './words'

/** Names, once it is known what stands under them: constants, the imaginary letter, kept names, none. */

export const IMAGINARY = exactNumber(G.I)
const CONSTANT_VALUES: Readonly<Record<'pi' | 'e' | 'inf' | 'eps', Value>> = {
  pi: multipleOfPi(G.ONE),
  e: real(Math.E),
  inf: real(Infinity),
  eps: exactReal(Q.power(Q.whole(2), -52) ?? Q.ZERO),
}

export function boundName(scope: BindScope, node: NameNode): Node {
  const { name, from, to } = node
  if (scope.locals !== NO_NAMES && scope.locals.has(name)) return node
  if (scope.isImaginary(name)) return N.constant('imaginary', IMAGINARY, from, to)
  const constant = mayBeConstant(name) ? CONSTANTS.get(name) : undefined
  if (constant) return N.constant(constant, CONSTANT_VALUES[constant], from, to)
  const kept = scope.names.above(name)
  if (kept === null) return notKept(scope, node)
  if (kept.kind === 'value') scope.use(name, kept)
  else scope.fail('function-needs-bracket', node, { name }, [write(`${name}()`)])
  return node
}

/** `j4.5` where no line keeps such a name, or a name that nothing defines. */
export function notKept(scope: BindScope, node: NameNode): Node {
  const { name } = node
  const circuit = readCircuitImaginary(name)
  if (circuit && name.startsWith(scope.names.letter) && !scope.names.anywhere(name))
    return imaginary(node, circuit.digits, circuit.prefix, circuit.exponent, 'before')
  return unknownNamed(scope, node, '')
}

/** Digits stand before the name where it is the right side of a product without a sign. */
export function unknownNamed(scope: BindScope, node: NameNode, digits: string): Node {
  // The line depends on the name all the same: keeping it later mends the line.
  scope.use(node.name, null)
  const means = (part: string): boolean => scope.isName(part) || scope.isImaginary(part)
  const { self, names, source } = scope
  scope.problem ??= unknownName(node, { joined: digits === '' ? '' : '*', self, names, source, means })
  return node
}

/** No look-up for the many names that begin with another letter than p, e, i, π. */
function mayBeConstant(name: string): boolean {
  const first = name.charCodeAt(0)
  return first === 112 || first === 101 || first === 105 || first === 960
}
