import type { Value } from '../values/types'
import type { Numeral } from './numerals'
import type {
  Apply, Bars, Call, Chain, ChainSign, Compare, Constant, DmsNode, Entry, Everything, Group, Hole, Last, List, Literal,
  Logic, Mark, NameNode, Node, Parallel, Part, Polar, Postfix, Power, Product, Lettered, Range, Root, Series, Sign,
  Slice, Span, Sum, TextNode, United, UnitTerm, Valued, Where, Form,
} from './tree' // prettier-ignore

/**
 * What every node of a tree is: one class for all kinds. Whatever walks a tree asks node after node for its
 * properties, and V8 answers that quickly only while few shapes of objects come by. Four places hold what the
 * kinds keep, and each kind reads them under its own names; the functions below make the kinds.
 *
 * What stands in a place is known from how a node was made, so that a kind of the tree is only ever given what it
 * declares: a term where a row belongs, or a letter in the place of a prefix, does not compile.
 *
 * An object of a class also since V8 puts what object literals make among the long-lived once a folio keeps
 * enough of it, and each keystroke would then leave garbage that is collected dearly.
 */
class Term<Type extends Node['type'], Word extends string, A, B, More> implements Span {
  declare readonly type: Type
  declare readonly from: number
  declare readonly to: number
  declare private readonly word: Word
  declare private readonly a: A
  declare private readonly b: B
  declare private readonly more: More
  declare private readonly flag: boolean

  constructor(type: Type, from: number, to: number, word: Word, a: A, b: B, more: More, flag: boolean) {
    this.type = type
    this.from = from
    this.to = to
    this.word = word
    this.a = a
    this.b = b
    this.more = more
    this.flag = flag
  }

  // What a kind calls its word.
  get sign() {
    return this.word
  }
  get name() {
    return this.word
  }
  get text() {
    return this.word
  }
  get digits() {
    return this.word
  }
  get degrees() {
    return this.word
  }
  get form() {
    return this.word
  }
  get by(): Exclude<Word, ''> | null {
    return this.word === '' ? null : (this.word as Exclude<Word, ''>)
  }

  // The first term below, or a text beside the word.
  get left() {
    return this.a
  }
  get inner() {
    return this.a
  }
  get operand() {
    return this.a
  }
  get base() {
    return this.a
  }
  get magnitude() {
    return this.a
  }
  get callee() {
    return this.a
  }
  get first() {
    return this.a
  }
  get body() {
    return this.a
  }
  get prefix() {
    return this.a
  }
  get run() {
    return this.a
  }
  get minutes() {
    return this.a
  }

  // The second.
  get right() {
    return this.b
  }
  get exponent() {
    return this.b
  }
  get angle() {
    return this.b
  }
  get index() {
    return this.b
  }
  get last() {
    return this.b
  }
  get raised() {
    return this.b
  }
  get counter() {
    return this.b
  }
  get letter() {
    return this.b
  }
  get seconds() {
    return this.b
  }

  // A value, a third term, or a row.
  get value() {
    return this.more
  }
  get column() {
    return this.more
  }
  get step() {
    return this.more
  }
  get amount() {
    return this.more
  }
  get numeral() {
    return this.more
  }
  get args() {
    return this.more
  }
  get entries() {
    return this.more
  }
  get rest() {
    return this.more
  }
  get operands() {
    return this.more
  }
  get unit() {
    return this.more
  }
  get given() {
    return this.more
  }
  get over() {
    return this.more
  }

  get free() {
    return this.flag
  }
  get double() {
    return this.flag
  }
  get kept() {
    return this.flag
  }
  get builtIn() {
    return this.flag
  }

  /** Of digits with letters: they touch the digits. */
  get runFrom(): number {
    return this.from + this.word.length
  }
}

export function literal(
  value: Value,
  digits: string,
  prefix: string,
  letter: Literal['letter'],
  from: number,
  to: number,
): Literal {
  return new Term('literal', from, to, digits, prefix, letter, value, false)
}

export function constant(name: Constant['name'], value: Value, from: number, to: number): Constant {
  return new Term('constant', from, to, name, null, null, value, false)
}

export function name(text: string, from: number, to: number): NameNode {
  return new Term('name', from, to, text, null, null, null, false)
}

export function lettered(numeral: Numeral, run: string, from: number, to: number): Lettered {
  return new Term('lettered', from, to, numeral.digits, run, null, numeral, false)
}

export function group(inner: Node, free: boolean, from: number, to: number): Group {
  return new Term('group', from, to, '', inner, null, null, free)
}

export function sum(sign: Sum['sign'], left: Node, right: Node, from: number, to: number): Sum {
  return new Term('sum', from, to, sign, left, right, null, false)
}

export function product(sign: ChainSign, left: Node, right: Node, from: number, to: number): Product {
  return new Term('product', from, to, sign, left, right, null, false)
}

export function parallel(left: Node, right: Node, from: number, to: number): Parallel {
  return new Term('parallel', from, to, '||', left, right, null, false)
}

export function chain(first: Node, rest: Chain['rest'], from: number, to: number): Chain {
  return new Term('chain', from, to, '', first, null, rest, false)
}

export function sign(text: Sign['sign'], operand: Node, from: number, to: number): Sign {
  return new Term('sign', from, to, text, operand, null, null, false)
}

export function power(base: Node, exponent: Node, from: number, to: number): Power {
  return new Term('power', from, to, '', base, exponent, null, false)
}

export function polar(magnitude: Node, angle: Node, from: number, to: number): Polar {
  return new Term('polar', from, to, '', magnitude, angle, null, false)
}

export function postfix(text: Postfix['sign'], operand: Node, from: number, to: number): Postfix {
  return new Term('postfix', from, to, text, operand, null, null, false)
}

export function united(operand: Node, unit: UnitTerm, from: number, to: number): United {
  return new Term('united', from, to, '', operand, null, unit, false)
}

export function mark(text: Mark['sign'], operand: Node, kept: boolean, from: number, to: number): Mark {
  return new Term('mark', from, to, text, operand, null, null, kept)
}

export function call(
  callee: NameNode | Lettered,
  raised: Node | null,
  args: readonly Node[],
  free: boolean,
  to: number,
): Call {
  return new Term('call', callee.from, to, '', callee, raised, args, free)
}

export function apply(
  called: string,
  builtIn: boolean,
  raised: Node | null,
  args: readonly Node[],
  from: number,
  to: number,
): Apply {
  return new Term('apply', from, to, called, null, raised, args, builtIn)
}

export function bars(inner: Node, double: boolean, from: number, to: number): Bars {
  return new Term('bars', from, to, '', inner, null, null, double)
}

export function root(operand: Node, from: number, to: number): Root {
  return new Term('root', from, to, '', operand, null, null, false)
}

export function text(written: string, from: number, to: number): TextNode {
  return new Term('text', from, to, written, null, null, null, false)
}

/** Degrees, minutes and seconds as decimal text. */
export function dms(parts: readonly [string, string, string], from: number, to: number): DmsNode {
  return new Term('dms', from, to, parts[0], parts[1], parts[2], null, false)
}

export function compare(first: Node, rest: Compare['rest'], from: number, to: number): Compare {
  return new Term('compare', from, to, '', first, null, rest, false)
}

export function logic(text: Logic['sign'], operands: readonly Node[], from: number, to: number): Logic {
  return new Term('logic', from, to, text, null, null, operands, false)
}

export function list(entries: readonly Node[], from: number, to: number): List {
  return new Term('list', from, to, '', null, null, entries, false)
}

export function series(body: Node, counter: NameNode, over: Slice, from: number, to: number): Series {
  return new Term('series', from, to, '', body, counter, over, false)
}

export function entry(operand: Node, index: Node, column: Node | null, from: number, to: number): Entry {
  return new Term('entry', from, to, '', operand, index, column, false)
}

export function everything(from: number, to: number): Everything {
  return new Term('all', from, to, '', null, null, null, false)
}

export function lastEntry(from: number, to: number): Last {
  return new Term('last', from, to, '', null, null, null, false)
}

export function slice(first: Node, last: Node, step: Node | null, from: number, to: number): Slice {
  return new Term('slice', from, to, '', first, last, step, false)
}

export function range(first: Node, last: Node, by: Range['by'], amount: Node | null, from: number, to: number): Range {
  return new Term('range', from, to, by ?? ('' as const), first, last, amount, false)
}

export function where(body: Node, given: Where['given'], from: number, to: number): Where {
  return new Term('where', from, to, '', body, null, given, false)
}

export function part(operand: Node, called: string, from: number, to: number): Part {
  return new Term('part', from, to, called, operand, null, null, false)
}

export function hole(from: number, to: number): Hole {
  return new Term('hole', from, to, '', null, null, null, false)
}

export function valued(value: Value, form: Form, from: number, to: number): Valued {
  return new Term('valued', from, to, form, null, null, value, false)
}

/** A term in another place of a text. */
export function placed(node: Node, from: number, to: number): Node {
  return Object.assign(Object.create(Term.prototype) as Node, node, { from, to })
}
