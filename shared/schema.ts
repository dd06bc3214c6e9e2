import * as z from 'zod/mini'
import { en } from 'zod/locales'

/**
 * The words in which the schemas are written. The small build of the library is used: the large one brings what only
 * its chained calls need to every page. What is wrong is said in its English sentences.
 */
z.config(en())

export { z }

/** A text of at most so many characters. */
export const text = (most: number) => z.string().check(z.maxLength(most))

/** A whole number in a range. */
export const whole = (least: number, most = Number.MAX_SAFE_INTEGER) => z.int().check(z.gte(least), z.lte(most))

/** A list of at most so many things. */
export const list = <T extends z.ZodMiniType>(item: T, most: number) => z.array(item).check(z.maxLength(most))

/** A list of at least one thing, and at most so many. */
export const some = <T extends z.ZodMiniType>(item: T, most: number) =>
  z.array(item).check(z.minLength(1), z.maxLength(most))

/** Where nothing is said, this is. */
export const or = z._default

/** What names a folio, a line, a plate or a set of values. */
export const idSchema = z
  .string()
  .check(z.regex(/^[A-Za-z0-9_-]{8,40}$/, 'an identifier of 8 to 40 letters and digits'))
