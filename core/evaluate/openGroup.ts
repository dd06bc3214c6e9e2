import type { EquationGroup } from '../equations/group'
import type { Parsed } from '../notation/parser'
import { definedNames } from '../notation/references'
import type { Evaluated } from './line'
import { enter } from './scope'
import type { Entry, Scope } from './scope'

/** A line that waits for `determine`, with what it saw of the lines above it. */
export interface Waiting<Line> {
  readonly line: Line
  readonly id: string
  readonly index: number
  readonly scope: Scope
}

/** What a line that waited came to. */
export interface Settled {
  readonly parsed: Parsed
  readonly evaluated: Evaluated
  readonly stamp: number
}

/** A group of equations while the lines are gone through. */
export class OpenGroup<Line = unknown> {
  private readonly sought = new Map<string, number>()
  private readonly equations: { readonly line: number; readonly evaluated: Evaluated; readonly stamp: number }[] = []
  readonly waiting: Waiting<Line>[] = []
  /** What each line left in the scope that is open, by the line and the name. */
  private readonly left = new Map<number, Map<string, Entry>>()

  /** The names that are sought, each with its line, counted from 0. */
  get names(): ReadonlyMap<string, number> {
    return this.sought
  }

  wait(line: Line, id: string, index: number, scope: Scope): void {
    this.waiting.push({ line, id, index, scope: new Map(scope) })
  }

  equation(index: number, evaluated: Evaluated, stamp: number): void {
    this.equations.push({ line: index + 1, evaluated, stamp })
  }

  /** Notes what a line has just left in the scope that is open. */
  remember(index: number, parsed: Parsed, scope: Scope): void {
    for (const name of [...definedNames(parsed), 'prev']) {
      const entry = scope.get(name)
      if (!entry?.open || entry.line !== index) continue
      if (entry.open.kind === 'sought') this.sought.set(name, index)
      const here = this.left.get(index) ?? new Map<string, Entry>()
      here.set(name, entry)
      this.left.set(index, here)
    }
  }

  /** Changes whenever what `determine` would be told changes. */
  stamp(): string {
    const names = [...this.sought].map(([name, line]) => `${name} ${line}`)
    return [...names, ...this.equations.map(({ line, stamp }) => `${line} ${stamp}`)].join(', ')
  }

  told(): EquationGroup {
    return {
      sought: [...this.sought].map(([name, line]) => ({ name, line: line + 1 })),
      equations: this.equations.flatMap(({ line, evaluated: { open } }) =>
        open?.kind === 'equation' ? [{ ...open.equation, line }] : [],
      ),
      broken: this.equations.flatMap(({ line, evaluated }) => (evaluated.problem ? [line] : [])),
    }
  }

  /**
   * What is sought has its values: lines that waited are looked at again, in order, and all that is open in the scope
   * is replaced.
   */
  settle(
    index: number,
    { value, problem }: Evaluated,
    stamp: number,
    scope: Map<string, Entry>,
    look: (waiting: Waiting<Line>, names: Scope) => Settled | 'enough' | null,
    letter: 'i' | 'j',
  ): 'enough' | 'done' {
    const found = new Map<Entry, Entry>()
    const parts = problem === null && value?.kind === 'parts' ? value.parts : null
    for (const [name, at] of this.sought) {
      const open = this.left.get(at)?.get(name)
      const told = parts ? `${stamp} ${name}` : `broken value ${index}`
      if (open)
        found.set(open, { line: index, kind: 'value', value: parts?.get(name) ?? null, stamp: told, determined: true })
    }
    for (const waiting of this.waiting) {
      const settled = look(waiting, replaced(waiting.scope, found))
      if (settled === 'enough') return 'enough'
      const here = this.left.get(waiting.index)
      if (!settled || !here) continue
      const entered = new Map<string, Entry>()
      enter(entered, waiting.index, settled.parsed, settled.evaluated, settled.stamp, letter)
      for (const [name, open] of here) {
        const entry = entered.get(name)
        if (entry) found.set(open, entry)
      }
    }
    for (const [name, entry] of scope) {
      const now = entry.open ? found.get(entry) : undefined
      if (now) scope.set(name, now)
    }
    return 'done'
  }
}

function replaced(scope: Scope, found: ReadonlyMap<Entry, Entry>): Scope {
  const names = new Map(scope)
  for (const [name, entry] of scope) {
    const now = entry.open ? found.get(entry) : undefined
    if (now) names.set(name, now)
  }
  return names
}

/** The names that are open stay so: nothing below solves their equations. */
export function withoutOpen(scope: Scope): Scope {
  const names = new Map(scope)
  for (const [name, entry] of scope)
    if (entry.open) names.set(name, { ...entry, open: NEVER, stamp: `never ${entry.stamp}` })
  return names
}

const NEVER = { kind: 'never' } as const
