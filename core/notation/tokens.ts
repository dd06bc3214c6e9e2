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

const NUMBER = /^(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/
const NAME = /^[\p{L}_][\p{L}\p{Nd}_₀-₉]*/u
/** The circuit writer's `j4.5`, `j1e-3`: a letter before digits that no name could hold. */
const CIRCUIT = /^[ij]\d+(?:\.\d*(?:[eE][+-]?\d+)?|[eE][+-]\d+)(?:[TGMkmunpfµμ](?![\p{L}\p{Nd}_]))?/u
const DMS = /^(\d+)(?:°|\s*deg\b)\s*(\d+(?:\.\d+)?)['′](?:\s*(\d+(?:\.\d+)?)["″])?/
const SIGNS = [
  '~~', '||', '==', '!=', '<=', '>=', '/_',
  '+', '-', '*', '/', '^', '(', ')', '[', ']', ',', '=', '<', '>', '|', '!', '°', '∠', '∥', '≈', '√', '.', ';', '@',
] // prettier-ignore

/** Written signs and the sign of the notation that each stands for. */
const WRITTEN = table<string>({
  '×': '*', '·': '*', '⋅': '*', '∙': '*', '÷': '/', '−': '-', '–': '-', '∕': '/',
  '≤': '<=', '≥': '>=', '≠': '!=', '≈': '~~', '∥': '||', '∠': '/_', '′': "'", '‖': '||',
}) // prettier-ignore

const SUPERSCRIPTS = table<string>({
  '⁰': '0', '¹': '1', '²': '2', '³': '3', '⁴': '4', '⁵': '5', '⁶': '6', '⁷': '7', '⁸': '8', '⁹': '9', '⁻': '-',
}) // prettier-ignore

function superscript(rest: string): { text: string; length: number } | null {
  let text = ''
  for (const letter of rest) {
    const plain = SUPERSCRIPTS[letter]
    if (plain === undefined || (plain === '-' && text !== '')) break
    text += plain
  }
  return text === '' || text === '-' ? null : { text, length: text.length }
}

/** The tokens of a line, the last one of type `end`. Never fails: what is not understood is `odd`. */
export function tokenize(source: string): readonly Token[] {
  const tokens: Token[] = []
  let at = 0
  let spaced = true
  const push = (type: TokenType, text: string, length: number): void => {
    tokens.push({ type, text, from: at, to: at + length, spaced })
    at += length
    spaced = false
  }
  while (at < source.length) {
    const letter = source.charAt(at)
    if (/\s/.test(letter)) {
      at += 1
      spaced = true
      continue
    }
    const rest = source.slice(at)
    if (letter === '#') {
      push('remark', rest.slice(1).trim(), rest.length)
      continue
    }
    if (letter === '"' || letter === '“' || letter === '”') {
      const end = /["”]/.exec(rest.slice(1))
      if (end === null) push('odd', rest, rest.length)
      else push('text', rest.slice(1, end.index + 1), end.index + 2)
      continue
    }
    if (/[\d.]/.test(letter)) {
      const dms = DMS.exec(rest)
      if (dms) {
        push('dms', `${dms[1]} ${dms[2]} ${dms[3] ?? '0'}`, dms[0].length)
        continue
      }
      const number = NUMBER.exec(rest)
      if (number) {
        push('number', number[0], number[0].length)
        continue
      }
    }
    const raised = superscript(rest)
    if (raised) {
      const from = at
      tokens.push({ type: 'sign', text: '^', from, to: from, spaced: false })
      if (raised.text.startsWith('-')) {
        tokens.push({ type: 'sign', text: '-', from, to: from + 1, spaced: false })
        tokens.push({
          type: 'number',
          text: raised.text.slice(1),
          from: from + 1,
          to: from + raised.length,
          spaced: false,
        })
      } else tokens.push({ type: 'number', text: raised.text, from, to: from + raised.length, spaced: false })
      at += raised.length
      spaced = false
      continue
    }
    const circuit = CIRCUIT.exec(rest)
    if (circuit) {
      push('name', circuit[0], circuit[0].length)
      continue
    }
    const name = NAME.exec(rest)
    if (name) {
      push('name', name[0], name[0].length)
      continue
    }
    if (letter === '∞') {
      push('name', 'inf', 1)
      continue
    }
    const written = WRITTEN[letter]
    if (written !== undefined) {
      push('sign', written, 1)
      continue
    }
    const sign = SIGNS.find((s) => rest.startsWith(s))
    if (sign !== undefined) push('sign', sign, sign.length)
    else push('odd', String.fromCodePoint(rest.codePointAt(0) ?? 0), (rest.codePointAt(0) ?? 0) > 0xffff ? 2 : 1)
  }
  tokens.push({ type: 'end', text: '', from: source.length, to: source.length, spaced: true })
  return tokens
}
