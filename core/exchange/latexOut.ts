import MarkdownIt from 'markdown-it'
import { HELD, holdFormulas } from './noteFormulas'
import type { Block, Entry, Piece, Report } from './report'
import { withoutMarks } from '../notation/latex'
import { texMath, texText } from './texText'

/**
 * A folio as a report in LaTeX that compiles as it is, with nothing but amsmath, amssymb, geometry, graphicx and
 * longtable. What is wider than its column is made narrower; what would become too small to read stands as it is
 * typed, which breaks anywhere.
 */
export function writeLatex(report: Report, pictureOf: (id: string) => string | null): string {
  const { head, answers, blocks } = report
  const about = [head.course, head.sheet, head.date].filter((part) => part !== '').map(flowing)
  const parts = [
    PREAMBLE,
    '\\begin{document}',
    `{\\Large\\bfseries ${flowing(head.title)}\\par}`,
    ...(about.length > 0 ? [`\\medskip ${about.join(' --- ')}\\par`] : []),
    ...(head.names.length > 0 ? [`${head.names.map(flowing).join(', ')}\\par`] : []),
    `\\medskip {\\small\\itshape Conventions: ${texText(report.conventions)}.\\par}`,
    ...(answers.length > 0 ? [answerList(answers)] : []),
    ...groups(blocks).map((group) => groupText(group, report.letter, pictureOf)),
    '\\end{document}',
  ]
  return `${parts.join('\n')}\n`
}

const PREAMBLE = String.raw`\documentclass[11pt]{article}
\usepackage[a4paper,margin=22mm]{geometry}
\usepackage{amsmath}
\usepackage{amssymb}
\usepackage{graphicx}
\usepackage{longtable}
\setlength{\parindent}{0pt}
\setlength{\parskip}{3pt}
\setlength{\tabcolsep}{4pt}
\setcounter{MaxMatrixCols}{60}
\raggedright
\newsavebox{\formula}
\newcommand{\typed}[1]{{\ttfamily\small #1}}
% A formula that is too wide for its column is made narrower; beyond twice the width its text stands instead.
\newcommand{\fit}[2]{%
  \sbox{\formula}{$\displaystyle #1$}%
  \ifdim\wd\formula>2\linewidth \typed{#2}%
  \else\ifdim\wd\formula>\linewidth \resizebox{\linewidth}{!}{\usebox{\formula}}%
  \else \usebox{\formula}\fi\fi}`

/** Entries in a row are one table; notes and plates stand between. */
function groups(blocks: readonly Block[]): readonly (Block | readonly Entry[])[] {
  const found: (Block | Entry[])[] = []
  for (const block of blocks) {
    const last = found.at(-1)
    if (block.kind !== 'entry') found.push(block)
    else if (Array.isArray(last)) last.push(block)
    else found.push([block])
  }
  return found
}

function groupText(
  group: Block | readonly Entry[],
  letter: 'i' | 'j',
  pictureOf: (id: string) => string | null,
): string {
  if (isEntries(group)) return entryTable(group)
  switch (group.kind) {
    case 'note':
      return noteLatex(group.text, letter)
    case 'figure': {
      const picture = pictureOf(group.id)
      const drawn =
        picture === null
          ? ''
          : `\\includegraphics[width=0.8\\linewidth,height=0.4\\textheight,keepaspectratio]{${picture}}\\par\n`
      return `\\begin{center}\n${drawn}\\textbf{Plate ${group.number}.} ${flowing(group.caption)}\\par\n\\end{center}`
    }
    case 'entry':
      return entryTable([group])
  }
}

const isEntries = (group: Block | readonly Entry[]): group is readonly Entry[] => Array.isArray(group)

function entryTable(entries: readonly Entry[]): string {
  const rows = entries.flatMap((entry) => {
    const reading = `(${entry.number}) & ${readingCell(entry)} &`
    if (!isWide(entry)) return [`${reading} ${resultCell(entry)} ${ROW}`]
    return [`${reading} ${ROW}`, `& \\multicolumn{2}{p{0.9\\linewidth}@{}}{${resultCell(entry)}} ${ROW}`]
  })
  return `\\begin{longtable}{@{}r p{0.5\\linewidth} p{0.4\\linewidth}@{}}\n${rows.join('\n')}\n\\end{longtable}`
}

const ROW = '\\tabularnewline[4pt]'

/** A matrix of many columns takes the width of both. */
function isWide({ result }: Entry): boolean {
  return (
    result.kind === 'value' && result.forms.some(({ latex }) => (latex.split('\\\\')[0]?.split('&').length ?? 0) > 5)
  )
}

function readingCell({ reading, source, remark, problem, answer }: Entry): string {
  const label = answer === null ? [] : [`\\fbox{${texText(answer)}}\\ `]
  const read =
    reading !== '' ? fit({ latex: reading, text: source }) : remark !== null && problem === null ? '' : typed(source)
  const said =
    remark === null || remark === '' ? '' : `${read === '' ? '' : '\\newline '}{\\itshape ${flowing(remark)}}`
  return `${label.join('')}${read}${said}`
}

function resultCell({ result, problem, answer }: Entry): string {
  if (problem !== null) return `\\textbf{Error:} ${flowing(problem)}`
  const boxed = (latex: string): string => (answer === null ? latex : `\\boxed{${latex}}`)
  switch (result.kind) {
    case 'none':
      return ''
    case 'words':
      return flowing(result.text)
    case 'check':
      return `${result.pass ? '$\\checkmark$' : '$\\times$'} ${flowing(result.text)}`
    case 'value':
      return result.forms.map((form, k) => fit({ ...form, latex: boxed(`${k > 0 ? '{}= ' : ''}${form.latex}`) })).join(' \\newline ') // prettier-ignore
  }
}

function fit({ latex, text }: Piece): string {
  return `\\fit{${texMath(withoutMarks(latex))}}{${breaking(text)}}`
}

const typed = (text: string): string => `\\typed{${breaking(text)}}`

/** Typed text that may be broken behind every character. */
function breaking(text: string): string {
  return [...text.replace(/\s+/g, ' ')]
    .map((letter) => (letter === ' ' ? ' ' : `${texText(letter)}\\allowbreak `))
    .join('')
}

/** Text that flows: a long word may be broken behind any of its letters. */
function flowing(text: string): string {
  return text
    .split(/([ \n]+)/)
    .map((word) => {
      const tex = texText(word)
      return tex.length <= LONG_WORD ? tex : [...word.normalize('NFC')].map((letter) => `${texText(letter)}\\allowbreak `).join('') // prettier-ignore
    })
    .join('')
}

/** Characters of LaTeX that a word has at most, to be set whole. */
const LONG_WORD = 16

function answerList(answers: Report['answers']): string {
  const rows = answers.map(({ label, entry }) => `\\fbox{${texText(label)}} & ${resultCell({ ...entry, answer: null })} & (${entry.number}) ${ROW}`) // prettier-ignore
  return `\\medskip\\textbf{Answers}\n\\begin{longtable}{@{}l p{0.6\\linewidth} r@{}}\n${rows.join('\n')}\n\\end{longtable}`
}

const markdown = new MarkdownIt({ html: false, linkify: false, breaks: true }).disable('image')
type Token = ReturnType<typeof markdown.parse>[number]

/** A note: its Markdown as LaTeX. Formulas that might not compile stand as they were typed. */
export function noteLatex(text: string, letter: 'i' | 'j'): string {
  const { text: held, formulas } = holdFormulas(text, letter, (latex, own, whole) =>
    latex === null ? typed(whole) : fit({ latex, text: own }),
  )
  const written = (plain: string): string =>
    plain
      .split(/(\uE000\d+\uE001)/)
      .map((part) => (part.startsWith('\uE000') ? (formulas[Number(part.slice(1, -1))] ?? '') : flowing(part)))
      .join('')
  let depth = 0
  const isFlat = (token: Token): boolean => {
    if (token.type === 'list_item_open') return depth > DEEPEST
    if (!LISTS.test(token.type)) return false
    if (token.nesting > 0) depth += 1
    const flat = depth > DEEPEST
    if (token.nesting < 0) depth -= 1
    return flat
  }
  return markdown
    .parse(held, {})
    .filter((token) => !isFlat(token))
    .map((token) => tokenLatex(token, written))
    .join('')
    .trim()
}

/** LaTeX stops at lists in lists in lists: what lies deeper stands as paragraphs. */
const DEEPEST = 3
const LISTS = /^(?:bullet_list|ordered_list|blockquote)_(?:open|close)$/

const SIZES: Readonly<Record<string, string>> = { h1: '\\Large', h2: '\\large' }

function tokenLatex(token: Token, written: (text: string) => string): string {
  switch (token.type) {
    case 'heading_open':
      return `\n\\medskip{${SIZES[token.tag] ?? '\\normalsize'}\\bfseries `
    case 'heading_close':
      return '\\par}\\nopagebreak\n'
    case 'paragraph_close':
      return '\\par\n'
    case 'bullet_list_open':
      return '\n\\begin{itemize}\n'
    case 'bullet_list_close':
      return '\\end{itemize}\n'
    case 'ordered_list_open':
      return '\n\\begin{enumerate}\n'
    case 'ordered_list_close':
      return '\\end{enumerate}\n'
    case 'list_item_open':
      return '\\item '
    case 'blockquote_open':
      return '\n\\begin{quote}\n'
    case 'blockquote_close':
      return '\\end{quote}\n'
    case 'hr':
      return '\n\\medskip\\hrule\\medskip\n'
    case 'fence':
    case 'code_block':
      return `${token.content.replace(/\n$/, '').split('\n').map((line) => typed(line === '' ? ' ' : line)).join('\\par\n')}\\par\n` // prettier-ignore
    case 'inline':
      return (token.children ?? []).map((child) => inlineLatex(child, written)).join('')
    default:
      return ''
  }
}

function inlineLatex(token: Token, written: (text: string) => string): string {
  switch (token.type) {
    case 'text':
      return written(token.content)
    case 'code_inline':
      return typed(token.content.replace(HELD, ' '))
    case 'strong_open':
      return '\\textbf{'
    case 'em_open':
      return '\\emph{'
    case 'strong_close':
    case 'em_close':
      return '}'
    case 'softbreak':
    case 'hardbreak':
      return '\\newline '
    default:
      return ''
  }
}
