import { z } from 'zod'
import { DEFAULT_CONVENTIONS, DIGITS_MAX, DIGITS_MIN } from '../core/format/conventions'

const choices = {
  angle: z.enum(['deg', 'rad']),
  letter: z.enum(['j', 'i']),
  place: z.enum(['before', 'after']),
  digits: z.int().min(DIGITS_MIN).max(DIGITS_MAX),
  style: z.enum(['plain', 'scientific', 'engineering', 'prefix']),
  exact: z.enum(['decimal', 'fraction', 'mixed']),
  degrees: z.enum(['decimal', 'minutes']),
}

/** The conventions of a folio, as they cross the wire; a choice younger than the folio has its default. */
export const conventionsSchema = z.strictObject({ ...choices, degrees: choices.degrees.default('decimal') })

export type ConventionsData = z.infer<typeof conventionsSchema>

/** Some of the conventions: a change of them, or what a file says. */
export const someConventionsSchema = z.strictObject(choices).partial()

export { DEFAULT_CONVENTIONS }
