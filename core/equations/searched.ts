import { standardName } from '../functions/registry'
import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import { PLAIN } from '../units/measure'
import { angleFrom } from '../quantities/through'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { angleOf, real, rough } from '../values/make'
import { bare, quantity } from '../values/quantity'
import type { Code } from '../values/problemData'
import type { NumberValue, Value } from '../values/types'
import { holomorphic } from './derivatives'
import { namesIn } from './names'
import { compileEquation, isE } from './dual'
import type { Compiled, Variable } from './dual'
import { hasSought } from './form'
import type { Task } from './group'
import type { Sorts, ValueOf } from './measured'
import { numberFrom, plainOf, Sought } from './numbers'
import type { Solutions } from './nonlinear'
import { search } from './search'
import { evaluated } from './newton'
import type { RealSystem } from './newton'

/** A search for the solutions of equations with functions in them, over the real numbers unless a start is complex. */
export function searched(
  task: Task,
  names: readonly string[],
  sorts: Sorts,
  valueOf: ValueOf,
  /** How many solutions there are at most. */
  most: number,
): Solutions | Failure {
  const { group, looked } = task
  const variables = variablesOf(names, task)
  if ('code' in variables) return variables
  const periodic = group.equations.flatMap(({ left, right }) => [...turnedNames(left), ...turnedNames(right)])
  const open = periodic.find((name) => !looked.between.has(name) && !looked.near.has(name))
  if (open !== undefined) return failure('periodic-needs-range', { name: open })
  const count = [...variables.values()].reduce((n, { im }) => n + (im === null ? 1 : 2), 0)
  const system = compiled(task, variables, count, valueOf, sorts)
  if ('code' in system) return system
  if (realEquations(system) < count) return failure('equations-few', { equations: group.equations.length, sought: names.length, free: '' }) // prettier-ignore
  const found = search(system, {
    near: near(names, variables, count, task),
    between: between(names, variables, count, task),
  })
  const roots = found.filter(({ x }) =>
    satisfies(solutionOf(x, names, variables), evaluated(system, x, null).size, names, sorts, task),
  )
  const solutions = roots.map(({ x }) => solutionOf(x, names, variables))
  if (solutions.length === 0) return failure(looked.between.size > 0 ? 'no-solution-between' : 'no-solution-found')
  const residual = Math.max(...roots.map((root) => root.residual))
  const picked = looked.near.size > 0
  return { kind: 'solutions', list: solutions.map((values) => ({ values, times: 1 })), spare: 0, way: 'search', residual, more: !picked && solutions.length < most, roots: null } // prettier-ignore
}

/** A sought name is real, or complex where its start is. */
function variablesOf(names: readonly string[], { looked }: Task): ReadonlyMap<string, Variable> | Failure {
  const found = new Map<string, Variable>()
  let count = 0
  for (const name of names) {
    for (const value of [looked.near.get(name), ...(looked.between.get(name) ?? [])])
      if (value && !plainOf(value)) return failure('near-number', { name, kind: bare(value).kind })
    const start = looked.near.get(name)
    const number = start && plainOf(start)
    const complex = number !== null && number !== undefined && (number.complex || number.im !== 0)
    found.set(name, { re: count, im: complex ? count + 1 : null })
    count += complex ? 2 : 1
  }
  return found
}

function near(names: readonly string[], variables: ReadonlyMap<string, Variable>, count: number, { looked }: Task) {
  const list = Array.from({ length: count }, (): number | null => null)
  for (const name of names) {
    const [variable, start] = [variables.get(name), looked.near.get(name)]
    const value = start && plainOf(start)
    if (!variable || !value) continue
    list[variable.re] = value.re
    if (variable.im !== null) list[variable.im] = value.im
  }
  return list
}

function between(names: readonly string[], variables: ReadonlyMap<string, Variable>, count: number, { looked }: Task) {
  const list = Array.from({ length: count }, (): readonly [number, number] | null => null)
  for (const name of names) {
    const [variable, bounds] = [variables.get(name), looked.between.get(name)]
    if (!variable || !bounds) continue
    const [low, high] = bounds.map((value) => plainOf(value)?.re ?? NaN)
    if (low !== undefined && high !== undefined) list[variable.re] = [Math.min(low, high), Math.max(low, high)]
  }
  return list
}

function compiled(
  task: Task,
  variables: ReadonlyMap<string, Variable>,
  count: number,
  valueOf: ValueOf,
  sorts: Sorts,
): RealSystem | Failure {
  const sample = new Sought(new Map([...variables].map(([name, of]) => [name, sampleOf(name, of, sorts)])))
  const context = task.context.withNames(sample).pointByPoint()
  const radiansPerUnit = (node: Node): number => {
    const value = task.evaluate(node, context)
    if (value.kind === 'failure' || value.kind === 'angle') return 1
    const plain = value.kind === 'quantity' ? angleFrom(value, '') : value
    if (plain.kind !== 'number' || plain.complex) return 1
    return task.context.angleUnit === 'deg' ? Math.PI / 180 : 1
  }
  const equations: Compiled[] = []
  for (const { left, right, line, source } of task.group.equations) {
    const found = compileEquation(left, right, { variables, count, value: valueOf, radiansPerUnit })
    if (typeof found !== 'function') return failure('not-smooth', { line, term: textOf(found, source) })
    // What is wrong with a side at a point is wrong with it everywhere, but for values outside of a domain.
    const odd = [left, right].map((side) => task.evaluate(side, context)).find((value) => value.kind === 'failure')
    if (odd?.kind === 'failure' && !PASSING.has(odd.code)) return failure('in-equation', { line, inner: { code: odd.code, data: odd.data } }) // prettier-ignore
    equations.push(found)
  }
  return { equations, count }
}

/** Failures of a value, not of a term. */
const PASSING: ReadonlySet<Code> = new Set<Code>(['domain', 'too-large'])

function sampleOf(name: string, { im }: Variable, sorts: Sorts): Value {
  const number = im === null ? real(0.7) : rough(0.7, 0.4, true)
  return valueOfName(sorts.angles.has(name) ? real(0.3) : number, name, sorts)
}

function textOf({ from, to }: Node, source: string): string {
  return source.slice(from, to) || source
}

/** Names on which the phase of something that goes round depends. */
function turnedNames(node: Node): readonly string[] {
  if (!hasSought(node)) return []
  switch (node.type) {
    case 'polar':
      return [...namesIn(node.angle), ...turnedNames(node.magnitude)]
    case 'power':
      return isE(node.base) && hasImaginary(node.exponent)
        ? namesIn(node.exponent)
        : childrenOf(node).flatMap(turnedNames)
    case 'apply': {
      const name = standardName(node.name, node.args.length) ?? node.name
      const [only] = node.args
      if (holomorphic(name)?.angle === 'in') return only ? namesIn(only) : []
      if (name === 'wave') return namesIn(...node.args.slice(1))
      if (name === 'exp' && only && hasImaginary(only)) return namesIn(only)
      return childrenOf(node).flatMap(turnedNames)
    }
    default:
      return childrenOf(node).flatMap(turnedNames)
  }
}

function hasImaginary(node: Node): boolean {
  if (node.type === 'constant') return node.name === 'imaginary'
  if (node.type === 'literal' || node.type === 'valued') {
    const inner = bare(node.value)
    return inner.kind === 'number' && inner.im !== 0
  }
  return childrenOf(node).some(hasImaginary)
}

function solutionOf(
  x: Float64Array,
  names: readonly string[],
  variables: ReadonlyMap<string, Variable>,
): readonly NumberValue[] {
  return names.map((name) => {
    const variable = variables.get(name)
    if (!variable) return real(NaN)
    return numberFrom(x[variable.re] ?? NaN, variable.im === null ? null : (x[variable.im] ?? NaN))
  })
}

/**
 * True where the evaluator itself finds both sides of every equation equal, units, angles and all, beside the sizes of
 * what they are put together of.
 */
function satisfies(
  values: readonly NumberValue[],
  sizes: Float64Array,
  names: readonly string[],
  sorts: Sorts,
  task: Task,
): boolean {
  const scope = new Sought(new Map(names.map((name, k) => [name, valueOfName(values[k] ?? real(NaN), name, sorts)])))
  const context = task.context.withNames(scope)
  return task.group.equations.every(({ left, right }, k) => {
    const [a, b] = [task.evaluate(left, context), task.evaluate(right, context)]
    const [x, y] = [a.kind === 'failure' ? null : plainOf(a), b.kind === 'failure' ? null : plainOf(b)]
    // Each equation has a size for its real and for its imaginary part.
    return x !== null && y !== null && C.abs(C.subtract(x, y)) <= AGREED * (sizes[2 * k] ?? 0)
  })
}

/** The evaluator rounds in other places than the search does. */
const AGREED = 2e-9

function valueOfName(value: NumberValue, name: string, { measures, angles }: Sorts): Value {
  if (angles.has(name) && value.im === 0) return angleOf(value.re)
  return quantity(value, measures.get(name) ?? PLAIN)
}

/** How many real equations there are: a complex one is two where its imaginary part says anything. */
function realEquations(system: RealSystem): number {
  const { rest, slopes } = evaluated(
    system,
    Float64Array.from({ length: system.count }, (_, k) => 0.7 + 0.1 * k),
    null,
  )
  const n = system.count
  return rest.reduce((found, r, k) => (r !== 0 || slopes.subarray(k * n, (k + 1) * n).some((d) => d !== 0) ? found + 1 : found), 0) // prettier-ignore
}
