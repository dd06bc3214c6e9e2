/**
 * What a token is. A small number, since the parser asks for it at every step;
 * the order makes classes of them ranges.
 */
export enum Tok {
  end,
  odd,
  text,
  dms,
  number,
  // Names: words that mean something of their own in some places, and are names everywhere else.
  name,
  all,
  angleWord,
  deg,
  hermitian,
  last,
  not,
  rad,
  transpose,
  unknown,
  sought,
  determine,
  // Words that follow a complete operand; the first five can begin an operand, as names.
  to,
  step,
  count,
  along,
  per,
  mod,
  and,
  or,
  within,
  where,
  for,
  // Signs.
  plus,
  minus,
  times,
  over,
  caret,
  polar,
  parallel,
  bar,
  open,
  close,
  openSquare,
  closeSquare,
  root,
  comma,
  equals,
  approximately,
  factorial,
  degree,
  dot,
  semicolon,
  at,
  prime,
  // Comparisons.
  same,
  different,
  less,
  atMost,
  greater,
  atLeast,
}

export const isName = (kind: Tok): boolean => kind >= Tok.name && kind <= Tok.for
export const isSign = (kind: Tok): boolean => kind >= Tok.plus
export const isComparison = (kind: Tok): boolean => kind >= Tok.same
/** A word that follows a complete operand. */
export const isWordOperator = (kind: Tok): boolean => kind >= Tok.to && kind <= Tok.for
/** Of these, the ones that can begin an operand: as names. */
export const isNameToo = (kind: Tok): boolean => kind >= Tok.to && kind <= Tok.per

export function startsOperand(kind: Tok): boolean {
  if (kind < Tok.plus) return kind >= Tok.text
  return kind === Tok.open || kind === Tok.openSquare || kind === Tok.bar || kind === Tok.parallel || kind === Tok.root
}

/** What nothing of an operand can be: an operator behind it, the end of a bracket or of the line. */
const ENDS = new Uint8Array(Tok.atLeast + 1)
for (const kind of [Tok.end, Tok.plus, Tok.minus, Tok.times, Tok.over, Tok.close, Tok.closeSquare, Tok.comma])
  ENDS[kind] = 1

export function endsOperand(kind: Tok): boolean {
  return ENDS[kind] === 1
}

/** What digits multiply without a sign: a bracket or a name. */
export function multiplies(kind: Tok): boolean {
  return (isName(kind) && !isWordOperator(kind)) || kind === Tok.open || kind === Tok.root
}

/** How loosely the operators bind, from the loosest to the tightest. */
export enum Level {
  none,
  or,
  and,
  not,
  comparison,
  range,
  sum,
  parallel,
  /** Products, quotients, and whatever begins an operand where an operator should stand. */
  chain,
}

/** The level of each kind of token behind an operand. */
const LEVELS = new Uint8Array(Tok.atLeast + 1)
for (let kind: Tok = Tok.end; kind <= Tok.atLeast; kind += 1) {
  if (isComparison(kind)) LEVELS[kind] = Level.comparison
  else if (startsOperand(kind) && !isWordOperator(kind)) LEVELS[kind] = Level.chain
}
LEVELS[Tok.or] = Level.or
LEVELS[Tok.and] = Level.and
LEVELS[Tok.to] = Level.range
LEVELS[Tok.plus] = Level.sum
LEVELS[Tok.minus] = Level.sum
LEVELS[Tok.parallel] = Level.parallel
LEVELS[Tok.along] = Level.parallel
LEVELS[Tok.times] = Level.chain
LEVELS[Tok.over] = Level.chain
LEVELS[Tok.mod] = Level.chain

export function levelOf(kind: Tok): Level {
  return LEVELS[kind] ?? Level.none
}
