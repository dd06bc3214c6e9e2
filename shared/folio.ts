import { idSchema, list, or, text, whole, z } from './schema'
import { conventionsSchema, someConventionsSchema } from './conventions'
import { LINE_LENGTH_MAX, LINES_MAX, TITLE_LENGTH_MAX } from './limits'
import { ENCLOSURES_MOST, enclosureSchema } from './enclosure'
import { PLATES_MOST, plateSchema } from './plate'
import { RUN_SETS_MOST, runSetSchema } from './runs'

export const titleSchema = z.string().check(z.trim(), z.minLength(1, 'a title'), z.maxLength(TITLE_LENGTH_MAX))

/** What a line is besides its text; a mark that is not set is left out. */
const marks = {
  /** Markdown text instead of an entry. */
  note: z.optional(z.literal(true)),
  /** A heading whose lines are tucked away below it, or a line on one slim row. */
  folded: z.optional(z.literal(true)),
  /** The result is not shown. */
  hidden: z.optional(z.literal(true)),
  /** Its value is tried in several sets. */
  varied: z.optional(z.literal(true)),
  /** Its results under the sets are compared. */
  watched: z.optional(z.literal(true)),
} as const
export type LineMark = keyof typeof marks
export const LINE_MARKS: readonly LineMark[] = ['note', 'folded', 'hidden', 'varied', 'watched']

/** Which part of the problem sheet a line answers: `1 a`. */
export const ANSWER_LENGTH_MAX = 24
export const answerSchema = z.string().check(z.trim(), z.minLength(1), z.maxLength(ANSWER_LENGTH_MAX))

export const lineSchema = z.strictObject({
  id: idSchema,
  source: text(LINE_LENGTH_MAX),
  ...marks,
  answer: z.optional(answerSchema),
})
export type Line = z.infer<typeof lineSchema>

/** A line without its identity: what a copy or a file carries. */
export function contentOf(line: Line): Omit<Line, 'id'> {
  return {
    source: line.source,
    ...Object.fromEntries(LINE_MARKS.flatMap((mark) => (line[mark] ? [[mark, true]] : []))),
    ...(line.answer === undefined ? {} : { answer: line.answer }),
  }
}

/** What stands at the head of the sheet that is handed in; names are kept on the device, not here. */
export const SHEET_HEAD_MAX = 120
export const sheetHeadSchema = z.strictObject({
  course: or(text(SHEET_HEAD_MAX), ''),
  sheet: or(text(SHEET_HEAD_MAX), ''),
  date: or(text(SHEET_HEAD_MAX), ''),
})
export type SheetHead = z.infer<typeof sheetHeadSchema>
export const NO_HEAD: SheetHead = { course: '', sheet: '', date: '' }

/** An open folio: everything that is saved of it. */
export const folioSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  revision: whole(0),
  conventions: conventionsSchema,
  lines: list(lineSchema, LINES_MAX),
  plates: or(list(plateSchema, PLATES_MOST), []),
  enclosures: or(list(enclosureSchema, ENCLOSURES_MOST), []),
  head: or(sheetHeadSchema, NO_HEAD),
  sets: or(list(runSetSchema, RUN_SETS_MOST), []),
  createdAt: z.string(),
  changedAt: z.string(),
  binnedAt: z.nullable(z.string()),
})
export type Folio = z.infer<typeof folioSchema>

/** A mark of the small picture on a card: where it ends in the plane, and its dress. */
export const thumbnailSchema = z.strictObject({
  marks: list(z.strictObject({ re: z.number(), im: z.number() }), 60),
})
export type Thumbnail = z.infer<typeof thumbnailSchema>

/** A folio as a card of the shelf. */
export const folioCardSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  revision: whole(0),
  /** Why the folio cannot be opened; it can be saved as a file as far as it can be read. */
  damaged: z.nullable(z.string()),
  lineCount: whole(0),
  changedAt: z.string(),
  binnedAt: z.nullable(z.string()),
  conventions: conventionsSchema,
  /** The picture as it was reckoned for this revision; `null` where it has to be reckoned yet. */
  thumbnail: z.nullable(thumbnailSchema),
  /** The first lines, from which the picture is reckoned where there is none. */
  preview: z.array(z.string()),
  createdAt: z.string(),
  /** The first line that a search found, where one did. */
  match: z.nullable(z.string()),
})
export type FolioCard = z.infer<typeof folioCardSchema>

export const SHELF_SORTS = ['changed', 'title', 'created', 'length'] as const
export type ShelfSort = (typeof SHELF_SORTS)[number]
/** Cards in one answer. */
export const SHELF_PAGE = 48

/** A page of the shelf: some cards, and how many folios there are in all. */
export const shelfPageSchema = z.strictObject({
  folios: z.array(folioCardSchema),
  count: whole(0),
  binned: whole(0),
})
export type ShelfPage = z.infer<typeof shelfPageSchema>

/** A folio as a file of its own. */
export const folioFileSchema = z.object({
  title: titleSchema,
  conventions: or(someConventionsSchema, {}),
  /** An identifier is only there for the plates of the file: the folio made from it has lines of its own. */
  lines: list(
    z.object({
      id: z.optional(idSchema),
      source: text(LINE_LENGTH_MAX),
      ...marks,
      answer: z.optional(answerSchema),
    }),
    LINES_MAX,
  ),
  plates: z.optional(list(plateSchema, PLATES_MOST)),
  /** Their numbers stand beside the file, in an archive, under the name of the block. */
  enclosures: z.optional(list(enclosureSchema, ENCLOSURES_MOST)),
  head: z.optional(sheetHeadSchema),
  /** Sets of values for the lines that are varied. */
  sets: z.optional(list(runSetSchema, RUN_SETS_MOST)),
  /** Which folio it is, and which of its states: one that comes back is compared with it. */
  folio: z.optional(idSchema),
  revision: z.optional(whole(0)),
})
export type FolioFile = z.infer<typeof folioFileSchema>
