import { imaginary, imaginaryNumeral, literal, numeralNode, readSuffix, realLiteral } from './literals'
import type { Suffix } from './literals'
import { write } from './problem'
import type { BindScope } from './bindScope'
import { boundName, IMAGINARY, unknownNamed } from './boundNames'
import * as N from './nodes'
import { isLetter } from './syntax'
import type { Lettered, Node } from './tree'
import { CONSTANTS } from './words'

/** Digits with letters, once it is known what the letters are: `4.7k`, `5j`, `4k7`, `2x`. */

export function letteredPieces(scope: BindScope, node: Lettered): Node[] {
  const { digits, run } = node
  const runSpan = { from: node.runFrom, to: node.to }
  const number = numeralNode(node.numeral, node.from, node.runFrom)
  const suffix = readSuffix(run, (name) => scope.isImaginary(name))
  if (scope.isImaginary(run)) return [imaginaryNumeral(node)]
  if (scope.isName(run)) {
    if (!scope.locals.has(run) && CONSTANTS.get(run) === undefined) hintShadowed(scope, node, suffix)
    return [number, boundName(scope, N.name(run, runSpan.from, runSpan.to))]
  }
  if (suffix?.kind === 'prefix') {
    if (suffix.imaginary) return [imaginary(node, digits, suffix.prefix, suffix.exponent, 'after')]
    return [literal(node, realLiteral(digits, suffix.exponent), digits, suffix.prefix)]
  }
  if (suffix?.kind === 'code' && /^\d+$/.test(digits)) {
    const written = `${digits}.${suffix.tail}`
    const prefix = run.charAt(0) === 'R' ? '' : run.charAt(0).toLowerCase() === 'k' ? 'k' : run.charAt(0)
    return [literal(node, realLiteral(written, suffix.exponent), written, prefix)]
  }
  return [number, unknownNamed(scope, N.name(run, runSpan.from, runSpan.to), digits)]
}

/** Digits before a kept name that would otherwise be a prefix or the imaginary unit. */
export function hintShadowed(scope: BindScope, node: Lettered, suffix: Suffix | null): void {
  const { digits, run } = node
  const product = write(`${digits}*${run}`)
  if (isLetter(run))
    scope.hint('unit-shadowed', node, { name: run }, [product, write(`${digits}${scope.names.letter}`)])
  else if (suffix?.kind === 'prefix' && !suffix.imaginary) {
    const data = { text: scope.slice(node), digits, name: run }
    scope.hint('prefix-shadowed', node, data, [product, write(`${digits}e${suffix.exponent}`)])
  }
}

/** `4j` as 4 and j, so that a power can bind to the letter. */
export function imaginaryParts(scope: BindScope, node: Lettered): { digits: Node; letter: Node } | null {
  if (scope.isName(node.run) && !scope.isImaginary(node.run)) return null
  const letter = node.run.slice(-1)
  const suffix = readSuffix(node.run, (name) => scope.isImaginary(name))
  const prefixed = suffix?.kind === 'prefix' && suffix.imaginary
  if (!scope.isImaginary(node.run) && !prefixed) return null
  const exponent = prefixed ? suffix.exponent : 0
  const prefix = prefixed ? suffix.prefix : ''
  const cut = node.to - letter.length
  return {
    digits: N.literal(realLiteral(node.digits, exponent), node.digits, prefix, 'none', node.from, cut),
    letter: N.constant('imaginary', IMAGINARY, cut, node.to),
  }
}
