import type { ChartConfiguration, ChartDataset, LegendItem } from 'chart.js'
import type { AnnotationOptions } from 'chartjs-plugin-annotation'
import type { Conventions } from '#core/format/conventions'
import { crossings, extremes, heights, sortOf, SORTS, thinned } from '#core/scene/curve'
import type { CurvePart, Feature, Point, Sort, SweepData, ShownSweep } from '#core/scene/curve'
import type { Ink } from '#core/scene/scene'
import type { CurvePlate } from '#shared/plate'
import type { Theme } from '~/theme/tokens'
import { hueColour, SANS, SERIF, tickText } from './frame'

/** A curve plate as a chart of Chart.js: of the page, or of a file. */

/** One curve: a part of a value over what it runs along. */
export interface Curve {
  /** The line, and behind a dot the part. */
  readonly id: string
  readonly line: string
  readonly name: string
  readonly part: CurvePart
  readonly sort: Sort
  readonly label: string
  readonly ink: Ink
  readonly x: Float64Array
  readonly y: Float64Array
  /** The kept name of what it runs along, and which point of that each of its points is. */
  readonly along: string | null
  readonly turns: boolean
  readonly decades: boolean
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
}

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
  return sources.flatMap(({ line, name, ink, data }) => {
    const complex = data.im !== null
    const parts = data.of === 'angle' ? plate.parts.filter((p) => p === 'angle' || p === 'unwrapped').slice(0, 1) : plate.parts // prettier-ignore
    const shown = data.of === 'angle' && parts.length === 0 ? (['angle'] as const) : parts
    const fits = over !== null && over.data.x.length === data.x.length
    const base = fits ? over.data.re : data.x
    const turns = fits ? over.data.of === 'angle' : data.turns
    const x = turns ? base.map((radians) => radians * turn) : base
    return shown.map((part, k): Curve => ({
      id: `${line}.${part}`,
      line,
      name,
      part,
      sort: sortOf(part, data.of),
      label: partLabel(part, name, data.of, complex),
      // Of one value several parts in one picture differ by their line.
      ink: k === 0 || plate.stacked ? ink : { ...ink, dash: OTHER_DASHES[(k - 1) % OTHER_DASHES.length] ?? [] },
      x,
      y: heights(data, part, unit),
      along: data.along,
      turns,
      decades: !fits && data.decades,
    }))
  })
}

const OTHER_DASHES: readonly (readonly number[])[] = [
  [7, 4],
  [2, 3],
  [9, 3, 2, 3],
]

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
  const names = [...new Set(curves.map((c) => c.along ?? ''))]
  const name = over ?? (names.length === 1 ? names[0] : '') ?? ''
  const turns = curves.length > 0 && curves.every((c) => c.turns)
  return turns ? `${name} / ${unit === 'deg' ? '°' : 'rad'}`.trim() : name
}

export function usualYName(sort: Sort, curves: readonly Curve[], unit: 'deg' | 'rad'): string {
  const labels = [...new Set(curves.filter((c) => c.sort === sort).map((c) => c.label))]
  const unitText = sort === 'angle' ? ` / ${unit === 'deg' ? '°' : 'rad'}` : sort === 'dB' ? '' : ''
  if (labels.length === 1) return `${labels[0] ?? ''}${unitText}`
  return sort === 'dB' ? 'magnitude in dB' : sort === 'angle' ? `angle${unitText}` : ''
}

/** The marker of each hue, as Chart.js has them. */
const POINT_STYLES = ['circle', 'rect', 'triangle', 'rectRot', 'triangle', 'rectRounded', 'star', 'rectRot'] as const
/** Fewer points than this are marked in the style with points. */
const MARKED_MOST = 400

export type CurveConfig = ChartConfiguration<'scatter', Point[]>

export function curveConfig(frame: CurveFrame): CurveConfig {
  const { plate, curves, theme } = frame
  return {
    type: 'scatter',
    data: { datasets: curves.map((curve) => datasetOf(curve, frame)) },
    options: {
      animation: false,
      responsive: false,
      maintainAspectRatio: false,
      parsing: false,
      normalized: true,
      events: [],
      font: { family: SANS, size: 13 },
      color: theme.ink,
      layout: { padding: { top: 8, right: 14, bottom: 4, left: 4 } },
      scales: scalesOf(frame),
      plugins: {
        legend: {
          display: plate.legend && curves.length > 1,
          position: 'top',
          align: 'end',
          labels: {
            usePointStyle: true,
            pointStyle: 'line',
            pointStyleWidth: 30,
            color: theme.ink,
            font: { family: SERIF, size: 14, style: 'italic' },
            generateLabels: () => curves.map((curve, k) => legendItem(curve, k, theme)),
          },
        },
        annotation: { annotations: annotationsOf(frame), clip: false },
        tooltip: { enabled: false },
      },
    },
  }
}

/** A curve in the legend with the dash it is drawn with: in black and white that is all that tells it from others. */
function legendItem(curve: Curve, datasetIndex: number, theme: Theme): LegendItem {
  const strokeStyle = hueColour(theme, curve.ink)
  return {
    text: curve.label,
    fontColor: theme.ink,
    strokeStyle,
    fillStyle: strokeStyle,
    lineWidth: curve.ink.width,
    lineDash: [...curve.ink.dash],
    pointStyle: 'line',
    datasetIndex,
  }
}

function datasetOf(curve: Curve, frame: CurveFrame): ChartDataset<'scatter', Point[]> {
  const { plate, theme } = frame
  const colour = hueColour(theme, curve.ink)
  const data = pointsIn(curve, frame)
  const few = data.length <= MARKED_MOST
  const marked = plate.style !== 'line' && few
  return {
    label: curve.label,
    data,
    yAxisID: curve.sort,
    showLine: plate.style !== 'points' || !few,
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: curve.ink.width,
    borderDash: [...curve.ink.dash],
    pointRadius: marked ? 3.5 : 0,
    pointStyle: POINT_STYLES[curve.ink.hue] ?? 'circle',
    pointRotation: curve.ink.hue === 4 ? 180 : 0,
    spanGaps: false,
    // With this the line is drawn on the context itself and not as a path object, which a file has no use for.
    segment: {},
    clip: 4,
  }
}

/** The points of a curve that the window can tell apart. */
function pointsIn(curve: Curve, frame: CurveFrame): Point[] {
  const { window, width } = frame
  const log = isLogX(frame.plate, frame.curves)
  const [first = 0, last = 1] = [curve.x[0], curve.x.at(-1)]
  const low = window?.low ?? Math.min(first, last)
  const high = window?.high ?? Math.max(first, last)
  const columns = Math.max(200, Math.round(width))
  const share = log
    ? (x: number): number => Math.log(x / low) / Math.log(high / low)
    : (x: number): number => (x - low) / (high - low)
  let [from, to] = [0, curve.x.length]
  if (window) {
    // One point more on either side, so that the line goes on to the edge.
    const inside = (k: number): boolean => (curve.x[k] ?? NaN) >= low && (curve.x[k] ?? NaN) <= high
    while (from < to && !inside(from)) from += 1
    while (to > from && !inside(to - 1)) to -= 1
    from = Math.max(0, from - 1)
    to = Math.min(curve.x.length, to + 1)
  }
  return thinned(curve.x.subarray(from, to), curve.y.subarray(from, to), (x) => share(x) * columns, columns)
}

type Scales = NonNullable<NonNullable<CurveConfig['options']>['scales']>

function scalesOf(frame: CurveFrame): Scales {
  const { plate, curves, theme, conventions, window } = frame
  const log = isLogX(plate, curves)
  const sorts = sortsOf(curves)
  const stacked = plate.stacked || sorts.length > 2
  const title = (text: string) => ({
    display: text !== '',
    text,
    color: theme.ink,
    font: { family: SERIF, size: 14, style: 'italic' as const },
  })
  const grid = { display: plate.grid, color: theme.grid }
  const border = { color: theme.ink }
  const xName = plate.x.name === '' ? usualXName(plate, curves, null, conventions.angle) : plate.x.name
  const scales: Scales = {
    x: {
      type: log ? 'logarithmic' : 'linear',
      position: 'bottom',
      min: window?.low ?? plate.x.low ?? lowest(curves.map((c) => c.x)),
      max: window?.high ?? plate.x.high ?? highest(curves.map((c) => c.x)),
      title: title(xName),
      grid,
      border,
      ticks: { ...ticks(frame), ...(log ? { callback: decadeTick(frame) } : {}) },
    } as never,
  }
  const shown: readonly Sort[] = sorts.length === 0 ? ['number'] : sorts
  shown.forEach((sort, k) => {
    const axis = plate[sort]
    const room = (frame.height - 70) / (stacked ? shown.length : 1)
    const usual = usualYName(sort, curves, conventions.angle)
    scales[sort] = {
      type: axis.log && sort === 'number' ? 'logarithmic' : 'linear',
      position: stacked || k === 0 ? 'left' : 'right',
      // The first quantity stands on top.
      ...(stacked ? { stack: 'all', stackWeight: 1, weight: shown.length - k, offset: true } : {}),
      ...(axis.low === null ? {} : { min: axis.low }),
      ...(axis.high === null ? {} : { max: axis.high }),
      title: title(axis.name === '' ? usual : axis.name),
      grid: stacked || k === 0 ? grid : { display: false },
      border,
      ...(sort === 'number' ? { grace: '4%' } : {}),
      ticks: { ...ticks(frame), ...(sort === 'number' ? {} : niceSteps(frame, sort, room)) },
    } as never
  })
  return scales
}

function lowest(lists: readonly Float64Array[]): number | undefined {
  const found = Math.min(...lists.map((x) => Math.min(x[0] ?? Infinity, x.at(-1) ?? Infinity)))
  return Number.isFinite(found) ? found : undefined
}
function highest(lists: readonly Float64Array[]): number | undefined {
  const found = Math.max(...lists.map((x) => Math.max(x[0] ?? -Infinity, x.at(-1) ?? -Infinity)))
  return Number.isFinite(found) ? found : undefined
}

function ticks({ theme, conventions }: CurveFrame) {
  return {
    color: theme.quiet,
    font: { family: SANS, size: 12 },
    maxRotation: 0,
    autoSkipPadding: 14,
    callback: (value: string | number) => tickText(Number(value), conventions),
  }
}

/** Along a log axis the decades are named, and between few decades 2 and 5, too. */
function decadeTick({ plate, curves, conventions, window }: CurveFrame) {
  const low = window?.low ?? plate.x.low ?? lowest(curves.map((c) => c.x)) ?? 1
  const high = window?.high ?? plate.x.high ?? highest(curves.map((c) => c.x)) ?? 10
  const few = Math.log10(high / low) < 2.5
  return (value: string | number): string => {
    const x = Number(value)
    const share = x / 10 ** Math.floor(Math.log10(x) + 1e-9)
    const named = Math.abs(share - 1) < 1e-6 || (few && (Math.abs(share - 2) < 1e-6 || Math.abs(share - 5) < 1e-6))
    return named ? tickText(x, conventions) : ''
  }
}

const STEPS: Readonly<Record<Exclude<Sort, 'number'>, readonly number[]>> = {
  dB: [0.1, 0.2, 0.5, 1, 2, 3, 6, 10, 20, 40, 60, 100, 200],
  // Parts of a turn.
  angle: [0.1, 0.5, 1, 2, 5, 10, 15, 30, 45, 90, 180, 360, 720, 1440],
}
/** Least distance of two numbers up an axis, in pixels. */
const TICK_LEAST = 26

function niceSteps({ curves, conventions }: CurveFrame, sort: Exclude<Sort, 'number'>, room: number) {
  let [low, high] = [Infinity, -Infinity]
  for (const { sort: other, y } of curves) {
    if (other !== sort) continue
    for (const v of y) {
      if (!Number.isFinite(v)) continue
      if (v < low) low = v
      if (v > high) high = v
    }
  }
  const degrees = sort === 'dB' || conventions.angle === 'deg'
  const span = (high - low) * (degrees ? 1 : 180 / Math.PI)
  const most = Math.max(2, Math.floor(room / TICK_LEAST) - 1)
  const step = STEPS[sort].find((s) => span / s <= most)
  if (step === undefined || !(span > 0)) return {}
  if (degrees) return { stepSize: step, autoSkip: false }
  return {
    stepSize: (step * Math.PI) / 180,
    callback: (value: string | number) => radianTick(Number(value)),
  }
}

function radianTick(value: number): string {
  const parts = Math.round((value / Math.PI) * 180)
  if (Math.abs((parts * Math.PI) / 180 - value) > 1e-6) return value.toFixed(2)
  if (parts === 0) return '0'
  const divisor = gcd(Math.abs(parts), 180)
  const [top, bottom] = [parts / divisor, 180 / divisor]
  const size = Math.abs(top) === 1 ? 'π' : `${Math.abs(top)}π`
  return `${top < 0 ? '−' : ''}${size}${bottom === 1 ? '' : `/${bottom}`}`
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b)
}

/** What is marked on a curve: extremes and crossings, as the plate asks. */
export function featuresOf(plate: CurvePlate, curve: Curve, log: boolean): Feature[] {
  const levels = plate.levels.filter((level) => level.sort === curve.sort)
  return [
    ...(plate.extremes ? extremes(curve.x, curve.y) : []),
    ...levels.flatMap((level) => crossings(curve.x, curve.y, level.height, log)),
  ]
}

function annotationsOf(frame: CurveFrame): Record<string, AnnotationOptions> {
  const { plate, curves, theme, conventions } = frame
  const log = isLogX(plate, curves)
  const found: Record<string, AnnotationOptions> = {}
  const upright = (id: string, x: number | null, colour: string, dash: number[]): void => {
    if (x !== null)
      found[id] = { type: 'line', scaleID: 'x', value: x, borderColor: colour, borderWidth: 1.5, borderDash: dash }
  }
  upright('cursor', frame.cursor, theme.ink, [])
  upright('fixed', frame.fixed, theme.ink, [5, 4])
  upright('along', frame.along, theme.brass, [10, 3, 2, 3])
  plate.levels.forEach(({ sort, height }, k) => {
    if (curves.some((c) => c.sort === sort))
      found[`level ${k}`] = {
        type: 'line',
        scaleID: sort,
        value: height,
        borderColor: theme.edge,
        borderWidth: 1,
        borderDash: [4, 4],
      }
  })
  for (const curve of curves) {
    const colour = hueColour(theme, curve.ink)
    featuresOf(plate, curve, log).forEach(({ kind, x, y }, k) => {
      const text = kind === 'crossing' ? short(x, conventions) : `${short(y, conventions)} at ${short(x, conventions)}`
      found[`${curve.id} ${kind} ${k}`] = {
        type: 'point',
        xValue: x,
        yValue: y,
        xScaleID: 'x',
        yScaleID: curve.sort,
        radius: 4,
        backgroundColor: kind === 'crossing' ? theme.leaf : colour,
        borderColor: colour,
        borderWidth: 1.6,
      }
      found[`${curve.id} ${kind} ${k} label`] = {
        type: 'label',
        xValue: x,
        yValue: y,
        xScaleID: 'x',
        yScaleID: curve.sort,
        content: text,
        color: theme.ink,
        font: { family: SANS, size: 12 },
        backgroundColor: theme.leaf,
        padding: 2,
        yAdjust: -14,
        // Near an edge the text stands inwards.
        xAdjust: kind === 'crossing' ? 22 : 40 * inwards(x, frame, log),
      }
    })
  }
  return found
}

/** 1 at the left edge of the picture, −1 at the right one, 0 between. */
function inwards(x: number, { window, curves }: CurveFrame, log: boolean): -1 | 0 | 1 {
  const low = window?.low ?? lowest(curves.map((c) => c.x)) ?? 0
  const high = window?.high ?? highest(curves.map((c) => c.x)) ?? 1
  const share = log ? Math.log(x / low) / Math.log(high / low) : (x - low) / (high - low)
  return share < 0.12 ? 1 : share > 0.88 ? -1 : 0
}

const short = (x: number, { style }: Conventions): string => tickText(Number(x.toPrecision(4)), { style })

/** The curves as a table: what they run along, and a column for each. */
export function curvesCsv(curves: readonly Curve[], xName: string): string {
  const [first] = curves
  if (!first) return ''
  const quoted = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)
  const same = curves.every((c) => c.x.length === first.x.length && c.x.every((x, k) => x === first.x[k]))
  const cell = (x: number | undefined): string => (x !== undefined && Number.isFinite(x) ? String(x) : '')
  const name = xName === '' ? 'parameter' : xName
  const heads = same ? [name, ...curves.map((c) => c.label)] : curves.flatMap((c) => [name, c.label])
  const longest = Math.max(...curves.map((c) => c.x.length))
  const rows = Array.from(
    { length: longest },
    (_, k) =>
    (same ? [cell(first.x[k]), ...curves.map((c) => cell(c.y[k]))] : curves.flatMap((c) => [cell(c.x[k]), cell(c.y[k])])).join(','), // prettier-ignore
  )
  return [heads.map(quoted).join(','), ...rows].join('\r\n')
}
