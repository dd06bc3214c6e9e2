import { dataOf } from '../values/problemData'
import type { KindWord, ProblemData, Told } from '../values/problemData'
import { write } from '../notation/problem'
import type { ProblemFix } from '../notation/problem'

/** Ready corrections for operators on vectors and matrices that do not fit. */

/** Two simple operands with a sign between them. */
const SIMPLE = /^([\p{L}_][\p{L}\p{Nd}_]*|\[.*\])\s*([*·⋅×/÷^])\s*([\p{L}_][\p{L}\p{Nd}_]*|\[.*\])$/u

export function arrayFixes(failed: Told, text: string): readonly ProblemFix[] | null {
  switch (failed.code) {
    case 'vector-plus-number':
    case 'matrix-exponent':
      return [write(`each(${text})`)]
    case 'vector-argument':
      return argumentFixes(text, dataOf(failed, 'vector-argument')?.count ?? 1)
    case 'wrong-kinds':
      return kindFixes(text, dataOf(failed, 'wrong-kinds'))
    case 'matrix-function':
      return functionFixes(text, dataOf(failed, 'matrix-function')?.whole ?? '')
    case 'vector-product':
    case 'matrix-division':
    case 'shapes-product':
      return operatorFixes(failed, text)
    default:
      return null
  }
}

/** `v^2`, `1/A`: one side is a vector or a matrix, the other is none. */
function kindFixes(text: string, kinds: Readonly<ProblemData['wrong-kinds']> | null): readonly ProblemFix[] | null {
  if (!kinds) return null
  const { sign, left, right } = kinds
  const array = (kind: KindWord): boolean => kind === 'vector' || kind === 'matrix'
  if (sign === '^' && left === 'vector') {
    const squared = /^(.+?)\s*(?:\^\s*2|²)$/u.exec(text)?.[1]
    return [write(`each(${text})`), ...(squared ? [write(`dot(${squared}, ${squared})`)] : [])]
  }
  if (sign !== '/' || !array(right) || array(left)) return null
  const [, top = '', bottom = ''] = /^(.+?)\s*[/÷]\s*(.+)$/u.exec(text) ?? []
  const inverse = /^[\p{L}_][\p{L}\p{Nd}_]*$|^[[(].*[\])]$/u.test(bottom) ? `${bottom}^-1` : `(${bottom})^-1`
  const inverted = top.trim() === '1' ? inverse : `${top}*${inverse}`
  return [...(right === 'matrix' ? [write(inverted)] : []), write(`each(${text})`)]
}

/** `arg(R)` of a vector: between it and the first axis, or of the complex number that it stands for. */
function argumentFixes(text: string, count: number): readonly ProblemFix[] {
  const inner = /^[\p{L}]+\((.*)\)$/u.exec(text)?.[1] ?? text
  const axis = `[1${', 0'.repeat(Math.max(0, count - 1))}]`
  return [write(`angle(${inner}, ${axis})`), write(`arg(phasor(${inner}))`), write(`each(arg(${inner}))`)]
}

function functionFixes(text: string, whole: string): readonly ProblemFix[] {
  const call = /^[a-z]+(\(.*\))$/.exec(text)
  const inner = call?.[1] ?? null
  const named = /^([a-z]+)\(A\)$/.exec(whole)?.[1]
  return [...(inner && named ? [write(`${named}${inner}`)] : []), write(`each(${text})`)]
}

function operatorFixes(failed: Told, text: string): readonly ProblemFix[] | null {
  const match = SIMPLE.exec(text)
  if (!match) return null
  const [, left = '', sign = '', right = ''] = match
  if (failed.code === 'vector-product') {
    const [dot, cross] = [write(`dot(${left}, ${right})`), write(`cross(${left}, ${right})`)]
    const products = sign === '×' ? [cross, dot] : '*·⋅'.includes(sign) ? [dot, cross] : []
    return [...products, write(`each(${text})`)]
  }
  if (failed.code === 'matrix-division')
    return [write(`${right}^-1*${left}`), write(`${left}*${right}^-1`), write(`each(${text})`)]
  // What a transpose would make fit.
  const shapes = dataOf(failed, 'shapes-product')
  const [rowsLeft, colsLeft] = shape(shapes?.left)
  const [rowsRight, colsRight] = shape(shapes?.right)
  return [
    ...(rowsLeft === rowsRight ? [write(`${left}^T*${right}`)] : []),
    ...(colsLeft === colsRight ? [write(`${left}*${right}^T`)] : []),
    ...(rowsLeft === rowsRight && colsLeft === colsRight ? [write(`each(${text})`)] : []),
  ]
}

function shape(text: string | undefined): [number, number] {
  const [rows, cols] = String(text).split(' × ').map(Number)
  return [rows ?? NaN, cols ?? NaN]
}
