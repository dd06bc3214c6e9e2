import katex from 'katex'
import MarkdownIt from 'markdown-it'
import type { MarkdownIt as Instance } from 'markdown-it'
import { withoutMarks } from '#core/notation/latex'
import { noteMath } from '#core/views/noteMath'

/** Notes: Markdown with mathematics between dollar signs. Raw HTML and images are text. */

function drawMath(text: string, letter: 'i' | 'j', display: boolean): string {
  const ownMath = noteMath(text, letter)
  // What a note brings is never trusted: no links, no classes, no files.
  return katex.renderToString(ownMath === null ? text : withoutMarks(ownMath), {
    throwOnError: false,
    trust: false,
    strict: false,
    maxExpand: 200,
    maxSize: 20,
    displayMode: display,
    output: 'htmlAndMathml',
  })
}

/** `$…$` inside a line and `$$…$$` as a row of its own; no blank next to the inner side of a single dollar. */
function mathPlugin(md: Instance): void {
  md.inline.ruler.before('escape', 'math', (state, silent) => {
    if (state.src.charAt(state.pos) !== '$') return false
    const match = /^\$\$([^$]+)\$\$|^\$(?!\s)([^$\n]*[^\s$\n])\$(?!\d)/.exec(state.src.slice(state.pos))
    if (!match) return false
    if (!silent) {
      const token = state.push('math', '', 0)
      token.content = (match[1] ?? match[2] ?? '').trim()
      token.meta = { display: match[1] !== undefined }
    }
    state.pos += match[0].length
    return true
  })
  md.renderer.rules.math = (tokens, index, _options, env) => {
    const token = tokens[index]
    const display = (token?.meta as { display?: boolean } | null)?.display === true
    return drawMath(token?.content ?? '', env?.letter === 'i' ? 'i' : 'j', display)
  }
}

const markdown = new MarkdownIt({ html: false, linkify: false, breaks: true }).use(mathPlugin)
markdown.disable('image')
markdown.renderer.rules.link_open = (tokens, index, options, _env, self) => {
  tokens[index]?.attrSet('rel', 'noopener noreferrer')
  tokens[index]?.attrSet('target', '_blank')
  return self.renderToken(tokens, index, options)
}

const kept = new Map<string, string>()
const KEPT_MOST = 300

/** A note as HTML; remembered, since notes are drawn again and again. */
export function drawNote(text: string, letter: 'i' | 'j'): string {
  const key = `${letter}${text}`
  const known = kept.get(key)
  if (known !== undefined) return known
  const html = markdown.render(text, { letter })
  if (kept.size >= KEPT_MOST) kept.delete(kept.keys().next().value ?? '')
  kept.set(key, html)
  return html
}
