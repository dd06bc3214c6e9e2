import { answerPlace } from '#core/views/answerIds'
import { definedNames } from '#core/notation/references'
import type { LineView } from '#core/views/lineView'
import { parseLine } from '#core/notation/parser'
import { greek } from '#core/notation/words'
import { readoutText } from '#core/format/readout'
import type { Line } from '#shared/folio'

/** The alphabetical list of kept names, as at the back of a book. */
export interface IndexEntry {
  readonly name: string
  readonly line: string
  /** Under what its value goes: the line, or its answer. */
  readonly id: string
  readonly number: number
  /** Kind or shape: `complex`, `real`, `angle`, `vector of 3`. */
  readonly kind: string
  readonly value: string
  readonly failed: boolean
  /** Another line defines the name, too. */
  readonly twice: boolean
  /** Numbers of the lines that use this definition. */
  readonly usedIn: readonly number[]
}

const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true })

/** The letter a name is found under: Greek letters by their names' initials would mislead, so they keep their own. */
export function initialOf(name: string): string {
  const first = [...name][0] ?? ''
  return greek(name) !== null && name.length > 1 ? name.charAt(0).toUpperCase() : first.toUpperCase()
}

function kindOf(view: LineView): string {
  if (view.problem) return 'in error'
  const { readout } = view
  if (readout.shape === 'list') return `vector of ${readout.count}`
  if (readout.shape === 'grid') return `matrix ${readout.rows} × ${readout.cols}`
  if (readout.shape === 'sweep') return `sweep of ${readout.count}`
  if (view.kind === 'algebra-matrix') return 'matrix with unknowns'
  if (view.kind === 'number') return readout.shape === 'twin' ? 'complex' : 'real'
  return view.kind === 'truth' ? 'true or false' : view.kind
}

/** The names that lines define, whether they could be reckoned yet or not. */
export function keptNames(lines: readonly Line[]): ReadonlySet<string> {
  return new Set(lines.flatMap((l) => (l.note ? [] : definedNames(parseLine(l.source)))))
}

export function nameIndex(lines: readonly Line[], views: ReadonlyMap<string, LineView>): readonly IndexEntry[] {
  const latest = new Map<string, { used: number[] }>()
  const entries: (Omit<IndexEntry, 'twice' | 'usedIn'> & { used: number[] })[] = []
  lines.forEach((line, index) => {
    const view = line.note ? undefined : views.get(line.id)
    if (!view) return
    // A line reads what stands above it, so its uses come before its own name.
    for (const name of view.uses) latest.get(name)?.used.push(index + 1)
    for (const kept of [view, ...view.answers]) {
      if (kept.name === null) continue
      const used: number[] = []
      latest.set(kept.name, { used })
      entries.push({
        name: kept.name,
        line: line.id,
        id: kept.id,
        number: index + 1,
        kind: kindOf(kept),
        value: kept.problem ? '' : readoutText(kept.readout),
        failed: kept.problem !== null,
        used,
      })
    }
  })
  const counts = new Map<string, number>()
  for (const { name } of entries) counts.set(name, (counts.get(name) ?? 0) + 1)
  return entries
    .map(({ used, ...entry }) => ({ ...entry, twice: (counts.get(entry.name) ?? 0) > 1, usedIn: used }))
    .sort(
      (a, b) => collator.compare(a.name, b.name) || (a.name < b.name ? -1 : a.name > b.name ? 1 : a.number - b.number),
    )
}

/** Where a name is defined nearest above a place, counted from 0; −1 where it is not. */
export function definedAbove(
  lines: readonly Line[],
  views: ReadonlyMap<string, LineView>,
  name: string,
  place: number,
): number {
  return lines.slice(0, place).findLastIndex((l) => {
    const view = l.note ? undefined : views.get(l.id)
    return view?.name === name || view?.answers.some((answer) => answer.name === name)
  })
}

/** The lines without inputs of their own that a computed line comes from, in their order. */
export function sourcesOf(
  lines: readonly Line[],
  views: ReadonlyMap<string, LineView>,
  line: string,
): readonly { readonly name: string; readonly number: number }[] {
  const found = new Map<number, string>()
  const seen = new Set<number>()
  const follow = (index: number): void => {
    const start = lines[index]
    if (!start || seen.has(index)) return
    seen.add(index)
    for (const name of views.get(start.id)?.uses ?? []) {
      const at = definedAbove(lines, views, name, index)
      const source = lines[at]
      if (!source) continue
      if ((views.get(source.id)?.uses.length ?? 0) === 0) found.set(at, name)
      else follow(at)
    }
  }
  const own = lines.some((l) => l.id === line) ? line : answerPlace(line)?.line
  follow(lines.findIndex((l) => l.id === own))
  return [...found].sort(([a], [b]) => a - b).map(([at, name]) => ({ name, number: at + 1 }))
}
