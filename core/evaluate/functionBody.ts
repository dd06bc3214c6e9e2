import type { Node } from '../notation/tree'
import type { Scope } from '../operators/context'
import type { FunctionBody, Value } from '../values/types'

/** The term that a function of a line stands for. */
export class Body implements FunctionBody {
  constructor(
    readonly term: Node,
    readonly captured: ReadonlyMap<string, Value>,
  ) {}
}

/** The names in the body of a function: its parameters, and what was captured where it is defined. */
export class Arguments implements Scope {
  constructor(
    private readonly parameters: readonly string[],
    private readonly values: readonly Value[],
    private readonly captured: ReadonlyMap<string, Value>,
  ) {}

  lookup(name: string): Value | null {
    const place = this.parameters.lastIndexOf(name)
    return (place < 0 ? this.captured.get(name) : this.values[place]) ?? null
  }
}
