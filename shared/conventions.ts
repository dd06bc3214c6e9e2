import { z } from 'zod'
import { DEFAULT_CONVENTIONS, DIGITS_MAX, DIGITS_MIN } from '../core/format/conventions'

/** The conventions of a folio, as they cross the wire. */
export const conventionsSchema = z.strictObject({
  angle: z.enum(['deg', 'rad']),
  letter: z.enum(['j', 'i']),
  place: z.enum(['before', 'after']),
  digits: z.int().min(DIGITS_MIN).max(DIGITS_MAX),
  style: z.enum(['plain', 'scientific', 'engineering']),
  exact: z.enum(['decimal', 'fraction']),
})

export type ConventionsData = z.infer<typeof conventionsSchema>

export { DEFAULT_CONVENTIONS }
