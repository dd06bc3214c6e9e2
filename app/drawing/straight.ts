import type { ChartDataset } from 'chart.js'
import type { AnnotationOptions } from 'chartjs-plugin-annotation'
import type { Corner, Point, StraightLines } from '#core/scene/curve'
import type { CurvePlate } from '#shared/plate'
import { tickText, hueColour, SANS } from './frame'
import { shownRange } from './curves'
import { overlap, placeOnPicture } from './familyLabels'
import type { Box } from './familyLabels'
import type { Curve, CurveFrame } from './curves'

/** The straight lines that a frequency response comes near to, and the corners between them. */

/** As heights of the curve that they belong to; nothing where that has none. */
export function straightPoints(curve: Curve, plate: CurvePlate, unit: 'deg' | 'rad'): readonly Point[] {
  const { straight, part } = curve
  if (!straight) return []
  if (part === 'dB') return straight.level
  // As a factor they are straight where heights go by decades, too.
  if (part === 'magnitude' && plate.number.log) return straight.level.map(({ x, y }) => ({ x, y: 10 ** (y / 20) / curve.perUnit })) // prettier-ignore
  if (part !== 'angle' && part !== 'unwrapped') return []
  const half = unit === 'deg' ? 180 : Math.PI
  const points = straight.angle.map(({ x, y }) => ({ x, y: (y * half) / Math.PI }))
  const first = points[0]?.y ?? 0
  const turns = Math.round(((curve.y[0] ?? first) - first) / (2 * half))
  const shifted = points.map(({ x, y }) => ({ x, y: y + turns * 2 * half }))
  return part === 'angle' ? withinATurn(shifted, half) : shifted
}

/** Lines over the logarithm, cut where they leave half a turn to either side, and gone on with at the other edge. */
export function withinATurn(points: readonly Point[], half: number): readonly Point[] {
  const found: Point[] = []
  let before: number | null = null
  const piece = (a: Point, b: Point): void => {
    const turn = Math.round((a.y + b.y) / 2 / (2 * half))
    if (before !== null && before !== turn) found.push({ x: a.x, y: NaN })
    before = turn
    found.push({ x: a.x, y: a.y - 2 * half * turn }, { x: b.x, y: b.y - 2 * half * turn })
  }
  for (const [k, to] of points.entries()) {
    const from = points[k - 1]
    if (!from) continue
    let here = from
    for (const edge of edgesBetween(from.y, to.y, half)) {
      const share = (edge - from.y) / (to.y - from.y)
      const at = { x: from.x * (to.x / from.x) ** share, y: edge }
      piece(here, at)
      here = at
    }
    piece(here, to)
  }
  return found
}

/** Odd multiples of half a turn strictly between two angles, in the order in which they are met. */
function edgesBetween(from: number, to: number, half: number): readonly number[] {
  const [low, high] = [Math.min(from, to), Math.max(from, to)]
  const found: number[] = []
  for (let m = Math.ceil((low / half - 1) / 2); (2 * m + 1) * half < high; m += 1)
    if ((2 * m + 1) * half > low) found.push((2 * m + 1) * half)
  return from <= to ? found : found.reverse()
}

export function straightDatasets({
  plate,
  curves,
  theme,
  conventions,
  paper,
}: CurveFrame): ChartDataset<'scatter', Point[]>[] {
  if (!plate.straight) return []
  return curves.flatMap((curve): ChartDataset<'scatter', Point[]>[] => {
    const data = straightPoints(curve, plate, conventions.angle)
    if (data.length === 0) return []
    return [{ label: '', data: [...data], yAxisID: curve.sort, showLine: true, borderColor: theme.quiet, backgroundColor: theme.quiet, borderWidth: 1, pointRadius: 0, spanGaps: false, ...(paper ? { segment: {} } : {}), clip: 4 }] // prettier-ignore
  })
}

/** The corners of a level: a point on the lines, with the frequency and the slope beyond it. */
export function cornerMarks(curve: Curve, frame: CurveFrame, texts: Box[]): Record<string, AnnotationOptions> {
  if (!frame.plate.straight || curve.part !== 'dB' || !curve.straight) return {}
  const { low = 0, high = Infinity } = shownRange(frame)
  const place = placeOnPicture(curve, frame)
  const colour = hueColour(frame.theme, curve.ink)
  const scales = { xScaleID: 'x', yScaleID: curve.sort } as const
  const unit = curve.xUnit === '' ? '' : ` ${curve.xUnit}`
  const { style } = frame.conventions
  const number = (x: number): string => tickText(Number(x.toPrecision(4)), { style })
  return Object.fromEntries(
    grouped(curve.straight, low, high).flatMap((group, k): [string, AnnotationOptions][] => {
      const id = `${curve.id} corner ${k}`
      const dots = group.map(({ x, level }, n): [string, AnnotationOptions] => [`${id} at ${n}`, { type: 'point', ...scales, xValue: x, yValue: level, radius: 3.5, backgroundColor: frame.theme.leaf, borderColor: colour, borderWidth: 1.6 }]) // prettier-ignore
      const [first, last] = [group[0], group.at(-1)]
      if (!first || !last) return dots
      const bend = group.reduce((sum, one) => sum + one.bend, 0)
      const frequencies = group.length > FEW ? `${number(first.x)} to ${number(last.x)}` : group.map(({ x }) => number(x)).join(', ') // prettier-ignore
      const content = [`${group.length === 1 ? 'corner' : 'corners'} ${frequencies}${unit}`, `then ${number(last.slope)} dB/decade`] // prettier-ignore
      const at = place(last.x, last.level)
      const box = clearBox(at, content, bend, frame.width, texts)
      texts.push(box)
      const text: AnnotationOptions = { type: 'label', ...scales, xValue: last.x, yValue: last.level, content, color: frame.theme.ink, font: { family: SANS, size: 12 }, textAlign: 'start', backgroundColor: frame.theme.leaf, padding: 2, xAdjust: box.x - at.x, yAdjust: box.y - at.y } // prettier-ignore
      return [...dots, [`${id} text`, text]]
    }),
  )
}

/** Where the text of a corner is clear: first outside of the bend, which is above where the lines go down from it. */
function clearBox(
  at: { readonly x: number; readonly y: number },
  content: readonly string[],
  bend: number,
  width: number,
  texts: readonly Box[],
): Box {
  const half = Math.max(...content.map((row) => row.length)) * 3.3
  const outside = bend <= 0 ? -24 : 24
  const sides = at.x + 2 * half > width - 20 ? [-half, half] : [half, -half]
  const all = [outside, 2 * outside, -outside, -2 * outside].flatMap((up) => sides.map((aside) => ({ x: at.x + aside, y: at.y + up, width: 2 * half, height: 36 }))) // prettier-ignore
  const inside = all.filter(({ x }) => x - half > 0 && x + half < width)
  return inside.find((box) => !texts.some((other) => overlap(box, other))) ?? inside[0] ?? { ...at, width: 2 * half, height: 36 } // prettier-ignore
}

/** Corners nearer than this share of the decades in sight are written out together; more than so many by the first and last. */
const ROOM = 0.14
const FEW = 3

export function grouped({ corners }: StraightLines, low: number, high: number): readonly (readonly Corner[])[] {
  const least = ROOM * Math.log10(high / low)
  const found: Corner[][] = []
  for (const corner of corners) {
    if (!(corner.x > low && corner.x < high)) continue
    const group = found.at(-1)
    const before = group?.at(-1)
    if (group && before && Math.log10(corner.x / before.x) < least) group.push(corner)
    else found.push([corner])
  }
  return found
}
