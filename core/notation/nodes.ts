import type { Value } from '../values/value'
import type {
  Apply, Call, Chain, ChainSign, Constant, Group, Literal, NameNode, Node, Polar, Power, Product, Quantity, Sign,
  Span, Sum,
} from './tree' // prettier-ignore

/**
 * The commonest nodes as objects of classes, like the small values: what object literals make is put among the
 * long-lived once a folio keeps enough of it, and each keystroke would then leave garbage that is collected dearly.
 */

export class LiteralNode implements Literal {
  readonly type = 'literal'
  constructor(
    readonly value: Value,
    readonly digits: string,
    readonly prefix: string,
    readonly letter: 'none' | 'after' | 'before',
    readonly from: number,
    readonly to: number,
  ) {}
}

export class ConstantNode implements Constant {
  readonly type = 'constant'
  constructor(
    readonly name: Constant['name'],
    readonly value: Value,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class Name implements NameNode {
  readonly type = 'name'
  constructor(
    readonly name: string,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class QuantityNode implements Quantity {
  readonly type = 'quantity'
  constructor(
    readonly digits: string,
    readonly run: string,
    readonly runFrom: number,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class GroupNode implements Group {
  readonly type = 'group'
  constructor(
    readonly inner: Node,
    readonly free: boolean,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class SumNode implements Sum {
  readonly type = 'sum'
  constructor(
    readonly sign: '+' | '-',
    readonly left: Node,
    readonly right: Node,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class ProductNode implements Product {
  readonly type = 'product'
  constructor(
    readonly sign: ChainSign,
    readonly left: Node,
    readonly right: Node,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class ChainNode implements Chain {
  readonly type = 'chain'
  constructor(
    readonly first: Node,
    readonly rest: Chain['rest'],
    readonly from: number,
    readonly to: number,
  ) {}
}

export class SignNode implements Sign {
  readonly type = 'sign'
  constructor(
    readonly sign: '+' | '-',
    readonly operand: Node,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class PowerNode implements Power {
  readonly type = 'power'
  constructor(
    readonly base: Node,
    readonly exponent: Node,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class PolarNode implements Polar {
  readonly type = 'polar'
  constructor(
    readonly magnitude: Node,
    readonly angle: Node,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class CallNode implements Call {
  readonly type = 'call'
  constructor(
    readonly callee: NameNode | Quantity,
    readonly raised: Node | null,
    readonly args: readonly Node[],
    readonly free: boolean,
    readonly bracket: Span,
    readonly from: number,
    readonly to: number,
  ) {}
}

export class ApplyNode implements Apply {
  readonly type = 'apply'
  constructor(
    readonly name: string,
    readonly builtIn: boolean,
    readonly raised: Node | null,
    readonly args: readonly Node[],
    readonly from: number,
    readonly to: number,
  ) {}
}

export class ExpressionStatement {
  readonly type = 'expression'
  constructor(
    readonly body: Node,
    readonly free: boolean,
  ) {}
}

export class DefineStatement {
  readonly type = 'define'
  constructor(
    readonly name: NameNode,
    readonly body: Node,
    readonly free: boolean,
  ) {}
}
