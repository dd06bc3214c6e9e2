import { drawNote } from './markdown'

const html = (text: string): string => drawNote(text, 'j')

test('headings, lists and stress', () => {
  expect(html('## Given')).toBe('<h2>Given</h2>\n')
  expect(html('- one\n- **two**')).toContain('<li><strong>two</strong></li>')
})

test('mathematics between dollar signs, in our notation or in LaTeX', () => {
  expect(html('so $a/b$ is')).toContain('class="mfrac"')
  expect(html('so $\\frac{a}{b}$ is')).toContain('class="mfrac"')
  expect(html('$$\\sqrt{2}$$')).toContain('katex-display')
})

test.each(['it costs 5 $ or 6 $', 'from $5 to $6', '$ a $'])('%s is no mathematics', (text) =>
  expect(html(text)).not.toContain('katex'),
)

test.each([
  ['<script>alert(1)</script>', '<script'],
  ['<img src=x onerror=alert(1)>', '<img'],
  ['![x](https://example.org/x.png)', '<img'],
  ['[x](javascript:alert(1))', 'href'],
  ['$\\href{javascript:alert(1)}{x}$', 'href='],
  ['$\\htmlData{span=0-1}{x}$', 'data-span'],
  ['$\\includegraphics{x.png}$', '<img'],
])('%s brings nothing that runs or loads', (text, part) => expect(html(text)).not.toContain(part))

test('mathematics that explodes is cut off', () => expect(html('$\\def\\a{\\a\\a}\\a$')).toContain('katex-error'))

test('links open in a tab of their own that knows nothing of this one', () =>
  expect(html('[a](https://example.org)')).toContain('rel="noopener noreferrer" target="_blank"'))
