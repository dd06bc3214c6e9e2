import type { BindScope } from './bindScope'
import { write } from './problem'
import type { Chain, Lettered, Node, Span } from './tree'

/** Hints at products and quotients that may have been meant otherwise. */

/** `1/4j` divides by 4j. */
export function hintQuotient(scope: BindScope, chain: Chain, left: Node, bottom: Lettered): void {
  const text = scope.slice(bottom)
  const top = scope.slice(left)
  scope.hint('quotient-imaginary', { from: chain.from, to: bottom.to }, { bottom: text }, [
    write(`${top}/(${text})`),
    write(`${top}/${bottom.digits}*${bottom.run}`),
  ])
}

export function hintImplicit(scope: BindScope, quotient: Span, piece: Node): void {
  const span = { from: quotient.from, to: piece.to }
  const text = scope.slice(span)
  const at = text.lastIndexOf('/', quotient.to - quotient.from)
  const top = text.slice(0, at)
  const bottom = text.slice(at + 1)
  const digits = scope.source.slice(quotient.from + at + 1, quotient.to)
  scope.hint('implicit-after-quotient', span, { text, top, digits, tail: scope.slice(piece) }, [
    write(`${top}/(${bottom})`),
    write(`(${top}/${digits})*${scope.slice(piece)}`),
  ])
}

export function hintParallel(scope: BindScope, side: Node, whole: Span): void {
  if (side.type !== 'product' || side.sign !== '/') return
  const top = side.left
  const one = top.type === 'literal' && top.value.kind === 'number' && top.value.re === 1 && top.value.im === 0
  if (!one) scope.hint('parallel-quotient', whole, { text: scope.slice(side) })
}
