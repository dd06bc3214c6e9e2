import type { Complex } from '../numbers/complex'

/** The marks of a plane: what stands where, and in which dress. No drawing happens here. */

/** How a value is drawn: as an arrow, a point, or as the cross and the ring of poles and zeros. */
export const ROLES = ['arrow', 'point', 'cross', 'ring'] as const
export type Role = (typeof ROLES)[number]

/** Line styles by name, as dash patterns in pixels. */
export const DASHES = {
  solid: [],
  dashed: [9, 4],
  dotted: [2, 3],
  'dash-dot': [9, 3, 2, 3],
} as const satisfies Readonly<Record<string, readonly number[]>>
export type DashName = keyof typeof DASHES
export const DASH_NAMES = Object.keys(DASHES) as DashName[]

/** The dress of a value: hue with its marker, line style and thickness. The same in ledger, index and plates. */
export interface Ink {
  /** 0 to 7; also the marker. */
  readonly hue: number
  readonly dash: readonly number[]
  readonly width: number
}

/** One mark on a plane. A vector gives one for each entry, or one arrow where it is two components. */
export interface PlaneMark extends Complex {
  /** The line, and behind a dot the entry. */
  readonly id: string
  /** The line the value belongs to. */
  readonly line: string
  /** `Z`, `p[2]`. */
  readonly label: string
  readonly role: Role
  readonly ink: Ink
  readonly labelled: boolean
  /** True where the tip can be dragged: the line is a literal. */
  readonly draggable: boolean
  readonly rectangular: string
  readonly polar: string
  /** Where an arrow begins, in plane units; the origin where nothing is said. */
  readonly tail?: Complex
  /** The line whose number moves it along its branch. */
  readonly slides?: string
  /** Plane units for one of the units that its line is written in; 1 of plain numbers. */
  readonly scale?: number
  /** Which unit it is of, where values of several stand on the plane. */
  readonly unit?: string
  /** A term of a chain or a point of a sweep: drawn lighter, and not the value of a line itself. */
  readonly term?: boolean
}

export const ORIGIN: Complex = { re: 0, im: 0 }

export const HUES = 8
/** What the hues are called, in their order. */
export const HUE_NAMES = ['teal', 'rust', 'violet', 'ochre', 'green', 'blue', 'plum', 'slate'] as const

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
  return PATTERNS[(slot + 3 * Math.floor(slot / HUES)) % PATTERNS.length] ?? []
}

/** Line styles by slot, so that colour is never the only code. */
const PATTERNS: readonly (readonly number[])[] = [
  DASHES.solid,
  DASHES.dashed,
  DASHES.dotted,
  DASHES['dash-dot'],
  [14, 4],
  [5, 3],
  [9, 3, 2, 3, 2, 3],
  [1, 5],
]

/** What a student has set of a value's dress; the rest follows from its slot. */
export interface InkChoice {
  readonly hue?: number | undefined
  readonly dash?: DashName | undefined
  readonly width?: number | undefined
}

export const USUAL_WIDTH = 2

export function inkOf(slot: number, chosen: InkChoice = {}): Ink {
  return {
    hue: chosen.hue ?? hueOf(slot),
    dash: chosen.dash ? DASHES[chosen.dash] : dashOf(slot),
    width: chosen.width ?? USUAL_WIDTH,
  }
}

export const sameInk = (a: Ink | undefined, b: Ink): boolean =>
  a !== undefined && a.hue === b.hue && a.width === b.width && a.dash.join() === b.dash.join()

/** A marker as its outline on a circle of radius 1 about the origin; one for each hue. */
export const MARKERS: readonly (readonly (readonly [number, number])[] | 'disc')[] = [
  'disc',
  polygon(4, 45),
  polygon(3, -90),
  polygon(4, 0),
  polygon(3, 90),
  polygon(5, -90),
  star(5),
  polygon(6, 0),
]

function polygon(corners: number, turn: number): (readonly [number, number])[] {
  return Array.from({ length: corners }, (_, k) => onCircle(turn + (360 * k) / corners, 1.15))
}

function star(rays: number): (readonly [number, number])[] {
  return Array.from({ length: 2 * rays }, (_, k) => onCircle(-90 + (180 * k) / rays, k % 2 === 0 ? 1.3 : 0.55))
}

function onCircle(degrees: number, radius: number): readonly [number, number] {
  const radians = (degrees * Math.PI) / 180
  return [radius * Math.cos(radians), radius * Math.sin(radians)]
}
