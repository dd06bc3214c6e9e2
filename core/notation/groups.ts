import { parseEquation, parseLine } from './parser'
import type { Parsed } from './parser'
import { problem } from './problem'
import { references } from './references'

/**
 * Groups of equations: `sought` opens one, `determine` closes it, and only in between is a line with an equals sign
 * and a sought name in it an equation.
 */

/** What a line is in its group: an equation has a number, counted from 1. */
export type Place =
  { readonly role: 'sought' | 'member' | 'determine' } | { readonly role: 'equation'; readonly number: number }

/** A line as it is read where it stands. */
export interface Placed {
  readonly parsed: Parsed
  /** `null` outside of groups. */
  readonly place: Place | null
}

/** A line read as an equation, with the names in it. */
export interface AsEquation {
  readonly parsed: Parsed
  readonly names: ReadonlySet<string>
}

export function asEquation(source: string): AsEquation {
  const parsed = parseEquation(source)
  return { parsed, names: new Set(references(parsed).map(({ name }) => name)) }
}

const NO_NAMES: ReadonlySet<string> = new Set()

/** Reads the lines of a folio in order, each with what is sought where it stands. */
export class GroupReader {
  private equations = 0

  constructor(
    private names: ReadonlySet<string> | null = null,
    /** Names that lines of the group define with sought ones in them. */
    private following: ReadonlySet<string> = NO_NAMES,
  ) {}

  /** `equationOf` is asked only of lines that may be one. */
  read(parsed: Parsed, equationOf: () => AsEquation = () => asEquation(parsed.source)): Placed {
    const { statement } = parsed
    const { names } = this
    if (statement.type === 'sought') {
      if (names === null) this.equations = 0
      this.names = new Set([...(names ?? []), ...statement.names.map(({ name }) => name)])
      return { parsed, place: SOUGHT }
    }
    if (names === null) return { parsed, place: null }
    if (statement.type === 'determine') {
      this.names = null
      this.following = NO_NAMES
      return { parsed, place: DETERMINE }
    }
    const open = (name: string): boolean => names.has(name) || this.following.has(name)
    if (!mayBeEquation(parsed, names, open)) {
      if (statement.type === 'define' || statement.type === 'function')
        this.follow(statement.name.name, equationOf(), open)
      return { parsed, place: MEMBER }
    }
    const equation = equationOf()
    if (![...equation.names].some(open))
      return { parsed: { ...parsed, problem: nothingSought(equation.parsed, names) }, place: MEMBER }
    this.equations += 1
    return { parsed: equation.parsed, place: { role: 'equation', number: this.equations } }
  }

  /** A definition: what it reads decides whether its name depends on what is sought. */
  private follow(name: string, { names }: AsEquation, open: (name: string) => boolean): void {
    const depends = [...names].some((used) => used !== name && open(used))
    if (depends === this.following.has(name)) return
    this.following = new Set(
      depends ? [...this.following, name] : [...this.following].filter((other) => other !== name),
    )
  }
}

const SOUGHT: Place = { role: 'sought' }
const MEMBER: Place = { role: 'member' }
const DETERMINE: Place = { role: 'determine' }

/** True where the line has an equals sign that does not plainly define something. */
function mayBeEquation(
  { statement, problem: failed }: Parsed,
  sought: ReadonlySet<string>,
  open: (name: string) => boolean,
): boolean {
  if (statement.type === 'define') return sought.has(statement.name.name)
  if (statement.type === 'function') return statement.parameters.some(({ name }) => open(name))
  return failed?.code === 'not-definable'
}

function nothingSought(equation: Parsed, names: ReadonlySet<string>) {
  const { source, problem: failed } = equation
  return failed ?? problem('nothing-sought', { from: 0, to: source.length }, { names: [...names].join(', ') })
}

/** A line as it would be read among equations for these names, where others follow from them. */
export function readAmong(parsed: Parsed, names: ReadonlySet<string> | null, following: ReadonlySet<string>): Parsed {
  return new GroupReader(names, following).read(parsed).parsed
}

/** A text read as the line before it was: as an equation where that was one. */
export function readLike({ statement }: Parsed, source: string): Parsed {
  return statement.type === 'equation' ? parseEquation(source) : parseLine(source)
}

/** The lines of a folio as they are read where they stand. */
export function readInOrder(lines: readonly Parsed[]): readonly Placed[] {
  const reader = new GroupReader()
  return lines.map((parsed) => reader.read(parsed))
}
