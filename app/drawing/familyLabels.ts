import type { AnnotationOptions } from 'chartjs-plugin-annotation'
import { shareAlong, shownRange } from './curves'
import type { Curve, CurveFrame } from './curves'
import { hueColour, SANS } from './frame'

/** The value that each member of a family is for, written on its curve: where it is clear of the others and of other texts. */

/** A text on the picture, about its middle, in pixels from the left and from the top. */
export interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** About what the axes take of the picture, in pixels. */
const LEFT = 76
const RIGHT = 24
const LETTER = 7
const HEIGHT = 16
/** As far as this from the others a place is clear, in pixels; along the curve as many places are tried. */
const CLEAR = 26
const PLACES = 64

/** About where a point is on the picture: the axes round a little further than the heights go. */
export function placeOnPicture(curve: Curve, frame: CurveFrame): (x: number, y: number) => { x: number; y: number } {
  const share = shareAlong(frame)
  let [least, most] = [Infinity, -Infinity]
  for (const { sort, y } of frame.curves) {
    if (sort !== curve.sort) continue
    for (const v of y) {
      if (v < least) least = v
      if (v > most && v < Infinity) most = v
    }
  }
  const sorts = frame.plate.stacked ? new Set(frame.curves.map((c) => c.sort)).size : 1
  const tall = (frame.height - 70) / sorts
  // A second axis stands to the right.
  const sides = LEFT + (sorts === 1 && new Set(frame.curves.map((c) => c.sort)).size > 1 ? LEFT : RIGHT)
  return (x, y) => ({ x: LEFT + share(x) * (frame.width - sides), y: ((most - y) / (most - least || 1)) * tall })
}

/** Labels of all members of the families; `taken` are the texts that are there already. */
export function familyLabels(frame: CurveFrame, taken: readonly Box[]): Record<string, AnnotationOptions> {
  const found: Record<string, AnnotationOptions> = {}
  const boxes = [...taken]
  for (const curve of frame.curves) {
    if (curve.member === '') continue
    const content = curve.member.replace(/^.* = /, '')
    const place = placeOnPicture(curve, frame)
    const width = content.length * LETTER + 6
    const at = bestPlace(curve, frame, place, { width, height: HEIGHT }, boxes)
    if (at === null) continue
    const [x, y] = [curve.x[at] ?? 0, curve.y[at] ?? 0]
    boxes.push({ ...place(x, y), width, height: HEIGHT })
    found[`${curve.id} member`] = {
      type: 'label',
      xScaleID: 'x',
      yScaleID: curve.sort,
      xValue: x,
      yValue: y,
      content,
      color: hueColour(frame.theme, curve.ink),
      font: { family: SANS, size: 12.5, weight: 'bold' },
      backgroundColor: frame.theme.leaf,
      padding: 1,
    }
  }
  return found
}

/** As near the end of its curve as it is clear; where it is nowhere, the place that is clearest of the other members. */
function bestPlace(
  curve: Curve,
  frame: CurveFrame,
  place: (x: number, y: number) => { x: number; y: number },
  size: { width: number; height: number },
  boxes: readonly Box[],
): number | null {
  const { low = -Infinity, high = Infinity } = shownRange(frame)
  const others = frame.curves.filter((c) => c !== curve && c.part === curve.part && c.line === curve.line && c.y.length === curve.y.length) // prettier-ignore
  let [best, most] = [null as number | null, -Infinity]
  for (let n = 0; n < PLACES; n += 1) {
    const k = Math.round(((curve.x.length - 1) * n) / (PLACES - 1))
    const [x, y] = [curve.x[k] ?? NaN, curve.y[k] ?? NaN]
    if (!(x >= low && x <= high) || !Number.isFinite(y)) continue
    const here = place(x, y)
    // Not over the edge.
    if (here.x < LEFT + size.width / 2 || here.x > frame.width - RIGHT - size.width / 2) continue
    const away = Math.min(CLEAR, ...others.map((c) => Math.abs(place(x, c.y[k] ?? NaN).y - here.y)).filter(Number.isFinite)) // prettier-ignore
    const covered = boxes.some((box) => overlap(box, { ...here, ...size }))
    const worth = away + (3 * n) / PLACES - (covered ? 2 * CLEAR : 0)
    if (worth > most) [best, most] = [k, worth]
  }
  return best
}

export const overlap = (a: Box, b: Box): boolean =>
  Math.abs(a.x - b.x) * 2 < a.width + b.width + 4 && Math.abs(a.y - b.y) * 2 < a.height + b.height
