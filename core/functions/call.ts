import type { Context } from '../evaluate/context'
import { asRadians, inUnit } from '../values/convert'
import type { Node } from '../notation/tree'
import type { Failure, Value } from '../values/value'
import { failure } from '../values/value'
import { signature } from './definition'
import type { FunctionDefinition, Parameter } from './definition'
import { absoluteAngle } from './numbers'

/**
 * Checks number and kinds of the arguments against the declaration, reads bare
 * numbers as angles where one is needed, and applies the function.
 */
export function callFunction(
  definition: FunctionDefinition,
  args: readonly Value[],
  nodes: readonly Node[],
  context: Context,
): Value | Failure {
  const wrong = wrongCount(definition, args.length)
  if (wrong) return wrong
  const ready: Value[] = []
  for (let k = 0; k < args.length; k += 1) {
    const parameter = definition.parameters[Math.min(k, definition.parameters.length - 1)]
    const value = args[k]
    const node = nodes[k]
    if (parameter === undefined || value === undefined || node === undefined) break
    const read = coerce(definition, parameter, value, node, context)
    if (read.kind === 'failure') return { ...read, from: node.from, to: node.to }
    ready.push(read)
  }
  const [only] = ready
  if (definition.name === 'abs' && args[0]?.kind === 'angle') return absoluteAngle(args[0]) ?? failure('wrong-kind')
  if (only === undefined && definition.parameters.length > 0)
    return failure('argument-count', { signature: signature(definition), given: 0 })
  return definition.apply(ready, context)
}

function wrongCount(definition: FunctionDefinition, given: number): Failure | null {
  const most = definition.parameters.length
  const least = most - (definition.optional ?? 0)
  if (given >= least && (given <= most || (definition.repeats && given <= 1000))) return null
  if (definition.name === 'log' && given === 1) return failure('log-base')
  return failure('argument-count', { signature: signature(definition), given })
}

function coerce(
  definition: FunctionDefinition,
  parameter: Parameter,
  value: Value,
  node: Node,
  context: Context,
): Value | Failure {
  const wrong = failure('argument-kind', {
    signature: signature(definition),
    name: parameter.name,
    needs: parameter.kind,
    kind: value.kind,
  })
  switch (parameter.kind) {
    case 'angle':
      if (value.kind === 'angle') return value
      if (value.kind !== 'number') return wrong
      if (value.im !== 0) return value
      context.bare(node, value)
      return inUnit(value, context.unit)
    case 'number': {
      const number = value.kind === 'angle' ? asRadians(value) : value
      return number.kind === 'number' ? number : wrong
    }
    case 'scalar':
      return value.kind === 'number' || value.kind === 'angle' ? value : wrong
    case 'quantity':
      if (value.kind === 'angle') return value
      return value.kind === 'number' && value.im === 0 ? value : wrong
    case 'real': {
      const number = value.kind === 'angle' ? asRadians(value) : value
      return number.kind === 'number' && number.im === 0 ? number : wrong
    }
    case 'whole':
      return value.kind === 'number' && value.im === 0 && Number.isInteger(value.re) ? value : wrong
    case 'truth':
      return value.kind === 'truth' ? value : wrong
  }
}
