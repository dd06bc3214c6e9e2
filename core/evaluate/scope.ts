import { unknownValue } from '../algebra/ratio'
import type { Kept } from '../notation/names'
import type { Parsed } from '../notation/parser'
import { problem } from '../notation/problem'
import type { Problem } from '../notation/problem'
import { definedName, definedNames, definedNodes } from '../notation/references'
import type { Value } from '../values/types'
import { canBeKept } from './definitions'
import type { Evaluated } from './line'

/** A kept name as the lines below see it. */
export interface Entry extends Kept {
  /** Changes whenever what a reader would see changes. */
  readonly stamp: string
}

/** The names that a line sees, each with what stands under it. */
export type Scope = ReadonlyMap<string, Entry>

function unknownEntry(line: number, name: string): Entry {
  return { line, kind: 'value', value: unknownValue(name), stamp: `unknown ${name}` }
}

/** Makes the name of a line, and `prev`, visible to the lines below it. `stamp` counts what the line came to. */
export function enter(
  scope: Map<string, Entry>,
  line: number,
  parsed: Parsed,
  evaluated: Evaluated,
  stamp: number,
  letter: 'i' | 'j',
): void {
  const { value, problem: failed } = evaluated
  const { type } = parsed.statement
  const isFunction = type === 'function'
  const told = failed ? `broken ${isFunction ? 'function' : 'value'} ${line}` : `${stamp}`
  if (type === 'unknown') {
    for (const { name } of parsed.statement.names) if (!failed) scope.set(name, unknownEntry(line, name))
    return
  }
  const name = definedName(parsed)
  if (name !== null && canBeKept(name, letter))
    scope.set(name, { line, kind: isFunction ? 'function' : 'value', value, stamp: told })
  const skipped = isFunction || type === 'check' || (type === 'empty' && !failed)
  if (!skipped) scope.set('prev', { line, kind: 'value', value, stamp: told })
}

/** The same scope with the unknowns of a line that would stand at its end. */
export function withUnknowns(scope: Scope, line: number, above: Parsed): Scope {
  return new Map([...scope, ...definedNames(above).map((name) => [name, unknownEntry(line, name)] as const)])
}

/** The hint that a line defines what is defined above it already. */
export function redefinition(parsed: Parsed, index: number, scope: Scope): Problem | null {
  for (const node of definedNodes(parsed.statement)) {
    const earlier = scope.get(node.name)
    if (!earlier || earlier.line >= index) continue
    const unknown = parsed.statement.type !== 'unknown' && isUnknown(earlier.value, node.name)
    return problem(unknown ? 'unknown-kept' : 'redefined', node, { name: node.name, line: earlier.line + 1 })
  }
  return null
}

/** True for the bare unknown of this name. */
function isUnknown(value: Value | null, name: string): boolean {
  if (value?.kind !== 'polynomial' || value.bottom) return false
  const [only] = value.top.terms
  return value.top.terms.length === 1 && value.top.unknowns[0] === name && only?.powers[0] === 1
}
