import { table } from '../table'

/**
 * Text → tokens with spans (UTF-16 units). Nothing here depends on which names
 * are kept: a run of letters after digits stays attached as its own token and is
 * told apart from a product in the binding step.
 */
export type TokenType = 'number' | 'name' | 'sign' | 'text' | 'dms' | 'remark' | 'end' | 'odd'

export interface Token {
  readonly type: TokenType
  /** The text as standard notation writes it (`×` becomes `*`, `≤` becomes `<=`). */
  readonly text: string
  readonly from: number
  readonly to: number
  /** True where white space, or the start of the line, comes before it. */
  readonly spaced: boolean
}

const NAME = /[\p{L}_][\p{L}\p{Nd}_₀-₉]*/uy
/** The circuit writer's `j4.5`, `j1e-3`: a letter before digits that no name could hold. */
const CIRCUIT = /[ij]\d+(?:\.\d*(?:[eE][+-]?\d+)?|[eE][+-]\d+)(?:[TGMkmunpfµμ](?![\p{L}\p{Nd}_]))?/uy
const DMS = /(\d+)(?:°|\s*deg\b)\s*(\d+(?:\.\d+)?)['′](?:\s*(\d+(?:\.\d+)?)["″])?/y
const CLOSING_QUOTE = /["”]/g

/** Signs of two characters by their first, and all signs of one. */
const DOUBLE = byCode(['~~', '||', '==', '!=', '<=', '>=', '/_'])
const SINGLE = byCode(Array.from('+-*/^()[],=<>|!°.;@'))

/** Signs in an array by the code of their first character. */
function byCode(signs: readonly string[]): readonly (string | undefined)[] {
  const array = new Array<string | undefined>(256).fill(undefined)
  for (const sign of signs) array[sign.charCodeAt(0)] = sign
  return array
}

/** Written signs and the sign of the notation that each stands for. */
const WRITTEN = table<string>({
  '×': '*', '·': '*', '⋅': '*', '∙': '*', '÷': '/', '−': '-', '–': '-', '∕': '/',
  '√': '√', '≤': '<=', '≥': '>=', '≠': '!=', '≈': '~~', '∥': '||', '∠': '/_', '′': "'", '‖': '||',
}) // prettier-ignore

const SUPERSCRIPTS = table<string>({
  '⁰': '0', '¹': '1', '²': '2', '³': '3', '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8', '⁹': '9', '⁻': '-',
}) // prettier-ignore

/** The length of a match of a sticky pattern at a place; 0 where it does not match. */
function matchLength(pattern: RegExp, source: string, at: number): number {
  pattern.lastIndex = at
  return pattern.test(source) ? pattern.lastIndex - at : 0
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57
/** ASCII letters and the underscore. */
const isLetter = (code: number): boolean => (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || code === 95
const isSpace = (code: number): boolean =>
  code === 32 || (code >= 9 && code <= 13) || code === 0xa0 || code === 0x202f || code === 0x2009

function digitsFrom(source: string, at: number): number {
  let end = at
  while (isDigit(source.charCodeAt(end))) end += 1
  return end
}

/** The length of `12`, `0.5`, `.5`, `1.2e-3`: an exponent counts only with digits. */
function numberLength(source: string, at: number): number {
  let end = digitsFrom(source, at)
  if (source.charCodeAt(end) === 46) end = digitsFrom(source, end + 1)
  const code = source.charCodeAt(end)
  if (code !== 101 && code !== 69) return end - at
  const sign = source.charCodeAt(end + 1)
  const start = sign === 43 || sign === 45 ? end + 2 : end + 1
  const exponent = digitsFrom(source, start)
  return (exponent > start ? exponent : end) - at
}

/** The length of a name: a quick walk over ASCII, the full pattern for anything beyond. */
function nameLength(source: string, at: number): number {
  let end = at
  for (;;) {
    const code = source.charCodeAt(end)
    if (isLetter(code) || (end > at && isDigit(code))) end += 1
    else if (code > 127) return matchLength(NAME, source, at)
    else return end - at
  }
}

function superscript(source: string, at: number): { text: string; length: number } | null {
  let text = ''
  for (let k = at; k < source.length; k += 1) {
    const plain = SUPERSCRIPTS.get(source.charAt(k))
    if (plain === undefined || (plain === '-' && text !== '')) break
    text += plain
  }
  return text === '' || text === '-' ? null : { text, length: text.length }
}

/** The tokens of a line, the last one of type `end`. Never fails: what is not understood is `odd`. */
export function tokenize(source: string): Token[] {
  return new Tokenizer(source).run()
}

class Tokenizer {
  private readonly tokens: Token[] = []
  private at = 0
  private spaced = true
  /** Only a line with a sign of minutes can have degrees, minutes and seconds. */
  private readonly minutes: boolean

  constructor(private readonly source: string) {
    this.minutes = source.includes("'") || source.includes('′')
  }

  run(): Token[] {
    const { source } = this
    while (this.at < source.length) {
      const code = source.charCodeAt(this.at)
      if (isSpace(code)) {
        this.at += 1
        this.spaced = true
      } else if (isDigit(code) || (code === 46 && isDigit(source.charCodeAt(this.at + 1)))) this.number()
      else if (isLetter(code)) this.name(nameLength(source, this.at))
      else this.sign(code)
    }
    this.tokens.push({ type: 'end', text: '', from: source.length, to: source.length, spaced: true })
    return this.tokens
  }

  private push(type: TokenType, text: string, length: number): void {
    const from = this.at
    const to = from + length
    this.tokens.push({ type, text, from, to, spaced: this.spaced })
    this.at = to
    this.spaced = false
  }

  private number(): void {
    const { source, at } = this
    const length = numberLength(source, at)
    if (this.minutes) {
      DMS.lastIndex = at
      const dms = DMS.exec(source)
      if (dms) {
        this.push('dms', `${dms[1]} ${dms[2]} ${dms[3] ?? '0'}`, dms[0].length)
        return
      }
    }
    this.push('number', source.slice(at, at + length), length)
  }

  private name(length: number): void {
    const { source, at } = this
    const first = source.charCodeAt(at)
    const maybe = (first === 105 || first === 106) && isDigit(source.charCodeAt(at + 1))
    const whole = maybe ? Math.max(matchLength(CIRCUIT, source, at), length) : length
    this.push('name', source.slice(at, at + whole), whole)
  }

  private sign(code: number): void {
    const { source, at } = this
    const double = DOUBLE[code]
    const single = SINGLE[code]
    if (double !== undefined && source.charCodeAt(at + 1) === double.charCodeAt(1)) this.push('sign', double, 2)
    else if (single !== undefined) this.push('sign', single, 1)
    else this.rare(source.charAt(at), code)
  }

  private rare(letter: string, code: number): void {
    const { source, at } = this
    if (letter === '#') this.push('remark', source.slice(at + 1).trim(), source.length - at)
    else if (letter === '"' || letter === '“' || letter === '”') this.text()
    else if (code > 127) this.beyondAscii(letter)
    else this.push('odd', letter, 1)
  }

  private text(): void {
    const { source, at } = this
    CLOSING_QUOTE.lastIndex = at + 1
    const end = CLOSING_QUOTE.exec(source)
    if (end === null) this.push('odd', source.slice(at), source.length - at)
    else this.push('text', source.slice(at + 1, end.index), end.index + 1 - at)
  }

  private beyondAscii(letter: string): void {
    const { source, at } = this
    const written = WRITTEN.get(letter)
    const raised = written === undefined ? superscript(source, at) : null
    const length = matchLength(NAME, source, at)
    if (written !== undefined) this.push('sign', written, 1)
    else if (letter === '∞') this.push('name', 'inf', 1)
    else if (raised) this.raised(raised)
    else if (length > 0) this.name(length)
    else if (/\s/.test(letter)) {
      this.at += 1
      this.spaced = true
    } else {
      const point = source.codePointAt(at) ?? 0
      this.push('odd', String.fromCodePoint(point), point > 0xffff ? 2 : 1)
    }
  }

  /** `x²` as `x^2`: the caret takes no room in the source. */
  private raised({ text, length }: { text: string; length: number }): void {
    const from = this.at
    const sign = text.startsWith('-') ? 1 : 0
    this.tokens.push({ type: 'sign', text: '^', from, to: from, spaced: false })
    if (sign) this.tokens.push({ type: 'sign', text: '-', from, to: from + 1, spaced: false })
    this.tokens.push({ type: 'number', text: text.slice(sign), from: from + sign, to: from + length, spaced: false })
    this.at = from + length
    this.spaced = false
  }
}
