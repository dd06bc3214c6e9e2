import { z } from 'zod'
import { conventionsSchema, someConventionsSchema } from './conventions'
import { LINE_LENGTH_MAX, LINES_MAX, TITLE_LENGTH_MAX } from './limits'
import { ENCLOSURES_MOST, enclosureSchema } from './enclosure'
import { PLATES_MOST, plateSchema } from './plate'

export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{8,40}$/, 'an identifier of 8 to 40 letters and digits')

export const titleSchema = z.string().trim().min(1, 'a title').max(TITLE_LENGTH_MAX)

/** What a line is besides its text; a mark that is not set is left out. */
const marks = {
  /** Markdown text instead of an entry. */
  note: z.literal(true).optional(),
  /** A heading whose lines are tucked away below it, or a line on one slim row. */
  folded: z.literal(true).optional(),
  /** The result is not shown. */
  hidden: z.literal(true).optional(),
} as const
export type LineMark = keyof typeof marks
export const LINE_MARKS: readonly LineMark[] = ['note', 'folded', 'hidden']

/** Which part of the problem sheet a line answers: `1 a`. */
export const ANSWER_LENGTH_MAX = 24
export const answerSchema = z.string().trim().min(1).max(ANSWER_LENGTH_MAX)

export const lineSchema = z.strictObject({
  id: idSchema,
  source: z.string().max(LINE_LENGTH_MAX),
  ...marks,
  answer: answerSchema.optional(),
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
  course: z.string().max(SHEET_HEAD_MAX).default(''),
  sheet: z.string().max(SHEET_HEAD_MAX).default(''),
  date: z.string().max(SHEET_HEAD_MAX).default(''),
})
export type SheetHead = z.infer<typeof sheetHeadSchema>
export const NO_HEAD: SheetHead = { course: '', sheet: '', date: '' }

/** An open folio: everything that is saved of it. */
export const folioSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  revision: z.int().min(0),
  conventions: conventionsSchema,
  lines: z.array(lineSchema).max(LINES_MAX),
  plates: z.array(plateSchema).max(PLATES_MOST).default([]),
  enclosures: z.array(enclosureSchema).max(ENCLOSURES_MOST).default([]),
  head: sheetHeadSchema.default(NO_HEAD),
  createdAt: z.string(),
  changedAt: z.string(),
  binnedAt: z.string().nullable(),
})
export type Folio = z.infer<typeof folioSchema>

/** A mark of the small picture on a card: where it ends in the plane, and its dress. */
export const thumbnailSchema = z.strictObject({
  marks: z.array(z.strictObject({ re: z.number(), im: z.number() })).max(60),
})
export type Thumbnail = z.infer<typeof thumbnailSchema>

/** A folio as a card of the shelf. */
export const folioCardSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  revision: z.int().min(0),
  /** Why the folio cannot be opened; it can be saved as a file as far as it can be read. */
  damaged: z.string().nullable(),
  lineCount: z.int().min(0),
  changedAt: z.string(),
  binnedAt: z.string().nullable(),
  conventions: conventionsSchema,
  /** The picture as it was reckoned for this revision; `null` where it has to be reckoned yet. */
  thumbnail: thumbnailSchema.nullable(),
  /** The first lines, from which the picture is reckoned where there is none. */
  preview: z.array(z.string()),
  createdAt: z.string(),
  /** The first line that a search found, where one did. */
  match: z.string().nullable(),
})
export type FolioCard = z.infer<typeof folioCardSchema>

export const SHELF_SORTS = ['changed', 'title', 'created', 'length'] as const
export type ShelfSort = (typeof SHELF_SORTS)[number]
/** Cards in one answer. */
export const SHELF_PAGE = 48

/** A page of the shelf: some cards, and how many folios there are in all. */
export const shelfPageSchema = z.strictObject({
  folios: z.array(folioCardSchema),
  count: z.int().min(0),
  binned: z.int().min(0),
})
export type ShelfPage = z.infer<typeof shelfPageSchema>

/** A folio as a file of its own. */
export const folioFileSchema = z.object({
  title: titleSchema,
  conventions: someConventionsSchema.default({}),
  /** An identifier is only there for the plates of the file: the folio made from it has lines of its own. */
  lines: z
    .array(
      z.object({
        id: idSchema.optional(),
        source: z.string().max(LINE_LENGTH_MAX),
        ...marks,
        answer: answerSchema.optional(),
      }),
    )
    .max(LINES_MAX),
  plates: z.array(plateSchema).max(PLATES_MOST).optional(),
  /** Their numbers stand beside the file, in an archive, under the name of the block. */
  enclosures: z.array(enclosureSchema).max(ENCLOSURES_MOST).optional(),
  head: sheetHeadSchema.optional(),
  /** Which folio it is, and which of its states: one that comes back is compared with it. */
  folio: idSchema.optional(),
  revision: z.int().min(0).optional(),
})
export type FolioFile = z.infer<typeof folioFileSchema>
