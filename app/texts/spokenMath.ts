/**
 * Mathematics as a screen reader can say it, from the LaTeX that the core writes: "3 over 4", "root of 2",
 * "matrix: row 1: 2, 3". What is not known is said as it is written.
 */

interface Reader {
  readonly text: string
  at: number
}

const WORDS: Readonly<Record<string, string>> = {
  cdot: 'times', times: 'times', angle: 'angle', pm: 'plus or minus', parallel: 'in parallel with', approx: 'is about',
  sim: 'becomes', Leftrightarrow: 'means', neq: 'is not', leq: 'is at most', geq: 'is at least', infty: 'infinity', bmod: 'modulo',
  circ: 'degrees', to: 'to', iff: 'if and only if', le: 'is at most', ge: 'is at least', cdots: 'and so on', dots: 'and so on',
  sum: 'sum', prod: 'product', square: 'something', leftrightarrow: 'and', quad: ',', ne: 'is not', colon: ':', ',': '', ';': '',
} // prettier-ignore

const FRACTIONS: ReadonlySet<string> = new Set(['frac', 'dfrac', 'tfrac'])
/** What stands in their braces is a word. */
const PLAIN: ReadonlySet<string> = new Set(['operatorname', 'text', 'mathrm', 'mathit', 'mathsf'])
const PASSED: ReadonlySet<string> = new Set(['mathrm', 'operatorname', 'text', 'mathit', 'mathsf', 'mathbin', 'underbrace', 'displaystyle', 'left', 'right', 'Bigl', 'Bigr', 'bigl', 'bigr', 'lVert', 'rVert', 'lfloor', 'rfloor', 'bar', 'hat', 'lvert', 'rvert']) // prettier-ignore

export function spokenMath(latex: string): string {
  const said = saidUntil({ text: latex, at: 0 }, '')
  return said
    .replace(/\s+/g, ' ')
    .replace(/ ([,;:.])/g, '$1')
    .trim()
}

/** What stands until a closing brace, or the end. */
function saidUntil(from: Reader, until: string): string {
  let said = ''
  while (from.at < from.text.length) {
    const sign = from.text[from.at] ?? ''
    if (sign === until) {
      from.at += 1
      break
    }
    said += ` ${piece(from)}`
  }
  return said
}

/** One argument: a group in braces, or one piece. */
function argument(from: Reader): string {
  while (from.text[from.at] === ' ') from.at += 1
  if (from.text[from.at] !== '{') return piece(from)
  from.at += 1
  return saidUntil(from, '}').trim()
}

/** The text of a group in braces, as it is. */
function raw(from: Reader): string {
  if (from.text[from.at] !== '{') return piece(from)
  const end = from.text.indexOf('}', from.at)
  const inner = from.text.slice(from.at + 1, end < 0 ? undefined : end)
  from.at = end < 0 ? from.text.length : end + 1
  return inner
}

function piece(from: Reader): string {
  const sign = from.text[from.at] ?? ''
  from.at += 1
  switch (sign) {
    case '\\':
      return command(from)
    case '{': {
      return saidUntil(from, '}')
    }
    case '^':
      return raised(argument(from))
    case '_':
      return argument(from)
    case '-':
      return 'minus'
    case '+':
      return 'plus'
    case '=':
      return 'equals'
    case '&':
      return ','
    case '|':
      return 'bar'
    case '(':
      return 'open'
    case ')':
      return 'close'
    default: {
      if (!/[\d.]/.test(sign)) return sign
      // Figures are said as one number.
      const rest = /^[\d.]*/.exec(from.text.slice(from.at))?.[0] ?? ''
      from.at += rest.length
      return `${sign}${rest}`
    }
  }
}

function raised(exponent: string): string {
  const plain = exponent.trim()
  if (plain === 'degrees') return plain
  if (plain === '2') return 'squared'
  if (plain === '*') return 'conjugate'
  if (plain === 'T') return 'transposed'
  if (plain === 'H') return 'conjugate transposed'
  return `to the power ${plain}`
}

function command(from: Reader): string {
  const name = /^(?:[a-zA-Z]+|.)/.exec(from.text.slice(from.at))?.[0] ?? ''
  from.at += name.length
  if (FRACTIONS.has(name)) {
    const [top, bottom] = [argument(from), argument(from)]
    return /^[\w.]+$/.test(top) && /^[\w.]+$/.test(bottom) ? `${top} over ${bottom}` : `${top} all over ${bottom} end of fraction` // prettier-ignore
  }
  if (name === 'sqrt') {
    if (from.text[from.at] === '[') {
      from.at += 1
      const order = saidUntil(from, ']').trim()
      return `root of order ${order} of ${argument(from)} end of root`
    }
    return `root of ${argument(from)} end of root`
  }
  if (name === 'htmlData' || name === 'htmlClass') {
    raw(from)
    return argument(from)
  }
  if (name === 'begin') return matrix(from)
  if (PLAIN.has(name)) return raw(from)
  if (PASSED.has(name)) return ''
  return WORDS[name] ?? name
}

/** `\begin{pmatrix} … \end{pmatrix}`: row by row. */
function matrix(from: Reader): string {
  const kind = raw(from)
  if (from.text[from.at] === '{') raw(from)
  const end = from.text.indexOf(`\\end{${kind}}`, from.at)
  const inner = from.text.slice(from.at, end < 0 ? from.text.length : end)
  // A matrix inside a matrix ends first: such are not written by the core.
  from.at = end < 0 ? from.text.length : end + `\\end{${kind}}`.length
  const rows = inner.split('\\\\').map((row, k) => `row ${k + 1}: ${spokenMath(row)}`)
  return `matrix: ${rows.join('; ')}; end of matrix`
}
