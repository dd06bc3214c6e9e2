import { childrenOf } from '../notation/references'
import { withChildren } from '../notation/rebuilt'
import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import { inTime } from '../operators/context'
import { commonAxis } from '../operators/lift'
import { pointIn } from '../quantities/through'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { sweepIn, bare, quantity } from '../values/quantity'
import { sweepOf } from '../values/sweeps'
import type { PartsValue, Value } from '../values/types'
import type { Equation, Task } from './group'

/** Equations with sweeps in them: solved point by point, each beginning where the one before it ended. */
export function atEveryPointOf(task: Task, solve: (task: Task) => PartsValue | Failure): PartsValue | Failure | null {
  const { equations } = task.group
  const swept = equations.flatMap(({ left, right }) => [...sweepsIn(left), ...sweepsIn(right)])
  if (swept.length === 0) return null
  const axis = commonAxis(swept.map(bare), task.at, task.context)
  if ('kind' in axis) return axis
  const names = task.group.sought.map(({ name }) => name)
  const points = names.map((): Value[] => [])
  let near = task.looked.near
  let last: PartsValue | null = null
  let more = false
  for (let k = 0; k < axis.values.length; k += 1) {
    if (!inTime(task.context.budget, k)) return failure('too-long')
    const at: Task = {
      ...task,
      context: task.context.pointByPoint(),
      looked: { ...task.looked, near },
      group: { ...task.group, equations: equations.map((equation) => atPoint(equation, k)) },
    }
    const found = solve(at)
    if (found.kind === 'failure') return found
    // Several solutions at a point would make a sweep of sweeps.
    if ((found.solved?.solutions ?? 1) > 1) return failure('equations-several-along')
    last = found
    const next = new Map<string, Value>()
    for (const [j, name] of names.entries()) {
      const value = found.parts.get(name)
      if (!value) continue
      points[j]?.push(value)
      next.set(name, value)
    }
    // A search begins where the one before it ended; of roots all are known at every point.
    if (near.size > 0 || found.solved?.way === 'search') near = next
    more ||= found.solved?.more ?? false
  }
  if (!last) return failure('no-solution')
  const parts = names.map((name, j): [string, Value] => [name, together(points[j] ?? [], axis)])
  const solved = last.solved ? { ...last.solved, more, residual: null } : undefined
  return { ...last, parts: new Map(parts), ...(solved ? { solved } : {}) }
}

function together(points: readonly Value[], axis: Parameters<typeof sweepOf>[0]): Value {
  const [first] = points
  const sweep = sweepOf(axis, points.map(bare))
  return first?.kind === 'quantity' ? quantity(sweep, first.measure) : sweep
}

function sweepsIn(node: Node): readonly Value[] {
  if (node.type === 'valued') return sweepIn(node.value) ? [node.value] : []
  return childrenOf(node).flatMap(sweepsIn)
}

function atPoint(equation: Equation, k: number): Equation {
  return { ...equation, left: pointOf(equation.left, k), right: pointOf(equation.right, k) }
}

function pointOf(node: Node, k: number): Node {
  if (node.type === 'valued') {
    const value = pointIn(node.value, k)
    return value ? N.valued(value, node.form, node.from, node.to) : node
  }
  return withChildren(node, childrenOf(node).map((child) => pointOf(child, k))) // prettier-ignore
}
