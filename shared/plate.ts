import { idSchema as id, list, or, some, text, whole, z } from './schema'
import { CIRCLES_MOST } from '#core/scene/circles'
import { CURVE_PARTS, SORTS } from '#core/scene/curve'
import type { CurvePart } from '#core/scene/curve'
import { DASH_NAMES, HUES, ROLES } from '#core/scene/scene'
import { answerId, answerPlace } from '#core/views/answerIds'

/** A figure of the folio: what it shows, and how. */
const finite = z.number().check(z.refine(Number.isFinite))
const VALUES_MOST = 5_000
const ids = list(id, VALUES_MOST)

/** How a value is dressed, as far as the student has set it; one dress for the whole folio. */
export const dressSchema = z.strictObject({
  hue: z.optional(whole(0, HUES - 1)),
  dash: z.optional(z.enum(DASH_NAMES)),
  width: z.optional(z.number().check(z.gte(0.5), z.lte(6))),
  /** Arrow, point, cross or ring. */
  role: z.optional(z.enum(ROLES)),
  /** False where its label is left out. */
  label: z.optional(z.boolean()),
})
export type Dress = z.infer<typeof dressSchema>

const circleSchema = z.strictObject({ re: finite, im: finite, radius: finite.check(z.positive()) })
const rangeSchema = z.strictObject({ left: finite, right: finite, bottom: finite, top: finite })
export type PlaneRange = z.infer<typeof rangeSchema>

/** Most values of a family. */
export const FAMILY_MOST = 8
/** Several values for the first number of a line, as they are written. */
const familySchema = z.strictObject({ line: id, values: list(text(40), FAMILY_MOST) })

/** What the plates of both kinds have. */
const common = {
  id,
  caption: text(200),
  /** True where every usual value is on it but those `off`; else only those `on`. */
  all: or(z.boolean(), true),
  off: ids,
  on: or(ids, []),
  dress: or(z.record(id, dressSchema), {}),
  /** The same for several values of a number of one line. */
  family: or(z.nullable(familySchema), null),
}

export const planePlateSchema = z.strictObject({
  ...common,
  kind: z.literal('plane'),
  /** Names of the axes with their units, as the student writes them. */
  re: text(60),
  im: text(60),
  /** Names and numbers of the axes. */
  axes: or(z.boolean(), true),
  grid: z.enum(['rectangular', 'polar', 'damping', 'sampled', 'none']),
  unitCircle: z.boolean(),
  circles: or(list(circleSchema, CIRCLES_MOST), []),
  conjugates: z.boolean(),
  /** Each tip dropped to both axes. */
  components: or(z.boolean(), false),
  labels: z.boolean(),
  /** The branches of a root locus for gains below 0. */
  below: or(z.boolean(), false),
  /** Lines whose sums are laid tip to tail. */
  chains: or(list(id, 40), []),
  /** The part of the plane that is shown; fitted to the values where it is not set. */
  range: or(z.nullable(rangeSchema), null),
})
/** The vertical axis of one sort of quantity: its name, scale and range, as far as they are set. */
const curveAxisSchema = z.strictObject({
  name: or(text(60), ''),
  log: or(z.boolean(), false),
  low: or(z.nullable(finite), null),
  high: or(z.nullable(finite), null),
})
export type CurveAxis = z.infer<typeof curveAxisSchema>

export const curvePlateSchema = z.strictObject({
  ...common,
  kind: z.literal('curve'),
  /** What is drawn of complex values. */
  parts: some(z.enum(CURVE_PARTS), CURVE_PARTS.length),
  /** The line whose sweep runs along the horizontal axis; what the values run along where none is set. */
  over: or(z.nullable(id), null),
  x: z.strictObject({
    name: or(text(60), ''),
    /** By decades where the range goes so, unless it is set. */
    scale: or(z.enum(['auto', 'linear', 'log']), 'auto'),
    low: or(z.nullable(finite), null),
    high: or(z.nullable(finite), null),
  }),
  number: curveAxisSchema,
  dB: curveAxisSchema,
  angle: curveAxisSchema,
  /** Quantities of different sorts one above the other instead of on two axes. */
  stacked: or(z.boolean(), false),
  legend: or(z.boolean(), true),
  grid: or(z.boolean(), true),
  style: or(z.enum(['line', 'points', 'both']), 'line'),
  extremes: or(z.boolean(), false),
  /** Margins of loops and figures of step responses. */
  figures: or(z.boolean(), true),
  /** The straight lines that a frequency response comes near to, with their corners. */
  straight: or(z.boolean(), false),
  /** Heights whose crossings are marked, by sort. */
  levels: or(list(z.strictObject({ sort: z.enum(SORTS), height: finite }), 8), []),
})
export type CurvePlate = z.infer<typeof curvePlateSchema>

export const plateSchema = z.discriminatedUnion('kind', [planePlateSchema, curvePlateSchema])
export type PlanePlate = z.infer<typeof planePlateSchema>
export type Plate = z.infer<typeof plateSchema>

/** Most plates of a folio. */
export const PLATES_MOST = 60

/** The identifier of the plate that a folio without plates shows. */
export const FIRST_PLATE = 'plate-one'

/** A new plane plate: the first of a folio shows whatever is kept, the others what is put on them. */
export function freshPlate(plateId: string, all = true): PlanePlate {
  return {
    id: plateId,
    kind: 'plane',
    caption: all ? 'Kept complex values' : 'Untitled',
    all,
    off: [],
    on: [],
    dress: {},
    re: 'Re',
    im: 'Im',
    axes: true,
    grid: 'rectangular',
    unitCircle: false,
    circles: [],
    family: null,
    conjugates: false,
    components: false,
    labels: true,
    below: false,
    chains: [],
    range: null,
  }
}

/** A new curve plate of these lines. */
export function freshCurve(
  plateId: string,
  parts: readonly CurvePart[],
  on: readonly string[],
  caption: string,
): CurvePlate {
  const axis: CurveAxis = { name: '', log: false, low: null, high: null }
  return {
    id: plateId,
    kind: 'curve',
    caption,
    all: false,
    off: [],
    on: [...on],
    dress: {},
    parts: [...parts],
    family: null,
    over: null,
    x: { name: '', scale: 'auto', low: null, high: null },
    number: axis,
    dB: axis,
    angle: axis,
    stacked: parts.length > 1,
    legend: true,
    grid: true,
    style: 'line',
    extremes: false,
    figures: true,
    straight: false,
    levels: [],
  }
}

/** True where a value is on a plate. */
export function isOn(plate: Plate, line: string, usual: boolean): boolean {
  return plate.all && usual ? !plate.off.includes(line) : plate.on.includes(line)
}

/** The plate with a value put on, or taken off. */
export function withValue<P extends Plate>(plate: P, line: string, usual: boolean, on: boolean): P {
  const without = (list: readonly string[]): string[] => list.filter((other) => other !== line)
  if (plate.all && usual) return { ...plate, off: on ? without(plate.off) : [...without(plate.off), line] }
  return { ...plate, on: on ? [...without(plate.on), line] : without(plate.on) }
}

/** The plate with its lines under other identifiers; lines that have none are left out. */
export function relinked<P extends Plate>(plate: P, ids: ReadonlyMap<string, string>): P {
  // The answers of a line go with it.
  const other = (id: string): string | undefined => {
    const place = ids.has(id) ? null : answerPlace(id)
    const line = place && ids.get(place.line)
    return line ? answerId(line, place.k) : ids.get(id)
  }
  const linked = (list: readonly string[]): string[] => list.flatMap((line) => other(line) ?? [])
  const dress = Object.fromEntries(
    Object.entries(plate.dress).flatMap(([line, set]) => {
      const now = other(line)
      return now === undefined ? [] : [[now, set]]
    }),
  )
  const own =
    plate.kind === 'plane' ? { chains: linked(plate.chains) } : { over: plate.over && (other(plate.over) ?? null) }
  const line = plate.family && other(plate.family.line)
  const family = plate.family && line !== undefined && line !== null ? { ...plate.family, line } : null
  return { ...plate, family, off: linked(plate.off), on: linked(plate.on), dress, ...own }
}
