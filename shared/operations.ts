import { equalData } from '#core/equalData'
import { idSchema, or, some, text, whole, z } from './schema'
import { conventionsSchema, someConventionsSchema } from './conventions'
import type { ConventionsData } from './conventions'
import { ENCLOSURES_MOST, enclosureNameSchema, enclosureSchema } from './enclosure'
import type { Enclosure } from './enclosure'
import {
  ANSWER_LENGTH_MAX,
  LINE_MARKS,
  lineSchema,
  NO_HEAD,
  SHEET_HEAD_MAX,
  sheetHeadSchema,
  titleSchema,
} from './folio'
import type { Line, LineMark, SheetHead } from './folio'
import { FOLIO_LENGTH_MAX, LINES_MAX, SAVE_OPERATIONS_MAX } from './limits'
import { PLATES_MOST, plateSchema } from './plate'
import type { Plate } from './plate'
import { RUN_SETS_MOST, runSetSchema } from './runs'
import type { RunSet } from './runs'

const headText = text(SHEET_HEAD_MAX)
const someHeadSchema = z.partial(z.strictObject({ course: headText, sheet: headText, date: headText }))

/**
 * Every change of a folio is one of these, and each has its inverse: undo, the
 * journal, saving and merging all use this one log.
 */
export const operationSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('insert'), line: lineSchema, at: whole(0) }),
  /** `was` is the text as whoever removes it saw it: a text that came later is not removed. */
  z.strictObject({ type: z.literal('remove'), id: idSchema, was: z.optional(lineSchema.shape.source) }),
  z.strictObject({
    type: z.literal('edit'),
    id: idSchema,
    source: lineSchema.shape.source,
    was: lineSchema.shape.source,
  }),
  z.strictObject({ type: z.literal('move'), id: idSchema, to: whole(0) }),
  z.strictObject({
    type: z.literal('mark'),
    id: idSchema,
    marks: z.strictObject({
      note: z.optional(z.boolean()),
      folded: z.optional(z.boolean()),
      hidden: z.optional(z.boolean()),
      varied: z.optional(z.boolean()),
      watched: z.optional(z.boolean()),
      /** The part of the sheet that it answers; none where it is empty. */
      answer: z.optional(text(ANSWER_LENGTH_MAX)),
    }),
  }),
  /** Puts a plate in place of the one with its identifier, or adds it. */
  z.strictObject({ type: z.literal('plate'), plate: plateSchema }),
  z.strictObject({ type: z.literal('unplate'), id: idSchema }),
  /** Puts an enclosure in place of the one with its name, or adds it. */
  z.strictObject({ type: z.literal('enclose'), enclosure: enclosureSchema }),
  z.strictObject({ type: z.literal('unenclose'), name: enclosureNameSchema }),
  /** Puts a set of values in place of the one with its identifier, or adds it. */
  z.strictObject({ type: z.literal('set'), set: runSetSchema }),
  z.strictObject({ type: z.literal('unset'), id: idSchema }),
  z.strictObject({ type: z.literal('head'), head: someHeadSchema }),
  z.strictObject({ type: z.literal('convene'), conventions: someConventionsSchema }),
  z.strictObject({ type: z.literal('rename'), title: titleSchema }),
])
export type Operation = z.infer<typeof operationSchema>

/** What operations act on. */
export interface FolioState {
  readonly title: string
  readonly conventions: ConventionsData
  readonly lines: readonly Line[]
  /** None are the same as an empty list. */
  readonly plates?: readonly Plate[] | undefined
  readonly enclosures?: readonly Enclosure[] | undefined
  readonly head?: SheetHead | undefined
  readonly sets?: readonly RunSet[] | undefined
}

/** Exactly what operations act on, every part of it there: what is kept, sent to another tab, or written to a file. */
export function stateOf({ title, conventions, lines, plates, enclosures, head, sets }: FolioState) {
  return {
    title,
    conventions,
    lines: [...lines],
    plates: [...(plates ?? [])],
    enclosures: [...(enclosures ?? [])],
    head: head ?? NO_HEAD,
    sets: [...(sets ?? [])],
  }
}

/** The same, read from where it was kept. */
export const folioStateSchema = z.object({
  title: titleSchema,
  conventions: conventionsSchema,
  lines: z.array(lineSchema),
  plates: z.optional(z.array(plateSchema)),
  enclosures: z.optional(z.array(enclosureSchema)),
  head: z.optional(sheetHeadSchema),
  sets: z.optional(z.array(runSetSchema)),
})

/**
 * A save: the operations since the revision it builds on. A save that is sent
 * again, since its answer was lost, has the same key and is carried out once.
 */
export const saveSchema = z.strictObject({
  revision: whole(0),
  key: z.optional(idSchema),
  operations: some(operationSchema, SAVE_OPERATIONS_MAX),
})
export type Save = z.infer<typeof saveSchema>

/** What a folio has no room for. */
export type Full = 'lines' | 'length' | 'plates' | 'enclosures' | 'sets'

/** Why there is no room for an operation, or `null` where there is. */
export function fullFor(state: FolioState, operation: Operation): Full | null {
  const room = (): number => FOLIO_LENGTH_MAX - lengthOf(state.lines)
  switch (operation.type) {
    case 'insert':
      if (state.lines.length >= LINES_MAX) return 'lines'
      return operation.line.source.length > room() ? 'length' : null
    case 'edit': {
      const more = operation.source.length - (state.lines.find((l) => l.id === operation.id)?.source.length ?? 0)
      return more > 0 && more > room() ? 'length' : null
    }
    case 'plate': {
      const plates = state.plates ?? []
      return plates.length >= PLATES_MOST && !plates.some((p) => p.id === operation.plate.id) ? 'plates' : null
    }
    case 'enclose': {
      const enclosures = state.enclosures ?? []
      const known = enclosures.some((e) => e.name === operation.enclosure.name)
      return enclosures.length >= ENCLOSURES_MOST && !known ? 'enclosures' : null
    }
    case 'set': {
      const sets = state.sets ?? []
      return sets.length >= RUN_SETS_MOST && !sets.some((s) => s.id === operation.set.id) ? 'sets' : null
    }
    default:
      return null
  }
}

/** Characters of all lines, remembered for each list: thousands of pasted lines are counted once, not each time. */
const lengths = new WeakMap<readonly Line[], number>()

function lengthOf(lines: readonly Line[]): number {
  const known = lengths.get(lines)
  if (known !== undefined) return known
  let length = 0
  for (const line of lines) length += line.source.length
  lengths.set(lines, length)
  return length
}

/** Applies an operation; `null` where it does not fit the state (a line that is gone, or there twice; no room). */
export function applyOperation<S extends FolioState>(state: S, operation: Operation): S | null {
  const { lines } = state
  if (fullFor(state, operation)) return null
  switch (operation.type) {
    case 'insert': {
      if (lines.some((l) => l.id === operation.line.id)) return null
      const at = Math.min(operation.at, lines.length)
      const more = [...lines.slice(0, at), operation.line, ...lines.slice(at)]
      lengths.set(more, lengthOf(lines) + operation.line.source.length)
      return { ...state, lines: more }
    }
    case 'remove':
      return has(lines, operation.id) ? { ...state, lines: lines.filter((l) => l.id !== operation.id) } : null
    case 'edit': {
      if (!has(lines, operation.id)) return null
      return { ...state, lines: lines.map((l) => (l.id === operation.id ? { ...l, source: operation.source } : l)) }
    }
    case 'move': {
      const line = lines.find((l) => l.id === operation.id)
      if (!line) return null
      const rest = lines.filter((l) => l.id !== operation.id)
      const to = Math.min(operation.to, rest.length)
      return { ...state, lines: [...rest.slice(0, to), line, ...rest.slice(to)] }
    }
    case 'mark': {
      if (!has(lines, operation.id)) return null
      return { ...state, lines: lines.map((l) => (l.id === operation.id ? marked(l, operation.marks) : l)) }
    }
    case 'plate':
      return { ...state, plates: put(state.plates, operation.plate, (p) => p.id === operation.plate.id) }
    case 'unplate': {
      const plates = state.plates ?? []
      if (!plates.some((p) => p.id === operation.id)) return null
      return { ...state, plates: plates.filter((p) => p.id !== operation.id) }
    }
    case 'enclose': {
      const { enclosure } = operation
      return { ...state, enclosures: put(state.enclosures, enclosure, (e) => e.name === enclosure.name) }
    }
    case 'unenclose': {
      const enclosures = state.enclosures ?? []
      if (!enclosures.some((e) => e.name === operation.name)) return null
      return { ...state, enclosures: enclosures.filter((e) => e.name !== operation.name) }
    }
    case 'set':
      return { ...state, sets: put(state.sets, operation.set, (s) => s.id === operation.set.id) }
    case 'unset': {
      const sets = state.sets ?? []
      if (!sets.some((s) => s.id === operation.id)) return null
      return { ...state, sets: sets.filter((s) => s.id !== operation.id) }
    }
    case 'head':
      return { ...state, head: { ...NO_HEAD, ...state.head, ...defined(operation.head) } }
    case 'convene':
      return { ...state, conventions: { ...state.conventions, ...operation.conventions } }
    case 'rename':
      return { ...state, title: operation.title }
  }
}

/** The list with a thing in the place of the one that is the same, or at the end. */
function put<T>(list: readonly T[] = [], thing: T, isSame: (other: T) => boolean): readonly T[] {
  return list.some(isSame) ? list.map((other) => (isSame(other) ? thing : other)) : [...list, thing]
}

/** The operation that takes this one back, from the state before it; `null` where it does not fit. */
export function invertOperation(state: FolioState, operation: Operation): Operation | null {
  const index = 'id' in operation ? state.lines.findIndex((l) => l.id === operation.id) : -1
  const line = state.lines[index]
  switch (operation.type) {
    case 'insert':
      return { type: 'remove', id: operation.line.id, was: operation.line.source }
    case 'remove':
      return line ? { type: 'insert', line, at: index } : null
    case 'edit':
      return line ? { type: 'edit', id: line.id, source: line.source, was: operation.source } : null
    case 'move':
      return line ? { type: 'move', id: line.id, to: index } : null
    case 'mark': {
      if (!line) return null
      const touched = LINE_MARKS.filter((mark) => operation.marks[mark] !== undefined)
      const marks = Object.fromEntries(touched.map((mark) => [mark, line[mark] === true]))
      const answer = operation.marks.answer === undefined ? {} : { answer: line.answer ?? '' }
      return { type: 'mark', id: line.id, marks: { ...marks, ...answer } }
    }
    case 'plate': {
      const before = state.plates?.find((p) => p.id === operation.plate.id)
      return before ? { type: 'plate', plate: before } : { type: 'unplate', id: operation.plate.id }
    }
    case 'unplate': {
      const before = state.plates?.find((p) => p.id === operation.id)
      return before ? { type: 'plate', plate: before } : null
    }
    case 'enclose': {
      const before = state.enclosures?.find((e) => e.name === operation.enclosure.name)
      return before ? { type: 'enclose', enclosure: before } : { type: 'unenclose', name: operation.enclosure.name }
    }
    case 'unenclose': {
      const before = state.enclosures?.find((e) => e.name === operation.name)
      return before ? { type: 'enclose', enclosure: before } : null
    }
    case 'set': {
      const before = state.sets?.find((s) => s.id === operation.set.id)
      return before ? { type: 'set', set: before } : { type: 'unset', id: operation.set.id }
    }
    case 'unset': {
      const before = state.sets?.find((s) => s.id === operation.id)
      return before ? { type: 'set', set: before } : null
    }
    case 'head': {
      const before: SheetHead = state.head ?? NO_HEAD
      const touched = Object.keys(defined(operation.head))
      return { type: 'head', head: Object.fromEntries(Object.entries(before).filter(([key]) => touched.includes(key))) }
    }
    case 'convene': {
      const before = Object.entries(state.conventions).filter(([key]) => key in operation.conventions)
      return { type: 'convene', conventions: someConventionsSchema.parse(Object.fromEntries(before)) }
    }
    case 'rename':
      return { type: 'rename', title: state.title }
  }
}

/** A line with marks set (true) or taken off (false). */
function marked(
  line: Line,
  marks: Partial<Record<LineMark, boolean | undefined>> & { readonly answer?: string | undefined },
): Line {
  const answer = marks.answer ?? line.answer ?? ''
  const set = (mark: LineMark): boolean => marks[mark] ?? line[mark] === true
  return {
    id: line.id,
    source: line.source,
    ...Object.fromEntries(LINE_MARKS.flatMap((mark) => (set(mark) ? [[mark, true] as const] : []))),
    ...(answer.trim() === '' ? {} : { answer: answer.trim() }),
  }
}

/** The operations that lead from one state to another, line by line. */
export function difference(from: FolioState, to: FolioState): Operation[] {
  const operations: Operation[] = []
  let state = from
  const put = (operation: Operation): void => {
    const next = applyOperation(state, operation)
    if (!next) return
    state = next
    operations.push(operation)
  }
  if (from.title !== to.title) put({ type: 'rename', title: to.title })
  const conventions = Object.entries(to.conventions).filter(
    ([key, value]) => from.conventions[key as keyof ConventionsData] !== value,
  )
  if (conventions.length > 0)
    put({ type: 'convene', conventions: someConventionsSchema.parse(Object.fromEntries(conventions)) })
  // Plates are numbered by their order, sets lettered by theirs: where that is another one, all are put anew.
  inOrder(from.plates, to.plates, (id) => put({ type: 'unplate', id }), (plate) => put({ type: 'plate', plate })) // prettier-ignore
  inOrder(
    from.sets,
    to.sets,
    (id) => put({ type: 'unset', id }),
    (set) => put({ type: 'set', set }),
  )
  // Data comes before the lines that take it up.
  for (const { name } of from.enclosures ?? [])
    if (!to.enclosures?.some((e) => e.name === name)) put({ type: 'unenclose', name })
  for (const enclosure of to.enclosures ?? []) {
    const before = state.enclosures?.find((e) => e.name === enclosure.name)
    if (!equalData(before, enclosure)) put({ type: 'enclose', enclosure })
  }
  const [oldHead, freshHead] = [from.head ?? NO_HEAD, to.head ?? NO_HEAD]
  const heads = HEAD_PARTS.filter((part) => oldHead[part] !== freshHead[part])
  if (heads.length > 0) put({ type: 'head', head: Object.fromEntries(heads.map((part) => [part, freshHead[part]])) })
  for (const { id, source } of from.lines) if (!has(to.lines, id)) put({ type: 'remove', id, was: source })
  to.lines.forEach((line, at) => {
    const index = state.lines.findIndex((l) => l.id === line.id)
    const present = state.lines[index]
    if (!present) return put({ type: 'insert', line, at })
    if (index !== at) put({ type: 'move', id: line.id, to: at })
    if (present.source !== line.source) put({ type: 'edit', id: line.id, source: line.source, was: present.source })
    const marks = LINE_MARKS.filter((mark) => (present[mark] === true) !== (line[mark] === true))
    const answer = present.answer === line.answer ? {} : { answer: line.answer ?? '' }
    if (marks.length > 0 || 'answer' in answer)
      put({
        type: 'mark',
        id: line.id,
        marks: { ...Object.fromEntries(marks.map((m) => [m, line[m] === true])), ...answer },
      })
  })
  return operations
}

/** What leads from one list to another that counts by its order. */
function inOrder<T extends { readonly id: string }>(
  old: readonly T[] = [],
  fresh: readonly T[] = [],
  take: (id: string) => void,
  put: (thing: T) => void,
): void {
  const kept = old.filter((one) => fresh.some((f) => f.id === one.id))
  const stays = kept.every(({ id }, k) => fresh[k]?.id === id)
  for (const one of old) if (!stays || !kept.includes(one)) take(one.id)
  for (const one of fresh) {
    const before = stays ? old.find((o) => o.id === one.id) : undefined
    if (!equalData(before, one)) put(one)
  }
}

const HEAD_PARTS = ['course', 'sheet', 'date'] as const

function defined(head: z.infer<typeof someHeadSchema>): Partial<SheetHead> {
  return Object.fromEntries(Object.entries(head).filter(([, value]) => value !== undefined))
}

function has(lines: readonly Line[], id: string): boolean {
  return lines.some((l) => l.id === id)
}

/**
 * True while the state still shows what an operation did. Only then may undo
 * take it back: what somebody else wrote since is never removed.
 */
export function stillStands(state: FolioState, operation: Operation): boolean {
  const line = 'id' in operation ? state.lines.find((l) => l.id === operation.id) : undefined
  switch (operation.type) {
    case 'insert': {
      const present = state.lines.find((l) => l.id === operation.line.id)
      return present?.source === operation.line.source
    }
    case 'remove':
      return line === undefined
    case 'edit':
      return line?.source === operation.source
    case 'move':
      return line !== undefined
    case 'mark':
      return (
        LINE_MARKS.every(
          (mark) => operation.marks[mark] === undefined || (line?.[mark] === true) === operation.marks[mark],
        ) &&
        (operation.marks.answer === undefined || (line?.answer ?? '') === operation.marks.answer)
      )
    case 'plate': {
      const present = state.plates?.find((p) => p.id === operation.plate.id)
      return equalData(present, operation.plate)
    }
    case 'unplate':
      return !state.plates?.some((p) => p.id === operation.id)
    case 'enclose': {
      const present = state.enclosures?.find((e) => e.name === operation.enclosure.name)
      return equalData(present, operation.enclosure)
    }
    case 'unenclose':
      return !state.enclosures?.some((e) => e.name === operation.name)
    case 'set': {
      const present = state.sets?.find((s) => s.id === operation.set.id)
      return equalData(present, operation.set)
    }
    case 'unset':
      return !state.sets?.some((s) => s.id === operation.id)
    case 'head':
      return HEAD_PARTS.every((part) => operation.head[part] === undefined || (state.head ?? NO_HEAD)[part] === operation.head[part]) // prettier-ignore
    case 'convene':
      return Object.entries(operation.conventions).every(
        ([key, value]) => state.conventions[key as keyof ConventionsData] === value,
      )
    case 'rename':
      return state.title === operation.title
  }
}

/** What one save did, as the journal of a folio tells it. */
export const journalEntrySchema = z.strictObject({
  revision: whole(0),
  savedAt: z.string(),
  operations: z.array(operationSchema),
  /** What the student has called the state after it. */
  name: or(z.nullable(z.string()), null),
  /** True where what was done is kept but can no longer be read. */
  damaged: or(z.boolean(), false),
})
export type JournalEntry = z.infer<typeof journalEntrySchema>

/** The journal, newest first. */
export const journalSchema = z.strictObject({
  entries: z.array(journalEntrySchema),
  /** True where older entries can be asked for. */
  more: z.boolean(),
})
export type Journal = z.infer<typeof journalSchema>

/** A save that another one missed. */
export const missedSaveSchema = z.strictObject({
  revision: whole(1),
  key: z.nullable(idSchema),
  operations: z.array(operationSchema),
})
export type MissedSave = z.infer<typeof missedSaveSchema>

/** What was saved since a revision, in order; `null` where that is too much or no longer known in detail. */
export const missedSchema = z.object({
  revision: whole(0),
  changedAt: z.string(),
  saves: z.nullable(z.array(missedSaveSchema)),
})
export type Missed = z.infer<typeof missedSchema>

export const STATE_NAME_MAX = 80
export const stateNameSchema = z.strictObject({
  name: z.nullable(z.string().check(z.trim(), z.maxLength(STATE_NAME_MAX))),
})
