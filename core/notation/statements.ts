import type { NameNode, Node, UnitTerm } from './tree'

/** The commonest statements as objects of classes, like the nodes. */

export class ExpressionStatement {
  readonly type = 'expression'
  constructor(
    readonly body: Node,
    readonly free: boolean,
    readonly shown: UnitTerm | null,
  ) {}
}

export class DefineStatement {
  readonly type = 'define'
  constructor(
    readonly name: NameNode,
    readonly body: Node,
    readonly free: boolean,
    readonly shown: UnitTerm | null,
  ) {}
}
