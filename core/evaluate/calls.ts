import { callFunction, takesOneNumber } from '../functions/call'
import { parameterAt } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import { findFunction } from '../functions/registry'
import type { Apply, Node } from '../notation/tree'
import { vector } from '../values/make'
import { pointsOf } from '../values/sweeps'
import type { Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { Measure } from '../units/measure'
import { allOf } from './allOf'
import { Arguments, Body } from './functionBody'
import type { Context, Evaluate } from '../operators/context'
import { atEveryPoint, isSweep, loopBinary } from '../operators/lift'
import { asKept } from '../quantities/through'
import { callOnQuantities } from '../functions/quantities'
import { hintBareExponent, raiseValues } from '../operators/operate'
import { isQuantity } from '../values/quantity'
import { binary, Plainly } from '../operators/rules'
import { looped } from '../functions/loops'

/** A call of a function of the registry, or of one that a line defines. */
export function apply(node: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  if (!node.builtIn) return raised(userDefined(node, context, evaluate), node, context, evaluate)
  const definition = findFunction(node.name)
  if (definition === null) return failure('unknown-name', { name: node.name, near: '' })
  const only = node.args[0]
  if (only === undefined || node.args.length > 1 || node.raised !== null || !takesOneNumber(definition))
    return applyTo(definition, node, context, evaluate)
  // Most calls are of one number: nothing is to be gathered, checked or read.
  const value = evaluate(only, aroundArgument(definition, 0, context))
  if (value.kind === 'failure') return value
  if (definition.exponential) hintBareExponent(value, only, context)
  return value.kind === 'number' ? definition.apply([value], context) : builtIn(definition, node, [value], context)
}

function applyTo(definition: FunctionDefinition, node: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  if (definition.lazy) return definition.lazy(node, context, evaluate)
  const args = argumentsOf(definition, node.args, context, evaluate)
  if (!Array.isArray(args)) return args
  const [only] = args
  const [onlyNode] = node.args
  if (definition.exponential && only && onlyNode) hintBareExponent(only, onlyNode, context)
  return raised(builtIn(definition, node, args, context), node, context, evaluate)
}

/** The values of the arguments, each in the surroundings of its parameter. */
function argumentsOf(
  definition: FunctionDefinition,
  nodes: readonly Node[],
  context: Context,
  evaluate: Evaluate,
): Value[] | Failure {
  if (definition.exponential || !context.exponent) return allOf(nodes, aroundArgument(definition, 0, context), evaluate)
  const values: Value[] = []
  for (const [k, node] of nodes.entries()) {
    const value = evaluate(node, aroundArgument(definition, k, context))
    if (value.kind === 'failure') return value
    values.push(value)
  }
  return values
}

/**
 * What goes into an exponent as it is stays there: numbers, and the terms of a sum. An angle that a function asks for
 * is one, wherever the call stands.
 */
function aroundArgument(definition: FunctionDefinition, k: number, context: Context): Context {
  if (definition.exponential) return context.inExponent()
  if (!context.exponent) return context
  const parameter = parameterAt(definition, k)
  const goesIn = parameter?.needs === 'number' || parameter?.needs === 'real' || parameter?.needs === 'scalar'
  return goesIn ? context : context.outsideExponent()
}

/** `sin^2(x)`: the power of what the call gives. */
function raised(value: Value | Failure, node: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  if (node.raised === null || value.kind === 'failure') return value
  const exponent = evaluate(node.raised, context)
  if (exponent.kind === 'failure') return exponent
  if (value.kind === 'quantity') return raiseValues(value, exponent, context)
  if (value.kind === 'sweep')
    return loopBinary('^', value, exponent, node, context) ?? failure('wrong-kind', { what: '^', kind: 'sweep' })
  return binary('^', value, exponent, new Plainly(context))
}

function builtIn(
  definition: FunctionDefinition,
  node: Apply,
  args: readonly Value[],
  context: Context,
): Value | Failure {
  if (args.some(isQuantity)) {
    if (definition.amplitudes && args.some(isPowerRatio)) context.hint('decibel-of-powers', node)
    return callOnQuantities(definition, args, node.args, context, (of) => builtIn(definition, node, of, context))
  }
  return (
    (args.length === 1 ? overRow(definition, args, node, context) : null) ??
    (!definition.sweeps && args.some(isSweep) ? overSweeps(definition, args, node, context) : null) ??
    callFunction(definition, args, node.args, context)
  )
}

/** A row of sweeps, as in sum(k*t for k = 1 to 3), is as many arguments. */
function overRow(
  definition: FunctionDefinition,
  [row]: readonly Value[],
  node: Apply,
  context: Context,
): Value | Failure | null {
  const [rowNode] = node.args
  if (row?.kind !== 'vector' || !definition.repeats || !rowNode || !row.items.some(isSweep)) return null
  const nodes = row.items.map(() => rowNode)
  return atEveryPoint(row.items, node, context, (values, inner) => callFunction(definition, values, nodes, inner))
}

function overSweeps(
  definition: FunctionDefinition,
  args: readonly Value[],
  node: Apply,
  context: Context,
): Value | Failure {
  const [only] = args
  const single = args.length === 1 && only?.kind === 'sweep' ? only : null
  const loop = single && looped(definition, single)
  if (loop) return loop
  // A reduction of one sweep runs over its points.
  if (single && definition.repeats && single.of !== 'other') {
    const found = single.of === 'number' ? definition.overPoints?.(single) : null
    if (found) return found
    if (single.count > REDUCED_MOST) return failure('too-many-points', { count: single.count, limit: REDUCED_MOST })
    return callFunction(definition, [vector(pointsOf(single))], node.args, context)
  }
  hintMultiples(definition, args, node, context)
  return atEveryPoint(args, node, context, (values, inner) => callFunction(definition, values, node.args, inner))
}

/** Multiples of π read in degrees, and whole turns read in radians, were rarely meant so. */
function hintMultiples(definition: FunctionDefinition, args: readonly Value[], node: Apply, context: Context): void {
  args.forEach((arg, k) => {
    const of = node.args[k]
    if (!of || arg.kind !== 'sweep' || arg.of !== 'number' || definition.parameters[k]?.needs !== 'angle') return
    const last = arg.re[arg.count - 1] ?? 0
    if (arg.pi && context.angleUnit === 'deg') context.hint('multiple-of-pi-in-degrees', of)
    else if (!arg.pi && !arg.complex && context.angleUnit === 'rad' && TURNS.has(last) && arg.axis.values === arg.re)
      context.hint('round-degrees-in-radians', of, { value: last })
  })
}

/** Ends of ranges that people mean in degrees. */
const TURNS: ReadonlySet<number> = new Set([90, 180, 270, 360, 720])

function userDefined(node: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  const args = allOf(node.args, context.outsideExponent(), evaluate)
  if (!Array.isArray(args)) return args
  const value = context.lookup(node.name)
  if (value?.kind !== 'function' || !(value.body instanceof Body)) return failure('not-a-function', { name: node.name })
  const { term, captured } = value.body
  if (args.length !== value.parameters.length) {
    return failure('argument-count', { signature: `${value.name}(${value.parameters.join(', ')})`, given: args.length })
  }
  if (context.budget.depth <= 0) return failure('too-deep-calls')
  context.budget.depth -= 1
  const inside = context.insideFunction(new Arguments(value.parameters, args, captured))
  const result = evaluate(term, inside)
  context.budget.depth += 1
  // The span of a failure inside the body belongs to another line.
  if (result.kind !== 'failure') return asKept(result)
  return result.code === 'too-long'
    ? failure('too-long')
    : failure('inside-function', { name: value.name, inner: { code: result.code, data: result.data } })
}

/** Most points that a reduction without a loop of its own runs over. */
const REDUCED_MOST = 100_000

const isPowerRatio = (value: Value): boolean =>
  value.kind === 'quantity' && value.measure instanceof Measure && value.measure.power === 'ratio'
