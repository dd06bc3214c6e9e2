import { idSchema, list, or, text, whole, z } from './schema'

/** What the shelf tells of the earlier copies of the data file, and of its state. */

export const copyNameSchema = z.string().check(z.regex(/^[a-z0-9-]{1,80}-\d{4}-\d\d-\d\dT[\d-]{12}Z\.sqlite$/))

const copySchema = z.object({
  name: copyNameSchema,
  kind: z.enum(['daily', 'upgrade']),
  /** When it was made, in milliseconds. */
  made: z.number(),
  bytes: z.number(),
  /** How many folios are in it; `null` where it cannot be read. */
  folios: z.nullable(whole(0)),
})
export type EarlierCopy = z.infer<typeof copySchema>

/** What a look through the data file has found. */
export const checkSchema = z.object({
  /** When it was, in milliseconds. */
  at: z.number(),
  whole: z.boolean(),
  /** What is wrong, and what can be done about it. */
  sentences: z.array(z.string()),
})
export type Check = z.infer<typeof checkSchema>

export const copiesSchema = z.object({
  copies: z.array(copySchema),
  check: z.nullable(checkSchema),
  /** What keeps the server from saving or copying now. */
  trouble: z.nullable(z.string()),
})
export type Copies = z.infer<typeof copiesSchema>

const copiedSchema = z.object({
  id: z.string(),
  title: z.string(),
  changedAt: z.string(),
  lines: whole(0),
  binned: z.boolean(),
  /** How it stands beside what is on the shelf now. */
  here: z.enum(['same', 'other', 'gone']),
})
export type CopiedFolio = z.infer<typeof copiedSchema>
export const copyContentSchema = z.object({ folios: z.array(copiedSchema) })

/** Which folios of a copy come back; all of them where none is named. */
export const bringBackSchema = z.strictObject({ folios: or(z.nullable(list(idSchema, 10_000)), null) })
export const broughtBackSchema = z.object({
  folios: z.array(z.object({ id: idSchema, title: text(200) })),
  /** Titles of those that could not be read. */
  left: z.array(z.string()),
})
export type BroughtBack = z.infer<typeof broughtBackSchema>
