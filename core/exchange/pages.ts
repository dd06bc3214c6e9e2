import MarkdownIt from 'markdown-it'

/** How what stands on the sheet is divided among its pages. */

export interface Placed {
  readonly height: number
  /** A heading, or whatever else must not be the last of its page. */
  readonly keepWithNext: boolean
}

/** The pages as ranges of items: no item is broken, headings stay with what follows. */
export function pagesOf(items: readonly Placed[], room: number): readonly (readonly [from: number, to: number])[] {
  const pages: (readonly [number, number])[] = []
  let from = 0
  while (from < items.length) {
    let to = from
    let height = 0
    while (to < items.length && (to === from || height + (items[to]?.height ?? 0) <= room)) {
      height += items[to]?.height ?? 0
      to += 1
    }
    // What has to stay with the next item goes over with it, unless that would leave the page empty.
    let end = to
    while (end < items.length && end > from && items[end - 1]?.keepWithNext) end -= 1
    const last = end > from ? end : to
    pages.push([from, last])
    from = last
  }
  return pages
}

const markdown = new MarkdownIt()
/** Letters of one paragraph that stay together. */
const LONGEST_PIECE = 1_200

export interface NotePiece {
  readonly text: string
  readonly heading: boolean
}

/** A note in pieces that may stand on different pages: its paragraphs, lists and headings. */
export function notePieces(text: string): readonly NotePiece[] {
  const rows = text.split(/\r\n|\r|\n/)
  const pieces: NotePiece[] = []
  for (const token of markdown.parse(text, {})) {
    if (token.level !== 0 || !token.map || token.nesting < 0) continue
    const [from, to] = token.map
    const own = rows.slice(from, to).join('\n').trimEnd()
    if (own.trim() === '') continue
    const heading = token.type === 'heading_open'
    if (token.type !== 'paragraph_open') pieces.push({ text: own, heading })
    else for (const part of parts(own)) pieces.push({ text: part, heading })
  }
  return pieces
}

/** A long paragraph at its sentences, or at blanks. */
function parts(text: string): string[] {
  const found: string[] = []
  let rest = text
  while (rest.length > LONGEST_PIECE) {
    const head = rest.slice(0, LONGEST_PIECE)
    const stop = Math.max(head.lastIndexOf('. '), head.lastIndexOf('\n'))
    const blank = head.lastIndexOf(' ')
    const at = stop > LONGEST_PIECE / 2 ? stop + 1 : blank > 0 ? blank : LONGEST_PIECE
    found.push(rest.slice(0, at))
    rest = rest.slice(at).trimStart()
  }
  return [...found, rest]
}
