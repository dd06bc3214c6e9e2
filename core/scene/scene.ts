import type { Complex } from '../numbers/complex'

/** What is on a plate: one mark for each value, in the order of the lines. */
export interface PlaneMark extends Complex {
  /** The line the value belongs to. */
  readonly id: string
  readonly label: string
  /** Which hue and line style it has; see {@link hueOf} and {@link dashOf}. */
  readonly slot: number
  /** True where the tip can be dragged: the line is a literal. */
  readonly draggable: boolean
  readonly rectangular: string
  readonly polar: string
}

export const HUES = 8

/**
 * Gives each value on a plate a slot: the one it has while it stays, the lowest
 * free one when it comes. A slot is a hue with a line style; beyond the eight
 * hues a hue comes again with another line style.
 */
export function assignSlots(ids: readonly string[], before: ReadonlyMap<string, number>): Map<string, number> {
  const slots = new Map<string, number>()
  const taken = new Set<number>()
  for (const id of ids) {
    const slot = before.get(id)
    if (slot === undefined) continue
    slots.set(id, slot)
    taken.add(slot)
  }
  let free = 0
  for (const id of ids) {
    if (slots.has(id)) continue
    while (taken.has(free)) free += 1
    slots.set(id, free)
    taken.add(free)
  }
  return slots
}

/** The hue of a slot, 0 to 7. */
export function hueOf(slot: number): number {
  return slot % HUES
}

/** The dash pattern of a slot. */
export function dashOf(slot: number): readonly number[] {
  return DASHES[(slot + 3 * Math.floor(slot / HUES)) % DASHES.length] ?? []
}

/** Line styles as dash patterns, so that colour is never the only code. */
const DASHES: readonly (readonly number[])[] = [
  [],
  [9, 4],
  [2, 3],
  [9, 3, 2, 3],
  [14, 4],
  [5, 3],
  [9, 3, 2, 3, 2, 3],
  [1, 5],
]
