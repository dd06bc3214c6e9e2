/** Headings of notes, as CommonMark has them with number signs; shared by whoever calls something after one. */

export interface Heading {
  /** 1 to 6. */
  readonly level: number
  /** Without its number signs. */
  readonly text: string
}

const HEADING = / {0,3}(#{1,6})[ \t]+(\S.*?)(?:[ \t]+#+)?[ \t]*$/.source
const FIRST = new RegExp(`^${HEADING}`, 'm')
/** `$` is the end of the first row only with the flag, and `^` its beginning only without: so the row is looked at alone. */
const WHOLE = new RegExp(`^${HEADING}`)

function headingIn(match: RegExpExecArray | null): Heading | null {
  return match ? { level: (match[1] ?? '').length, text: match[2] ?? '' } : null
}

/** The heading with which a note begins; `null` where it begins with something else. */
export function leadingHeading(note: string): Heading | null {
  const end = note.indexOf('\n')
  return headingIn(WHOLE.exec(end < 0 ? note : note.slice(0, end)))
}

/** The first heading of a note, wherever it stands. */
export function firstHeading(note: string): Heading | null {
  return headingIn(FIRST.exec(note))
}
