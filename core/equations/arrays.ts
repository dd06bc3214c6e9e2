import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import { shapeOf } from '../quantities/shape'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { integer } from '../values/make'
import { bare } from '../values/quantity'
import type { PartsValue, Value } from '../values/types'
import { isScalar } from './form'
import type { LinearForm } from './form'
import type { Equation, Task } from './group'
import { byElimination } from './solved'

/** Linear equations between vectors and matrices, as `Z*I = V`: solved as a whole. */

/** True where a coefficient or a constant is no single number. */
export function isOfArrays(equations: readonly Equation[]): boolean {
  return equations.some(({ form }) => form.kind === 'linear' && [...form.factors.values(), form.constant].some((x) => x && !isScalar(x))) // prettier-ignore
}

/** Equations between vectors in which only numbers are sought, entry by entry; `null` of others. */
export function entryByEntry(task: Task): readonly Equation[] | Failure | null {
  const { equations } = task.group
  const found: Equation[] = []
  for (const equation of equations) {
    const { form } = equation
    if (form.kind !== 'linear') return null
    const all = [...form.factors.values(), ...(form.constant ? [form.constant] : [])]
    if (all.every(isScalar)) {
      found.push(equation)
      continue
    }
    const [first] = all
    const rows = first ? sidesOf(first).rows : 0
    if (!all.every((value) => bare(value).kind === 'vector' && sidesOf(value).rows === rows)) return null
    for (let k = 1; k <= rows; k += 1) {
      const entry = entryOf(form, k, task)
      if (entry.kind === 'failure') return entry
      found.push({ ...equation, form: entry })
    }
  }
  return found
}

function entryOf({ constant, factors }: LinearForm, k: number, { context, evaluate, at }: Task): LinearForm | Failure {
  const entry = (value: Value): Value | Failure => {
    const whole = N.valued(value, 'plain', at.from, at.to)
    return evaluate(N.entry(whole, N.valued(integer(k), 'plain', at.from, at.to), null, at.from, at.to), context)
  }
  const made = new Map<string, Value>()
  for (const [name, factor] of factors) {
    const value = entry(factor)
    if (value.kind === 'failure') return value
    made.set(name, value)
  }
  const rest = constant && entry(constant)
  return rest?.kind === 'failure' ? rest : { kind: 'linear', constant: rest, factors: made }
}

/** What a sought name is: one number, or so many rows and columns. */
interface Sides {
  readonly rows: number
  readonly cols: number
  readonly scalar: boolean
}

/**
 * The equations are put together as blocks of one matrix, which is solved as any: what the shapes and the units of the
 * whole have to be is checked there.
 */
export function determineArrays({ group, context, evaluate, at }: Task): PartsValue | Failure {
  const names = group.sought.map(({ name }) => name)
  const sides = new Map<string, Sides>()
  const blocks: { readonly line: number; readonly rows: number; readonly cols: number; readonly form: LinearForm }[] =
    []
  for (const { form, line } of group.equations) {
    if (form.kind !== 'linear') return failure('equation-kind', { line })
    const right = form.constant ? sidesOf(form.constant) : null
    const tall = [...form.factors.values()].map(sidesOf).find((found) => !found.scalar)
    const rows = right && !right.scalar ? right.rows : (tall?.rows ?? 1)
    // A column for a number of its own: then the right side is one as well.
    blocks.push({ line, rows, cols: right?.cols ?? 1, form })
  }
  for (const { form, rows, cols } of blocks)
    for (const [name, factor] of form.factors) {
      const of = sidesOf(factor)
      const column = !of.scalar && of.cols === 1 && bare(factor).kind === 'vector'
      const found: Sides = column ? { rows: 1, cols: 1, scalar: true } : { rows: of.scalar ? rows : of.cols, cols, scalar: false } // prettier-ignore
      if (!sides.has(name) || (found.scalar && !sides.get(name)?.scalar)) sides.set(name, found)
    }
  const valued = (value: Value): Node => N.valued(value, 'plain', at.from, at.to)
  const zero = (rows: number, cols: number): Node =>
    call('zero_matrix', [valued(integer(rows)), valued(integer(cols))], at)
  const matrix: Node[][] = []
  const column: Node[] = []
  for (const { form, rows, cols, line } of blocks) {
    const entries: Node[] = []
    for (const name of names) {
      const side = sides.get(name)
      const factor = form.factors.get(name)
      if (!side) return failure('equation-kind', { line })
      if (!factor) entries.push(zero(rows, side.rows))
      else if (isScalar(factor) && side.rows > 1)
        entries.push(N.product('*', valued(factor), call('identity', [valued(integer(side.rows))], at), at.from, at.to)) // prettier-ignore
      else entries.push(valued(factor))
    }
    matrix.push(entries)
    column.push(form.constant ? N.sign('-', valued(form.constant), at.from, at.to) : zero(rows, cols))
  }
  const single = matrix.length === 1 && names.length === 1
  const list = (entries: readonly Node[]): Node => N.list(entries, at.from, at.to)
  const a = single ? (matrix[0]?.[0] ?? at) : list(matrix.map(list))
  const b = single ? (column[0] ?? at) : list(column.map((entry) => list([entry])))
  const whole = N.apply('solve', true, null, [a, b], at.from, at.to)
  const scalar = single && isScalar([...(blocks[0]?.form.factors.values() ?? [])][0] ?? integer(1))
  const found = evaluate(scalar ? N.product('/', b, a, at.from, at.to) : whole, context)
  if (found.kind === 'failure') return found
  const parts = new Map<string, Value>()
  let from = 1
  for (const name of names) {
    const side = sides.get(name)
    if (!side) return failure('equation-kind', { line: blocks[0]?.line ?? 0 })
    const place = (n: number): Node => valued(integer(n))
    const rows: Node = side.scalar
      ? place(from)
      : N.slice(place(from), place(from + side.rows - 1), null, at.from, at.to)
    // A column of the whole is a vector again.
    const col = bare(found).kind !== 'vector' && side.cols === 1 ? place(1) : null
    const value = single ? found : evaluate(N.entry(valued(found), rows, col, at.from, at.to), context)
    if (value.kind === 'failure') return value
    parts.set(name, value)
    from += side.rows
  }
  return { kind: 'parts', of: 'determine', parts, solved: byElimination(blocks.length) }
}

function call(name: string, args: readonly Node[], at: Node): Node {
  return N.apply(name, true, null, args, at.from, at.to)
}

function sidesOf(value: Value): Sides {
  const shape = shapeOf(bare(value))
  return shape ? { rows: shape[0], cols: shape[1], scalar: false } : { rows: 1, cols: 1, scalar: true }
}
