import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import { loopNegate, settle } from '../operators/lift'
import { operateOn } from '../operators/operate'
import { negate } from '../operators/unary'
import type { BinarySign } from '../operators/rules'
import { shapeOf } from '../quantities/shape'
import { throughQuantity } from '../quantities/through'
import { integer, vector } from '../values/make'
import { bare } from '../values/quantity'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'

/** A term that is linear in what is sought: a value, and one for each sought name by which that is multiplied. */
export interface LinearForm {
  readonly kind: 'linear'
  /** `null` is zero of whatever sort. */
  readonly constant: Value | null
  readonly factors: ReadonlyMap<string, Value>
}

/** The term that makes it something else. */
export interface Nonlinear {
  readonly kind: 'nonlinear'
  readonly term: Node
}

type Found = LinearForm | Nonlinear | Failure

/** True where a closed term has sought names in it. */
export function hasSought(node: Node): boolean {
  return node.type === 'name' || childrenOf(node).some(hasSought)
}

/** The linear form of a closed term in which all names are sought. */
function linearForm(node: Node, context: Context, evaluate: Evaluate): Found {
  return new Former(context, evaluate).of(node)
}

/** left − right of an equation. */
export function equationForm(left: Node, right: Node, context: Context, evaluate: Evaluate): Found {
  const [a, b] = [linearForm(left, context, evaluate), linearForm(right, context, evaluate)]
  if (a.kind !== 'linear') return a
  if (b.kind !== 'linear') return b
  const odd = [a.constant, b.constant].find((value) => value && UNSUITED.has(bare(value).kind))
  if (odd) return failure('equation-value', { kind: bare(odd).kind })
  const [one, other] = [kindIn(a), kindIn(b)]
  if (one && other && one !== other && !NUMBERS.has(one + other))
    return failure('equation-sides', { left: one, right: other })
  return joined('-', a, b, [left, right], context)
}

/** Nothing can be solved for these. */
const UNSUITED: ReadonlySet<Value['kind']> = new Set(['text', 'truth', 'parts', 'check', 'function'])

/** Scalars of these kinds can stand beside one another. */
const NUMBERS: ReadonlySet<string> = new Set(
  ['number', 'angle', 'polynomial'].flatMap((a) => ['number', 'angle', 'polynomial'].map((b) => a + b)),
)

/** The kind of a side, where that is plain: of its constant, or of the coefficients that are columns. */
function kindIn({ constant, factors }: LinearForm): Value['kind'] | null {
  const found = [constant, ...factors.values()].map((value) => value && bare(value).kind)
  if (found.includes('sweep') || found.includes('matrix')) return null
  return found.find((kind) => kind === 'vector') ?? (factors.size === 0 ? (found[0] ?? null) : null)
}

/** What is to be said of an equation from which all that is sought drops out; `null` of any other. */
export function alwaysOrNever(form: LinearForm | Nonlinear): 'always' | 'never' | null {
  if (form.kind !== 'linear' || ![...form.factors.values()].every(isNothing)) return null
  return form.constant === null || isNothing(form.constant) ? 'always' : 'never'
}

function isNothing(value: Value): boolean {
  const inner = bare(value)
  if (inner.kind === 'number') return inner.re === 0 && inner.im === 0
  return inner.kind === 'angle' && inner.radians === 0
}

class Former {
  constructor(
    private readonly context: Context,
    private readonly evaluate: Evaluate,
  ) {}

  of(node: Node): Found {
    if (node.type === 'name') return { kind: 'linear', constant: null, factors: new Map([[node.name, ONCE]]) }
    if (!hasSought(node)) {
      const value = this.evaluate(node, this.context)
      return value.kind === 'failure' ? value : { kind: 'linear', constant: value, factors: NO_FACTORS }
    }
    switch (node.type) {
      case 'group':
        return this.of(node.inner)
      case 'sign': {
        const inner = this.of(node.operand)
        return inner.kind === 'linear' && node.sign === '-' ? mapped(inner, negated) : inner
      }
      case 'sum': {
        const [left, right] = [this.of(node.left), this.of(node.right)]
        if (left.kind !== 'linear') return left
        if (right.kind !== 'linear') return right
        return joined(node.sign, left, right, [node.left, node.right], this.context)
      }
      case 'product':
        return this.product(node)
      case 'list':
        return this.list(node)
      default:
        return { kind: 'nonlinear', term: node }
    }
  }

  private product(node: Extract<Node, { type: 'product' }>): Found {
    const { sign } = node
    if (sign === 'mod') return { kind: 'nonlinear', term: node }
    const [left, right] = [this.of(node.left), this.of(node.right)]
    if (left.kind !== 'linear') return left
    if (right.kind !== 'linear') return right
    const by: BinarySign = sign === '/' ? '/' : '*'
    // What stands once is multiplied by nothing: it has whatever unit it has.
    const apply = (a: Value, b: Value): Value | Failure => (by === '*' && (a === ONCE || b === ONCE)) ? (a === ONCE ? b : a) : settle(operateOn(by, a, b, node.left, node.right, this.context)) // prettier-ignore
    if (right.factors.size === 0) {
      const { constant } = right
      // X·M is not M·X.
      if (by === '*' && constant && isMatrix(constant)) return { kind: 'nonlinear', term: node }
      return constant === null ? { kind: 'nonlinear', term: node } : mapped(left, (x) => apply(x, constant))
    }
    const { constant } = left
    if (left.factors.size > 0 || by === '/' || constant === null) return { kind: 'nonlinear', term: node }
    return mapped(right, (x) => apply(constant, x))
  }

  /** A vector of sought numbers: each of them stands in its entry. */
  private list(node: Extract<Node, { type: 'list' }>): Found {
    const forms: LinearForm[] = []
    for (const entry of node.entries) {
      const form = this.of(entry)
      if (form.kind !== 'linear') return form
      if ([...form.factors.values(), form.constant].some((x) => x && !isScalar(x))) return { kind: 'nonlinear', term: node } // prettier-ignore
      forms.push(form)
    }
    const names = [...new Set(forms.flatMap(({ factors }) => [...factors.keys()]))]
    const column = (of: (form: LinearForm) => Value | null): Value =>
      vector(forms.map((form) => of(form) ?? integer(0)))
    return {
      kind: 'linear',
      constant: forms.some(({ constant }) => constant) ? column(({ constant }) => constant) : null,
      factors: new Map(names.map((name) => [name, column(({ factors }) => factors.get(name) ?? null)])),
    }
  }
}

function isMatrix(value: Value): boolean {
  const shape = shapeOf(bare(value))
  return shape !== null && shape[1] > 1
}

/** The coefficient of a name that stands by itself. */
const ONCE = integer(1)

const NO_FACTORS: ReadonlyMap<string, Value> = new Map()

/** True of a number, an angle, an algebraic expression, or a sweep of them. */
export function isScalar(value: Value): boolean {
  const inner = bare(value)
  if (inner.kind === 'sweep') return inner.of !== 'other'
  return inner.kind === 'number' || inner.kind === 'angle' || inner.kind === 'polynomial'
}

const negated = (x: Value): Value | Failure =>
  throughQuantity(x, (inner) => settle((inner.kind === 'sweep' ? loopNegate(inner) : null) ?? negate(inner)))

function mapped({ constant, factors }: LinearForm, change: (x: Value) => Value | Failure): Found {
  const made = new Map<string, Value>()
  for (const [name, factor] of factors) {
    const value = change(factor)
    if (value.kind === 'failure') return value
    made.set(name, value)
  }
  const rest = constant && change(constant)
  return rest?.kind === 'failure' ? rest : { kind: 'linear', constant: rest, factors: made }
}

function joined(
  sign: '+' | '-',
  left: LinearForm,
  right: LinearForm,
  [leftNode, rightNode]: readonly [Node, Node],
  context: Context,
): Found {
  const join = (a: Value | null, b: Value | null): Value | Failure | null => {
    if (b === null) return a
    if (a === null) return sign === '-' ? negated(b) : b
    const value = settle(operateOn(sign, a, b, leftNode, rightNode, context))
    return value.kind === 'failure' ? failureAt({ from: leftNode.from, to: rightNode.to }, value) : value
  }
  const factors = new Map<string, Value>()
  for (const name of new Set([...left.factors.keys(), ...right.factors.keys()])) {
    const value = join(left.factors.get(name) ?? null, right.factors.get(name) ?? null)
    if (value?.kind === 'failure') return value
    if (value) factors.set(name, value)
  }
  const constant = join(left.constant, right.constant)
  return constant?.kind === 'failure' ? constant : { kind: 'linear', constant, factors }
}
