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

/** Reads as the most trusting reader does: what this one would not make a link of, another would. */
const commonmark = new MarkdownIt('commonmark')
commonmark.validateLink = () => true

/** One that makes links of bare addresses: it takes a backslash behind one into the address, and what it escaped lives. */
const linking = new MarkdownIt({ html: true, linkify: true })
linking.validateLink = () => true

/** What stands for the text behind a note. */
const NEXT = 'the next paragraph'

/** A note as it was written, its formulas in LaTeX; nothing in it runs, whoever reads it. */
export function inertNote(text: string, letter: 'i' | 'j'): string {
  const { text: held, formulas } = holdFormulas(text, letter, (latex) => (latex === null ? null : math(latex)))
  // Without the blanks around it: four of them before a line make code of what is live without them.
  const bare = held.trim()
  const safe = isInert(bare) ? bare : plainNote(bare, letter).trim()
  const whole = safe.replace(HELD, (_, k: string) => formulas[Number(k)] ?? '')
  // With its slashes escaped an address takes nothing behind it along.
  return isInert(whole, linking) ? whole : whole.replaceAll('://', ':\\/\\/')
}

/** No HTML, no picture, no link but to the web or to an address, nothing for others to link to; what follows begins anew. */
function isInert(text: string, reader = commonmark): boolean {
  const env: NonNullable<Parameters<typeof commonmark.parse>[1]> = {}
  const all = reader.parse(`${text}\n\n${NEXT}`, env)
  // What it defines, another note could use.
  if (Object.keys(env.references ?? {}).length > 0) return false
  const last = all.at(-2)
  if (last?.type !== 'inline' || last.content !== NEXT || last.level !== 1) return false
  const tokens = all.flatMap((token) => [token, ...(token.children ?? [])])
  return tokens.every((token) => {
    if (token.type === 'html_block' || token.type === 'html_inline' || token.type === 'image') return false
    const href = token.attrGet('href')
    return href === null || /^(?:https?:|mailto:|#)/i.test(String(href))
  })
}
