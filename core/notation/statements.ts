import type { NameNode, Node } from './tree'

/** The commonest statements as objects of classes, like the nodes. */

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
