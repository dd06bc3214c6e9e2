import { or, whole, z } from './schema'
import { DEFAULT_CONVENTIONS, DIGITS_MAX, DIGITS_MIN } from '../core/format/conventions'

const choices = {
  angle: z.enum(['deg', 'rad']),
  letter: z.enum(['j', 'i']),
  place: z.enum(['before', 'after']),
  digits: whole(DIGITS_MIN, DIGITS_MAX),
  style: z.enum(['plain', 'scientific', 'engineering', 'prefix']),
  exact: z.enum(['decimal', 'fraction', 'mixed']),
  degrees: z.enum(['decimal', 'minutes']),
  spaced: z.enum(['product', 'unit']),
}

/** The conventions of a folio, as they cross the wire; a choice younger than the folio has its default. */
export const conventionsSchema = z.strictObject({
  ...choices,
  degrees: or(choices.degrees, 'decimal'),
  // Before there were units every word behind a number was a factor.
  spaced: or(choices.spaced, 'product'),
})

export type ConventionsData = z.infer<typeof conventionsSchema>

/** Some of the conventions: a change of them, or what a file says. */
export const someConventionsSchema = z.partial(z.strictObject(choices))

export { DEFAULT_CONVENTIONS }
