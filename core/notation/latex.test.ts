import katex from 'katex'
import { reckon } from '../testing'
import { nameToLatex } from './latex'

/** The reading without its spans and spaces. */
function reading(...lines: string[]): string {
  let latex = reckon(lines).at(-1)!.view.reading
  for (;;) {
    const next = latex.replace(/\\html(?:Data|Class)\{[^}]*\}\{((?:[^{}]|\{(?:[^{}]|\{[^{}]*\})*\})*)\}/, '$1')
    if (next === latex) return latex.replace(/\s+/g, ' ').trim()
    latex = next
  }
}

describe('the reading shows how a line was understood', () => {
  test.each([
    ['V = 230∠0°', 'V = 230 \\mathbin{\\angle} 0^{\\circ}'],
    ['230/_0', '230 \\mathbin{\\angle} 0{}^{\\circ}'],
    ['(1+2)/3', '\\dfrac{1 + 2}{3}'],
    ['-2^2', '-{2}^{2}'],
    ['(-2)^2', '{\\left( -2 \\right)}^{2}'],
    ['2*3', '2 \\cdot 3'],
    ['4.7k', '4.7\\,\\mathrm{k}'],
    ['1.2e-3', '1.2 \\cdot 10^{-3}'],
    ['3 + 4j', '3 + 4\\mathrm{j}'],
    ['3 + j4', '3 + \\mathrm{j}4'],
    ['|3+4j|', '\\left| 3 + 4\\mathrm{j} \\right|'],
    ['abs(3)', '\\left| 3 \\right|'],
    ['conj(3)', '\\overline{3}'],
    ['sqrt(2)', '\\sqrt{2}'],
    ['root(8, 3)', '\\sqrt[3]{8}'],
    ['sin^2(30°)', '\\operatorname{sin}^{2}\\left( 30^{\\circ} \\right)'],
    ['asin(0.5)', '\\operatorname{arcsin}\\left( 0.5 \\right)'],
    ['2 || 3', '2 \\parallel 3'],
    ['1 <= 2', '1 \\leq 2'],
    ['2 ~~ 2.0', '2 \\approx 2.0'],
    ['2 ~~ 2.0 within 1%', '2 \\approx 2.0\\;\\text{within}\\;1\\,\\%'],
    ['2pi', '2 \\, \\pi'],
    ['f(w) = 2w', 'f(w) = 2 \\, w'],
    ['"50% #1"', '\\text{“50\\% \\#1”}'],
  ])('%s', (entry, latex) => expect(reading(entry)).toBe(latex))

  test('implicit products bind from the left, and it shows', () => {
    expect(reading('x = 3', '1/2x')).toBe('\\dfrac{1}{2} \\, x')
    expect(reading('1/4j')).toBe('\\dfrac{1}{4\\mathrm{j}}')
  })
  test('a term that was read in the unit of the conventions shows it', () => {
    expect(reading('a = 10', 'sin(a + 20)')).toContain('\\left( a + 20 \\right){}^{\\circ}')
  })
})

test('names: Greek letters, subscripts', () => {
  expect(nameToLatex('omega')).toBe('\\omega')
  expect(nameToLatex('ω')).toBe('\\omega')
  expect(nameToLatex('I1')).toBe('I_{1}')
  expect(nameToLatex('Z_lamp')).toBe('Z_{\\mathrm{lamp}}')
  expect(nameToLatex('speed')).toBe('\\mathit{speed}')
  expect(nameToLatex('phi_0')).toBe('\\phi_{0}')
})

test('every leaf carries its place in the source', () => {
  const latex = reckon(['V = 230∠30°'])[0]!.view.reading
  expect(latex).toContain('span=0-1')
  expect(latex).toContain('span=4-7')
})

test('KaTeX can set every reading of a wide mix of lines', () => {
  const lines = ['x_1 = 3', 'ünï = 2', 'x₁ = 2', 'a = "te{x}t \\\\ ^_ ~"', 'a', 'not 1 < 2', '36°52\'12"', '5!', '(1+j)^*', '√2', '-5∠-pi/4', 'eps', 'inf', '1/(2/(3/4))', '10u'] // prettier-ignore
  for (const { view } of reckon(lines)) {
    expect(view.problem).toBeNull()
    expect(() => katex.renderToString(view.reading, { throwOnError: true, strict: false, trust: true })).not.toThrow()
  }
})
