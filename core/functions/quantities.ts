import type { Node } from '../notation/tree'
import { asReckoned, wordsOf } from '../quantities/shape'
import { angleFrom, plainNumber, unknownsOf } from '../quantities/through'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Bare, Value } from '../values/types'
import type { Context } from '../operators/context'
import { hintTurns } from '../operators/unitHints'
import { parameterAt } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'

/** Functions of values with units: the numbers go as ever; what the result measures is declared by each function. */

/** What the numbers alone come to. */
type Reckon = (args: readonly Bare[]) => Value | Failure

export function callOnQuantities(
  definition: FunctionDefinition,
  args: readonly Value[],
  nodes: readonly Node[],
  context: Context,
  reckon: Reckon,
): Value | Failure {
  const own = definition.ofQuantities?.(args)
  if (own) return own
  const { measures: rule } = definition
  const ready: Bare[] = []
  for (const [k, arg] of args.entries()) {
    const node = nodes[k]
    if (node && parameterAt(definition, k)?.needs === 'angle') hintTurns(arg, node, context)
    const read = readAs(definition, arg, k, rule === undefined)
    if (read.kind === 'failure') return node ? failureAt(node, read) : read
    ready.push(read)
  }
  const value = reckon(ready)
  if (value.kind === 'failure' || !rule) return value
  const found = rule(
    args.map((arg, k) => asReckoned(arg, nodes[k])),
    bare(value),
    definition.name,
  )
  if ('code' in found) return found
  if ('dressed' in found) return found.dressed
  const only = args.find((arg) => arg.kind === 'quantity')
  const unit = only?.kind === 'quantity' && found === only.measure ? only.unit : null
  return quantity(bare(value), found, { unit, unknowns: unknownsOf(...args) })
}

/** An argument as a function takes it: angles where it takes angles; plain numbers only where it declares nothing. */
function readAs(definition: FunctionDefinition, arg: Value, k: number, plain: boolean): Bare | Failure {
  if (arg.kind !== 'quantity') return arg
  const parameter = parameterAt(definition, k)
  if (parameter?.needs === 'angle') return angleFrom(arg, definition.name)
  if (!plain) return arg.value
  if (arg.unknowns) return arg.value
  return plainNumber(arg) ?? failure('unit-plain', { name: definition.name, quantity: wordsOf(arg.measure) })
}
