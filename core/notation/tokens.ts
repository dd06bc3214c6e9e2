import { table } from '../table'
import { numeralAt, numeralOf } from './numerals'
import type { Numeral } from './numerals'
import { nameAt } from './spellings'
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
  '∥': Tok.parallel, '∠': Tok.polar, '′': Tok.prime, '‖': Tok.parallel, '°': Tok.degree,
}) // prettier-ignore

const WORDS: readonly (readonly [string, Tok])[] = [
  ['all', Tok.all], ['angle', Tok.angleWord], ['deg', Tok.deg], ['H', Tok.hermitian], ['last', Tok.last],
  ['not', Tok.not], ['rad', Tok.rad], ['T', Tok.transpose], ['unknown', Tok.unknown], ['to', Tok.to],
  ['step', Tok.step], ['count', Tok.count], ['per', Tok.per], ['mod', Tok.mod], ['and', Tok.and], ['or', Tok.or],
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
const FIRST = new Uint8Array(128).fill(Tok.odd)
/** Signs of two characters by their first: the second, and what both are. */
const SECOND = new Uint8Array(128)
const DOUBLE = new Uint8Array(128)
/** Words by the code of their first letter. */
const WORDS_BY_LETTER: (readonly Word[] | undefined)[] = Array.from({ length: 128 })

for (let code = 9; code <= 13; code += 1) FIRST[code] = SPACE
FIRST[32] = SPACE
for (let code = 0; code < 128; code += 1) {
  const letter = String.fromCharCode(code)
  if (/[a-z_]/i.test(letter)) FIRST[code] = Tok.name
  if (/\d/.test(letter)) FIRST[code] = Tok.number
  const words = WORDS.filter(([word]) => word.startsWith(letter)).map(([word, kind]) => ({ word, kind }))
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
const DMS = /(\d+)(?:°|\s*deg\b)\s*(\d+(?:\.\d+)?)['′](?:\s*(\d+(?:\.\d+)?)["″])?/y
const CLOSING_QUOTE = /["”]/g

/** Where a match of a sticky pattern at a place ends; the place itself where there is none. */
function matchEnd(pattern: RegExp, source: string, at: number): number {
  pattern.lastIndex = at
  return pattern.test(source) ? pattern.lastIndex : at
}

const POINT = 46
const ZERO = 48
const isDigit = (code: number): boolean => code >= 48 && code <= 57
/** ASCII letters, digits and the underscore. */
const isNamePart = (code: number, firsts: Uint8Array): boolean =>
  code < 128 && (firsts[code] === Tok.name || firsts[code] === Tok.number)
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
  const words = WORDS_BY_LETTER[first]
  return words === undefined ? Tok.name : wordAmong(words, source, from, to)
}

function wordAmong(words: readonly Word[], source: string, from: number, to: number): Tok {
  for (let k = 0; k < words.length; k += 1) {
    const { word, kind } = words[k] as Word
    if (word.length === to - from && source.startsWith(word, from)) return kind
  }
  return Tok.name
}

/** How many token places lie behind the last one, so that looking ahead needs no bounds. */
const AHEAD = 2

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
  readonly kinds: Uint8Array
  readonly starts: Int32Array
  readonly ends: Int32Array
  /**
   * Of digits: all of them as one whole number (NaN where they have an exponent or stand raised), and how many of
   * them stand behind the point (−1 without one).
   */
  private readonly wholes: Float64Array
  private readonly decimals: Int16Array

  /** @param longest the longest line that will be read, in UTF-16 units */
  constructor(longest: number) {
    // A raised digit makes two tokens, and a pair of bars may come apart.
    const room = 3 * longest + 2 * AHEAD
    this.kinds = new Uint8Array(room)
    this.starts = new Int32Array(room)
    this.ends = new Int32Array(room)
    this.wholes = new Float64Array(room)
    this.decimals = new Int16Array(room)
  }

  kind(k: number): Tok {
    return this.kinds[k] ?? Tok.end
  }

  from(k: number): number {
    return this.starts[k] ?? this.source.length
  }

  to(k: number): number {
    return this.ends[k] ?? this.source.length
  }

  /** The digits of a number with what they are worth. */
  numeral(k: number): Numeral {
    const whole = this.wholes[k] as number
    if (Number.isNaN(whole)) return numeralOf(this.text(k))
    return numeralAt(this.source, this.starts[k] as number, this.ends[k] as number, whole, this.decimals[k] as number)
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

  /** Degrees, minutes and seconds as decimal text. */
  minutes(k: number): readonly [degrees: string, minutes: string, seconds: string] {
    DMS.lastIndex = this.from(k)
    const [, degrees = '0', minutes = '0', seconds = '0'] = DMS.exec(this.source) ?? []
    return [degrees, minutes, seconds]
  }

  /** Reads a line; what was read before is gone. What is rare is kept out of the loop, so that it stays small. */
  read(source: string): void {
    const { length } = source
    this.start(source)
    const { kinds, starts, ends, wholes, decimals } = this
    const firsts = FIRST
    const seconds = SECOND
    let count = 0
    let at = 0
    while (at < length) {
      const from = at
      const first = source.charCodeAt(at)
      let kind: number = first < 128 ? (firsts[first] ?? Tok.odd) : Tok.odd
      at += 1
      if (kind === SPACE) continue
      if (kind === Tok.name) {
        let code = 0
        while (at < length && isNamePart((code = source.charCodeAt(at)), firsts)) at += 1
        if (code > 127 || first === 105 || first === 106) at = this.nameEnd(from, at)
        kind = wordAt(source, from, at, first)
      } else if (kind === Tok.number || (kind === Tok.dot && isDigit(codeAt(source, at)))) {
        let code = first
        let whole = kind === Tok.number ? first - ZERO : 0
        while (at < length && isDigit((code = source.charCodeAt(at)))) {
          whole = 10 * whole + code - ZERO
          at += 1
        }
        let point = kind === Tok.number ? -1 : from
        if (code === POINT && point < 0) {
          point = at
          at += 1
          while (at < length && isDigit((code = source.charCodeAt(at)))) {
            whole = 10 * whole + code - ZERO
            at += 1
          }
        }
        decimals[count] = point < 0 ? -1 : at - point - 1
        if (code === 101 || code === 69) {
          const end = exponentEnd(source, at)
          if (end > at) whole = NaN
          at = end
        }
        wholes[count] = whole
        kind = Tok.number
      } else if (first < 128 && seconds[first] !== 0 && seconds[first] === codeAt(source, at)) {
        kind = DOUBLE[first] ?? Tok.odd
        at += 1
      } else if (kind === Tok.odd) {
        this.count = count
        at = this.rare(from, first)
        count = this.count
        continue
      } else if (kind === Tok.equals) this.equals = true
      kinds[count] = kind
      starts[count] = from
      ends[count] = at
      count += 1
    }
    this.count = count
    this.end()
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
    for (let k = count; k <= count + AHEAD; k += 1) this.kinds[k] = Tok.end
    this.starts[count] = end
    this.ends[count] = end
    this.count = count + 1
  }

  /** `||` as two bars that touch. */
  splitBars(k: number): void {
    const middle = this.from(k) + 1
    for (const row of [this.kinds, this.starts, this.ends, this.wholes, this.decimals])
      row.copyWithin(k + 1, k, this.count + AHEAD)
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
    this.wholes[this.count] = NaN
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
  const tokens = new Tokens(source.length)
  tokens.read(source)
  return Array.from({ length: tokens.count }, (_, k) => ({
    kind: tokens.kind(k),
    text: tokens.text(k),
    from: tokens.from(k),
    to: tokens.to(k),
    spaced: tokens.spaced(k),
  }))
}
