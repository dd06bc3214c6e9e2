import type { Block, Entry } from './report'
import { withoutMarks } from '../notation/latex'

/**
 * Lines and notes as CommonMark, mathematics between dollar signs. CommonMark itself knows no dollar signs: it would
 * take escapes and underscores out of a formula, so formulas are written without what it takes.
 */

/** How a note is written. */
export type NoteWriter = (text: string, letter: 'i' | 'j') => string

/** A note as plain text, word for word. */
export const plainNote: NoteWriter = (text) => text.split('\n').map(escapeMarkdown).join('\n').trim()

export function blockMarkdown(
  block: Block,
  letter: 'i' | 'j',
  note: NoteWriter = plainNote,
  pictureOf: (id: string) => string | null = () => null,
): string {
  switch (block.kind) {
    case 'note':
      return note(block.text, letter)
    case 'figure': {
      const picture = pictureOf(block.id)
      const caption = `**Plate ${block.number}.** ${escapeMarkdown(block.caption)}`
      return picture === null ? caption : `![Plate ${block.number}](${encodeURI(picture)})\n\n${caption}`
    }
    case 'entry':
      return entryText(block)
  }
}

function entryText(entry: Entry): string {
  const number = `**(${entry.number})**`
  const label = entry.answer === null ? '' : ` **Answer ${escapeMarkdown(entry.answer)}:**`
  const reading = entry.reading === '' ? (entry.remark !== null && entry.problem === null ? '' : codeSpan(entry.source)) : math(entry.reading) // prettier-ignore
  const remark = entry.remark === null ? '' : ` *${escapeMarkdown(entry.remark)}*`
  const first = [number + label, reading].filter((part) => part !== '').join(' ') + remark
  const rest = entry.problem === null ? resultLines(entry) : [`**Error:** ${escapeMarkdown(entry.problem)}`]
  // A backslash at the end of a line breaks it.
  return [first, ...rest].join('\\\n')
}

function resultLines({ result }: Entry): string[] {
  switch (result.kind) {
    case 'none':
      return []
    case 'words':
      return [escapeMarkdown(result.text)]
    case 'check':
      return [`${result.pass ? '✓' : '✗'} ${escapeMarkdown(result.text)}`]
    case 'value':
      return [result.forms.map(({ latex }) => math(latex)).join(' = ')]
  }
}

export function shortResult(entry: Entry): string {
  return entry.problem === null ? resultLines(entry).join(' ') : escapeMarkdown(entry.problem)
}

/** A formula in words that CommonMark leaves alone, and every reader of LaTeX knows. */
export function math(latex: string): string {
  return `$${plainCommands(withoutMarks(latex)).trim()}$`
}

const WORDS: ReadonlyMap<string, string> = new Map([
  ['\\\\', '\\cr '],
  ['\\,', '\\thinspace '],
  ['\\;', '\\enspace '],
  ['\\:', '\\thinspace '],
  ['\\!', ''],
  ['\\{', '\\lbrace '],
  ['\\}', '\\rbrace '],
  ['\\|', '\\Vert '],
  ['\\ ', '\\thinspace '],
])

function plainCommands(latex: string): string {
  const named = latex.replace(/\\[\\,;:!{}| ]/g, (sign) => WORDS.get(sign) ?? sign)
  return (
    named
      .replace(
        /\\text\{((?:[^{}\\]|\\[#$%&_])*)\}/g,
        (_, text: string) => `\\text{${text.replace(/\\([#$%&_])/g, '$1').replace(/[*_`<&[\]$\\]/g, ' ')}}`,
      ) // prettier-ignore
      .replace(/\*/g, '\\ast ')
      .replace(/</g, '\\lt ')
      .replace(/\[/g, '\\lbrack ')
      .replace(/\]/g, '\\rbrack ')
      .replace(/`/g, "'")
      // An underscore behind a letter or digit opens nothing.
      // The underscore of a name is a sign of its own in text.
      .replace(/\\_/g, '\\text{\\textunderscore}')
      .replace(/(^|[^A-Za-z0-9])_/g, '$1\\relax_')
      .replace(/\\([#$%&_])/g, (_, sign: string) => (sign === '%' ? '\\text{percent}' : ' '))
  )
}

/** Text of which CommonMark makes the same text. */
export function escapeMarkdown(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/[\\`*_[\]<>~$&|!]/g, '\\$&')
    .replace(/^[-+=#]/, '\\$&')
    .replace(/^(\d+)([.)])/, '$1\\$2')
}

/** A text in backticks, more of them than any run in it. */
function codeSpan(text: string): string {
  const plain = text.replace(/\s+/g, ' ')
  const marks = '`'.repeat(longestRun(plain) + 1)
  return `${marks} ${plain} ${marks}`
}

export function fenced(text: string): string {
  const marks = '`'.repeat(Math.max(3, longestRun(text) + 1))
  return `${marks}text\n${text}${text.endsWith('\n') ? '' : '\n'}${marks}`
}

function longestRun(text: string): number {
  return Math.max(0, ...[...text.matchAll(/`+/g)].map(([run]) => run.length))
}
