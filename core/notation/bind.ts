import { BoundLine } from './names'
import type { Bound, Names } from './names'
import { BindScope, NO_HINTS, NO_NAMES } from './bindScope'
import { hintImplicit, hintParallel, hintQuotient } from './boundHints'
import { imaginaryParts, letteredPieces } from './boundLettered'
import { boundName } from './boundNames'
import { imaginaryNumeral, numeralNode, readSuffix } from './literals'
import type { Suffix } from './literals'
import { write } from './problem'
import { bracketOf } from './tree'
import type { Call, Chain, ChainSign, NameNode, Node, Polar, Series, Slice, Span, Statement, United } from './tree'
import { divisorUnclear, isOpen, powerUnclear, prefixGiven, unitFits } from './boundUnits'
import { parseEquation, parseProducts } from './parser'
import { comesApart } from './syntax'
import { inverseUnclear, unknownFunction } from './unknown'
import * as N from './nodes'

/** Resolves what depends on scope: which letters are names, which are the imaginary unit, what is called. */
export function bindStatement(
  source: string,
  statement: Statement,
  names: Names,
  products: ReadonlySet<number> = NO_PLACES,
): Bound {
  // A line of plain numbers is bound as it stands.
  if (statement.type === 'expression' && statement.free) return boundAs(statement.body)
  const self = statement.type === 'define' || statement.type === 'function' ? statement.name.name : null
  const binder = new Binder(source, names, statement.type === 'function' ? statement.parameters : [], self)
  let body: Node | null = null
  let right: Node | null = null
  let within: Node | null = null
  switch (statement.type) {
    case 'empty':
      break
    case 'expression':
      body = binder.bind(statement.body)
      break
    case 'define':
      binder.definable(statement.name)
      body = statement.free ? statement.body : binder.bind(statement.body)
      break
    case 'function':
      binder.definable(statement.name)
      for (const parameter of statement.parameters) binder.definable(parameter)
      body = binder.bind(statement.body)
      break
    case 'unknown':
      for (const name of statement.names) binder.definable(name)
      break
    case 'sought':
      for (const name of statement.names) binder.definable(name)
      break
    case 'determine': {
      const terms = lookedFor(statement)
      if (terms.length > 0) body = N.list(terms.map((term) => binder.bind(term)), 0, source.length) // prettier-ignore
      break
    }
    case 'equation':
      body = binder.bind(statement.left)
      right = binder.bind(statement.right)
      break
    case 'check':
      body = binder.bind(statement.left)
      right = binder.bind(statement.right)
      within = statement.within ? binder.bind(statement.within.amount) : null
      break
  }
  if (binder.products !== null)
    return boundAgain(source, names, new Set([...products, ...binder.products]), statement.type === 'equation')
  return new BoundLine(body, right, within, binder.problem, binder.hints, binder.used)
}

/** The terms that say where a solution is looked for, in the order in which they are bound. */
function lookedFor({ near, between }: Extract<Statement, { type: 'determine' }>): readonly Node[] {
  return [...near.map(({ value }) => value), ...between.flatMap(({ first, last }) => [first, last])]
}

/** Where what stands behind a number is a name after all, the line is read again with products there. */
function boundAgain(source: string, names: Names, products: ReadonlySet<number>, equation: boolean): Bound {
  const { statement, problem } = equation ? parseEquation(source, products) : parseProducts(source, products)
  const bound = bindStatement(source, statement, names, products)
  return problem ? new BoundLine(bound.body, bound.right, bound.within, problem, bound.hints, bound.used) : bound
}

const NO_PLACES: ReadonlySet<number> = new Set()

function boundAs(body: Node): Bound {
  return new BoundLine(body, null, null, null, NO_HINTS, null)
}

class Binder extends BindScope {
  /** Units that are products: their first word is an unknown or a name of the line itself. */
  products: readonly number[] | null = null

  bind(node: Node): Node {
    switch (node.type) {
      case 'literal':
        return node
      case 'name':
        return boundName(this, node)
      case 'product': {
        const left = this.bind(node.left)
        const right = this.bind(node.right)
        if (node.sign === '/' && node.right.type === 'united') divisorUnclear(this, node.left, node.right)
        if (left === node.left && right === node.right) return node
        return N.product(node.sign, left, right, node.from, node.to)
      }
      case 'united':
        return this.united(node)
      case 'sum':
        return this.sum(node)
      case 'group': {
        if (node.free) return node
        const inner = this.bind(node.inner)
        return inner === node.inner ? node : N.group(inner, false, node.from, node.to)
      }
      case 'lettered':
      case 'call':
        return this.whole(node) ?? this.product(this.split(node))
      case 'chain':
        return this.chain(node)
      case 'power':
        return comesApart(node.base) ? this.product(this.power(node)) : this.plainPower(node)
      case 'list':
        for (const e of node.entries)
          if (e.type === 'range')
            this.fail('range-in-list', e, { text: this.slice(e) }, [write(`vector(${this.slice(e)})`)])
        return N.list(this.all(node.entries), node.from, node.to)
      case 'series':
        return this.series(node)
      case 'entry':
        return N.entry(
          this.bind(node.operand),
          this.bind(node.index),
          node.column && this.bind(node.column),
          node.from,
          node.to,
        )
      case 'slice':
        return this.slicing(node)
      case 'part':
        return N.part(this.bind(node.operand), node.name, node.from, node.to)
      case 'range':
        return N.range(
          this.bind(node.first),
          this.bind(node.last),
          node.by,
          node.amount && this.bind(node.amount),
          node.from,
          node.to,
        )
      case 'where':
        return N.where(
          this.bind(node.body),
          node.given.map(({ name, value }) => ({ name: this.given(name), value: this.bind(value) })),
          node.from,
          node.to,
        )
      case 'postfix':
      case 'mark':
        return this.product(this.split(node))
      case 'polar':
        return this.product(this.split(node))
      case 'sign':
        return this.sign(node)
      case 'parallel': {
        const left = this.bind(node.left)
        const right = this.bind(node.right)
        for (const side of [left, right]) hintParallel(this, side, node)
        return N.parallel(left, right, node.from, node.to)
      }
      case 'compare':
        return this.compare(node)
      case 'logic':
        return N.logic(node.sign, this.all(node.operands), node.from, node.to)
      case 'bars':
        return N.bars(this.bind(node.inner), node.double, node.from, node.to)
      case 'root':
        return N.root(this.bind(node.operand), node.from, node.to)
      default:
        return node
    }
  }

  /** The same row where binding changes nothing in it. */
  private all(nodes: readonly Node[]): readonly Node[] {
    const only = nodes[0]
    if (nodes.length !== 1 || only === undefined) return nodes.map((node) => this.bind(node))
    const bound = this.bind(only)
    return bound === only ? nodes : [bound]
  }

  private slicing({ first, last, step, from, to }: Slice): Slice {
    return N.slice(this.bind(first), this.bind(last), step && this.bind(step), from, to)
  }

  /** The unknown that gets a value: read like any name, so that the line follows it. */
  private given(name: NameNode): NameNode {
    const bound = boundName(this, name)
    if (bound.type !== 'name') this.fail('where-unknown', name, { name: name.name })
    return name
  }

  /** The counter is a name inside the body only. */
  private series(node: Series): Node {
    const over = this.slicing(node.over)
    this.definable(node.counter)
    const outer = this.locals
    this.locals = new Set([...outer, node.counter.name])
    const body = this.bind(node.body)
    this.locals = outer
    return N.series(body, node.counter, over, node.from, node.to)
  }

  private sign(node: Extract<Node, { type: 'sign' }>): Node {
    const operand = this.bind(node.operand)
    if (operand.type === 'power' && operand.base.type === 'literal' && node.sign === '-') {
      const base = this.slice(operand.base)
      this.hint('negative-power', node, { text: this.slice(node), base }, [
        write(`(-${base})^${this.slice(operand.exponent)}`),
      ])
    }
    return operand === node.operand ? node : N.sign(node.sign, operand, node.from, node.to)
  }

  private sum(node: Extract<Node, { type: 'sum' }>): Node {
    const raw = node.right
    if (raw.type === 'polar' && raw.magnitude.type === 'lettered' && this.isImaginary(raw.magnitude.run)) {
      const left = this.slice(node.left)
      const right = this.slice(raw.magnitude)
      const angle = this.slice(raw.angle)
      this.fail('angle-bracketing', node, { text: this.slice(node) }, [
        write(`(${left} ${node.sign} ${right})*(1∠${angle})`),
        write(`${left} ${node.sign} ${right}*(1∠${angle})`),
      ])
    }
    const left = this.bind(node.left)
    const right = this.bind(node.right)
    if (left === node.left && right === node.right) return node
    return N.sum(node.sign, left, right, node.from, node.to)
  }

  private compare(node: Extract<Node, { type: 'compare' }>): Node {
    const [only] = node.rest
    const numbers = node.rest.length === 1 && only && isNumeral(node.first) && isNumeral(only.node)
    // Written apart it is meant as it stands.
    const close = only && !/\s/.test(this.slice({ from: node.first.to, to: only.node.from }))
    if (numbers && close && (only.sign === '<' || only.sign === '<=')) {
      this.hint('angle-sign', node, { text: this.slice(node) }, [
        write(`${this.slice(node.first)}∠${this.slice(only.node)}`),
      ])
    }
    const first = this.bind(node.first)
    const rest = node.rest.map((r) => ({ sign: r.sign, node: this.bind(r.node) }))
    return N.compare(first, rest, node.from, node.to)
  }

  /** An operand with its unit, or with what turns out to be a name. */
  private united(node: United): Node {
    const { unit } = node
    const [first] = unit.words
    if (first && isOpen(this, first.text)) {
      this.products = [...(this.products ?? []), unit.from]
      return this.bind(node.operand)
    }
    const operand = this.bind(node.operand)
    unitFits(this, node, operand)
    return prefixGiven(operand, node) ?? (operand === node.operand ? node : N.united(operand, unit, node.from, node.to))
  }

  /** Factors from the left; `1/2x` becomes (1/2)·x. */
  private chain(node: Chain): Node {
    let left = this.bind(node.first)
    /** The quotient that the product so far ends in, where its last sign is a division. */
    let quotient: Span | null = null
    for (const [k, item] of node.rest.entries()) {
      if (item.sign === '/' && item.node.type === 'united')
        divisorUnclear(this, N.list([node.first, ...node.rest.slice(0, k).map((r) => r.node)], node.from, (node.rest[k - 1]?.node ?? node.first).to), item.node) // prettier-ignore
      const one = this.whole(item.node)
      if (item.sign === '/' && item.node.type === 'lettered' && one) hintQuotient(this, node, left, item.node)
      const pieces = one ? null : this.split(item.node)
      const count = pieces ? pieces.length : 1
      for (let k = 0; k < count; k += 1) {
        const right = pieces ? (pieces[k] ?? item.node) : (one ?? item.node)
        const sign: ChainSign = k === 0 ? item.sign : 'implicit'
        if (sign === 'implicit' && quotient) hintImplicit(this, quotient, right)
        left = N.product(sign, left, right, left.from, right.to)
        quotient = sign === '/' ? left : null
      }
    }
    return left
  }

  /** A factor that stays one node: anything but digits with what they multiply. */
  private whole(node: Node): Node | null {
    switch (node.type) {
      case 'lettered':
        return this.isImaginary(node.run) ? imaginaryNumeral(node) : null
      case 'call':
        return node.callee.type === 'name' && !this.isImaginary(node.callee.name)
          ? this.called(node, node.callee)
          : null
      default:
        return comesApart(node) ? null : this.bind(node)
    }
  }

  private product(pieces: readonly Node[]): Node {
    const [first, ...rest] = pieces
    if (first === undefined) throw new Error('a factor has at least one piece')
    let left = first
    for (const right of rest) left = N.product('implicit', left, right, left.from, right.to)
    return left
  }

  /** A factor as one bound node, or as digits and what they multiply (`2x^2` is 2 · x²). */
  private split(node: Node): Node[] {
    switch (node.type) {
      case 'lettered':
        return letteredPieces(this, node)
      case 'call':
        return this.call(node)
      case 'power':
        return this.power(node)
      case 'postfix':
        return this.onLast(node.operand, (operand) => N.postfix(node.sign, operand, operand.from, node.to))
      case 'mark': {
        const kept = node.sign !== '*' && this.names.above(node.sign) !== null
        return this.onLast(node.operand, (operand) => N.mark(node.sign, operand, kept, operand.from, node.to))
      }
      case 'polar':
        return this.polar(node)
      default:
        return [this.bind(node)]
    }
  }

  private onLast(operand: Node, wrap: (operand: Node) => Node): Node[] {
    const pieces = this.split(operand)
    const last = pieces.at(-1)
    return last === undefined ? pieces : [...pieces.slice(0, -1), wrap(last)]
  }

  /** A power whose base stays whole. */
  private plainPower(node: Extract<Node, { type: 'power' }>): Node {
    const exponent = this.exponent(node)
    const base = this.bind(node.base)
    if (node.base.type === 'united') powerUnclear(this, node.base, node.exponent)
    if (base === node.base && exponent === node.exponent) return node
    return N.power(base, exponent, node.from, node.to)
  }

  private power(node: Extract<Node, { type: 'power' }>): Node[] {
    const exponent = this.exponent(node)
    if (node.base.type === 'lettered') {
      const imaginary = imaginaryParts(this, node.base)
      if (imaginary) {
        const { digits, letter } = imaginary
        const raised: Node = N.power(letter, exponent, letter.from, node.to)
        return [N.product('implicit', digits, raised, node.from, node.to)]
      }
    }
    return this.onLast(node.base, (base) => {
      if (base.type === 'literal' && base.prefix !== '' && node.base.type === 'lettered')
        this.hint('prefix-power', node, { base: this.slice(base) }, [
          write(`(${this.slice(base)})^${this.slice(node.exponent)}`),
        ])
      return N.power(base, exponent, base.from, node.to)
    })
  }

  private exponent(node: Extract<Node, { type: 'power' }>): Node {
    const raw = node.exponent.type === 'sign' ? node.exponent.operand : node.exponent
    if (raw.type === 'lettered' && this.split(raw).length > 1) {
      const base = this.slice(node.base)
      const sign = node.exponent.type === 'sign' ? node.exponent.sign : ''
      this.fail('power-bracketing', node, { text: this.slice(node) }, [
        write(`${base}^(${this.slice(node.exponent)})`),
        write(`${base}^${sign}${raw.digits}*${raw.run}`),
      ])
    }
    return this.bind(node.exponent)
  }

  private polar(node: Polar): Node[] {
    const angle = this.angle(node)
    return this.onLast(node.magnitude, (magnitude) => N.polar(magnitude, angle, magnitude.from, node.to))
  }

  private angle(node: Polar): Node {
    const raw = node.angle.type === 'sign' ? node.angle.operand : node.angle
    const runs = raw.type === 'lettered' || raw.type === 'postfix' || raw.type === 'call'
    const pieces = runs ? this.split(raw) : []
    const last = pieces.at(-1)
    const pi = last?.type === 'constant' && last.name === 'pi'
    if (pieces.length > 1 && !pi) {
      const magnitude = this.slice(node.magnitude)
      this.fail('angle-bracketing', node, { text: this.slice(node) }, [
        write(`${magnitude}∠(${this.slice(node.angle)})`),
        write(`(${magnitude}∠${this.slice(pieces[0] ?? node)})*${this.slice(last ?? node)}`),
      ])
    }
    return this.bind(node.angle)
  }

  /** `2f(x)`, `j(2 + 3)`, `4j(2 + 3)`: digits and what they multiply. */
  private call(node: Call): Node[] {
    const { callee } = node
    const name = callee.type === 'name' ? callee.name : callee.run
    const suffix = callee.type === 'lettered' ? readSuffix(name, (n) => this.isImaginary(n)) : null
    const imaginary =
      this.isImaginary(name) || (suffix?.kind === 'prefix' && suffix.imaginary && !this.isFunction(name))
    const [only] = node.args
    if (imaginary && only && node.args.length === 1 && !node.raised) {
      const { from, to } = bracketOf(node)
      const group: Node = N.group(this.bind(only), false, from, to)
      return [...this.split(callee), group]
    }
    if (callee.type === 'name') return [this.called(node, callee)]
    const { numeral, run, runFrom, from, to } = callee
    return [numeralNode(numeral, from, runFrom), this.called(node, N.name(run, runFrom, to), suffix)]
  }

  /** A call of a function that a line or the registry defines, or the error that there is none. */
  private called(node: Call, callee: NameNode, suffix: Suffix | null = null): Node {
    const { name } = callee
    const args = node.free ? node.args : this.all(node.args)
    const local = this.locals !== NO_NAMES && this.locals.has(name)
    const imaginary = this.isImaginary(name)
    const kept = local || imaginary ? null : this.names.above(name)
    if (kept?.kind === 'function') {
      this.use(name, kept)
      return this.apply(node, callee, name, false, args)
    }
    const builtIn = kept || local || imaginary ? null : this.names.builtIn(name, args.length)
    if (builtIn !== null) {
      if (node.raised && isMinusOne(node.raised))
        this.problem ??= inverseUnclear(
          node,
          builtIn,
          this.source.slice(bracketOf(node).from, node.to),
          this.names.inverseOf(builtIn),
        )
      return this.apply(node, callee, builtIn, true, args)
    }
    if (!local && !imaginary && !kept && !this.isName(name) && suffix === null)
      return this.unknownFunction(node, callee, args)
    const raised = node.raised ? `^${this.slice(node.raised)}` : ''
    const span = { from: callee.from, to: bracketOf(node).from + 1 }
    this.fail('not-a-function', span, { name }, [{ label: `${name}${raised}*(`, replacement: `${name}${raised}*(` }])
    return callee
  }

  private unknownFunction(node: Call, callee: NameNode, args: readonly Node[]): Node {
    const { name, from } = callee
    this.use(name, null)
    this.problem ??= unknownFunction(callee, this.self, this.names)
    return N.apply(name, false, null, args, from, node.to)
  }

  private apply(node: Call, span: Span, name: string, builtIn: boolean, args: readonly Node[]): Node {
    const raised = node.raised ? this.bind(node.raised) : null
    return N.apply(name, builtIn, raised, args, span.from, node.to)
  }
}

function isNumeral(node: Node): boolean {
  return node.type === 'literal' || (node.type === 'sign' && node.operand.type === 'literal')
}

function isMinusOne(node: Node): boolean {
  if (node.type !== 'sign' || node.sign !== '-' || node.operand.type !== 'literal') return false
  return Number(node.operand.digits) === 1
}
