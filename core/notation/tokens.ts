import { table } from '../table'
import { numeralAt, numeralOf } from './numerals'
import type { Numeral } from './numerals'
import { nameAt } from './spellings'
import { AHEAD, DECIMALS, endAt, ENDS, KINDS, MAX_LINE, startAt, STARTS, WHOLES } from './tokenRows'
import { isName, isSign, Tok } from './tokenKinds'

/**
 * Text → tokens with spans (UTF-16 units). Nothing here depends on which names
 * are kept: a run of letters after digits stays attached as its own token and is
 * told apart from a product in the binding step.
 */

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
  'º': Tok.degree, '˚': Tok.degree, '∥': Tok.parallel, '∠': Tok.polar, '′': Tok.prime, '‖': Tok.parallel, '°': Tok.degree,
}) // prettier-ignore

const WORDS: readonly (readonly [string, Tok])[] = [
  ['all', Tok.all], ['angle', Tok.angleWord], ['deg', Tok.deg], ['H', Tok.hermitian], ['last', Tok.last],
  ['not', Tok.not], ['rad', Tok.rad], ['T', Tok.transpose], ['unknown', Tok.unknown],
  ['sought', Tok.sought], ['determine', Tok.determine], ['to', Tok.to],
  ['step', Tok.step], ['count', Tok.count], ['along', Tok.along], ['per', Tok.per], ['mod', Tok.mod], ['and', Tok.and], ['or', Tok.or],
  ['within', Tok.within], ['where', Tok.where], ['for', Tok.for],
] // prettier-ignore

interface Word {
  readonly word: string
  readonly kind: Tok
}

const SUPERSCRIPTS = table<string>({
  '⁰': '0', '¹': '1', '²': '2', '³': '3', '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8', '⁹': '9', '⁻': '-',
}) // prettier-ignore

/** What an ASCII character begins: a class or, where it is a whole sign, that sign. */
const SPACE = 100
/** Added to a sign that can go on: with a second character, or as something else. */
const MORE = 128
const FIRST = new Uint8Array(128).fill(Tok.odd)
/** Signs of two characters by their first: the second, and what both are. */
const SECOND = new Uint8Array(128)
const DOUBLE = new Uint8Array(128)
/** ASCII letters, digits and the underscore. */
const NAME_PART = new Uint8Array(128)
/** Words by their first letter and their length. */
const LONGEST_WORD = Math.max(...WORDS.map(([word]) => word.length))
const WORDS_AT: (readonly Word[] | undefined)[] = Array.from({ length: 128 * (LONGEST_WORD + 1) })
const wordPlace = (first: number, length: number): number => first + 128 * length

for (let code = 9; code <= 13; code += 1) FIRST[code] = SPACE
FIRST[32] = SPACE
for (let code = 0; code < 128; code += 1) {
  const letter = String.fromCharCode(code)
  if (/[a-z_]/i.test(letter)) FIRST[code] = Tok.name
  if (/\d/.test(letter)) FIRST[code] = Tok.number
  if (/\w/.test(letter)) NAME_PART[code] = 1
}
for (const [word, kind] of WORDS) {
  const place = wordPlace(word.charCodeAt(0), word.length)
  WORDS_AT[place] = [...(WORDS_AT[place] ?? []), { word, kind }]
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
for (let code = 0; code < 128; code += 1) {
  const kind = FIRST[code] ?? Tok.odd
  if (SECOND[code] !== 0 || kind === Tok.dot || kind === Tok.equals) FIRST[code] = kind + MORE
}

const NAME = /[\p{L}_][\p{L}\p{Nd}_₀-₉]*/uy
/** The circuit writer's `j4.5`, `j1e-3`: a letter before digits that no name could hold. */
const CIRCUIT = /[ij]\d+(?:\.\d*(?:[eE][+-]?\d+)?|[eE][+-]\d+)(?:[TGMkmunpfµμ](?![\p{L}\p{Nd}_]))?/uy
const DMS = /(\d+)(?:°|\s*deg\b)\s*(\d+(?:\.\d+)?)['′](?:\s*(\d+(?:\.\d+)?)["″])?/y
const CLOSING_QUOTE = /["”]/g

/** Where a match of a sticky pattern at a place ends; the place itself where there is none. */
function matchEnd(pattern: RegExp, source: string, at: number): number {
  pattern.lastIndex = at
  return pattern.test(source) ? pattern.lastIndex : at
}

const POINT = 46
const ZERO = 48
const NINE = 57
const isDigit = (code: number): boolean => code >= ZERO && code <= NINE
/** The character at a place; 0 beyond the end. */
const codeAt = (source: string, at: number): number => (at < source.length ? source.charCodeAt(at) : 0)

/** The end of an exponent behind digits, `e-3`; the place itself where `e` has no digits behind it. */
function exponentEnd(source: string, at: number): number {
  const sign = codeAt(source, at + 1)
  let end = sign === 43 || sign === 45 ? at + 2 : at + 1
  if (!isDigit(codeAt(source, end))) return at
  while (isDigit(codeAt(source, end))) end += 1
  return end
}

/** The word of the notation that stands at a place, or a name like any other. */
function wordAt(source: string, from: number, to: number, first: number): Tok {
  const words = WORDS_AT[wordPlace(first, to - from)] ?? []
  for (let k = 0; k < words.length; k += 1) {
    const { word, kind } = words[k] as Word
    if (source.startsWith(word, from)) return kind
  }
  return Tok.name
}

/**
 * The tokens of the line that was read last. Texts are made only for what asks for them. The last one is of kind
 * `end`. Never fails: what is not understood is `odd`.
 */
export class Tokens {
  source = ''
  count = 0
  /** True where an equals sign is among them. */
  equals = false
  /** Where the sign of a remark stands; −1 without one. */
  remarkAt = -1

  kind(k: number): Tok {
    return KINDS[k] ?? Tok.end
  }

  from(k: number): number {
    return STARTS[k] ?? this.source.length
  }

  to(k: number): number {
    return ENDS[k] ?? this.source.length
  }

  /** The digits of a number with what they are worth. */
  numeral(k: number): Numeral {
    const whole = WHOLES[k] as number
    if (Number.isNaN(whole)) return numeralOf(this.text(k))
    return numeralAt(this.source, startAt(k), endAt(k), whole, DECIMALS[k] as number)
  }

  /** True where white space, or the start or the end of the line, comes before it. */
  spaced(k: number): boolean {
    return k === 0 || this.kind(k) === Tok.end || this.from(k) !== this.to(k - 1)
  }

  /** The text as standard notation writes it: `×` is `*`, `≤` is `<=`, `²` is `2`. */
  text(k: number): string {
    const kind = this.kind(k)
    if (isSign(kind)) return SIGN_TEXT.get(kind) ?? ''
    const from = this.from(k)
    const to = this.to(k)
    const written = isName(kind) ? nameAt(this.source, from, to) : this.source.slice(from, to)
    if (kind === Tok.text) return written.slice(1, -1)
    if (kind < Tok.number || this.source.charCodeAt(from) < 128) return written
    return kind === Tok.number ? Array.from(written, (letter) => SUPERSCRIPTS.get(letter) ?? '').join('') : written
  }

  /** Degrees, minutes and seconds as decimal text; seconds that are not written are empty. */
  minutes(k: number): readonly [degrees: string, minutes: string, seconds: string] {
    DMS.lastIndex = this.from(k)
    const [, degrees = '0', minutes = '0', seconds = ''] = DMS.exec(this.source) ?? []
    return [degrees, minutes, seconds]
  }

  /**
   * Reads a line; what was read before is gone. What is rare is kept out of the loop, so that it stays small, and
   * nothing is asked twice in it; what comes back from elsewhere is an integer, and said to be one.
   */
  read(source: string): void {
    const { length } = source
    this.start(source)
    let count = 0
    let at = 0
    while (at < length) {
      const from = at
      const first = source.charCodeAt(at)
      let kind: number = first < 128 ? (FIRST[first] as number) : Tok.odd
      at += 1
      if (kind >= Tok.plus) {
        if (kind === SPACE) continue
        if (kind >= MORE) {
          kind -= MORE
          const next = at < length ? source.charCodeAt(at) : 0
          if (next !== 0 && SECOND[first] === next) {
            kind = DOUBLE[first] as number
            at += 1
          } else if (kind === Tok.equals) this.equals = true
          else if (kind === Tok.dot && next >= ZERO && next <= NINE) {
            at = this.fraction(count, from, 0) | 0
            kind = Tok.number
          }
        }
      } else if (kind === Tok.number) {
        let whole = first - ZERO
        let code = 0
        while (at < length && (code = source.charCodeAt(at)) >= ZERO && code <= NINE) {
          whole = 10 * whole + code - ZERO
          at += 1
        }
        WHOLES[count] = whole
        DECIMALS[count] = -1
        if (at < length && (code === POINT || code === 101 || code === 69)) at = this.fraction(count, at, whole) | 0
      } else if (kind === Tok.name) {
        let code = 0
        while (at < length && (code = source.charCodeAt(at)) < 128 && NAME_PART[code] === 1) at += 1
        if (code > 127 || ((first === 105 || first === 106) && at - from > 1)) at = this.nameEnd(from, at) | 0
        if (at - from <= LONGEST_WORD && WORDS_AT[wordPlace(first, at - from)] !== undefined)
          kind = wordAt(source, from, at, first) | 0
      } else {
        this.count = count
        at = this.rare(from, first) | 0
        count = this.count | 0
        continue
      }
      KINDS[count] = kind
      STARTS[count] = from
      ENDS[count] = at
      count += 1
    }
    this.count = count
    this.end()
  }

  /** What stands behind the whole digits of a number: a point with digits, an exponent. Its end. */
  private fraction(count: number, point: number, wholePart: number): number {
    const { source } = this
    let whole = wholePart
    let at = point
    if (codeAt(source, at) === POINT) {
      at += 1
      for (let code = codeAt(source, at); isDigit(code); code = codeAt(source, at)) {
        whole = 10 * whole + code - ZERO
        at += 1
      }
      DECIMALS[count] = at - point - 1
    }
    const code = codeAt(source, at)
    const end = code === 101 || code === 69 ? exponentEnd(source, at) : at
    WHOLES[count] = end > at ? NaN : whole
    return end
  }

  private start(source: string): void {
    this.source = source
    this.count = 0
    this.equals = false
    this.remarkAt = -1
  }

  private end(): void {
    const { count, source, remarkAt } = this
    const end = remarkAt < 0 ? source.length : count > 0 ? this.to(count - 1) : remarkAt
    for (let k = count; k <= count + AHEAD; k += 1) KINDS[k] = Tok.end
    STARTS[count] = end
    ENDS[count] = end
    this.count = count + 1
  }

  /** `||` as two bars that touch. */
  splitBars(k: number): void {
    const middle = this.from(k) + 1
    for (const row of [KINDS, STARTS, ENDS, WHOLES, DECIMALS]) row.copyWithin(k + 1, k, this.count + AHEAD)
    KINDS[k] = Tok.bar
    KINDS[k + 1] = Tok.bar
    ENDS[k] = middle
    STARTS[k + 1] = middle
    this.count += 1
  }

  private push(kind: Tok, from: number, to: number): number {
    const k = this.count
    KINDS[k] = kind
    STARTS[k] = from
    ENDS[k] = to
    this.count = k + 1
    if (kind === Tok.equals) this.equals = true
    return to
  }

  /** The end of a name that is more than ASCII, or of a circuit writer's number; at least as far as it has been read. */
  private nameEnd(from: number, read: number): number {
    const { source } = this
    const name = codeAt(source, read) > 127 ? matchEnd(NAME, source, from) : read
    return isDigit(codeAt(source, from + 1)) ? Math.max(matchEnd(CIRCUIT, source, from), name) : name
  }

  /** A prime behind degrees and a number ends minutes: the three become one token, with the seconds behind them. */
  private prime(at: number): number {
    const first = this.count - 3
    const degrees = this.kind(first + 1)
    if (this.kind(first) !== Tok.number || (degrees !== Tok.degree && degrees !== Tok.deg)) return at
    const from = this.from(first)
    const end = matchEnd(DMS, this.source, from)
    if (end <= at) return at
    this.count = first
    return this.push(Tok.dms, from, end)
  }

  private rare(at: number, code: number): number {
    const { source } = this
    const letter = source.charAt(at)
    if (letter === '#') {
      this.remarkAt = at
      return source.length
    }
    if (letter === "'" || letter === '′') {
      const end = this.prime(at)
      if (end > at) return end
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
    WHOLES[this.count] = NaN
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

/** The tokens of a line one by one, for what needs no speed; of a line that is too long, those of its beginning. */
export function tokenize(source: string): Token[] {
  const tokens = new Tokens()
  tokens.read(source.slice(0, MAX_LINE))
  return Array.from({ length: tokens.count }, (_, k) => ({
    kind: tokens.kind(k),
    text: tokens.text(k),
    from: tokens.from(k),
    to: tokens.to(k),
    spaced: tokens.spaced(k),
  }))
}
