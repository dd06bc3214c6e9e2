import MarkdownIt from 'markdown-it'
import { blockMarkdown, escapeMarkdown, fenced, math, plainNote, shortResult } from './markdownBlock'
import { HELD, holdFormulas } from './noteFormulas'
import { writePlain } from './plainLines'
import type { Report, ReportSource } from './report'

/** A folio as a report in CommonMark, mathematics between dollar signs. */
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
    ...report.blocks.map((block) => blockMarkdown(block, report.letter, inertNote, pictureOf)),
    '## Lines as they are typed',
    fenced(writePlain(lines)),
  ]
  return `${parts.join('\n\n')}\n`
}

const commonmark = new MarkdownIt('commonmark')

/** What stands for the text behind a note. */
const NEXT = 'the next paragraph'

/** A note as it was written, its formulas in LaTeX; nothing in it runs, whoever reads it. */
export function inertNote(text: string, letter: 'i' | 'j'): string {
  const { text: held, formulas } = holdFormulas(text, letter, (latex) => (latex === null ? null : math(latex)))
  const safe = isInert(held) ? held : plainNote(held, letter)
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
