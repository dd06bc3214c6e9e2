import { isComplex } from '../format/number'
import { withChildren, withNames } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import * as N from '../notation/nodes'
import type { Apply, Node, Series } from '../notation/tree'
import { Body } from '../evaluate/functionBody'
import { inAngleUnit } from '../values/convert'
import { bare } from '../values/quantity'
import { integer } from '../values/make'
import type { Value } from '../values/types'
import { complexExponential, complexNegative, complexPower, complexProduct, complexQuotient, complexRoot, complexSum, conjugateOf, magnitude } from './complexNumbers' // prettier-ignore
import { factorial, functionChapter, modulo, parallel } from './functions'
import { determinant, matrixPower } from './matrices'
import { polynomialProduct, polynomialQuotient, polynomialSum, replacedUnknowns } from './polynomials'
import { realPower, realProduct, realQuotient, realSum } from './reals'
import { seenOf, unbracketed } from './seen'
import { column, joined, power, valued, whole } from './terms'
import { arraySum, matrixProduct, scaledArray, vectorLength } from './vectors'
import type { Done, Progress } from './work'

/** Which chapter works an operation out. */
export function chapters(p: Progress): Done | null {
  const { node } = p
  switch (node.type) {
    case 'sum':
      return sums(p, node.sign)
    case 'product':
      return products(p, node.sign === '/' ? '/' : node.sign === 'mod' ? 'mod' : '*')
    case 'parallel':
      return p.operands.some(hasArray) ? p.done('entry-by-entry') : parallel(p, p.operands.map((o) => o.node)) // prettier-ignore
    case 'sign':
      return signs(p, node.sign)
    case 'power':
      return powers(p)
    case 'apply':
      return calls(p, node)
    case 'bars':
      return bars(p, node.double)
    case 'root':
      return roots(p)
    case 'mark':
      return marks(p, node.sign)
    case 'polar':
      return p.silently('polar')
    case 'postfix':
      return node.sign === '!' ? factorial(p) : p.done('as-angle')
    case 'united':
      return p.silently(p.operand(0).form)
    case 'dms':
      return p.silently()
    case 'list':
      return listOfSeries(p, node.entries)
    case 'series':
      return series(p, node)
    case 'entry':
      return p.done('picked-entry')
    case 'part':
      return p.done('named-part', undefined, { says: `.${node.name}` })
    case 'range':
      return p.done('range-of-values', undefined, { says: rangeSaid(p.value) })
    case 'where':
      return where(p)
    case 'compare':
      return p.done('compared')
    case 'logic':
      return p.done(LOGIC[node.sign])
    default:
      return p.done('definition')
  }
}

const LOGIC = { and: 'both-hold', or: 'one-holds', not: 'the-opposite' } as const

const hasArray = ({ value }: Done): boolean => ['vector', 'matrix'].includes(bare(value).kind)
const isAlgebra = ({ value }: Done): boolean => ['polynomial', 'algebra-matrix'].includes(bare(value).kind)
const isSweep = ({ value }: Done): boolean => bare(value).kind === 'sweep'

/** Text, sweeps, unknowns and what is written inside each( ): rules that go before those of numbers. */
function otherwise(p: Progress): Done | null | undefined {
  if (p.operands.some(({ value }) => value.kind === 'text')) return p.done('texts-joined')
  if (p.operands.some(isSweep)) return p.done('along-sweep')
  if (p.seen.each && p.operands.some(hasArray)) return entrywise(p)
  return undefined
}

/** Inside each( ): the operator between entries. */
function entrywise(p: Progress): Done | null {
  const items = p.operands.map(({ value }) => (bare(value).kind === 'vector' ? bare(value) : null))
  const count = items.reduce((n, v) => (v?.kind === 'vector' ? v.items.length : n), 0)
  if (
    count > 0 &&
    count <= 8 &&
    !p.hasUnits &&
    p.operands.every(({ value }) => ['vector', 'number'].includes(value.kind))
  ) {
    // prettier-ignore
    const entry = (k: number): Node => {
      const parts = p.operands.map(({ value, node, form }) => (value.kind === 'vector' ? valued(value.items[k] ?? value, form) : node)) // prettier-ignore
      return withChildren(p.node, parts)
    }
    p.move('entry-by-entry', column(Array.from({ length: count }, (_, k) => entry(k))))
  }
  return p.done('entry-by-entry')
}

function sums(p: Progress, sign: '+' | '-'): Done | null {
  const other = otherwise(p)
  if (other !== undefined) return other
  if (p.operands.some(isAlgebra)) return p.operands.some(hasArray) || bare(p.operand(0).value).kind === 'algebra-matrix' ? p.done('entry-by-entry') : polynomialSum(p, sign) // prettier-ignore
  if (p.operands.some(hasArray)) return arraySum(p, sign)
  const [a, b] = [p.number(0), p.number(1)]
  if (!a || !b) {
    readAsAngles(p)
    return p.done(sign === '+' ? 'add-angles' : 'subtract-angles')
  }
  return isComplex(a) || isComplex(b) ? complexSum(p, sign) : realSum(p, sign, a, b)
}

/** Beside an angle a bare number is one, in the unit of the conventions. */
function readAsAngles(p: Progress): void {
  for (const k of [0, 1]) {
    const { value } = p.operand(k)
    if (value.kind !== 'number' || value.im !== 0) continue
    const angle = inAngleUnit(value, p.conventions.angle)
    p.readAs(k, { node: valued(angle), value: angle, form: 'plain' })
  }
}

function products(p: Progress, sign: '*' | '/' | 'mod'): Done | null {
  const other = otherwise(p)
  if (other !== undefined) return other
  if (sign === 'mod') return modulo(p)
  if (p.operands.some(isAlgebra)) {
    if (p.operands.some((o) => hasArray(o) || bare(o.value).kind === 'algebra-matrix')) return p.done('row-by-column')
    return sign === '*' ? polynomialProduct(p) : polynomialQuotient(p)
  }
  const arrays = p.operands.filter(hasArray)
  if (arrays.length === 2) return matrixProduct(p)
  if (arrays.length === 1) return scaledArray(p, sign)
  const [a, b] = [p.number(0), p.number(1)]
  if (!a || !b) return angleProduct(p, sign)
  if (isComplex(a) || isComplex(b)) return sign === '*' ? complexProduct(p) : complexQuotient(p)
  return sign === '*' ? realProduct(p, a, b) : realQuotient(p, a, b)
}

function angleProduct(p: Progress, sign: '*' | '/'): Done | null {
  if (p.operands.every(({ value }) => value.kind === 'angle')) return p.done('angles-in-ratio')
  return p.done(sign === '*' ? 'multiple-of-angle' : 'part-of-angle')
}

function signs(p: Progress, sign: '+' | '-'): Done | null {
  const operand = p.operand(0)
  if (sign === '+') return { ...operand }
  const z = p.number(0)
  const inner = unbracketed(p.node.type === 'sign' ? p.node.operand : p.node)
  if (inner.type === 'power' && p.node.type === 'sign' && p.node.operand.type !== 'group' && z && !isComplex(z)) return p.done('power-before-sign') // prettier-ignore
  return z && isComplex(z) ? complexNegative(p) : p.done(hasArray(operand) ? 'entry-by-entry' : 'negative')
}

function powers(p: Progress): Done | null {
  const other = otherwise(p)
  if (other !== undefined) return other
  const [base, exponent] = [p.operand(0), p.operand(1)]
  if (isAlgebra(base)) return polynomialPower(p)
  if (hasArray(base)) return matrixPower(p)
  const natural = p.number(0)?.re === Math.E && p.number(0)?.im === 0
  if (natural && exponent.value.kind === 'angle') return complexExponential(p, exponent.value)
  const [a, b] = [p.number(0), p.number(1)]
  if (!a || !b) return p.done('real-power')
  if (natural) return isComplex(b) && b.im !== 0 ? complexExponential(p, b) : p.done('exponential')
  const complex = isComplex(a) || (isComplex(b) && b.im !== 0)
  return (complex ? null : realPower(p, a, b)) ?? (p.value.kind === 'failure' ? p.ended() : complexPower(p))
}

function polynomialPower(p: Progress): Done | null {
  const n = p.number(1)?.re ?? 0
  const base = p.operand(0).node
  if (p.node.type === 'power' && unbracketed(p.node.base).type === 'name') return p.silently()
  if (!Number.isInteger(n) || n < 2 || n > 4 || p.hasUnits) return p.done('repeated-product')
  return p.rewrite('repeated-product', joined(Array.from({ length: n }, () => base), '*', base)) // prettier-ignore
}

function bars(p: Progress, double: boolean): Done | null {
  const inner = bare(p.operand(0).value)
  if (inner.kind === 'vector') return vectorLength(p)
  if (inner.kind === 'matrix' || inner.kind === 'algebra-matrix') return double ? functionChapter(p, 'norm') : determinant(p) // prettier-ignore
  if (inner.kind === 'sweep') return p.done('along-sweep')
  return p.number(0) ? magnitude(p) : p.done('absolute-value')
}

function roots(p: Progress): Done | null {
  const z = p.number(0)
  if (!z) return p.done(hasArray(p.operand(0)) ? 'function-of-entries' : 'along-sweep')
  return isComplex(z) || z.re < 0 ? complexRoot(p, 2) : p.done('square-root')
}

function marks(p: Progress, sign: 'T' | 'H' | '*'): Done | null {
  if (sign !== '*') return p.done(sign === 'T' ? 'transposed' : 'conjugate-transposed')
  return p.number(0) ? conjugateOf(p) : p.done('entry-by-entry')
}

function calls(p: Progress, node: Apply): Done | null {
  const raised = node.raised
  if (raised) return p.rewrite('definition', power(N.apply(node.name, node.builtIn, null, node.args, 0, 0), raised), { says: 'The power is that of the function’s value.' }) // prettier-ignore
  if (!node.builtIn) return userFunction(p, node)
  if (node.name === 'if') return choice(p, node)
  if (node.name === 'each') return each(p, node)
  if (node.name === 'enclosure') return p.done('definition', undefined, { says: 'Measured data, as it is kept with the folio.' }) // prettier-ignore
  const [only] = node.args
  const row = only && unbracketed(only)
  if (row?.type === 'series') return seriesCall(p, node, row)
  return functionChapter(p, node.name)
}

/** A function that a line defines: its arguments in the places of its parameters. */
function userFunction(p: Progress, node: Apply): Done | null {
  const value = p.work.tools.lookup(node.name)
  if (value?.kind !== 'function' || !(value.body instanceof Body)) return p.done('user-function')
  const given = new Map<string, Node>()
  for (const [name, captured] of value.body.captured) if (captured.kind !== 'function') given.set(name, valued(captured))
  value.parameters.forEach((name, k) => given.set(name, p.operand(k).node))
  const said = `${value.name}(${value.parameters.join(', ')}) is known from its line.`
  return p.rewrite('user-function', N.group(withNames(value.body.term, given), false, node.from, node.to), { says: said }) // prettier-ignore
} // prettier-ignore

/** Terms of a series up to which it is written out. */
const SERIES_SHOWN = 12

/** The terms of a series, its counter replaced; `null` where they are too many. */
function termsOf(p: Progress, { body, counter, over }: Series): readonly Node[] | null {
  const bound = (node: Node | null, usual: number): number => {
    const value = node && p.work.tools.see(node).value
    return value?.kind === 'number' ? value.re : usual
  }
  const [first, last, step] = [bound(over.first, NaN), bound(over.last, NaN), bound(over.step, 1)]
  const count = Math.floor((last - first) / step + 1e-9) + 1
  if (!(count >= 1 && count <= SERIES_SHOWN) || !Number.isInteger(first) || !Number.isInteger(step)) return null
  return Array.from({ length: count }, (_, k) => withNames(body, new Map([[counter.name, valued(integer(first + k * step))]]))) // prettier-ignore
}

function seriesCall(p: Progress, node: Apply, row: Series): Done | null {
  const terms = termsOf(p, row)
  const rule = node.name === 'product' ? 'product-written-out' : 'sum-written-out'
  if (!terms) return p.done(rule)
  if (node.name !== 'sum' && node.name !== 'product') return p.rewrite('entries-written-out', N.apply(node.name, true, null, [column(terms)], 0, 0)) // prettier-ignore
  return p.rewrite(rule, joined(terms, node.name === 'sum' ? '+' : '*', whole(0)))
}

/** [f(k) for k = 1 to n]: its entries, each in its place. */
function listOfSeries(p: Progress, entries: readonly Node[]): Done | null {
  const [only] = entries
  return only?.type === 'series' && entries.length === 1 ? series(p, only) : p.done('entries-written-out')
}

function series(p: Progress, node: Series): Done | null {
  const terms = termsOf(p, node)
  return terms ? p.rewrite('entries-written-out', column(terms.map((t) => asRow(p, t)))) : p.done('entries-written-out')
}

/** A row that is a series itself, written out: rows of one matrix are told together. */
function asRow(p: Progress, term: Node): Node {
  const [only] = term.type === 'list' ? term.entries : []
  const terms = only?.type === 'series' ? termsOf(p, only) : null
  return terms ? column(terms) : term
}

/** if(condition, a, b): the condition, then the side that is taken. */
function choice(p: Progress, node: Apply): Done | null {
  const [condition, yes, no] = node.args
  if (!condition || !yes || !no) return p.done('definition')
  const around = (k: number) => (inner: Node) => p.wrap(withChildren(node, node.args.map((a, at) => (at === k ? inner : a)))) // prettier-ignore
  const seen = seenOf(p.seen, condition)
  if (seen.value.kind !== 'truth') return p.done('along-sweep')
  const truth = p.work.term(seen, around(0))
  if (truth?.value.kind !== 'truth') return null
  const taken = truth.value.truth
  const branch = taken ? yes : no
  p.now = withChildren(node, [truth.node, yes, no])
  p.move(taken ? 'first-choice' : 'second-choice', branch)
  p.work.operations += 1
  return p.work.term(seenOf(p.seen, branch), p.wrap)
}

/** each( … ): what stands in it, entry by entry. */
function each(p: Progress, node: Apply): Done | null {
  const [only] = node.args
  if (!only) return p.done('definition')
  const around = (inner: Node): Node => p.wrap(inner.type === 'valued' ? inner : withChildren(node, [inner]))
  const done = p.work.term(seenOf(p.seen, only), around)
  return done && p.silently(done.form)
}

/** p where s = 2: the value in the place of the unknown. */
function where(p: Progress): Done | null {
  const { node } = p
  if (node.type !== 'where') return null
  const [body, ...rest] = childrenOf(node)
  if (!body) return null
  const done = p.work.term(seenOf(p.seen, body), (inner) => p.wrap(withChildren(node, [inner, ...rest])))
  if (!done) return null
  const given = new Map<string, Node>()
  const now: Node[] = [done.node, ...rest]
  for (const [k, { name, value }] of node.given.entries()) {
    const at = 2 * k + 2
    const found = p.work.term(seenOf(p.seen, value), (inner) => p.wrap(withChildren(node, now.map((n, m) => (m === at ? inner : n))))) // prettier-ignore
    if (!found) return null
    now[at] = found.node
    given.set(name.name, found.node)
  }
  p.now = withChildren(node, now)
  const replaced = replacedUnknowns(done.value, given)
  return replaced && !p.hasUnits ? p.rewrite('unknown-replaced', replaced) : p.done('unknown-replaced')
}

function rangeSaid(value: Value | { readonly kind: 'failure' }): string {
  return value.kind === 'sweep' ? `${value.count} points.` : ''
}
