import * as fc from 'fast-check'
import { notePieces, pagesOf } from './pages'

const item = fc.record({ height: fc.integer({ min: 1, max: 400 }), keepWithNext: fc.boolean() })

test('every item stands on one page, in order; a page is full, or one item alone is too tall for it', () => {
  fc.assert(
    fc.property(fc.array(item, { maxLength: 60 }), (items) => {
      const pages = pagesOf(items, 300)
      expect(pages.flatMap(([from, to]) => Array.from({ length: to - from }, (_, k) => from + k))).toEqual(
        items.map((_, k) => k),
      )
      for (const [from, to] of pages) {
        expect(to).toBeGreaterThan(from)
        const height = items.slice(from, to).reduce((sum, i) => sum + i.height, 0)
        expect(height <= 300 || to - from === 1).toBe(true)
      }
    }),
  )
})

test('a heading is not the last of its page while what follows it fits elsewhere', () => {
  const items = [{ height: 250, keepWithNext: false }, { height: 30, keepWithNext: true }, { height: 100, keepWithNext: false }] // prettier-ignore
  expect(pagesOf(items, 300)).toEqual([[0, 1], [1, 3]]) // prettier-ignore
  const headings = Array.from({ length: 20 }, () => ({ height: 40, keepWithNext: true }))
  expect(pagesOf(headings, 100).flat().at(-1)).toBe(20)
})

test('a note comes apart at its paragraphs, and loses nothing', () => {
  expect(notePieces('## Answer\nfirst\n\nsecond\n- a\n- b\n\n```\ncode\n```')).toEqual([
    { text: '## Answer', heading: true },
    { text: 'first', heading: false },
    { text: 'second', heading: false },
    { text: '- a\n- b', heading: false },
    { text: '```\ncode\n```', heading: false },
  ])
  const long = 'A sentence of the note. '.repeat(200).trim()
  const pieces = notePieces(long)
  expect(pieces.length).toBeGreaterThan(3)
  expect(pieces.map((p) => p.text.trim()).join(' ')).toBe(long)
})
