import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { factorNumber, parsed, unitForSize } from '../units/unit'

/**
 * Values of several units in one diagram: each unit has a scale of its own, equal in both directions, drawn to one
 * origin, as voltages and currents are in the trade. The plane is counted in the first unit that is met.
 */

/** What coordinates are in. */
export interface InUnit {
  /** One for all units of one dimension. */
  readonly key: string
  /** The coherent unit, as the scale is labelled with. */
  readonly text: string
  /** How many coherent units one of the units is that the value is written in. */
  readonly factor: number
}

export interface UnitScale {
  readonly key: string
  readonly text: string
  /** Plane units for one coherent unit. */
  readonly scale: number
  /** The unit that grid and bar are counted in, and how many coherent ones it is. */
  readonly shown: string
  readonly factor: number
}

/** Plain numbers. */
export const NO_UNIT: InUnit = { key: '', text: '', factor: 1 }

/** The longest value of each further unit, as a share of the longest of the first. */
const SHARE = 0.72

/** The scales of the units among some points; those of `held` stay as they are, so that a drag changes none. */
export function unitScales(
  points: readonly { readonly unit: InUnit; readonly at: Complex }[],
  held: ReadonlyMap<string, number>,
  axisName = '',
): readonly UnitScale[] {
  const extents = new Map<string, { readonly text: string; readonly extent: number }>()
  for (const { unit, at } of points) {
    const before = extents.get(unit.key)
    const size = C.abs(at)
    const extent = Math.max(before?.extent ?? 0, Number.isFinite(size) ? size : 0)
    extents.set(unit.key, { text: before?.text ?? unit.text, extent })
  }
  const [first] = extents.values()
  return [...extents].map(([key, { text, extent }], k): UnitScale => {
    const usual = k === 0 || extent === 0 || !first || first.extent === 0 ? 1 : (SHARE * first.extent) / extent
    return { key, text, scale: k === 0 ? 1 : (held.get(key) ?? usual), ...countedIn(key, text, extent, axisName) }
  })
}

/** The unit that the name of an axis says, `east / kN`, where it is of this dimension; else the one that fits the values. */
function countedIn(key: string, text: string, extent: number, axisName: string): Pick<UnitScale, 'shown' | 'factor'> {
  const coherent = parsed(text)
  if (!coherent) return { shown: text, factor: 1 }
  const said = parsed(axisName.split(' / ').at(-1)?.trim() ?? '')
  const unit = said && said.measure.dimension.key === key ? said : unitForSize(coherent, extent)
  return { shown: unit.text, factor: factorNumber(unit) }
}

/** A point of a unit where it stands on the plane. */
export function scaledPoint({ re, im }: Complex, scale: number): Complex {
  return { re: re * scale, im: im * scale }
}
