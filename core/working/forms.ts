import type { Standing } from '../evaluate/asked'
import type { FolioEvaluator } from '../evaluate/folio'
import type { Form, Node } from '../notation/tree'
import { unbracketed } from './seen'

/** The forms that kept names go on in: as what stands in their lines was written. */

/** How many definitions are followed. */
const DEPTH_MOST = 12

export function formsOf(evaluator: FolioEvaluator, standing: Standing): (name: string) => Form {
  const known = new Map<string, Form>()
  const ofName = (name: string, depth: number): Form => {
    const before = known.get(name)
    if (before) return before
    const line = standing.scope.get(name)?.line
    const body = line === undefined ? null : evaluator.bodyAt(line)
    const form = body && depth > 0 ? formOf(body, (inner) => ofName(inner, depth - 1)) : 'plain'
    known.set(name, form)
    return form
  }
  return (name) => ofName(name, DEPTH_MOST)
}

/** Polar literals, and products, quotients and powers of them; quotients of whole numbers as fractions. */
function formOf(node: Node, ofName: (name: string) => Form): Form {
  const inner = unbracketed(node)
  switch (inner.type) {
    case 'polar':
      return 'polar'
    case 'name':
      return ofName(inner.name)
    case 'constant':
      return inner.name === 'pi' ? 'fraction' : 'plain'
    case 'united':
    case 'sign':
      return formOf(inner.operand, ofName)
    case 'power':
      return formOf(inner.base, ofName)
    case 'product': {
      if (inner.sign === 'mod') return 'plain'
      const [left, right] = [formOf(inner.left, ofName), formOf(inner.right, ofName)]
      if (left === 'polar' || right === 'polar') {
        const other = left === 'polar' ? inner.right : inner.left
        return left === right || isPlainNumber(other) ? 'polar' : 'plain'
      }
      const whole = (side: Node, form: Form): boolean => form === 'fraction' || isWhole(side)
      const pi = left === 'fraction' || right === 'fraction'
      return (inner.sign === '/' || pi) && whole(inner.left, left) && whole(inner.right, right) ? 'fraction' : 'plain'
    }
    default:
      return 'plain'
  }
}

const isPlainNumber = (node: Node): boolean => {
  const inner = unbracketed(node)
  return inner.type === 'literal' && inner.letter === 'none'
}

const isWhole = (node: Node): boolean => {
  const inner = unbracketed(node)
  return inner.type === 'literal' && inner.prefix === '' && inner.letter === 'none' && /^\d+$/.test(inner.digits)
}
