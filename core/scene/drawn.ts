import type { Conventions } from '../format/conventions'
import { formatPolar, formatRectangular, formatSingle } from '../format/readout'
import type { Readout, Twin } from '../format/readout'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import { fromComponents } from '../values/make'
import type { NumberValue, Value, VectorValue } from '../values/types'
import type { Role } from './scene'

/** What of a value stands on a plane, with the texts of both forms. Plain data that crosses threads. */
export interface Drawn {
  /** Poles are crosses and zeros rings; everything else an arrow. */
  readonly role: Role
  /** True where a plate that shows whatever is kept shows it, too; other values are put on by hand. */
  readonly usual: boolean
  readonly entries: readonly DrawnEntry[]
  /** True for a sweep of complex numbers: its locus is drawn from its points. */
  readonly locus?: boolean
}

export interface DrawnEntry extends C.Complex {
  /** Which entry of a vector, counted from 1; `null` where the value is one mark. */
  readonly index: number | null
  readonly rectangular: string
  readonly polar: string
}

/** Entries of a vector that are drawn at most. */
export const ENTRIES_DRAWN = 400

/** What a value is on a plane; `null` where it is nothing there. */
export function drawnOf(value: Value, body: Node | null, conventions: Conventions, shown: Readout): Drawn | null {
  if (value.kind === 'number') {
    if (!C.isFinite(value)) return null
    return {
      role: 'arrow',
      usual: value.complex,
      entries: [entryOf(value, null, conventions, shown.shape === 'twin' ? shown : null)],
    }
  }
  if (value.kind === 'sweep')
    return value.of === 'number' ? { role: 'arrow', usual: value.complex, entries: [], locus: true } : null
  return value.kind === 'vector' ? vectorOf(value, body, conventions, shown) : null
}

function vectorOf(value: VectorValue, body: Node | null, conventions: Conventions, shown: Readout): Drawn | null {
  const texts = shown.shape === 'list' ? shown.entries : []
  const numbers = value.items.flatMap((item) => (item.kind === 'number' && C.isFinite(item) ? [item] : []))
  if (numbers.length !== value.items.length || numbers.length === 0 || numbers.length > ENTRIES_DRAWN) return null
  const role = roleOf(body)
  const complex = numbers.some((z) => z.complex)
  const [x, y] = numbers
  if (role === 'arrow' && !value.list && !complex && numbers.length === 2 && x && y)
    return { role, usual: true, entries: [components(x, y, value, conventions)] }
  return {
    role,
    usual: complex || role !== 'arrow',
    entries: numbers.map((z, k) => entryOf(z, k + 1, conventions, texts[k])),
  }
}

/** The functions whose results are poles and zeros of something. */
const CROSSES = new Set(['eigenvalues', 'roots', 'poles'])

function roleOf(body: Node | null): Role {
  if (body?.type === 'group') return roleOf(body.inner)
  if (body?.type !== 'apply' || !body.builtIn) return 'arrow'
  if (CROSSES.has(body.name)) return 'cross'
  return body.name === 'zeros' ? 'ring' : 'arrow'
}

/** With both texts as the readout has them already, where it has them. */
function entryOf(
  z: NumberValue,
  index: number | null,
  conventions: Conventions,
  shown: Twin | string | null | undefined,
): DrawnEntry {
  const twin = typeof shown === 'object' ? shown : null
  const rectangular = twin?.rectangular ?? (z.complex ? formatRectangular : formatSingle)(z, conventions)
  return { re: z.re, im: z.im, index, rectangular, polar: twin?.polar ?? formatPolar(z, conventions) }
}

/** A vector of two components as the arrow it is. */
function components(x: NumberValue, y: NumberValue, value: VectorValue, conventions: Conventions): DrawnEntry {
  const as = fromComponents(x, y)
  return {
    re: x.re,
    im: y.re,
    index: null,
    rectangular: formatSingle(value, conventions),
    polar: formatPolar(as, conventions),
  }
}
