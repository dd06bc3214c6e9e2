import { withoutMarks } from '../notation/latex'

/** For tests: the LaTeX of a step as it would be written on one line. */
export function compact(latex: string): string {
  let text = withoutMarks(latex)
  text = text.replace(/\\begin\{array\}\{[r|]*\}/g, '[').replace(/\\begin\{pmatrix\}/g, '[').replace(/\\end\{(?:pmatrix|array)\}/g, ']') // prettier-ignore
  text = text.replace(/\\mathbin|\\left|\\right|\\displaystyle/g, '').replace(/\\(?:mathrm|operatorname|text)\{([^{}]*)\}/g, '$1') // prettier-ignore
  text = withArguments(text, /\\d?frac(?=\{)/, 2, (_, [a = '', b = '']) => `${side(a)}/${side(b)}`)
  text = withArguments(text, /\\sqrt(?:\[(\d)\])?(?=\{)/, 1, (order, [a = '']) => `${order}√(${a.trim()})`)
  return text
    .replace(/\^\{?\{?\}?\\circ\}?/g, '°')
    .replace(/\\cdot/g, '·')
    .replace(/\\times/g, '×')
    .replace(/\\angle/g, '∠')
    .replace(/\\pi/g, 'π')
    .replace(/\\sum/g, '∑')
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

/** Each command with its arguments in braces, written otherwise; the inner ones first. */
function withArguments(
  text: string,
  command: RegExp,
  count: number,
  write: (found: string, args: readonly string[]) => string,
): string {
  // prettier-ignore
  const found = command.exec(text)
  if (!found) return text
  let at = found.index + found[0].length
  const args: string[] = []
  for (let k = 0; k < count; k += 1) {
    const from = at
    let depth = 0
    do {
      if (text[at] === '{') depth += 1
      if (text[at] === '}') depth -= 1
      at += 1
    } while (depth > 0 && at < text.length)
    args.push(withArguments(text.slice(from + 1, at - 1), command, count, write))
  }
  const rest = withArguments(text.slice(at), command, count, write)
  return `${text.slice(0, found.index)}${write(found[1] ?? '', args)}${rest}`
}

function side(text: string): string {
  const plain = text.replace(/[{}]/g, '').trim()
  return /^[\w.°π]+$/.test(plain) ? plain : `(${text.trim()})`
}
