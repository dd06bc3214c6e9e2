import type { ChartConfiguration } from 'chart.js'
import { heights, sortOf, SORTS } from '#core/scene/curve'
import type { CurveMark, CurvePart, Point, ShownSweep, Sort, StraightLines, SweepData } from '#core/scene/curve'
import { NO_UNIT } from '#core/scene/unitScales'
import { factorNumber, parsed } from '#core/units/unit'
import type { Conventions } from '#core/format/conventions'
import type { Ink } from '#core/scene/scene'
import type { CurvePlate } from '#shared/plate'
import type { Theme } from '~/theme/tokens'

/** The curves of a plate: which there are, what they are called, along what they run. */

/** One curve: a part of a value over what it runs along. */
export interface Curve {
  /** The line, and behind a dot the part. */
  readonly id: string
  readonly line: string
  readonly name: string
  /** Which member of a family it is; empty of what is none. */
  readonly member: string
  /** True of the members beside the values as they stand. */
  readonly beside: boolean
  readonly part: CurvePart
  readonly sort: Sort
  readonly label: string
  /** The label without the member. */
  readonly title: string
  readonly ink: Ink
  readonly x: Float64Array
  readonly y: Float64Array
  /** The kept name of what it runs along, and which point of that each of its points is. */
  readonly along: string | null
  /** What the horizontal axis is called where that has no kept name. */
  readonly axis: string
  readonly turns: boolean
  /** What is known of it, to be marked. */
  readonly marks: readonly CurveMark[]
  readonly straight: StraightLines | null
  /** True where its values are angles themselves. */
  readonly angles: boolean
  readonly decades: boolean
  /** The unit of its heights, and how many coherent units one of it is; that of what it runs along. */
  readonly unit: string
  readonly perUnit: number
  readonly xUnit: string
}

export interface CurveFrame {
  readonly plate: CurvePlate
  readonly curves: readonly Curve[]
  readonly theme: Theme
  readonly conventions: Conventions
  readonly width: number
  readonly height: number
  /** Where the cursors stand, and the point that is read along. */
  readonly cursor: number | null
  readonly fixed: number | null
  readonly along: number | null
  /** The part of the horizontal axis that is in sight; the whole where it is not zoomed. */
  readonly window: { readonly low: number; readonly high: number } | null
  /** True of files and of the sheet: there the members of a family are in the legend, not in the caption. */
  readonly paper?: boolean
}

/** A curve plate as Chart.js wants it. */
export type CurveConfig = ChartConfiguration<'scatter', Point[]>

/** How a part is written before a name. */
export function partLabel(part: CurvePart, name: string, of: SweepData['of'], complex: boolean): string {
  if (of === 'angle' || (!complex && part === 're')) return name
  switch (part) {
    case 're':
      return `re ${name}`
    case 'im':
      return `im ${name}`
    case 'magnitude':
      return `|${name}|`
    case 'dB':
      return `|${name}| in dB`
    case 'angle':
    case 'unwrapped':
      return `arg ${name}`
  }
}

/** The curves of a plate: of every value the parts that are asked for; a real one has no others than itself. */
export function curvesOf(
  plate: CurvePlate,
  sources: readonly ShownSweep[],
  over: { readonly name: string; readonly data: SweepData } | null,
  unit: 'deg' | 'rad',
): Curve[] {
  const turn = unit === 'deg' ? 180 / Math.PI : 1
  // Values of one dimension stand in one unit: that of the first.
  const common = new Map<string, { readonly text: string; readonly factor: number }>()
  let along: string | null = null
  return sources.flatMap(({ line, name, ink, data, member = '', beside = false }, place) => {
    const own = data.in ?? NO_UNIT
    const shared = common.get(own.key) ?? { text: data.unit ?? '', factor: own.factor }
    common.set(own.key, shared)
    const complex = data.im !== null
    const parts = data.of === 'angle' ? plate.parts.filter((p) => p === 'angle' || p === 'unwrapped').slice(0, 1) : plate.parts // prettier-ignore
    const shown = data.of === 'angle' && parts.length === 0 ? (['angle'] as const) : parts
    const fits = over !== null && over.data.x.length === data.x.length
    const base = fits ? over.data.re : data.x
    const turns = fits ? over.data.of === 'angle' : data.turns
    const xUnit = (fits ? over.data.unit : data.xUnit) ?? ''
    along ??= xUnit
    const rate = ratioOf(xUnit, along)
    const x = turns ? base.map((radians) => radians * turn) : rate === 1 ? base : base.map((value) => value * rate)
    const xShown = rate === 1 && xUnit !== along ? xUnit : along
    const titleOf = (part: CurvePart): string => withUnit(partLabel(part, name, data.of, complex), part, shared.text, own.text) // prettier-ignore
    return shown.map((part, k): Curve => ({
      id: member === '' ? `${line}.${part}` : `${line}.${part}.${place}`,
      line,
      name,
      member,
      beside,
      part,
      sort: sortOf(part, data.of),
      label: `${titleOf(part)}${member === '' ? '' : `, ${member}`}`,
      title: titleOf(part),
      // Of one value several parts on one plate differ by their line; members of a family keep theirs.
      ink: k === 0 || member !== '' ? ink : { ...ink, dash: otherDash(ink.dash, k) },
      x,
      y: inCommonUnit(heights(data, part, unit), part, own.factor, shared.factor),
      unit: sortOf(part, data.of) === 'number' ? shared.text : '',
      perUnit: sortOf(part, data.of) === 'number' ? shared.factor : 1,
      xUnit: xShown,
      along: data.along,
      axis: fits ? '' : (data.axis ?? ''),
      turns,
      marks: fits ? [] : (data.marks ?? []),
      straight: fits || !data.straight ? null : stretched(data.straight, rate),
      angles: data.of === 'angle',
      decades: !fits && data.decades,
    }))
  })
}

/** Straight lines over frequencies in another unit. */
function stretched({ level, angle, corners }: StraightLines, rate: number): StraightLines {
  const along = <P extends { readonly x: number }>(points: readonly P[]): readonly P[] => points.map((p) => ({ ...p, x: p.x * rate })) // prettier-ignore
  return { level: along(level), angle: along(angle), corners: along(corners) }
}

/** A label with its unit as a quotient; a level says what it is of. */
function withUnit(label: string, part: CurvePart, unit: string, coherent: string): string {
  if (unit === '') return label
  if (part === 'dB') return `${label} re 1 ${coherent}`
  return part === 'angle' || part === 'unwrapped' ? label : `${label} / ${unit}`
}

/** Heights in the unit that all of the dimension stand in; levels are of coherent units. */
function inCommonUnit(y: Float64Array, part: CurvePart, factor: number, shared: number): Float64Array {
  if (part === 'angle' || part === 'unwrapped') return y
  if (part === 'dB') return factor === 1 ? y : y.map((level) => level + 20 * Math.log10(factor))
  return factor === shared ? y : y.map((value) => (value * factor) / shared)
}

/** How many of one unit another is; 1 where they do not belong together. */
function ratioOf(unit: string, to: string): number {
  if (unit === to) return 1
  const [a, b] = [parsed(unit), parsed(to)]
  return a && b && a.measure.dimension === b.measure.dimension ? factorNumber(a) / factorNumber(b) : 1
}

const OTHER_DASHES: readonly (readonly number[])[] = [[], [7, 4], [2, 3], [9, 3, 2, 3]]

/** The dash of a further part: none of those before it. */
function otherDash(own: readonly number[], k: number): readonly number[] {
  const others = OTHER_DASHES.filter((dash) => dash.join() !== own.join())
  return others[(k - 1) % others.length] ?? []
}

/** True where the horizontal axis goes by decades. */
export function isLogX(plate: CurvePlate, curves: readonly Curve[]): boolean {
  const positive = curves.length > 0 && curves.every((c) => c.x.every((x) => x > 0))
  if (plate.x.scale === 'auto') return positive && curves.every((c) => c.decades)
  return plate.x.scale === 'log' && positive
}

export function sortsOf(curves: readonly Curve[]): readonly Sort[] {
  return SORTS.filter((sort) => curves.some((c) => c.sort === sort))
}

/** The name of the horizontal axis where the student has given none. */
export function usualXName(
  plate: CurvePlate,
  curves: readonly Curve[],
  over: string | null,
  unit: 'deg' | 'rad',
): string {
  const names = [...new Set(curves.map((c) => c.along ?? c.axis))]
  const name = over ?? (names.length === 1 ? names[0] : '') ?? ''
  const turns = curves.length > 0 && curves.every((c) => c.turns)
  const units = [...new Set(curves.map((c) => c.xUnit))]
  if (!turns && units.length === 1 && units[0]) return `${name} / ${units[0]}`.trim()
  return turns ? `${name} / ${unit === 'deg' ? '°' : 'rad'}`.trim() : name
}

export function usualYName(sort: Sort, curves: readonly Curve[], unit: 'deg' | 'rad'): string {
  const labels = [...new Set(curves.filter((c) => c.sort === sort).map((c) => c.title))]
  const unitText = sort === 'angle' ? ` / ${unit === 'deg' ? '°' : 'rad'}` : sort === 'dB' ? '' : ''
  if (labels.length === 1) return `${labels[0] ?? ''}${unitText}`
  const units = [...new Set(curves.filter((c) => c.sort === sort).map((c) => c.unit))]
  if (sort === 'number') return units.length === 1 && units[0] ? `value / ${units[0]}` : ''
  return sort === 'dB' ? 'magnitude in dB' : sort === 'angle' ? `angle${unitText}` : ''
}

/** The part of the horizontal axis that is in sight: of a window, as the student has set it, or all that there is. */
export function shownRange({ plate, curves, window }: CurveFrame): {
  readonly low: number | undefined
  readonly high: number | undefined
} {
  const ends = curves.flatMap(({ x }) => [x[0] ?? NaN, x.at(-1) ?? NaN]).filter((end) => !Number.isNaN(end))
  const all = (reduce: (...ends: number[]) => number): number | undefined => {
    const found = reduce(...ends)
    return Number.isFinite(found) ? found : undefined
  }
  return {
    low: window?.low ?? plate.x.low ?? all(Math.min),
    high: window?.high ?? plate.x.high ?? all(Math.max),
  }
}

/** Where a place of the horizontal axis stands in what is in sight, from 0 at the left to 1. */
export function shareAlong(frame: CurveFrame): (x: number) => number {
  const { low = 0, high = 1 } = shownRange(frame)
  return isLogX(frame.plate, frame.curves)
    ? (x) => Math.log(x / low) / Math.log(high / low)
    : (x) => (x - low) / (high - low)
}
