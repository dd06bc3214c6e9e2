import { parseEquation, parseProducts } from './parser'
import type { Parsed } from './parser'
import { isName } from './tokenKinds'
import { tokenize } from './tokens'
import type { NameNode, Node, Span, Statement } from './tree'

/** A place where a line names something of the folio. */
export interface Reference extends Span {
  readonly name: string
  readonly role: 'definition' | 'use'
  /** Digits stand directly before it: `2x`. */
  readonly glued: boolean
}

type Add = (name: string, span: Span, glued: boolean) => void

/**
 * Where a line defines or uses names of the folio, in the order of the text.
 * Parameters and counters are the line's own affair and left out. A line that
 * cannot be read is searched word by word.
 */
export function references(line: Parsed, unknowns: ReadonlySet<string> = NO_NAMES): readonly Reference[] {
  const parsed = withProducts(line, unknowns)
  const found: Reference[] = []
  for (const definition of definedNodes(parsed.statement))
    found.push({ ...spanOf(definition), name: definition.name, role: 'definition', glued: false })
  if (parsed.problem) {
    for (const token of tokenize(parsed.source)) {
      const again = found.some((r) => r.from === token.from)
      if (isName(token.kind) && !again)
        found.push({ ...spanOf(token), name: token.text, role: 'use', glued: touchesDigits(parsed.source, token.from) })
    }
  } else {
    const locals = new Set(parsed.statement.type === 'function' ? parsed.statement.parameters.map((p) => p.name) : [])
    for (const body of bodiesOf(parsed.statement))
      walk(body, locals, (name, span, glued) => found.push({ ...spanOf(span), name, role: 'use', glued }))
  }
  return found.sort((a, b) => a.from - b.from)
}

const NO_NAMES: ReadonlySet<string> = new Set()

/** The line read again where what could be a unit is an unknown, a parameter or a counter. */
function withProducts(parsed: Parsed, unknowns: ReadonlySet<string>): Parsed {
  const own = ownNames(parsed)
  const products = new Set<number>()
  const look = (node: Node): void => {
    const word = node.type === 'united' ? node.unit.words[0]?.text : undefined
    if (node.type === 'united' && word !== undefined && (unknowns.has(word) || own.has(word)))
      products.add(node.unit.from)
    for (const child of childrenOf(node)) look(child)
  }
  for (const body of bodiesOf(parsed.statement)) look(body)
  if (products.size === 0) return parsed
  const { source, statement } = parsed
  return statement.type === 'equation' ? parseEquation(source, products) : parseProducts(source, products)
}

/** The names that lines declare as unknowns. */
export function unknownNames(lines: readonly Parsed[]): ReadonlySet<string> {
  return new Set(lines.flatMap(({ statement }) => (statement.type === 'unknown' ? statement.names.map(({ name }) => name) : []))) // prettier-ignore
}

/** Names that belong to the line itself: parameters and counters. */
export function ownNames(parsed: Parsed): ReadonlySet<string> {
  const own = new Set<string>()
  if (parsed.statement.type === 'function') for (const p of parsed.statement.parameters) own.add(p.name)
  const look = (node: Node): void => {
    if (node.type === 'series') own.add(node.counter.name)
    for (const child of childrenOf(node)) look(child)
  }
  for (const body of bodiesOf(parsed.statement)) look(body)
  return own
}

function spanOf({ from, to }: Span): Span {
  return { from, to }
}

function touchesDigits(source: string, at: number): boolean {
  return /[\d.]/.test(source.charAt(at - 1))
}

/** Where a statement defines names: of an unknown line several. */
export function definedNodes(statement: Statement): readonly NameNode[] {
  if (statement.type === 'unknown' || statement.type === 'sought') return statement.names
  return statement.type === 'define' || statement.type === 'function' ? [statement.name] : []
}

/** The names that a line defines; of an unknown line several. */
export function definedNames(parsed: Parsed): readonly string[] {
  return definedNodes(parsed.statement).flatMap(({ name }) => (name === 'prev' ? [] : [name]))
}

/** The name that a line defines, if it is one that can be kept. */
export function definedName(parsed: Parsed): string | null {
  const { statement } = parsed
  if (statement.type !== 'define' && statement.type !== 'function') return null
  return statement.name.name === 'prev' ? null : statement.name.name
}

/** The terms of a statement. */
export function bodiesOf(statement: Statement): readonly Node[] {
  switch (statement.type) {
    case 'empty':
    case 'unknown':
    case 'sought':
      return []
    case 'equation':
      return [statement.left, statement.right]
    case 'determine':
      return [
        ...statement.near.flatMap(({ name, value }) => [name, value]),
        ...statement.between.flatMap(({ name, first, last }) => [name, first, last]),
      ]
    case 'check':
      return [statement.left, statement.right, ...(statement.within ? [statement.within.amount] : [])]
    default:
      return [statement.body]
  }
}

function walk(node: Node, locals: ReadonlySet<string>, add: Add): void {
  const use: Add = (name, span, glued) => {
    if (!locals.has(name)) add(name, span, glued)
  }
  switch (node.type) {
    case 'name':
      return use(node.name, node, false)
    case 'lettered':
      return use(node.run, { from: node.runFrom, to: node.to }, true)
    case 'call':
      walk(node.callee, locals, add)
      for (const part of [...(node.raised ? [node.raised] : []), ...node.args]) walk(part, locals, add)
      return
    case 'series': {
      const inner = new Set([...locals, node.counter.name])
      walk(node.body, inner, add)
      walk(node.over, locals, add)
      return
    }
    default:
      for (const child of childrenOf(node)) walk(child, locals, add)
  }
}

/** The nodes directly below a node of the raw tree. */
export function childrenOf(node: Node): readonly Node[] {
  switch (node.type) {
    case 'group':
    case 'bars':
      return [node.inner]
    case 'list':
      return node.entries
    case 'series':
      return [node.body, node.over]
    case 'entry':
      return [node.operand, node.index, ...(node.column ? [node.column] : [])]
    case 'slice':
      return [node.first, node.last, ...(node.step ? [node.step] : [])]
    case 'range':
      return [node.first, node.last, ...(node.amount ? [node.amount] : [])]
    case 'where':
      return [node.body, ...node.given.flatMap(({ name, value }) => [name, value])]
    case 'part':
      return [node.operand]
    case 'postfix':
    case 'mark':
    case 'sign':
    case 'root':
    case 'united':
      return [node.operand]
    case 'power':
      return [node.base, node.exponent]
    case 'polar':
      return [node.magnitude, node.angle]
    case 'parallel':
    case 'sum':
    case 'product':
      return [node.left, node.right]
    case 'compare':
      return [node.first, ...node.rest.map((r) => r.node)]
    case 'logic':
      return node.operands
    case 'chain':
      return [node.first, ...node.rest.map((r) => r.node)]
    case 'call':
      return [node.callee, ...(node.raised ? [node.raised] : []), ...node.args]
    case 'apply':
      return [...(node.raised ? [node.raised] : []), ...node.args]
    default:
      return []
  }
}
