import type { Unit } from '../units/unit'
import type { Value } from '../values/types'
import type { Numeral } from './numerals'

/**
 * The tree of a line. The parser makes the *raw* nodes, which do not depend on
 * what is kept; binding replaces `lettered`, `call` and `chain`, and each name
 * that is a constant, by the *bound* nodes below them. Whatever scope does not
 * change is shared by both trees. Both keep the span they were read from.
 */
export interface Span {
  readonly from: number
  readonly to: number
}

interface At extends Span {
  readonly type: string
}

// Nodes that both trees use.

/** Brackets that the student wrote. */
export interface Group extends At {
  readonly type: 'group'
  readonly inner: Node
  /** Nothing in it depends on what is kept: binding leaves it as it is. */
  readonly free: boolean
}
export interface TextNode extends At {
  readonly type: 'text'
  readonly text: string
}
/** `36°52'12"`: the three parts as decimal text. */
export interface DmsNode extends At {
  readonly type: 'dms'
  readonly degrees: string
  readonly minutes: string
  readonly seconds: string
}
export interface Postfix extends At {
  readonly type: 'postfix'
  readonly sign: '!' | 'deg' | 'rad'
  readonly operand: Node
}
/** `12 V`, `(3 + 4j) ohm`: an operand with the unit behind it. */
export interface United extends At {
  readonly type: 'united'
  readonly operand: Node
  readonly unit: UnitTerm
}
/** A unit as it is written. */
export interface UnitTerm extends Span {
  readonly unit: Unit
  /** Its words with their places: some may be kept names, too. */
  readonly words: readonly UnitWord[]
  /** What a second slash, or a product behind a slash, would go on with: it needs brackets. */
  readonly again: Span | null
}
export interface UnitWord extends Span {
  readonly text: string
}
export interface Power extends At {
  readonly type: 'power'
  readonly base: Node
  readonly exponent: Node
}
/** `^T`, `^H`, `^*`. */
export interface Mark extends At {
  readonly type: 'mark'
  readonly sign: 'T' | 'H' | '*'
  readonly operand: Node
  /** Set in binding: the letter is a kept name, too, so that a power may be meant. */
  readonly kept: boolean
}
export interface Polar extends At {
  readonly type: 'polar'
  readonly magnitude: Node
  readonly angle: Node
}
export interface Sign extends At {
  readonly type: 'sign'
  readonly sign: '+' | '-'
  readonly operand: Node
}
export interface Parallel extends At {
  readonly type: 'parallel'
  readonly sign: '||'
  readonly left: Node
  readonly right: Node
}
export interface Sum extends At {
  readonly type: 'sum'
  readonly sign: '+' | '-'
  readonly left: Node
  readonly right: Node
}
export interface Compare extends At {
  readonly type: 'compare'
  readonly first: Node
  readonly rest: readonly { readonly sign: Comparison; readonly node: Node }[]
}
export type Comparison = '==' | '!=' | '<' | '<=' | '>' | '>='
export interface Logic extends At {
  readonly type: 'logic'
  readonly sign: 'and' | 'or' | 'not'
  readonly operands: readonly Node[]
}
export interface Bars extends At {
  readonly type: 'bars'
  readonly double: boolean
  readonly inner: Node
}
export interface Root extends At {
  readonly type: 'root'
  readonly operand: Node
}
/** Stands where an operand is missing; the line has an error. */
export interface Hole extends At {
  readonly type: 'hole'
}

/** `[1, 2, 3]`, or `[f(k) for k = 1 to n]` with one entry that is a series. */
export interface List extends At {
  readonly type: 'list'
  readonly entries: readonly Node[]
}
/** `f(k) for k = 1 to n step 2`, inside square brackets or as the argument of a sum. */
export interface Series extends At {
  readonly type: 'series'
  readonly body: Node
  readonly counter: NameNode
  readonly over: Slice
}
/** `v[2]`, `A[2, 3]`, `A[all, 1]`: entries, counted from 1. */
export interface Entry extends At {
  readonly type: 'entry'
  readonly operand: Node
  readonly index: Node
  /** The column, where two indices are given. */
  readonly column: Node | null
}
/** `all` as an index: every row or column. */
export interface Everything extends At {
  readonly type: 'all'
}
/** `last` inside an index: how many there are. */
export interface Last extends At {
  readonly type: 'last'
}
/** `2 to 4 step 2`: as an index, or what the counter of a series runs over. */
export interface Slice extends At {
  readonly type: 'slice'
  readonly first: Node
  readonly last: Node
  readonly step: Node | null
}
/** `0 to 10 step 2`, `-1 to 1 count 201`, `10 to 100k per decade 50`: a sweep. */
export interface Range extends At {
  readonly type: 'range'
  readonly first: Node
  readonly last: Node
  readonly by: 'step' | 'count' | 'decade' | null
  readonly amount: Node | null
}
/** `p where s = 2j, a = 1`: unknowns replaced, all at once. */
export interface Where extends At {
  readonly type: 'where'
  readonly body: Node
  readonly given: readonly { readonly name: NameNode; readonly value: Node }[]
}
/** `lu(A).lower`: a named part of a result. */
export interface Part extends At {
  readonly type: 'part'
  readonly operand: Node
  readonly name: string
}

// Raw nodes.

/** Digits with letters directly behind them: `4j`, `33n`, `2pi`, `4k7`. */
export interface Lettered extends At {
  readonly type: 'lettered'
  readonly digits: string
  readonly run: string
  readonly numeral: Numeral
  readonly runFrom: number
}
/** A name as written; in a bound tree a kept name, a parameter, or one that nothing defines (an error). */
export interface NameNode extends At {
  readonly type: 'name'
  readonly name: string
}
/** `f(x, y)`, `2f(x)`, `sin^2(x)`. */
export interface Call extends At {
  readonly type: 'call'
  readonly callee: NameNode | Lettered
  readonly raised: Node | null
  readonly args: readonly Node[]
  /** Nothing in the arguments depends on what is kept. */
  readonly free: boolean
}

/** Where the arguments of a call stand: their brackets touch what is called, or its power. */
export function bracketOf({ callee, raised, to }: Call): Span {
  return { from: (raised ?? callee).to, to }
}
export type ChainSign = '*' | '/' | 'mod' | 'implicit'
/** Factors from the left of which one may come apart: kept flat until binding has split `2x`. */
export interface Chain extends At {
  readonly type: 'chain'
  readonly first: Node
  readonly rest: readonly { readonly sign: ChainSign; readonly node: Node }[]
}

// Bound nodes. Plain digits are a literal, and `a*b` a product, from the start.

/** A number as written, with its value. */
export interface Literal extends At {
  readonly type: 'literal'
  readonly value: Value
  // How it was written, for the reading and for rewriting it in its own form.
  readonly digits: string
  readonly prefix: string
  readonly letter: 'none' | 'after' | 'before'
}
/** A constant of the notation: π, e, ∞, ε or the imaginary unit. */
export interface Constant extends At {
  readonly type: 'constant'
  readonly name: 'pi' | 'e' | 'inf' | 'eps' | 'imaginary'
  readonly value: Value
}
export interface Product extends At {
  readonly type: 'product'
  readonly sign: ChainSign
  readonly left: Node
  readonly right: Node
}
/** A call of a function of the registry (`fn`) or of one that a line defines. */
export interface Apply extends At {
  readonly type: 'apply'
  readonly name: string
  readonly builtIn: boolean
  readonly raised: Node | null
  readonly args: readonly Node[]
}

/** A value that has come in the place of a term, in a working; no line has one. */
export interface Valued extends At {
  readonly type: 'valued'
  readonly value: Value
  readonly form: Form
}
/** How a value goes on in a working: in the form that what it came from was written in. */
export type Form = 'plain' | 'polar' | 'fraction'

export type Node =
  | Valued
  | Range | Where
  | Group | List | Series | Entry | Everything | Last | Slice | Part | TextNode | DmsNode | Postfix | United | Power | Mark | Polar | Sign | Parallel | Sum | Compare | Logic | Bars | Root | Hole
  | Lettered | NameNode | Call | Chain
  | Literal | Constant | Product | Apply // prettier-ignore

/** `near I1 = 2 A`: where a solution is looked for. */
export interface Near {
  readonly name: NameNode
  readonly value: Node
}
/** `from t = 0 to 5 ms`: between which values it is looked for. */
export interface Between {
  readonly name: NameNode
  readonly first: Node
  readonly last: Node
}

/** A whole line. */
export type Statement =
  | { readonly type: 'empty' }
  /** `free` where nothing in the body depends on what is kept; `shown` is the unit behind `in`. */
  | { readonly type: 'expression'; readonly body: Node; readonly free: boolean; readonly shown: UnitTerm | null }
  | {
      readonly type: 'define'
      readonly name: NameNode
      readonly body: Node
      readonly free: boolean
      readonly shown: UnitTerm | null
    }
  | {
      readonly type: 'function'
      readonly name: NameNode
      readonly parameters: readonly NameNode[]
      readonly body: Node
    }
  /** `unknown s, a`: from here on these names are algebraic unknowns. */
  | {
      readonly type: 'unknown'
      readonly names: readonly NameNode[]
      /** The unit that each is declared with. */
      readonly units: readonly (UnitTerm | null)[]
    }
  /** `sought I1, I2`: opens a group of equations. */
  | { readonly type: 'sought'; readonly names: readonly NameNode[] }
  /** An equation of a group. */
  | { readonly type: 'equation'; readonly left: Node; readonly right: Node }
  /** `determine`: closes it, with where to look for a solution. */
  | { readonly type: 'determine'; readonly near: readonly Near[]; readonly between: readonly Between[] }
  | {
      readonly type: 'check'
      readonly left: Node
      readonly right: Node
      readonly within: { readonly amount: Node; readonly percent: boolean } | null
    }

export function textOf(source: string, span: Span): string {
  return source.slice(span.from, span.to)
}
