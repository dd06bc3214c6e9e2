import type { Context } from '../operators/context'
import { asMatrix, itemsOf, mapMatrix, shapeText } from '../values/matrices'
import type { Node } from '../notation/tree'
import type { Value, VectorValue } from '../values/types'
import { integer, vector } from '../values/make'
import { asAlgebra, hasUnknowns } from '../algebra/polyMatrix'
import { algebraic, isAlgebraic } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { isQuantity } from '../values/quantity'
import { callOnQuantities } from './quantities'
import { parameterAt, signature } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import type { Parameter } from '../signatures/parameter'

/** A function of one number of any kind: given a number, it can be applied as it is. */
export function takesOneNumber({ parameters }: FunctionDefinition): boolean {
  const needs = parameters[0]?.needs
  return parameters.length === 1 && (needs === 'number' || needs === 'scalar')
}

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
  const scalars = areScalars(args)
  const arrays = !scalars && takesArrays(definition)
  if (!scalars) {
    if (args.some(isQuantity))
      return callOnQuantities(definition, args, nodes, context, (of) => callFunction(definition, of, nodes, context))
    const whole = onArrays(definition, args, nodes, context, arrays)
    if (whole) return whole
  }
  const wrong = wrongCount(definition, args.length)
  if (wrong) return wrong
  /** A row of its own once an argument is read as something else. */
  let ready: readonly Value[] = args
  for (let k = 0; k < args.length; k += 1) {
    const parameter = parameterAt(definition, k)
    const value = args[k]
    const node = nodes[k]
    if (parameter === undefined || value === undefined || node === undefined) break
    const read = parameter.read(value, node, context, definition) ?? wrongKind(definition, parameter, value)
    if (read.kind === 'failure') return { ...read, from: node.from, to: node.to }
    if (read !== value) ready = ready.with(k, read)
  }
  if (definition.ofAngle && args[0]?.kind === 'angle') return definition.ofAngle(args[0])
  if (ready.length === 0 && definition.parameters.length > 0)
    return failure('argument-count', { signature: signature(definition), given: 0 })
  return definition.apply(ready, arrays && nodes[0] ? context.about(nodes[0]) : context)
}

/** Numbers and angles, and nothing else. */
function areScalars(values: readonly Value[]): boolean {
  for (let k = 0; k < values.length; k += 1) {
    const kind = values[k]?.kind
    if (kind !== 'number' && kind !== 'angle') return false
  }
  return true
}

/** Where an argument is no plain number: unknowns, and vectors and matrices that a function of numbers runs over. */
function onArrays(
  definition: FunctionDefinition,
  args: readonly Value[],
  nodes: readonly Node[],
  context: Context,
  arrays: boolean,
): Value | Failure | null {
  const [first] = args
  const [firstNode] = nodes
  const unknowns = args.some((a) => a.kind === 'polynomial' || hasUnknowns(a))
  if (unknowns && !definition.parameters.some((p) => p.unknowns)) return withUnknowns(definition, args, context)
  if (arrays) return null
  if (definition.repeats && args.length === 1 && firstNode) {
    if (first?.kind === 'vector') return reduceVector(definition, first, firstNode, context)
    if (first?.kind === 'matrix') return reduceVector(definition, vector(itemsOf(first)), firstNode, context)
  }
  const wrong = wrongCount(definition, args.length)
  if (wrong) return wrong
  if (args.some((a) => a.kind === 'matrix')) return overMatrix(definition, args, nodes, context)
  return args.some((a) => a.kind === 'vector') ? overEntries(definition, args, nodes, context) : null
}

/** Functions that can do with unknowns: those that say so, and sums and the like, which are operators in a row. */
function withUnknowns(definition: FunctionDefinition, args: readonly Value[], context: Context): Value | Failure {
  const wrong = wrongCount(definition, args.length)
  const [first] = args
  const { inARow: sign } = definition
  if (sign) {
    const items = args.length === 1 && first?.kind === 'vector' ? first.items : args
    const numbers = items.filter(isAlgebraic)
    if (numbers.length < items.length) return failure('no-unknowns', { name: definition.name })
    return numbers.reduce<Algebraic | Failure>(
      (total, item) => (total.kind === 'failure' ? total : algebraic(sign, total, item)),
      integer(sign === '+' ? 0 : 1),
    )
  }
  const matrices = args.flatMap((a) => asAlgebra(a) ?? [])
  const [left, right = left] = matrices
  if (!definition.algebra || !left || !right || matrices.length < args.length) return failure('no-unknowns', { name: definition.name }) // prettier-ignore
  return wrong ?? definition.algebra(left, right, context)
}

/** Functions that take vectors and matrices as a whole. */
function takesArrays(definition: FunctionDefinition): boolean {
  for (const { whole } of definition.parameters) if (whole) return true
  return false
}

/** A function of numbers applies to every entry of a matrix, too, where that cannot be misread. */
function overMatrix(
  definition: FunctionDefinition,
  args: readonly Value[],
  nodes: readonly Node[],
  context: Context,
): Value | Failure {
  const matrix = args.find((a) => a.kind === 'matrix')
  if (!matrix) throw new Error('one of them is a matrix')
  const { whole } = definition
  if (whole && matrix.rows === matrix.cols && !context.each)
    return failure('matrix-function', { name: definition.name, whole })
  const others = args.filter((a) => a.kind === 'matrix' || a.kind === 'vector')
  const shapes = others.map((a) => asMatrix(a))
  const odd = shapes.find((m) => m && (m.rows !== matrix.rows || m.cols !== matrix.cols))
  if (odd) return failure('shapes-differ', { left: shapeText(matrix), right: shapeText(odd), sign: definition.name })
  const columns = args.map((a) => (a.kind === 'matrix' || a.kind === 'vector' ? itemsOf(asMatrix(a) ?? matrix) : null))
  let k = -1
  return mapMatrix(matrix, () => {
    k += 1
    const entries = args.map((a, c) => columns[c]?.[k] ?? a)
    return callFunction(definition, entries, nodes, context)
  })
}

/** A reduction of one vector runs over its entries: `sum([1, 2, 3])`. */
function reduceVector(definition: FunctionDefinition, v: VectorValue, node: Node, context: Context): Value | Failure {
  if (v.items.length === 0)
    return definition.ofNothing ?? failure('domain', { name: definition.name, needs: 'at least one value' })
  const [only] = v.items
  if (only && v.items.length === 1 && definition.parameters.length > 1) return only
  const nodes = v.items.map(() => node)
  return callFunction(definition, v.items, nodes, context)
}

/** A function of numbers applies to every entry; several vectors must have one length. */
function overEntries(
  definition: FunctionDefinition,
  args: readonly Value[],
  nodes: readonly Node[],
  context: Context,
): Value | Failure {
  const vectors = args.flatMap((a) => (a.kind === 'vector' ? [a] : []))
  const [only] = vectors
  if (definition.ofVector && only && args.length === 1 && !context.each) return definition.ofVector(only)
  const length = vectors[0]?.items.length ?? 0
  const other = vectors.find((v) => v.items.length !== length)
  if (other) return failure('lengths-differ', { left: length, right: other.items.length })
  const items: Value[] = []
  for (let k = 0; k < length; k += 1) {
    const entries = args.flatMap((a) => (a.kind === 'vector' ? (a.items[k] ?? []) : [a]))
    const value = callFunction(definition, entries, nodes, context)
    if (value.kind === 'failure') return value
    items.push(value)
  }
  return vector(items)
}

function wrongCount(definition: FunctionDefinition, given: number): Failure | null {
  const most = definition.parameters.length
  const least = most - definition.optional
  if (given >= least && (given <= most || definition.repeats)) return null
  return definition.refuses?.(given) ?? failure('argument-count', { signature: signature(definition), given })
}

function wrongKind(definition: FunctionDefinition, parameter: Parameter, value: Value): Failure {
  const data = { signature: signature(definition), name: parameter.name, needs: parameter.needs, kind: value.kind }
  return failure('argument-kind', data)
}
