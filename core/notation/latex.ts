import { unitLatex } from '../units/typeset'
import type { Apply, Literal, Node, Product, Series, Statement, UnitTerm, Valued } from './tree'
import { greek } from './words'
import type { TypesettingOf } from './typesetting'
import type { AngleUnit } from '../values/convert'

/** What a reading needs to know besides the tree. */
export interface ReadingStyle {
  readonly letter: 'i' | 'j'
  /** Terms that were read in the unit of the conventions: the reading shows it. */
  readonly bare: ReadonlySet<Node>
  readonly angleUnit: AngleUnit
  /** Every bracket that the parser supplied is shown. */
  readonly grouping: boolean
  readonly typesetting: TypesettingOf
  /** In a working: the term that is dealt with, and how values in the place of terms are written. */
  readonly dealt?: Node
  readonly valued?: (node: Valued) => TypesetValue
}

/** A value as LaTeX. */
export interface TypesetValue {
  readonly latex: string
  /** How it holds together: one thing, factors, terms, or a magnitude with its angle. */
  readonly holds: 'one' | 'factor' | 'product' | 'sum' | 'polar'
}

/** How tightly a typeset node holds together; looser ones get brackets. */
const LOOSE = { compare: 1, logic: 0, sum: 3, parallel: 4, product: 5, sign: 5, polar: 7, power: 8 } as const
type Level = number
const ATOM: Level = 10
/** How tightly values hold together: a negative number is a sum behind an operator, and before a power. */
const HOLDS: { readonly [H in TypesetValue['holds']]: Level } = { one: ATOM, factor: LOOSE.product + 1, product: LOOSE.product, sum: LOOSE.sum, polar: LOOSE.polar } // prettier-ignore

/**
 * The typeset echo of a line, as LaTeX. Every leaf carries its span in the
 * source (`\htmlData`), so that a click on a term finds its place in the text.
 */
export function statementToLatex(
  statement: Statement,
  { body, right, within }: { readonly body: Node | null; readonly right: Node | null; readonly within: Node | null },
  style: ReadingStyle,
): string {
  const writer = new Writer(style)
  const text = body ? writer.node(body, 0) : ''
  switch (statement.type) {
    case 'empty':
      return ''
    case 'expression':
      return `${text}${shownIn(statement.shown)}`
    case 'define':
      return `${leaf(statement.name, nameToLatex(statement.name.name))} = ${text}${shownIn(statement.shown)}`
    case 'function': {
      const parameters = statement.parameters.map((p) => leaf(p, nameToLatex(p.name))).join(',\\,')
      return `${leaf(statement.name, nameToLatex(statement.name.name))}(${parameters}) = ${text}`
    }
    case 'unknown':
      return `\\text{unknown }${statement.names.map((n, k) => `${leaf(n, nameToLatex(n.name))}${shownIn(statement.units[k] ?? null)}`).join(',\\;')}`
    case 'sought':
      return `\\text{sought }${statement.names.map((n) => leaf(n, nameToLatex(n.name))).join(',\\;')}`
    case 'equation':
      return `${text} = ${right ? writer.node(right, 0) : ''}`
    case 'determine':
      return `\\text{determine}${whereToLook(statement, body, writer)}`
    case 'check': {
      const other = right ? writer.node(right, 0) : ''
      return `${text} \\approx ${other}${writer.tolerance(within, statement.within?.percent ?? false)}`
    }
  }
}

/** Where a solution is looked for; the terms are in the order of `lookedFor`. */
function whereToLook(
  { near, between }: Extract<Statement, { type: 'determine' }>,
  body: Node | null,
  writer: Writer,
): string {
  const terms = body?.type === 'list' ? body.entries : []
  const term = (k: number): string => {
    const node = terms[k]
    return node ? writer.node(node, 0) : ''
  }
  const named = (node: { from: number; to: number; name: string }): string => leaf(node, nameToLatex(node.name))
  const close = near.map(({ name }, k) => `${named(name)} = ${term(k)}`)
  const within = between.map(({ name }, k) => `${named(name)} = ${term(near.length + 2 * k)}\\text{ to }${term(near.length + 2 * k + 1)}`) // prettier-ignore
  return `${close.length > 0 ? `\\text{ near }${close.join(',\\;')}` : ''}${within.length > 0 ? `\\text{ from }${within.join(',\\;')}` : ''}`
}

/** A term by itself. */
export function termToLatex(node: Node, style: ReadingStyle): string {
  return new Writer(style).node(node, 0)
}

/** The unit that is asked for. */
function shownIn(unit: UnitTerm | null): string {
  return unit ? `\\text{ in }${leaf(unit, unitLatex(unit.unit))}` : ''
}

/** A name as it is typeset: Greek letters, subscripts after `_` or as trailing digits. */
export function nameToLatex(name: string): string {
  const [head = '', ...rest] = name.split('_')
  const digits = /^(.*?[^\d])(\d+)$/.exec(head)
  const stem = digits?.[1] ?? head
  const below = [digits?.[2] ?? '', ...rest].filter((part) => part !== '')
  const letter = greek(stem)
  const base = letter ? `\\${letter}` : [...stem].length > 1 ? `\\mathit{${escapeMath(stem)}}` : escapeMath(stem)
  return below.length === 0 ? base : `${base}_{${below.map(subscript).join(',')}}`
}

function subscript(part: string): string {
  const letter = greek(part)
  if (letter) return `\\${letter}`
  return /^\d+$/.test(part) ? part : `\\mathrm{${escapeMath(part)}}`
}

const SUBSCRIPT_DIGITS = '₀₁₂₃₄₅₆₇₈₉'

function escapeMath(text: string): string {
  const plain = [...text]
    .map((c) => (SUBSCRIPT_DIGITS.includes(c) ? `{}_{${SUBSCRIPT_DIGITS.indexOf(c)}}` : c))
    .join('')
  return plain.replace(/([#$%&])/g, '\\$1')
}

export function escapeText(text: string): string {
  const special: Readonly<Record<string, string>> = {
    '\\': '\\textbackslash{}', '{': '\\{', '}': '\\}', '~': '\\textasciitilde{}', '^': '\\textasciicircum{}',
    '#': '\\#', $: '\\$', '%': '\\%', '&': '\\&', _: '\\_',
  } // prettier-ignore
  return text.replace(/[\\{}~^#$%&_]/g, (c) => special[c] ?? c)
}

/** Rows, their entries parted by &, in round brackets. */
export function pmatrixOfRows(rows: readonly string[]): string {
  return `\\begin{pmatrix} ${rows.join(' \\\\ ')} \\end{pmatrix}`
}

/** A reading without what only the screen uses: places in the source, classes. */
export function withoutMarks(latex: string): string {
  return latex.replace(/\\html(?:Data|Class)\{[^{}]*\}/g, '')
}

/** A reading whose terms do not say where they are written. */
export function withoutSpans(latex: string): string {
  const mark = '\\htmlData{'
  const at = latex.indexOf(mark)
  if (at < 0) return latex
  const open = latex.indexOf('}{', at) + 1
  let depth = 0
  for (let k = open; k < latex.length; k += 1) {
    if (latex[k] === '\\') k += 1
    else if (latex[k] === '{') depth += 1
    else if (latex[k] === '}' && (depth -= 1) === 0)
      return `${latex.slice(0, at)}${withoutSpans(latex.slice(open + 1, k))}${withoutSpans(latex.slice(k + 1))}`
  }
  return latex
}

function leaf(span: { from: number; to: number }, latex: string): string {
  return `\\htmlData{span=${span.from}-${span.to}}{${latex}}`
}

class Writer {
  constructor(private readonly style: ReadingStyle) {}

  tolerance(amount: Node | null, percent: boolean): string {
    if (amount === null) return ''
    return `\\;\\text{within}\\;${this.node(amount, 0)}${percent ? '\\,\\%' : ''}`
  }

  /** `node` in a place that needs at least `level`. */
  node(node: Node, level: Level): string {
    const inner = this.plain(node)
    const marked = this.style.bare.has(node)
    const needed = this.levelOf(node) < (marked ? ATOM : level)
    const supplied = this.style.grouping && level > 0 && !needed && SUPPLIED.has(node.type)
    const text = needed ? brackets(inner) : supplied ? suppliedBrackets(inner) : inner
    const read = marked ? `${text}${this.unitMark()}` : text
    return node === this.style.dealt ? `\\htmlClass{dealt}{${read}}` : read
  }

  private valued(node: Valued): TypesetValue {
    return this.style.valued?.(node) ?? { latex: '\\square', holds: 'one' }
  }

  private unitMark(): string {
    return this.style.angleUnit === 'deg'
      ? '\\htmlClass{read-unit}{{}^{\\circ}}'
      : '\\htmlClass{read-unit}{\\,\\mathrm{rad}}'
  }

  private levelOf(node: Node): Level {
    switch (node.type) {
      case 'valued':
        return HOLDS[this.valued(node).holds]
      case 'range':
      case 'where':
        return LOOSE.compare
      case 'compare':
      case 'logic':
      case 'sum':
      case 'parallel':
      case 'sign':
      case 'polar':
        return LOOSE[node.type]
      case 'power':
        return LOOSE.power
      case 'united':
        return LOOSE.product + 1
      case 'product':
        return node.sign === '/' ? ATOM - 1 : LOOSE.product
      case 'literal':
        return /e/i.test(node.digits) ? LOOSE.product : node.letter === 'none' ? ATOM : ATOM - 1
      case 'apply':
        if (node.builtIn && this.style.typesetting(node.name)?.as === 'word between') return LOOSE.parallel
        // sin²(x) to a power could be read as a power of x alone.
        return node.raised ? LOOSE.power : ATOM
      default:
        return ATOM
    }
  }

  private plain(node: Node): string {
    switch (node.type) {
      case 'literal':
        return leaf(node, this.literal(node))
      case 'constant':
        return leaf(node, this.constant(node.name))
      case 'name':
        return leaf(node, node.name === 'prev' ? '\\mathit{prev}' : nameToLatex(node.name))
      case 'group':
        return brackets(this.node(node.inner, 0))
      case 'product':
        return this.product(node)
      case 'sum':
        return `${this.node(node.left, LOOSE.sum)} ${node.sign} ${this.node(node.right, LOOSE.sum + 1)}`
      case 'parallel':
        return `${this.node(node.left, LOOSE.parallel)} \\parallel ${this.node(node.right, LOOSE.parallel + 1)}`
      case 'united':
        return `${this.node(node.operand, LOOSE.product)}\\,${leaf(node.unit, unitLatex(node.unit.unit))}`
      case 'sign':
        return `${node.sign}${this.node(node.operand, LOOSE.product)}`
      case 'polar':
        return `${this.node(node.magnitude, LOOSE.polar + 1)} \\mathbin{\\htmlClass{angle-sign}{\\angle}} ${this.node(node.angle, LOOSE.sign)}`
      case 'power':
        return `{${this.node(node.base, LOOSE.power + 1)}}^{${this.bare(node.exponent)}}`
      case 'mark':
        return this.mark(node.sign, node.operand)
      case 'postfix':
        return this.postfix(node.sign, node.operand)
      case 'bars':
        return node.double
          ? `\\left\\lVert ${this.node(node.inner, 0)} \\right\\rVert`
          : `\\left| ${this.node(node.inner, 0)} \\right|`
      case 'root':
        return `\\sqrt{${this.bare(node.operand)}}`
      case 'apply':
        return this.apply(node)
      case 'list':
        return this.list(node.entries)
      case 'series':
        return this.series(node)
      case 'entry':
        return this.entry(node)
      case 'valued':
        return this.valued(node).latex
      case 'all':
        return leaf(node, '\\text{all}')
      case 'last':
        return leaf(node, '\\text{last}')
      case 'slice': {
        const step = node.step ? `\\text{ step }${this.node(node.step, 0)}` : ''
        return `${this.node(node.first, 0)}\\text{ to }${this.node(node.last, 0)}${step}`
      }
      case 'range': {
        const by = { step: '\\text{ step }', count: '\\text{ count }', decade: '\\text{ per decade }' }
        const amount = node.amount && node.by ? `${by[node.by]}${this.node(node.amount, LOOSE.sum)}` : ''
        return `${this.node(node.first, LOOSE.sum)}\\text{ to }${this.node(node.last, LOOSE.sum)}${amount}`
      }
      case 'where': {
        const given = node.given.map(
          ({ name, value }) => `${leaf(name, nameToLatex(name.name))} = ${this.node(value, 0)}`,
        )
        return `\\left. ${this.node(node.body, 2)} \\right|_{${given.join(',\\;')}}`
      }
      case 'part':
        return `${this.node(node.operand, ATOM)}\\text{.${escapeText(node.name)}}`
      case 'compare':
        return [
          this.node(node.first, 2),
          ...node.rest.map((r) => `${COMPARISON[r.sign]} ${this.node(r.node, 2)}`),
        ].join(' ')
      case 'logic':
        return this.logic(node.sign, node.operands)
      case 'text':
        return leaf(node, `\\text{“${escapeText(node.text)}”}`)
      case 'dms':
        return leaf(node, this.minutes(node))
      default:
        return '\\square'
    }
  }

  /** A node in a place that encloses it by itself: brackets round it would be idle. */
  private bare(node: Node): string {
    return node.type === 'group' && !this.style.bare.has(node) ? this.bare(node.inner) : this.node(node, 0)
  }

  private product(node: Product): string {
    if (node.sign === '/') return `\\dfrac{${this.bare(node.left)}}{${this.bare(node.right)}}`
    const apart = node.sign === 'implicit' && node.right.type === 'valued' && node.left.type !== 'constant'
    const sign = apart ? '\\cdot' : { '*': '\\cdot', mod: '\\bmod', implicit: '\\,' }[node.sign]
    return `${this.node(node.left, LOOSE.product)} ${sign} ${this.node(node.right, LOOSE.product + 1)}`
  }

  private literal(node: Literal): string {
    const { digits, prefix, letter } = node
    const [mantissa = '', exponent] = digits.split(/e/i)
    const shown = mantissa.startsWith('.') ? `0${mantissa}` : mantissa.replace(/\.$/, '')
    const power = exponent === undefined ? '' : ` \\cdot 10^{${Number(exponent)}}`
    const scaled = prefix === '' ? `${shown}${power}` : `${shown}${power}\\,${prefixLatex(prefix)}`
    const imaginary = `\\mathrm{${this.style.letter}}`
    if (letter === 'before') return `${imaginary}${scaled}`
    return letter === 'after' ? `${scaled}${imaginary}` : scaled
  }

  private constant(name: 'pi' | 'e' | 'inf' | 'eps' | 'imaginary'): string {
    if (name === 'imaginary') return `\\mathrm{${this.style.letter}}`
    return { pi: '\\pi', e: '\\mathrm{e}', inf: '\\infty', eps: '\\varepsilon' }[name]
  }

  private mark(sign: 'T' | 'H' | '*', operand: Node): string {
    const raised = sign === '*' ? '*' : `\\mathsf{${sign}}`
    return `{${this.node(operand, LOOSE.power + 1)}}^{${raised}}`
  }

  private postfix(sign: '!' | 'deg' | 'rad', operand: Node): string {
    const text = this.node(operand, ATOM)
    return { '!': `${text}!`, deg: `${text}^{\\circ}`, rad: `${text}\\,\\mathrm{rad}` }[sign]
  }

  private minutes(node: Extract<Node, { type: 'dms' }>): string {
    const seconds = Number(node.seconds) === 0 ? '' : `${node.seconds}''`
    return `${node.degrees}^{\\circ}${node.minutes}'${seconds}`
  }

  private apply(node: Apply): string {
    const raised = node.raised ? `^{${this.node(node.raised, 0)}}` : ''
    const [first, second] = node.args
    const typeset = node.builtIn ? this.style.typesetting(node.name) : undefined
    if (typeset?.as === 'large sign' && first?.type === 'series' && !first.over.step)
      return this.largeSign(typeset.sign, first)
    if (typeset?.as === 'word between' && first && second)
      return `${this.node(first, LOOSE.parallel)}\\text{ ${typeset.word} }${this.node(second, LOOSE.parallel + 1)}`
    if (typeset?.as === 'enclosed' && first && !node.raised)
      return `${typeset.before}${this.bare(first)}${typeset.after}`
    if (typeset?.as === 'indexed radical' && first && second && !node.raised)
      return `\\sqrt[${this.bare(second)}]{${this.bare(first)}}`
    const name = node.builtIn ? `\\operatorname{${node.name.replace('_', '\\_')}}` : nameToLatex(node.name)
    const callee = leaf({ from: node.from, to: node.from + node.name.length }, name)
    return `${callee}${raised}${brackets(node.args.map((a) => this.node(a, 0)).join(',\\,'))}`
  }

  /** A vector as a column, a list of rows as a matrix. */
  private list(entries: readonly Node[]): string {
    const rows = entries.map((e) => (e.type === 'list' ? e.entries : null))
    const isMatrix = rows.every((r) => r !== null)
    if (!isMatrix && entries.some((e) => e.type === 'series'))
      return `\\left[ ${entries.map((e) => this.node(e, 0)).join(',\\; ')} \\right]`
    const lines = isMatrix
      ? rows.map((r) => (r ?? []).map((e) => this.node(e, 0)).join(' & '))
      : entries.map((e) => this.node(e, 0))
    return pmatrixOfRows(lines)
  }

  private entry(node: Extract<Node, { type: 'entry' }>): string {
    const column = node.column ? `,\\,${this.node(node.column, 0)}` : ''
    return `{${this.node(node.operand, LOOSE.power + 1)}}_{${this.node(node.index, 0)}${column}}`
  }

  private series(node: Series): string {
    const counter = leaf(node.counter, nameToLatex(node.counter.name))
    return `${this.node(node.body, 0)}\\;\\text{for }${counter} = ${this.node(node.over, 0)}`
  }

  /** ∑ and ∏ with their limits, for steps of 1. */
  private largeSign(sign: string, node: Series): string {
    const counter = nameToLatex(node.counter.name)
    return `\\displaystyle${sign}_{${counter}=${this.node(node.over.first, 0)}}^{${this.node(node.over.last, 0)}} ${this.node(node.body, LOOSE.product)}`
  }

  private logic(sign: 'and' | 'or' | 'not', operands: readonly Node[]): string {
    if (sign === 'not') return `\\text{not }${operands.map((o) => this.node(o, 1)).join('')}`
    return operands.map((o) => this.node(o, 1)).join(`\\text{ ${sign} }`)
  }
}

const COMPARISON = { '==': '=', '!=': '\\neq', '<': '<', '<=': '\\leq', '>': '>', '>=': '\\geq' } as const

function prefixLatex(prefix: string): string {
  return prefix === 'u' || prefix === 'µ' || prefix === 'μ' ? '\\text{µ}' : `\\mathrm{${prefix}}`
}

/** What gets a visible pair of brackets when the grouping is shown. */
const SUPPLIED: ReadonlySet<Node['type']> = new Set(['sum', 'product', 'parallel', 'polar', 'power', 'sign', 'compare'])

function suppliedBrackets(text: string): string {
  const size = text.includes('\\dfrac') ? 'Big' : ''
  const [open, close] = size ? ['\\Bigl(', '\\Bigr)'] : ['(', ')']
  return `\\htmlClass{supplied}{${open}}${text}\\htmlClass{supplied}{${close}}`
}

function brackets(text: string): string {
  return `\\left( ${text} \\right)`
}
