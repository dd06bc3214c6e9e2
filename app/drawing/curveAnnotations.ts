import type { AnnotationOptions } from 'chartjs-plugin-annotation'
import type { Conventions } from '#core/format/conventions'
import { crossings, extremes, nearestIndex } from '#core/scene/curve'
import type { Feature } from '#core/scene/curve'
import type { CurvePlate } from '#shared/plate'
import { isLogX, shareAlong } from './curves'
import type { Curve, CurveFrame } from './curves'
import { familyLabels, placeOnPicture } from './familyLabels'
import type { Box } from './familyLabels'
import { hueColour, SANS, tickText } from './frame'
import { cornerMarks } from './straight'

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
  const texts: Box[] = []
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
    Object.assign(found, figureMarks(curve, frame, colour, texts), cornerMarks(curve, frame, texts))
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
        xAdjust: kind === 'crossing' ? 22 : 40 * inwards(x, frame),
      }
    })
  }
  return Object.assign(found, familyLabels(frame, texts))
}

/** Margins of a loop on its frequency response, and the figures of a step response on its curve. */
function figureMarks(curve: Curve, frame: CurveFrame, colour: string, texts: Box[]): Record<string, AnnotationOptions> {
  // What the picture's places are is worked out for curves that have something to mark only.
  if (!frame.plate.figures || curve.marks.length === 0) return {}
  const found: Record<string, AnnotationOptions> = {}
  const half = frame.conventions.angle === 'deg' ? 180 : Math.PI
  const scales = { xScaleID: 'x', yScaleID: curve.sort } as const
  const stroke = { borderColor: frame.theme.brass, borderWidth: 2 } as const
  const place = placeOnPicture(curve, frame)
  const write = (
    id: string,
    x: number,
    y: number,
    content: readonly string[],
    up: number,
    beside: boolean | 'right' = false,
  ): void => {
    const aside = beside === 'right' ? rightOf(content, x, frame) : beside ? besideSpan(content, x, frame) : 46 * inwards(x, frame) // prettier-ignore
    const at = place(x, y)
    texts.push({ x: at.x + aside, y: at.y + up, width: 6.6 * Math.max(...content.map((row) => row.length)) + 8, height: 16 * content.length + 6 }) // prettier-ignore
    found[`${id} text`] = { type: 'label', ...scales, xValue: x, yValue: y, content: [...content], color: frame.theme.ink, font: { family: SANS, size: 12.5 }, backgroundColor: frame.theme.leaf, padding: 2, yAdjust: up, xAdjust: aside } // prettier-ignore
  }
  const span = (
    id: string,
    from: { x: number; y: number },
    to: { x: number; y: number },
    dash: number[] = [],
  ): void => {
    found[id] = {
      type: 'line',
      ...scales,
      xMin: from.x,
      xMax: to.x,
      yMin: from.y,
      yMax: to.y,
      ...stroke,
      borderDash: dash,
    }
  }
  const dot = (id: string, x: number, y: number): void => {
    found[id] = { type: 'point', ...scales, xValue: x, yValue: y, radius: 4.5, backgroundColor: frame.theme.leaf, borderColor: colour, borderWidth: 2 } // prettier-ignore
  }
  const number = (x: number): string => short(x, frame.conventions)
  const seconds = curve.xUnit === '' ? '' : ` ${curve.xUnit}`
  for (const [k, mark] of curve.marks.entries()) {
    const id = `${curve.id} figure ${k}`
    if (mark.what === 'phase-margin' && curve.sort === 'angle' && !curve.angles) {
      const y = curve.y[nearestIndex(curve.x, mark.x, true)] ?? NaN
      const margin = (mark.value / Math.PI) * half
      const edge = Math.round((y - margin + half) / (2 * half)) * 2 * half - half
      span(id, { x: mark.x, y: edge }, { x: mark.x, y: edge + margin })
      dot(`${id} at`, mark.x, edge + margin)
      write(id, mark.x, edge + margin / 2, [`phase margin ${angleText(mark.value, frame.conventions)}`, `at ${number(mark.x)}${seconds}`], 0, true) // prettier-ignore
    } else if (mark.what === 'gain-margin' && curve.sort === 'dB') {
      const level = -20 * Math.log10(mark.value)
      span(id, { x: mark.x, y: level }, { x: mark.x, y: 0 })
      dot(`${id} at`, mark.x, level)
      write(
        id,
        mark.x,
        level / 2,
        [`gain margin ${number(-level)} dB (${number(mark.value)})`, `at ${number(mark.x)}${seconds}`],
        0,
        true,
      )
    } else if (curve.sort !== 'number' || curve.part === 'im') continue
    else if (mark.what === 'final') {
      const [first = 0, last = 1] = [curve.x[0], curve.x.at(-1)]
      span(id, { x: first, y: mark.value / curve.perUnit }, { x: last, y: mark.value / curve.perUnit }, [2, 4])
    } else if (mark.what === 'peak') {
      dot(id, mark.x, mark.value / curve.perUnit)
      write(id, mark.x, mark.value / curve.perUnit, [`peak ${number(mark.value / curve.perUnit)} at ${number(mark.x)}${seconds}`], -14) // prettier-ignore
    } else if (mark.what === 'settling') {
      dot(id, mark.x, heightAt(curve, mark.x))
      write(id, mark.x, heightAt(curve, mark.x), [`settled at ${number(mark.x)}${seconds}`], 18, 'right')
    } else if (mark.what === 'rise' && mark.to !== undefined) {
      dot(id, mark.x, heightAt(curve, mark.x))
      dot(`${id} end`, mark.to, heightAt(curve, mark.to))
      write(id, mark.to, heightAt(curve, mark.to), [`rise ${number(mark.to - mark.x)}${seconds}`], 16, 'right')
    }
  }
  return found
}

/** To the left of an upright line, or to its right where there is no room. */
function besideSpan(content: readonly string[], x: number, frame: CurveFrame): number {
  const share = shareAlong(frame)(x)
  const half = Math.max(...content.map((row) => row.length)) * 3.3 + 10
  return share * frame.width > 2 * half + 60 ? -half : half
}

/** To the right of a point, below its curve; at the edge inwards. */
function rightOf(content: readonly string[], x: number, frame: CurveFrame): number {
  const half = Math.max(...content.map((row) => row.length)) * 3.3 + 4
  return inwards(x, frame) < 0 ? -half : half
}

/** The height of a curve between its points, by a straight line. */
function heightAt({ x, y }: Curve, at: number): number {
  const k = nearestIndex(x, at)
  const [i, j] = (x[k] ?? 0) <= at ? [k, k + 1] : [k - 1, k]
  const [a, b] = [x[i] ?? NaN, x[j] ?? NaN]
  const share = b === a || !Number.isFinite(b) ? 0 : (at - a) / (b - a)
  return (y[i] ?? NaN) + (share === 0 ? 0 : share * ((y[j] ?? NaN) - (y[i] ?? NaN)))
}

const angleText = (radians: number, conventions: Conventions): string =>
  conventions.angle === 'deg'
    ? `${short((radians * 180) / Math.PI, conventions)}°`
    : `${short(radians, conventions)} rad`

/** 1 at the left edge of the picture, −1 at the right one, 0 between. */
function inwards(x: number, frame: CurveFrame): -1 | 0 | 1 {
  const share = shareAlong(frame)(x)
  return share < 0.12 ? 1 : share > 0.88 ? -1 : 0
}

const short = (x: number, { style }: Conventions): string => tickText(Number(x.toPrecision(4)), { style })
