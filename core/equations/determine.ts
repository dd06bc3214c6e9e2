import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { EquationGroup, LookedFor, Task } from './group'
import { lineList } from '../format/lineList'
import { determineArrays, entryByEntry, isOfArrays } from './arrays'
import { determineLinear } from './linearGroup'
import { determineNonlinear } from './nonlinear'
import type { PartsValue } from '../values/types'

/**
 * The values that solve the equations of a group: linear ones by elimination, polynomial ones by their roots, all
 * others by a search with Newton's method.
 */
export function determine(task: Task): PartsValue | Failure {
  const why = whyNot(task.group, task.looked)
  if (why) return why
  const found = solved(task)
  if (found.kind === 'failure' || !found.solved) return found
  const uses = [...new Set(task.group.equations.flatMap((equation) => equation.uses))]
  return { ...found, solved: { ...found.solved, uses } }
}

function solved(task: Task): PartsValue | Failure {
  const { equations } = task.group
  if (!equations.every(({ form }) => form.kind === 'linear')) return determineNonlinear(task)
  if (!isOfArrays(equations)) return determineLinear(task)
  const entries = entryByEntry(task)
  if (entries === null) return determineArrays(task)
  return 'kind' in entries ? entries : determineLinear({ ...task, group: { ...task.group, equations: entries } })
}

/** Why the group cannot be solved whatever is in it; `null` where nothing is against it. */
function whyNot(group: EquationGroup, looked: LookedFor): Failure | null {
  const { broken, equations, sought } = group
  if (broken.length > 0) return failure('equations-wait', { lines: lineList(broken) })
  const names = sought.map(({ name }) => name)
  const odd = [...looked.near.keys(), ...looked.between.keys()].find((name) => !names.includes(name))
  if (odd !== undefined) return failure('not-sought', { name: odd, names: names.join(', ') })
  if (equations.length === 0) return failure('no-equations', { names: names.join(', ') })
  const used = new Set(equations.flatMap((equation) => equation.names))
  const unused = sought.find(({ name }) => !used.has(name))
  return unused ? failure('sought-unused', unused) : null
}
