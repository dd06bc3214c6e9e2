import * as fc from 'fast-check'
import MarkdownIt from 'markdown-it'
import { inertNote } from './markdownOut'

/** A reader that believes everything: HTML, every address, links between notes. */
const trusting = new MarkdownIt({ html: true, linkify: true })
trusting.validateLink = () => true

/** What would be alive in a text: HTML, pictures, links that are not to the web or to an address. */
function live(markdown: string): string[] {
  const tokens = trusting.parse(markdown, {}).flatMap((token) => [token, ...(token.children ?? [])])
  return tokens.flatMap((token) => {
    const href = token.attrGet('href')
    const bad = ['html_block', 'html_inline', 'image'].includes(token.type)
    return bad || (href !== null && !/^(?:https?:|mailto:|#)/i.test(String(href)))
      ? [`${token.type} ${href ?? ''}`]
      : []
  })
}

const hostile = fc
  .array(
    fc.constantFrom(
      '[a](javascript:alert(1))', '[a](<javascript:alert(1)>)', '[a](&#106;avascript:alert(1))', '[a](java\tscript:alert(1))',
      '<javascript:alert(1)>', '[x]: javascript:alert(1)', '[x]', '[x][x]', '![p][x]', '[y]: <data:text/html,x> "t"', '[y]',
      '$<img src=x onerror=alert(1)>$', '$a<b onclick=alert(1)>c$', '$[a](javascript:alert(1))$', '$$<svg onload=alert(1)>$$',
      '$\\text{<b onmouseover=alert(1)>}$', '\\text{<b onmouseover=alert(1)>}', '<a href="javascript:alert(1)">k</a>', '<!--', '-->',
      '`', '```', '~~~', '$', '$$', '\n', '\n\n', '> ', '- ', '    ', '\t', 'word ', 'https://skerry.example/ ', 'https://skerry.example/', 'www.skerry.example/', '<b onclick=alert(1)>',
    ),
    { minLength: 1, maxLength: 6 },
  )
  .map((parts) => parts.join('')) // prettier-ignore

test('whatever notes say, and whatever one says of another, nothing in the whole is alive', () => {
  fc.assert(
    fc.property(fc.array(hostile, { minLength: 1, maxLength: 4 }), (notes) => {
      expect(live(notes.map((note) => inertNote(note, 'j')).join('\n\n'))).toEqual([])
    }),
    { numRuns: 3_000 },
  )
})

test('a bare address before a tag does not bring it to life', () => {
  expect(live(inertNote('$$https://skerry.example/ $$<svg onload=alert(1)>$$', 'j'))).toEqual([])
  expect(live(inertNote('https://skerry.example/<svg onload=alert(1)>', 'j'))).toEqual([])
})

test.each([
  'A *lamp* with its choke, **fed** over the cable.',
  '## The lamp\n\n- one\n- two\n\n    code stays code',
  '[the chart](https://skerry.example/chart) and [us](mailto:us@skerry.example)',
  '`javascript:alert(1)` is only a text',
])('what is harmless stays as it was written: %s', (note) => expect(inertNote(note, 'j')).toBe(note))

test('a formula goes out as LaTeX', () => {
  expect(inertNote('So $Z = R + j*w*L$ it is', 'j')).toBe('So ${Z} = {R} + {\\mathrm{j}} \\cdot {w} \\cdot {L}$ it is')
})
