import type { Complex } from '../numbers/complex'
import type { Link } from './chain'
import type { Drawn } from './drawn'
import type { Ink, PlaneMark, Role } from './scene'
import { scaledPoint } from './unitScales'
import type { InUnit } from './unitScales'

/** From the values on a plate to its marks. */

export interface ShownValue {
  readonly line: string
  readonly name: string
  readonly drawn: Drawn
  readonly ink: Ink
  readonly role: Role | undefined
  readonly labelled: boolean
  readonly draggable: boolean
  /** The line of the gain that moves it, where it is on a locus of roots. */
  readonly slides?: string | undefined
  /** The unit of what is drawn, and its scale on the plane. */
  readonly unit: InUnit
  readonly scale: number
}

export function marksOf(values: readonly ShownValue[]): PlaneMark[] {
  return values.flatMap(({ line, name, drawn, ink, role, labelled, draggable, slides, unit, scale }) =>
    drawn.entries.map((entry): PlaneMark => ({
      id: entry.index === null ? line : `${line}.${entry.index}`,
      line,
      label: entry.index === null ? name : `${name}[${entry.index}]`,
      role: role ?? drawn.role,
      ink,
      labelled,
      draggable: (draggable && entry.index === null) || slides !== undefined,
      ...(slides === undefined ? {} : { slides }),
      ...scaledPoint(entry, scale),
      scale: scale * unit.factor,
      unit: unit.key,
      rectangular: entry.rectangular,
      polar: entry.polar,
    })),
  )
}

/** The arrows of a sum, tip to tail; a term that is a kept name wears that name's dress. */
export function chainMarks(
  line: string,
  links: readonly Link[],
  usual: Ink,
  inkOfName: (name: string) => Ink | undefined,
  texts: (z: Complex) => { readonly rectangular: string; readonly polar: string },
): PlaneMark[] {
  return links.flatMap(({ label, tail, tip }, k): PlaneMark[] => {
    const ink = inkOfName(label)
    // A value that is on the plate and begins at the origin lies there already.
    if (ink && k === 0) return []
    const sides = texts({ re: tip.re - tail.re, im: tip.im - tail.im })
    const at = { id: `${line}+${k}`, line, label, re: tip.re, im: tip.im, tail }
    return [{ ...at, ...sides, role: 'arrow', ink: ink ?? usual, labelled: true, draggable: false, term: true }]
  })
}
