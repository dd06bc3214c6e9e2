import { withoutMarks } from '../notation/latex'

/** For tests: the LaTeX of a step as it would be written on one line. */
export function compact(latex: string): string {
  let text = withoutMarks(latex)
  text = text.replace(/\\begin\{array\}\{[r|]*\}/g, '[').replace(/\\begin\{pmatrix\}/g, '[').replace(/\\end\{(?:pmatrix|array)\}/g, ']') // prettier-ignore
  text = text.replace(/\\mathbin|\\left|\\right|\\displaystyle/g, '').replace(/\\(?:mathrm|operatorname|text)\{([^{}]*)\}/g, '$1') // prettier-ignore
  for (let before = ''; before !== text;) {
    before = text
    text = text.replace(/\\d?frac\{((?:[^{}]|\{[^{}]*\})*)\}\{((?:[^{}]|\{[^{}]*\})*)\}/g, (_, a: string, b: string) => `${side(a)}/${side(b)}`) // prettier-ignore
    text = text.replace(/\\sqrt(?:\[(\d)\])?\{((?:[^{}]|\{[^{}]*\})*)\}/g, (_, n: string | undefined, a: string) => `${n ?? ''}√(${a.trim()})`) // prettier-ignore
  }
  return text
    .replace(/\^\{?\{?\}?\\circ\}?/g, '°')
    .replace(/\\cdot/g, '·')
    .replace(/\\times/g, '×')
    .replace(/\\angle/g, '∠')
    .replace(/\\pi/g, 'π')
    .replace(/\\lambda/g, 'λ')
    .replace(/\\Omega/g, 'Ω')
    .replace(/\\parallel/g, '∥')
    .replace(/\\\\/g, ';')
    .replace(/\\[,;]/g, ' ')
    .replace(/&/g, ',')
    .replace(/[{}]/g, '')
    .replace(/\s+/g, ' ')
    .replace(/ ?([°)\],;]) ?/g, '$1 ')
    .replace(/([([]) /g, '$1')
    .replace(/ ([°)\],;])/g, '$1')
    .replace(/ \//g, '/')
    .replace(/\) \^/g, ')^')
    .replace(/√\(\(([^()]*)\)\)/g, '√($1)')
    .trim()
}

function side(text: string): string {
  const plain = text.replace(/[{}]/g, '').trim()
  return /^[\w.°π]+$/.test(plain) ? plain : `(${text.trim()})`
}
