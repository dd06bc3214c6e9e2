import type { Complex } from '../numbers/complex'

/** What is on a plate: one mark for each value, in the order of the lines. */
export interface PlaneMark extends Complex {
  /** The line the value belongs to. */
  readonly id: string
  readonly label: string
  /** Which of the eight hues, markers and line styles it has. */
  readonly hue: number
  /** True where the tip can be dragged: the line is a literal. */
  readonly draggable: boolean
  readonly rectangular: string
  readonly polar: string
}

export const HUES = 8

/**
 * Gives each value on a plate a hue: one it keeps while it stays, a free one
 * when it comes, the least used when all are taken.
 */
export function assignHues(ids: readonly string[], before: ReadonlyMap<string, number>): Map<string, number> {
  const hues = new Map<string, number>()
  const used = new Array<number>(HUES).fill(0)
  for (const id of ids) {
    const hue = before.get(id)
    if (hue === undefined) continue
    hues.set(id, hue)
    used[hue] = (used[hue] ?? 0) + 1
  }
  for (const id of ids) {
    if (hues.has(id)) continue
    const least = Math.min(...used)
    const hue = used.indexOf(least)
    hues.set(id, hue)
    used[hue] = least + 1
  }
  return hues
}

/** Line styles as dash patterns, one for each hue, so that colour is never the only code. */
export const DASHES: readonly (readonly number[])[] = [
  [],
  [9, 4],
  [2, 3],
  [9, 3, 2, 3],
  [14, 4],
  [5, 3],
  [9, 3, 2, 3, 2, 3],
  [1, 5],
]

/** Names of the marks at the tips, as Chart.js knows them. */
export const MARKERS = ['circle', 'triangle', 'rect', 'rectRot', 'star', 'cross', 'rectRounded', 'crossRot'] as const
export type Marker = (typeof MARKERS)[number]
