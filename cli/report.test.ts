import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import * as fc from 'fast-check'
import MarkdownIt from 'markdown-it'
import { FolioEvaluator } from '#core/evaluate/folio'
import { writeLatex } from '#core/exchange/latexOut'
import { inertNote, writeMarkdown } from '#core/exchange/markdownOut'
import { writePlain } from '#core/exchange/plainLines'
import { makeReport } from '#core/exchange/report'
import type { Report, ReportSource } from '#core/exchange/report'
import { isSafeMath, texText } from '#core/exchange/texText'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { asking } from '#core/oracles.testing'
import { lineView } from '#core/views/lineView'
import { DEMO_FOLIOS } from '../server/db/demo'
import { shoreCable } from '../server/db/shoreCable'
import { dataFrom } from '../shared/enclosure'
import type { FolioFile } from '../shared/folio'

/** A folio with its report. */
function reported(folio: FolioFile): { report: Report; lines: readonly ReportSource[] } {
  const conventions = { ...DEFAULT_CONVENTIONS, ...folio.conventions }
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(conventions)
  const lines = folio.lines.map((line, k) => ({ ...line, id: String(k) }))
  evaluator.setLines(lines.map(({ id, source, note }) => ({ id, source: note ? `# ${source.replace(/\s+/g, ' ')}` : source }))) // prettier-ignore
  for (const enclosure of folio.enclosures ?? []) {
    const data = dataFrom(enclosure, shoreCable().numbers)
    if (data) evaluator.enclosures.put(enclosure.name, enclosure.block, data)
  }
  evaluator.update()
  const viewOf = (id: string) => {
    const result = evaluator.result(id)
    return result && lineView(result, conventions)
  }
  const head = {
    title: folio.title,
    course: 'Circuits & machines',
    sheet: '3',
    date: '2026-11-27',
    names: ['A. Student'],
  }
  return { report: makeReport(head, conventions, lines, viewOf), lines }
}

const latexOf = (folio: FolioFile): string => writeLatex(reported(folio).report, () => null)
const markdownOf = (folio: FolioFile): string => {
  const { report, lines } = reported(folio)
  return writeMarkdown(report, lines, () => null)
}

/** Entries, remarks, notes and titles of the worst sort. */
const hostileText = fc
  .array(
    fc.oneof(
      fc.constantFrom(
        '\\', '{', '}', '~', '^', '#', '$', '%', '&', '_', '^^41', '\\end{document}', '\\input{/etc/passwd}', '\\\\[5pt]',
        '$\\frac{1}{2}$', '$\\frac{1}$', '$x^$', '$\\left( x$', '$a_b_c$', '$\\undefined$', '$$x = 1$$', '`', '```', '*', '**',
        '[a](javascript:alert(1))', '<script>alert(1)</script>', '<img src=x onerror=alert(1)>', '![x](http://a.b/c.png)', '- ', '1. ',
        '> ', '---', '# ', 'Größe', 'łódź', 'ñ', 'Ω', 'µ', '°', '−', '∠', '≈', '中文', '🙂', '\u202e', '\u0007', '\n', '\n\n', ' ',
        'word', 'x'.repeat(90), '3+4j', '"text"', '\t', '|', '&amp;', '\u00a0',
      ),
      fc.string({ unit: 'grapheme', maxLength: 6 }),
    ),
    { maxLength: 12 },
  )
  .map((parts) => parts.join('')) // prettier-ignore

const entries = fc.oneof(
  { weight: 3, arbitrary: fc.constantFrom(
    'Z = 3 + 4j', 'alpha_1 = 5', 'A = [[1, 2j], [3, 4]]', 'det(A)', 'f = 1 to 100 per decade 3', '|Z| ~~ 5.0', '1/0', '0/0',
    '"a_b % c & d # e $ f ^ g ~ h \\ i { j }"', 'x_{y}', 'unknown s', 's^2 + 1', '"Größe 中"', 'sum(k for k = 1 to 9)', 'g(x) = x^2',
    'long = 1' + ' + 12345.678'.repeat(40), 'nest = ' + 'sqrt(1 + '.repeat(20) + '2' + ')'.repeat(20), '1' + '/(1+1'.repeat(12) + ')'.repeat(12),
    'M = [[1/(r+c+sqrt(2)) for c = 1 to 14] for r = 1 to 14]', 'identity(30)', 'Z_very_long_name_of_a_value = 5∠30°', '5 5', 'eigenvalues([[0, 1], [-1, 0]])',
  ) },
  hostileText.map((text) => text.replace(/\n/g, ' ')),
) // prettier-ignore

const hostileFolios = fc
  .record({
    title: hostileText.map((text) => text.trim().slice(0, 200) || 'x'),
    lines: fc.array(
      fc.oneof(
        fc.record({ source: entries }),
        fc.record({ source: fc.tuple(entries, hostileText).map(([e, r]) => `${e} # ${r.replace(/\n/g, ' ')}`) }),
        fc.record({ source: hostileText, note: fc.constant(true as const) }),
      ),
      { minLength: 1, maxLength: 12 },
    ),
  })
  .map((folio): FolioFile => ({ ...folio, conventions: {} }))

asking(['LaTeX', 'pdftotext'], 'the LaTeX file', () => {
  /** Compiles a file; gives its log, and the text of its pages. */
  function compiled(latex: string): { log: string; text: string } {
    const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-latex-'))
    try {
      writeFileSync(join(folder, 'report.tex'), latex)
      const run = spawnSync('pdflatex', ['-halt-on-error', '-interaction=nonstopmode', 'report.tex'], { cwd: folder, encoding: 'latin1' }) // prettier-ignore
      const log = readFileSync(join(folder, 'report.log'), 'latin1')
      if (run.status !== 0) throw new Error(`${log.slice(-1500)}\n${latex}`)
      const pages = spawnSync('pdftotext', ['-layout', 'report.pdf', '-'], { cwd: folder, encoding: 'utf8' }).stdout
      return { log, text: pages }
    } finally {
      rmSync(folder, { recursive: true })
    }
  }

  /** Points by which boxes are too wide. */
  const overfull = (log: string): number[] =>
    [...log.matchAll(/Overfull \\hbox \(([\d.]+)pt/g)].map((found) => Number(found[1])).filter((by) => by > 10)

  test.each(DEMO_FOLIOS.map((folio) => [folio.title, folio] as const))(
    'of %s compiles, with every line and value',
    (_, folio) => {
      const { report } = reported(folio)
      const { log, text } = compiled(writeLatex(report, () => null))
      expect(overfull(log)).toEqual([])
      // The digits of every single value, in their order; where lines break is the page's business.
      const bare = text.replace(/[^\p{N}.]/gu, '')
      for (const block of report.blocks) {
        if (block.kind !== 'entry') continue
        expect(text).toContain(`(${block.number})`)
        if (block.result.kind !== 'value') continue
        for (const form of block.result.forms)
          if (!form.latex.includes('matrix') && !form.latex.includes('frac') && !form.latex.includes('^{'))
            expect(bare).toContain(form.text.replace(/[^\p{N}.]/gu, '').slice(0, 12))
      }
    },
  )

  const tried = Number(process.env['ORNATE_PHASOR_LATEX'] ?? 12)
  test(
    'of hostile folios compiles, and no box is too wide',
    () => {
      for (const folio of fc.sample(hostileFolios, tried)) expect(overfull(compiled(latexOf(folio)).log)).toEqual([])
    },
    60_000 + tried * 2_000,
  )
})

describe('text for LaTeX', () => {
  it('has the ten specials escaped, known signs in mathematics, other letters by number', () => {
    expect(texText('\\{}~^#$%&_')).toBe('\\textbackslash{}\\{\\}\\textasciitilde{}\\textasciicircum{}\\#\\$\\%\\&\\_')
    expect(texText('5 Ω ∠ 30° µ')).toBe('5 $\\Omega$ $\\angle$ 30${}^{\\circ}$ $\\mu$')
    expect(texText('Größe, łódź, ñ')).toBe("Gr\\\"{o}\\ss{}e, \\l{}\\'{o}d\\'{z}, \\~{n}")
    expect(texText('中')).toBe('(U+4E2D)')
  })

  it.each([
    ['\\frac{1}{2}', true], ['x_1^2 + \\sqrt{2}', true], ['\\mathrm{j}\\omega L', true], ['\\left( x \\right)', true],
    ['\\frac{1}', false], ['x^', false], ['\\left( x', false], ['a_b_c', false], ['\\input{x}', false], ['}{', false],
    ['\\def\\x{1}', false], ['^^41', false], ['x % y', false], ['a & b', false], ['\\sqrt', false], ['\\left', false],
  ])('%s is taken as a formula: %s', (latex, safe) => {
    expect(isSafeMath(latex)).toBe(safe)
  }) // prettier-ignore
})

describe('the Markdown file', () => {
  const commonmark = new MarkdownIt('commonmark')
  const tokensOf = (text: string) => commonmark.parse(text, {}).flatMap((token) => [token, ...(token.children ?? [])])
  /** Formulas as a reader of dollar signs sees them, before and after CommonMark. */
  const formulasIn = (text: string): string[] => [...text.matchAll(/\$([^$\n]+)\$/g)].map((found) => found[1] ?? '')

  it.each(DEMO_FOLIOS.map((folio) => [folio.title, folio] as const))(
    'of %s keeps its formulas through CommonMark',
    (_, folio) => {
      const text = markdownOf(folio)
      const body = text.slice(0, text.indexOf('## Lines as they are typed'))
      const read = tokensOf(body).flatMap((token) => (token.type === 'inline' ? [(token.children ?? []).map((c) => (c.type === 'softbreak' || c.type === 'hardbreak' ? '\n' : c.content)).join('')] : [])).join('\n') // prettier-ignore
      const formulas = formulasIn(body)
      expect(formulas.length).toBeGreaterThan(10)
      expect(formulasIn(read)).toEqual(formulas)
    },
  )

  it('has nothing in it that runs, and its lines as they were typed, whatever the folio', () => {
    fc.assert(
      fc.property(hostileFolios, (folio) => {
        const text = markdownOf(folio)
        const tokens = tokensOf(text)
        expect(tokens.filter((t) => t.type.startsWith('html') || t.type === 'image')).toEqual([])
        for (const token of tokens) {
          const href = token.attrGet('href')
          if (href !== null) expect(String(href)).toMatch(/^(https?:|mailto:|#)/i)
        }
        const fence = tokens.filter((t) => t.type === 'fence').at(-1)
        expect(fence?.content).toBe(writePlain(folio.lines).replace(/\r\n?/g, '\n').replaceAll('\u0000', '\ufffd'))
        expect(tokens.filter((t) => t.type === 'heading_open' && t.tag === 'h1').length).toBeGreaterThan(0)
      }),
      { numRuns: 400 },
    )
  })

  it('of a note that opens something and never closes it lets nothing of what follows into it', () => {
    for (const note of ['```', '~~~\ncode', '- ```', '> ```', '<!--', '    code'])
      expect(tokensOf(`${inertNote(note, 'j')}\n\n## Next`).some((t) => t.tag === 'h2' && t.level === 0)).toBe(true)
  })

  it('of a note keeps what was written, save what could run', () => {
    expect(inertNote('## Answer\nwith $Z = R + j*X$ and **bold**', 'j')).toBe(
      '## Answer\nwith ${Z} = {R} + {\\mathrm{j}} \\cdot {X}$ and **bold**',
    )
    expect(inertNote('<b>x</b>', 'j')).toBe('\\<b\\>x\\</b\\>')
  })
})
