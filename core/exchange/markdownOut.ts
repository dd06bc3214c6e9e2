import MarkdownIt from 'markdown-it'
import { HELD, holdFormulas } from './noteFormulas'
import { writePlain } from './plainLines'
import type { Block, Entry, Report, ReportSource } from './report'
import { withoutMarks } from './texText'

/**
 * A folio as a report in CommonMark, mathematics between dollar signs. CommonMark itself knows no dollar signs: it
 * would take escapes and underscores out of a formula, so formulas are written without what it takes.
 */
export function writeMarkdown(
  report: Report,
  lines: readonly ReportSource[],
  pictureOf: (id: string) => string | null,
): string {
  const { head, answers } = report
  const about = [head.course, head.sheet, head.date, head.names.join(', ')].filter((part) => part !== '')
  const parts = [
    `# ${escapeMarkdown(head.title)}`,
    ...(about.length > 0 ? [about.map(escapeMarkdown).join(' · ')] : []),
    `*${escapeMarkdown(`Conventions: ${report.conventions}.`)}*`,
    ...(answers.length > 0 ? ['## Answers', answers.map(({ label, entry }) => `- **${escapeMarkdown(label)}**: ${shortResult(entry)} (line ${entry.number})`).join('\n')] : []), // prettier-ignore
    ...report.blocks.map((block) => blockText(block, report.letter, pictureOf)),
    '## Lines as they are typed',
    fenced(writePlain(lines)),
  ]
  return `${parts.join('\n\n')}\n`
}

/** One line or note by itself. */
export function blockMarkdown(block: Block, letter: 'i' | 'j'): string {
  return blockText(block, letter, () => null)
}

function blockText(block: Block, letter: 'i' | 'j', pictureOf: (id: string) => string | null): string {
  switch (block.kind) {
    case 'note':
      return inertNote(block.text, letter)
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

function shortResult(entry: Entry): string {
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

function fenced(text: string): string {
  const marks = '`'.repeat(Math.max(3, longestRun(text) + 1))
  return `${marks}text\n${text}${text.endsWith('\n') ? '' : '\n'}${marks}`
}

function longestRun(text: string): number {
  return Math.max(0, ...[...text.matchAll(/`+/g)].map(([run]) => run.length))
}

const commonmark = new MarkdownIt('commonmark')

/** What stands for the text behind a note. */
const NEXT = 'the next paragraph'

/** A note as it was written, its formulas in LaTeX; nothing in it runs, whoever reads it. */
export function inertNote(text: string, letter: 'i' | 'j'): string {
  const { text: held, formulas } = holdFormulas(text, letter, (latex) => (latex === null ? null : math(latex)))
  const safe = isInert(held) ? held : held.split('\n').map(escapeMarkdown).join('\n')
  return safe.replace(HELD, (_, k: string) => formulas[Number(k)] ?? '').trim()
}

/** No HTML, no picture, no link but to the web or to an address; what follows begins anew. */
function isInert(text: string): boolean {
  const all = commonmark.parse(`${text}\n\n${NEXT}`, {})
  const last = all.at(-2)
  if (last?.type !== 'inline' || last.content !== NEXT || last.level !== 1) return false
  const tokens = all.flatMap((token) => [token, ...(token.children ?? [])])
  return tokens.every((token) => {
    if (token.type === 'html_block' || token.type === 'html_inline' || token.type === 'image') return false
    const href = token.attrGet('href')
    return href === null || /^(?:https?:|mailto:|#)/i.test(String(href))
  })
}
