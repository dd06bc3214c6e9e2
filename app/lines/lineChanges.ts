import { contentOf } from '#shared/folio'
import type { Line, LineMark } from '#shared/folio'
import type { FolioState, Operation } from '#shared/operations'
import { difference } from '#shared/operations'

/** What is done to whole lines, one or several, as operations. */

function within(state: FolioState, ids: ReadonlySet<string>): readonly Line[] {
  return state.lines.filter((l) => ids.has(l.id))
}

/** Copies of the lines, in their order, below the last of them. */
export function duplicated(state: FolioState, ids: ReadonlySet<string>, newId: () => string): Operation[] {
  const last = state.lines.findLastIndex((l) => ids.has(l.id))
  return within(state, ids).map((line, k) => ({
    type: 'insert',
    line: { ...contentOf(line), id: newId() },
    at: last + 1 + k,
  }))
}

const NOTHING: ReadonlySet<string> = new Set()

/** Each line in sight with what is tucked away below it. */
function groups(lines: readonly Line[], tucked: ReadonlySet<string>): Line[][] {
  const found: Line[][] = []
  for (const line of lines) {
    const last = found.at(-1)
    if (last && tucked.has(line.id)) last.push(line)
    else found.push([line])
  }
  return found
}

/** The lines moved by one place; lines that stand together stay together, and stop at the end. */
export function movedBy(
  state: FolioState,
  ids: ReadonlySet<string>,
  by: 1 | -1,
  tucked: ReadonlySet<string> = NOTHING,
): Operation[] {
  const list = groups(state.lines, tucked)
  const moves = (group: readonly Line[] | undefined): boolean => group?.[0] !== undefined && ids.has(group[0].id)
  const indices = list.flatMap((group, k) => (moves(group) ? [k] : []))
  for (const index of by > 0 ? indices.toReversed() : indices) {
    const [group, neighbour] = [list[index], list[index + by]]
    if (!group || !neighbour || moves(neighbour)) continue
    list[index] = neighbour
    list[index + by] = group
  }
  return difference(state, { ...state, lines: list.flat() })
}

/** One line, or the selected ones together, at the place where it was dropped. */
export function movedTo(state: FolioState, ids: ReadonlySet<string>, to: number): Operation[] {
  const moving = within(state, ids)
  const rest = state.lines.filter((l) => !ids.has(l.id))
  const at = Math.max(0, Math.min(rest.length, to))
  return difference(state, { ...state, lines: [...rest.slice(0, at), ...moving, ...rest.slice(at)] })
}

export function removed(state: FolioState, ids: ReadonlySet<string>): Operation[] {
  return within(state, ids).map(({ id, source }) => ({ type: 'remove', id, was: source }))
}

/** Sets a mark on all the lines, or takes it off where all have it. */
export function toggled(state: FolioState, ids: ReadonlySet<string>, mark: LineMark): Operation[] {
  const lines = within(state, ids)
  const on = !lines.every((l) => l[mark])
  return lines.filter((l) => (l[mark] === true) !== on).map(({ id }) => ({ type: 'mark', id, marks: { [mark]: on } }))
}

/** Entries to notes, or notes to entries where all are notes. The sign of a remark is taken off and put back. */
export function turned(state: FolioState, ids: ReadonlySet<string>): Operation[] {
  const lines = within(state, ids)
  const toNotes = !lines.every((l) => l.note)
  return lines
    .filter((l) => (l.note === true) !== toNotes)
    .flatMap((line): Operation[] => {
      const source = toNotes ? asNote(line.source) : asEntry(line.source)
      const mark: Operation = { type: 'mark', id: line.id, marks: { note: toNotes } }
      return source === line.source ? [mark] : [mark, { type: 'edit', id: line.id, source, was: line.source }]
    })
}

function asNote(source: string): string {
  const text = /^\s*#\s*(.*)$/s.exec(source)?.[1]
  return text === undefined ? source : text
}

/** A note as a line of the ledger: text that is no entry becomes a remark. */
function asEntry(source: string): string {
  const text = source
    .replace(/^#{1,6}\s+/, '')
    .replace(/\s*\n\s*/g, ' ')
    .trim()
  return text === '' || /[=∠+*/^]/.test(text) ? text : `# ${text}`
}
