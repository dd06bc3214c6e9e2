/** Limits of a folio, the same on both sides of the wire: the page meets them where the text is entered. */

/** Characters of an entry that is reckoned. A longer text is kept, and can be made a note. */
export const ENTRY_LENGTH_MAX = 10_000
/** Characters of any line, notes too. */
export const LINE_LENGTH_MAX = 200_000
export const LINES_MAX = 5_000
/** Characters of all lines of a folio together. */
export const FOLIO_LENGTH_MAX = 4_000_000
export const TITLE_LENGTH_MAX = 200

/** Operations in one save; more are sent in parts that build on one another. */
export const SAVE_OPERATIONS_MAX = 2_000
/** The largest request body, in bytes. */
export const BODY_LIMIT = 4 * 1024 * 1024

/** Digits in groups of three, as the sentences write them. */
export function counted(count: number): string {
  return String(count).replace(/\B(?=(\d{3})+$)/g, '\u202f')
}
