import type { AnnotationOptions } from 'chartjs-plugin-annotation'
import type { Conventions } from '#core/format/conventions'
import { crossings, extremes } from '#core/scene/curve'
import type { Feature } from '#core/scene/curve'
import type { CurvePlate } from '#shared/plate'
import { isLogX, shownRange } from './curves'
import type { Curve, CurveFrame } from './curves'
import { hueColour, SANS, tickText } from './frame'

/** What is marked on curves: cursors, levels, extremes and crossings. */

/** What is marked on a curve: extremes and crossings, as the plate asks. */
export function featuresOf(plate: CurvePlate, curve: Curve, log: boolean): Feature[] {
  const levels = plate.levels.filter((level) => level.sort === curve.sort)
  return [
    ...(plate.extremes ? extremes(curve.x, curve.y) : []),
    ...levels.flatMap((level) => crossings(curve.x, curve.y, level.height, log)),
  ]
}

export function annotationsOf(frame: CurveFrame): Record<string, AnnotationOptions> {
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
function inwards(x: number, frame: CurveFrame, log: boolean): -1 | 0 | 1 {
  const { low = 0, high = 1 } = shownRange(frame)
  const share = log ? Math.log(x / low) / Math.log(high / low) : (x - low) / (high - low)
  return share < 0.12 ? 1 : share > 0.88 ? -1 : 0
}

const short = (x: number, { style }: Conventions): string => tickText(Number(x.toPrecision(4)), { style })
