import { table } from '../table'

/**
 * Text → tokens with spans (UTF-16 units). Nothing here depends on which names
 * are kept: a run of letters after digits stays attached as its own token and is
 * told apart from a product in the binding step.
 */

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
  // Words that follow a complete operand; the first four can begin an operand, as names.
  to,
  step,
  count,
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
LEVELS[Tok.times] = Level.chain
LEVELS[Tok.over] = Level.chain
LEVELS[Tok.mod] = Level.chain

export function levelOf(kind: Tok): Level {
  return LEVELS[kind] ?? Level.none
}

/** Signs as standard notation writes them. */
const SIGNS: readonly (readonly [string, Tok])[] = [
  ['+', Tok.plus], ['-', Tok.minus], ['*', Tok.times], ['/', Tok.over], ['^', Tok.caret], ['/_', Tok.polar],
  ['||', Tok.parallel], ['|', Tok.bar], ['(', Tok.open], [')', Tok.close], ['[', Tok.openSquare],
  [']', Tok.closeSquare], ['√', Tok.root], [',', Tok.comma], ['=', Tok.equals], ['~~', Tok.approximately],
  ['!', Tok.factorial], ['°', Tok.degree], ['.', Tok.dot], [';', Tok.semicolon], ['@', Tok.at], ["'", Tok.prime],
  ['==', Tok.same], ['!=', Tok.different], ['<', Tok.less], ['<=', Tok.atMost], ['>', Tok.greater],
  ['>=', Tok.atLeast],
] // prettier-ignore
const SIGN_TEXT = new Map(SIGNS.map(([text, kind]) => [kind, text]))

/** Other ways of writing a sign. */
const WRITTEN = table<Tok>({
  '×': Tok.times, '·': Tok.times, '⋅': Tok.times, '∙': Tok.times, '÷': Tok.over, '−': Tok.minus, '–': Tok.minus,
  '∕': Tok.over, '√': Tok.root, '≤': Tok.atMost, '≥': Tok.atLeast, '≠': Tok.different, '≈': Tok.approximately,
  '∥': Tok.parallel, '∠': Tok.polar, '′': Tok.prime, '‖': Tok.parallel, '°': Tok.degree,
}) // prettier-ignore

const WORDS: readonly (readonly [string, Tok])[] = [
  ['all', Tok.all], ['angle', Tok.angleWord], ['deg', Tok.deg], ['H', Tok.hermitian], ['last', Tok.last],
  ['not', Tok.not], ['rad', Tok.rad], ['T', Tok.transpose], ['unknown', Tok.unknown], ['to', Tok.to],
  ['step', Tok.step], ['count', Tok.count], ['per', Tok.per], ['mod', Tok.mod], ['and', Tok.and], ['or', Tok.or],
  ['within', Tok.within], ['where', Tok.where], ['for', Tok.for],
] // prettier-ignore

const SUPERSCRIPTS = table<string>({
  '⁰': '0', '¹': '1', '²': '2', '³': '3', '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8', '⁹': '9', '⁻': '-',
}) // prettier-ignore

/** What an ASCII character begins: a class or, where it is a whole sign, that sign. */
const SPACE = 100
const FIRST = new Uint8Array(128).fill(Tok.odd)
/** Signs of two characters by their first: the second, and what both are. */
const SECOND = new Uint8Array(128)
const DOUBLE = new Uint8Array(128)
/** Words by the code of their first letter. */
const WORDS_BY_LETTER: (readonly (readonly [string, Tok])[] | undefined)[] = Array.from({ length: 128 })

for (let code = 9; code <= 13; code += 1) FIRST[code] = SPACE
FIRST[32] = SPACE
for (let code = 0; code < 128; code += 1) {
  const letter = String.fromCharCode(code)
  if (/[a-z_]/i.test(letter)) FIRST[code] = Tok.name
  if (/\d/.test(letter)) FIRST[code] = Tok.number
  const words = WORDS.filter(([word]) => word.startsWith(letter))
  if (words.length > 0) WORDS_BY_LETTER[code] = words
}
for (const [text, kind] of SIGNS) {
  const code = text.charCodeAt(0)
  // A prime and a sign beyond ASCII come as they are written only.
  if (code > 127 || kind === Tok.prime) continue
  if (text.length === 1) FIRST[code] = kind
  else {
    SECOND[code] = text.charCodeAt(1)
    DOUBLE[code] = kind
  }
}

const NAME = /[\p{L}_][\p{L}\p{Nd}_₀-₉]*/uy
/** The circuit writer's `j4.5`, `j1e-3`: a letter before digits that no name could hold. */
const CIRCUIT = /[ij]\d+(?:\.\d*(?:[eE][+-]?\d+)?|[eE][+-]\d+)(?:[TGMkmunpfµμ](?![\p{L}\p{Nd}_]))?/uy
const DMS = /(\d+)(?:°| *deg\b)\s*(\d+(?:\.\d+)?)['′](?:\s*(\d+(?:\.\d+)?)["″])?/y
const CLOSING_QUOTE = /["”]/g

/** Where a match of a sticky pattern at a place ends; the place itself where there is none. */
function matchEnd(pattern: RegExp, source: string, at: number): number {
  pattern.lastIndex = at
  return pattern.test(source) ? pattern.lastIndex : at
}

type Codes = Uint16Array<ArrayBuffer>

const DEGREE = 176
const isDigit = (code: number): boolean => code >= 48 && code <= 57
/** ASCII letters, digits and the underscore. */
const isNamePart = (code: number): boolean => code < 128 && (FIRST[code] === Tok.name || FIRST[code] === Tok.number)

function digitsEnd(codes: Codes, at: number): number {
  while (isDigit(codes[at] ?? 0)) at += 1
  return at
}

/** The end of `12`, `0.5`, `.5`, `1.2e-3`: an exponent counts only with digits. */
function numberEnd(codes: Codes, at: number): number {
  let end = digitsEnd(codes, at)
  if (codes[end] === 46) end = digitsEnd(codes, end + 1)
  const code = codes[end]
  if (code !== 101 && code !== 69) return end
  const sign = codes[end + 1]
  const start = sign === 43 || sign === 45 ? end + 2 : end + 1
  const exponent = digitsEnd(codes, start)
  return exponent > start ? exponent : end
}

/** The end of a name of ASCII letters. */
function asciiNameEnd(codes: Codes, at: number): number {
  let end = at + 1
  while (isNamePart(codes[end] ?? 0)) end += 1
  return end
}

/** The word of the notation that stands at a place, or a name like any other. */
function wordAt(source: string, from: number, to: number, first: number): Tok {
  const words = WORDS_BY_LETTER[first]
  if (words === undefined) return Tok.name
  for (const [word, kind] of words) if (word.length === to - from && source.startsWith(word, from)) return kind
  return Tok.name
}

/** How many token places lie behind the last one, so that looking ahead needs no bounds. */
const AHEAD = 4

/**
 * The tokens of a line, as rows of numbers: what each is, where it starts and
 * where it ends. Texts are made only for what asks for them. The last one is of
 * kind `end`. Never fails: what is not understood is `odd`.
 */
export class Tokens {
  source = ''
  count = 0
  /** True where an equals sign is among them. */
  equals = false
  /** Where the sign of a remark stands; −1 without one. */
  remarkAt = -1
  /** The characters of the line, with a 0 behind them. */
  private codes: Codes = new Uint16Array(0)
  private kinds = new Uint8Array(0)
  private starts = new Int32Array(0)
  private ends = new Int32Array(0)

  kind(k: number): Tok {
    return this.kinds[k] ?? Tok.end
  }

  from(k: number): number {
    return this.starts[k] ?? this.source.length
  }

  to(k: number): number {
    return this.ends[k] ?? this.source.length
  }

  /** True where white space, or the start or the end of the line, comes before it. */
  spaced(k: number): boolean {
    return k === 0 || this.kind(k) === Tok.end || this.from(k) !== this.to(k - 1)
  }

  /** The text as standard notation writes it: `×` is `*`, `≤` is `<=`, `²` is `2`. */
  text(k: number): string {
    const kind = this.kind(k)
    if (kind >= Tok.plus) return SIGN_TEXT.get(kind) ?? ''
    const from = this.from(k)
    const written = this.source.slice(from, this.to(k))
    if (kind === Tok.text) return written.slice(1, -1)
    if (kind < Tok.number || this.source.charCodeAt(from) < 128) return written
    if (kind === Tok.number) return Array.from(written, (letter) => SUPERSCRIPTS.get(letter) ?? '').join('')
    return written === '∞' ? 'inf' : written
  }

  /** Degrees, minutes and seconds as decimal text. */
  minutes(k: number): readonly [degrees: string, minutes: string, seconds: string] {
    DMS.lastIndex = this.from(k)
    const [, degrees = '0', minutes = '0', seconds = '0'] = DMS.exec(this.source) ?? []
    return [degrees, minutes, seconds]
  }

  /** Reads a line; what was read before is gone. */
  read(source: string): void {
    const { length } = source
    this.source = source
    this.count = 0
    this.equals = false
    this.remarkAt = -1
    if (this.codes.length <= length + AHEAD) this.makeRoom(length)
    const { codes } = this
    for (let k = 0; k < length; k += 1) codes[k] = source.charCodeAt(k)
    codes.fill(0, length, length + AHEAD)
    let at = 0
    while (at < length) {
      const code = codes[at] ?? 0
      const first: number = code < 128 ? (FIRST[code] ?? Tok.odd) : Tok.odd
      if (first === SPACE) at += 1
      else if (first === Tok.name) at = this.name(at, code)
      else if (first === Tok.number) at = this.number(at)
      else if (code < 128 && SECOND[code] !== 0 && codes[at + 1] === SECOND[code])
        at = this.push(DOUBLE[code] ?? Tok.odd, at, at + 2)
      else if (first === Tok.odd) at = this.rare(at, code)
      else if (first === Tok.dot && isDigit(codes[at + 1] ?? 0)) at = this.number(at)
      else at = this.push(first, at, at + 1)
    }
    const end = this.remarkAt < 0 ? length : this.count > 0 ? this.to(this.count - 1) : this.remarkAt
    this.push(Tok.end, end, end)
    for (let k = 0; k < AHEAD; k += 1) {
      this.kinds[this.count + k] = Tok.end
      this.starts[this.count + k] = end
      this.ends[this.count + k] = end
    }
  }

  /** Room for a line of so many characters. */
  private makeRoom(length: number): void {
    const most = Math.max(256, 2 * length)
    this.codes = new Uint16Array(most + AHEAD)
    // A raised digit makes two tokens, and a pair of bars may come apart.
    this.kinds = new Uint8Array(3 * most + AHEAD)
    this.starts = new Int32Array(3 * most + AHEAD)
    this.ends = new Int32Array(3 * most + AHEAD)
  }

  /** `||` as two bars that touch. */
  splitBars(k: number): void {
    const middle = this.from(k) + 1
    for (const row of [this.kinds, this.starts, this.ends]) row.copyWithin(k + 1, k, this.count + AHEAD)
    this.kinds[k] = Tok.bar
    this.kinds[k + 1] = Tok.bar
    this.ends[k] = middle
    this.starts[k + 1] = middle
    this.count += 1
  }

  private push(kind: Tok, from: number, to: number): number {
    const k = this.count
    this.kinds[k] = kind
    this.starts[k] = from
    this.ends[k] = to
    this.count = k + 1
    if (kind === Tok.equals) this.equals = true
    return to
  }

  private number(at: number): number {
    const { codes } = this
    const end = numberEnd(codes, at)
    const code = codes[end] ?? 0
    // Only a sign or the word of degrees leads to minutes.
    if ((code === DEGREE || code === 32 || code === 100) && this.leadsToDegrees(end)) {
      const dms = matchEnd(DMS, this.source, at)
      if (dms > at) return this.push(Tok.dms, at, dms)
    }
    return this.push(Tok.number, at, end)
  }

  /** Does a sign or the word of degrees stand behind digits? */
  private leadsToDegrees(end: number): boolean {
    const { codes } = this
    let at = end
    while (codes[at] === 32) at += 1
    return codes[at] === DEGREE || (codes[at] === 100 && codes[at + 1] === 101 && codes[at + 2] === 103)
  }

  private name(at: number, first: number): number {
    const { source, codes } = this
    let end = asciiNameEnd(codes, at)
    if ((codes[end] ?? 0) > 127) end = matchEnd(NAME, source, at)
    // i or j before digits.
    if ((first === 105 || first === 106) && isDigit(codes[at + 1] ?? 0))
      return this.push(Tok.name, at, Math.max(matchEnd(CIRCUIT, source, at), end))
    return this.push(wordAt(source, at, end, first), at, end)
  }

  private rare(at: number, code: number): number {
    const { source } = this
    const letter = source.charAt(at)
    if (letter === '#') {
      this.remarkAt = at
      return source.length
    }
    if (letter === '"' || letter === '“' || letter === '”') return this.quoted(at)
    return code > 127 ? this.beyondAscii(at, letter) : this.push(Tok.odd, at, at + 1)
  }

  private quoted(at: number): number {
    const { source } = this
    CLOSING_QUOTE.lastIndex = at + 1
    const end = CLOSING_QUOTE.exec(source)
    return end === null ? this.push(Tok.odd, at, source.length) : this.push(Tok.text, at, end.index + 1)
  }

  private beyondAscii(at: number, letter: string): number {
    const { source } = this
    const written = WRITTEN.get(letter)
    if (written !== undefined) return this.push(written, at, at + 1)
    if (letter === '∞') return this.push(Tok.name, at, at + 1)
    const raised = superscriptEnd(source, at)
    if (raised > at) return this.raised(at, raised)
    const name = matchEnd(NAME, source, at)
    if (name > at) return this.push(Tok.name, at, name)
    if (/\s/.test(letter)) return at + 1
    return this.push(Tok.odd, at, at + ((source.codePointAt(at) ?? 0) > 0xffff ? 2 : 1))
  }

  /** `x²` as `x^2`: the caret takes no room in the source. */
  private raised(at: number, end: number): number {
    const digits = this.source.charAt(at) === '⁻' ? at + 1 : at
    this.push(Tok.caret, at, at)
    if (digits > at) this.push(Tok.minus, at, digits)
    return this.push(Tok.number, digits, end)
  }
}

/** The end of raised digits with a sign before them, if any. */
function superscriptEnd(source: string, at: number): number {
  let end = at
  while (end < source.length) {
    const plain = SUPERSCRIPTS.get(source.charAt(end))
    if (plain === undefined || (plain === '-' && end > at)) break
    end += 1
  }
  return end === at + 1 && source.charAt(at) === '⁻' ? at : end
}

/** A token of a line on its own. */
export interface Token {
  readonly kind: Tok
  readonly text: string
  readonly from: number
  readonly to: number
  readonly spaced: boolean
}

/** The tokens of a line one by one, for what needs no speed. */
export function tokenize(source: string): Token[] {
  const tokens = new Tokens()
  tokens.read(source)
  return Array.from({ length: tokens.count }, (_, k) => ({
    kind: tokens.kind(k),
    text: tokens.text(k),
    from: tokens.from(k),
    to: tokens.to(k),
    spaced: tokens.spaced(k),
  }))
}
