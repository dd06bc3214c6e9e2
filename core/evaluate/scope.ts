import { isUnknown, unknownValue } from '../algebra/ratio'
import type { Kept, OpenName } from '../notation/names'
import type { Parsed } from '../notation/parser'
import { dataOf } from '../values/problemData'
import { problem } from '../notation/problem'
import type { Problem } from '../notation/problem'
import { definedName, definedNames, definedNodes } from '../notation/references'
import { canBeKept } from './definitions'
import type { UnitTerm } from '../notation/tree'
import { quantity } from '../values/quantity'
import type { Evaluated } from './line'

/** A kept name as the lines below see it. */
export interface Entry extends Kept {
  /** Changes whenever what a reader would see changes. */
  readonly stamp: string
  /** True of what `determine` found. */
  readonly determined?: boolean
}

/** The names that a line sees, each with what stands under it. */
export type Scope = ReadonlyMap<string, Entry>

function unknownEntry(line: number, name: string, unit: UnitTerm | null): Entry {
  const measure = unit?.unit.measure
  const value = measure ? quantity(unknownValue(name), measure, { unknowns: new Map([[name, measure]]) }) : unknownValue(name) // prettier-ignore
  return { line, kind: 'value', value, stamp: `unknown ${name} ${unit?.unit.text ?? ''}` }
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
  const { value, problem: failed, hints } = evaluated
  const { type } = parsed.statement
  // Said of each name once: the lines below see that it was.
  for (const hint of hints) {
    const hidden = dataOf(hint, 'unit-hides-name')?.name
    if (hidden !== undefined) scope.set(`unit ${hidden}`, { line, kind: 'value', value: null, stamp: `${line}` })
  }
  if (type === 'equation') return
  const isFunction = type === 'function'
  if (type === 'sought') {
    if (!failed) for (const { name } of parsed.statement.names) scope.set(name, { line, kind: 'value', value: null, open: SOUGHT, stamp: `sought ${line}` }) // prettier-ignore
    return
  }
  const open = failed || evaluated.open?.kind !== 'name' ? null : evaluated.open.open
  if (type === 'unknown') {
    for (const [k, { name }] of parsed.statement.names.entries())
      if (!failed) scope.set(name, unknownEntry(line, name, parsed.statement.units[k] ?? null))
    return
  }
  const kind = isFunction ? 'function' : 'value'
  const told = failed ? `broken ${kind} ${line}` : `${stamp}`
  // What is open has its value with `determine`.
  const entry: Entry = open ? { line, kind, value: null, open, stamp: `open ${stamp}` } : { line, kind, value, stamp: told } // prettier-ignore
  const name = definedName(parsed)
  if (name !== null && canBeKept(name, letter)) scope.set(name, entry)
  const skipped = isFunction || type === 'check' || (type === 'empty' && !failed)
  if (!skipped) scope.set('prev', entry)
}

const SOUGHT: OpenName = { kind: 'sought' }

/** The same scope with the unknowns of a line that would stand at its end. */
export function withUnknowns(scope: Scope, line: number, above: Parsed): Scope {
  const units = above.statement.type === 'unknown' ? above.statement.units : []
  return new Map([...scope, ...definedNames(above).map((name, k) => [name, unknownEntry(line, name, units[k] ?? null)] as const)]) // prettier-ignore
}

/** The hint that a line defines what is defined above it already. */
export function redefinition(parsed: Parsed, index: number, scope: Scope): Problem | null {
  for (const node of definedNodes(parsed.statement)) {
    const earlier = scope.get(node.name)
    if (!earlier || earlier.line >= index) continue
    const unknown = parsed.statement.type !== 'unknown' && earlier.value !== null && isUnknown(earlier.value, node.name)
    const told = { name: node.name, line: earlier.line + 1 }
    if (earlier.determined) return problem(parsed.statement.type === 'sought' ? 'redefined' : 'sought-redefined', node, told) // prettier-ignore
    return problem(unknown ? 'unknown-kept' : 'redefined', node, told)
  }
  return null
}
