import { formatReal } from '../numbers/decimal'
import type { Node, Statement } from './tree'

/**
 * Literals that can be dragged on a plane: a line whose body is one number
 * written out. The form it was written in is kept when its value changes.
 */
export type LiteralForm =
  | { readonly kind: 'rectangular'; readonly letter: 'i' | 'j'; readonly before: boolean; readonly spaced: boolean }
  | { readonly kind: 'polar'; readonly unit: '°' | ' deg' | ' rad' | ''; readonly inDegrees: boolean }
  /** A vector of two components: `[3, 4]`. */
  | { readonly kind: 'components' }

export interface DraggableLiteral {
  readonly from: number
  readonly to: number
  readonly form: LiteralForm
}

/** The literal that makes up a whole line; `null` where the value is computed. */
export function findLiteral(
  source: string,
  statement: Statement,
  body: Node | null,
  unit: 'deg' | 'rad',
): DraggableLiteral | null {
  if (body === null || (statement.type !== 'define' && statement.type !== 'expression')) return null
  // vec(22∠45°) moves as the number in it.
  const [only] = body.type === 'apply' && body.builtIn && body.name === 'vec' && !body.raised ? body.args : []
  if (only) return findLiteral(source, statement, only, unit)
  // The number in front of a unit; its brackets stay.
  if (body.type === 'united') {
    const inner = unbracketed(body.operand)
    const form = literalForm(source, inner, unit)
    return form ? { from: inner.from, to: inner.to, form } : null
  }
  const form = literalForm(source, body, unit)
  return form ? { from: body.from, to: body.to, form } : null
}

const unbracketed = (node: Node): Node => (node.type === 'group' ? unbracketed(node.inner) : node)

function literalForm(source: string, node: Node, unit: 'deg' | 'rad'): LiteralForm | null {
  if (node.type === 'group') return literalForm(source, node.inner, unit)
  if (node.type === 'polar') return polarForm(source, node, unit)
  if (node.type === 'list')
    return node.entries.length === 2 && node.entries.every(isReal) ? { kind: 'components' } : null
  const parts = rectangularParts(node)
  if (parts === null) return null
  const imaginary = parts.find((p) => p.type === 'literal' && p.letter !== 'none')
  if (imaginary?.type !== 'literal') return null
  const written = source.slice(imaginary.from, imaginary.to)
  return {
    kind: 'rectangular',
    letter: written.includes('i') ? 'i' : 'j',
    before: imaginary.letter === 'before',
    spaced: node.type !== 'sum' || /\s[+-]/.test(source.slice(node.from, node.to)),
  }
}

function polarForm(source: string, node: Extract<Node, { type: 'polar' }>, unit: 'deg' | 'rad'): LiteralForm | null {
  if (unsigned(node.magnitude).type !== 'literal') return null
  const angle = unsigned(node.angle)
  if (angle.type === 'literal') return { kind: 'polar', unit: '', inDegrees: unit === 'deg' }
  if (angle.type === 'dms') return { kind: 'polar', unit: '°', inDegrees: true }
  if (angle.type === 'product' || angle.type === 'constant')
    return { kind: 'polar', unit: unit === 'deg' ? '' : ' rad', inDegrees: unit === 'deg' }
  if (angle.type !== 'postfix' || unsigned(angle.operand).type !== 'literal') return null
  if (angle.sign === 'rad') return { kind: 'polar', unit: ' rad', inDegrees: false }
  return { kind: 'polar', unit: source.slice(angle.from, angle.to).endsWith('°') ? '°' : ' deg', inDegrees: true }
}

function isReal(node: Node): boolean {
  const plain = unsigned(node)
  return plain.type === 'literal' && plain.letter === 'none'
}

function unsigned(node: Node): Node {
  return node.type === 'sign' ? unsigned(node.operand) : node
}

function rectangularParts(node: Node): Node[] | null {
  if (node.type === 'literal') return [node]
  if (node.type === 'sign') return rectangularParts(node.operand)
  if (node.type !== 'sum') return null
  const left = rectangularParts(node.left)
  const right = rectangularParts(node.right)
  const both = left && right && left.length === 1 && right.length === 1
  if (!both) return null
  const imaginary = [...left, ...right].filter((p) => p.type === 'literal' && p.letter !== 'none')
  return imaginary.length === 1 ? [...left, ...right] : null
}

/**
 * The line with its literal set to a new value, in the form it was written in.
 * `resolution` is the smallest step that means something (a pixel of the plane):
 * digits below it are not written.
 */
export function rewriteLiteral(
  source: string,
  literal: DraggableLiteral,
  value: { re: number; im: number },
  resolution: number,
): string {
  const { form } = literal
  const text =
    form.kind === 'polar'
      ? polarText(form, value, resolution)
      : form.kind === 'components'
        ? `[${toStep(value.re, resolution)}, ${toStep(value.im, resolution)}]`
        : rectangularText(form, value, resolution)
  return source.slice(0, literal.from) + text + source.slice(literal.to)
}

function rectangularText(
  form: Extract<LiteralForm, { kind: 'rectangular' }>,
  { re, im }: { re: number; im: number },
  resolution: number,
): string {
  const real = toStep(re, resolution)
  const size = toStep(Math.abs(im), resolution)
  const imaginary = form.before ? `${form.letter}${size}` : `${size}${form.letter}`
  const negative = im < 0 && Number(size) !== 0
  if (!form.spaced) return `${real}${negative ? '-' : '+'}${imaginary}`
  return `${real} ${negative ? '-' : '+'} ${imaginary}`
}

function polarText(
  form: Extract<LiteralForm, { kind: 'polar' }>,
  { re, im }: { re: number; im: number },
  resolution: number,
): string {
  const magnitude = Math.hypot(re, im)
  const radians = magnitude === 0 ? 0 : Math.atan2(im, re)
  const perStep = magnitude === 0 ? 1 : Math.min(1, resolution / magnitude)
  const angle = form.inDegrees ? toStep((radians * 180) / Math.PI, (perStep * 180) / Math.PI) : toStep(radians, perStep)
  return `${toStep(magnitude, resolution)}∠${angle}${form.unit}`
}

/** x to the decimal place just below a step. */
function toStep(x: number, step: number): string {
  const places = Math.ceil(-Math.log10(step))
  if (!Number.isFinite(places)) return formatReal(x, { digits: 6, style: 'plain' })
  if (places < 0) {
    const unit = 10 ** -places
    return formatReal(Math.round(x / unit) * unit, { digits: 16, style: 'plain' })
  }
  const text = x.toFixed(Math.min(places, 20))
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return short === '-0' ? '0' : short
}
