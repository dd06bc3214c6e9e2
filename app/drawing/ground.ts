import type { Box } from '#core/scene/labels'
import { dampingGrid, sampledGrid } from '#core/scene/dampingGrid'
import { edgePoint, polarGrid } from '#core/scene/polarGrid'
import { niceStep, ticksBetween } from '#core/scene/ticks'
import { boundsOf, toPixel } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'
import { frontScale, line, perUnit, SANS, SERIF, sharp, tickText, viewInFront } from './frame'
import type { PlaneFrame } from './frame'
import { scaledPoint } from '#core/scene/unitScales'

/** The ground of a plane: its grid, circles and axes with their numbers and names. */

/** Least distance of two grid lines, in pixels. */
export const GRID_LEAST = 62

/** What one step of the grid is worth. */
export function gridStep(view: PlaneView): number {
  return niceStep(GRID_LEAST * view.perPixel)
}

export function drawGround(ctx: CanvasRenderingContext2D, whole: PlaneFrame): void {
  const frame = inFront(whole)
  const { view, size, theme, plate, mini } = frame
  const origin = toPixel(view, size, { re: 0, im: 0 })
  ctx.save()
  ctx.fillStyle = theme.leaf
  ctx.fillRect(0, 0, size.width, size.height)
  ctx.lineWidth = 1
  ctx.strokeStyle = theme.grid
  if (!mini && plate.grid === 'polar') drawPolarGrid(ctx, frame)
  if (!mini && plate.grid === 'rectangular') drawSquares(ctx, frame)
  if (!mini && (plate.grid === 'damping' || plate.grid === 'sampled')) drawDamping(ctx, frame)
  ctx.strokeStyle = mini ? theme.edge : theme.ink
  ctx.lineWidth = mini ? 1 : 1.2
  line(ctx, 0, sharp(origin.y), size.width, sharp(origin.y))
  line(ctx, sharp(origin.x), 0, sharp(origin.x), size.height)
  drawCircles(ctx, frame)
  if (!mini && plate.axes) {
    const texts = axisTexts(frame, origin)
    drawNumbers(ctx, frame, texts)
    drawAxisNames(ctx, frame, texts)
  }
  if (!mini) drawScaleBars(ctx, whole)
  ctx.restore()
}

/** The same frame counted in the unit in front, its marks too: the grid and the numbers of the axes are its. */
function inFront(frame: PlaneFrame): PlaneFrame {
  const scale = frontScale(frame)
  if (!scale) return frame
  const view = viewInFront(frame)
  const per = perUnit(scale)
  const marks = per === 1 ? frame.marks : frame.marks.map((m) => ({ ...m, ...scaledPoint(m, 1 / per) }))
  const named = (name: string): string => (scale.shown === '' || name.includes('/') || name === '' ? name : `${name} / ${scale.shown}`) // prettier-ignore
  return { ...frame, view, marks, plate: { ...frame.plate, re: named(frame.plate.re), im: named(frame.plate.im) } }
}

/** How long a scale bar is at least, and the rows that bars stand in, in pixels. */
const BAR_LEAST = 54
const BAR_ROW = 22

/** A bar for each unit where there are several: how long so much of it is. */
function drawScaleBars(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  const { scales = [], view, size, theme, conventions } = frame
  if (scales.length < 2) return
  const front = frontScale(frame)
  ctx.font = `12.5px ${SANS}`
  ctx.textAlign = 'left'
  ctx.textBaseline = 'middle'
  scales.forEach((scale, k) => {
    const per = perUnit(scale)
    const step = niceStep((BAR_LEAST * view.perPixel) / per)
    const length = (step * per) / view.perPixel
    const y = sharp(size.height - 14 - (scales.length - 1 - k) * BAR_ROW)
    const text = `${tickText(step, conventions)} ${scale.shown === '' ? '(plain numbers)' : scale.shown}`
    ctx.strokeStyle = theme.leaf
    ctx.lineWidth = 5
    ctx.lineJoin = 'round'
    line(ctx, 12, y, 12 + length, y)
    ctx.strokeText(text, 20 + length, y)
    ctx.fillStyle = scale === front ? theme.ink : theme.quiet
    ctx.strokeStyle = ctx.fillStyle
    ctx.lineWidth = scale === front ? 2 : 1.2
    line(ctx, 12, y, 12 + length, y)
    line(ctx, 12, y - 4, 12, y + 4)
    line(ctx, 12 + length, y - 4, 12 + length, y + 4)
    ctx.fillText(text, 20 + length, y)
  })
}

/** The room that the bars take. */
function barBoxes({ scales = [], size }: PlaneFrame): readonly Box[] {
  if (scales.length < 2) return []
  return [{ left: 0, right: 190, top: size.height - 14 - scales.length * BAR_ROW, bottom: size.height }]
}

function drawSquares(ctx: CanvasRenderingContext2D, { view, size }: PlaneFrame): void {
  const bounds = boundsOf(view, size)
  const step = gridStep(view)
  for (const re of ticksBetween(bounds.left, bounds.right, step)) {
    const x = sharp(toPixel(view, size, { re, im: 0 }).x)
    line(ctx, x, 0, x, size.height)
  }
  for (const im of ticksBetween(bounds.bottom, bounds.top, step)) {
    const y = sharp(toPixel(view, size, { re: 0, im }).y)
    line(ctx, 0, y, size.width, y)
  }
}

/** Lines of equal damping and of equal natural frequency. */
function drawDamping(ctx: CanvasRenderingContext2D, { view, size, plate, theme }: PlaneFrame): void {
  const lines = plate.grid === 'damping' ? dampingGrid(view, size, GRID_LEAST) : sampledGrid()
  for (const { points } of lines) {
    ctx.beginPath()
    points.forEach((point, k) => {
      const { x, y } = toPixel(view, size, point)
      if (k === 0) ctx.moveTo(x, y)
      else ctx.lineTo(x, y)
    })
    ctx.stroke()
  }
  if (!plate.axes) return
  ctx.font = `12px ${SANS}`
  ctx.textAlign = 'center'
  ctx.textBaseline = 'middle'
  for (const { label, at } of lines) {
    // Beside the real axis its own numbers stand.
    if (label === '' || at.im === 0) continue
    const { x, y } = toPixel(view, size, at)
    ctx.strokeStyle = theme.leaf
    ctx.lineWidth = 4
    ctx.strokeText(label, x, y)
    ctx.fillStyle = theme.quiet
    ctx.fillText(label, x, y)
  }
  ctx.strokeStyle = theme.grid
  ctx.lineWidth = 1
}

function drawPolarGrid(ctx: CanvasRenderingContext2D, { view, size, conventions }: PlaneFrame): void {
  const { centre, rings, rays } = polarGrid(view, size, conventions.angle, GRID_LEAST)
  for (const { pixels } of rings) {
    ctx.beginPath()
    ctx.arc(centre.x, centre.y, pixels, 0, 2 * Math.PI)
    ctx.stroke()
  }
  for (const { to } of rays) line(ctx, centre.x, centre.y, to.x, to.y)
}

/** The angle of each ray, at the edge of the picture. */
function rayAngles({ view, size, plate, conventions }: PlaneFrame): readonly AxisNumber[] {
  if (plate.grid !== 'polar') return []
  const { centre, rays } = polarGrid(view, size, conventions.angle, GRID_LEAST)
  return rays.flatMap(({ to, label }): AxisNumber[] => {
    const place = edgePoint(centre, to, size, 18)
    // Beside the axes their own numbers stand.
    if (!place || /^(0|180|−?90)°$|^(0|π|−?π\/2)$/.test(label)) return []
    const [x, y, half] = [place.x, place.y, (label.length * DIGIT) / 2]
    return [{ text: label, x, y, box: { left: x - half, right: x + half, top: y - NUMBER_HEIGHT / 2, bottom: y + NUMBER_HEIGHT / 2 } }] // prettier-ignore
  })
}

function drawCircles(ctx: CanvasRenderingContext2D, { view, size, theme, plate }: PlaneFrame): void {
  ctx.strokeStyle = theme.teal
  ctx.lineWidth = 1.4
  ctx.setLineDash([6, 4])
  const unit = plate.unitCircle ? [{ re: 0, im: 0, radius: 1 }] : []
  for (const { re, im, radius } of [...unit, ...plate.circles]) {
    const centre = toPixel(view, size, { re, im })
    ctx.beginPath()
    ctx.arc(centre.x, centre.y, radius / view.perPixel, 0, 2 * Math.PI)
    ctx.stroke()
  }
  ctx.setLineDash([])
}

/** A number at an axis, with the room it takes. */
interface AxisNumber {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly box: Box
}

/** About the width of a digit of the axis numbers, and their height, in pixels. */
const DIGIT = 7
const NUMBER_HEIGHT = 14

/** What an arrowhead or a marker takes around its tip, in pixels. */
const TIP = 9
/** Among more values than these no place is clear of all: their tips are not heeded. */
const TIPS_MOST = 200

/** The tips of the values in sight. */
function tipBoxes({ marks, view, size }: PlaneFrame): readonly Box[] {
  if (marks.length > TIPS_MOST) return []
  return marks
    .map((mark) => toPixel(view, size, mark))
    .filter(({ x, y }) => x > -TIP && y > -TIP && x < size.width + TIP && y < size.height + TIP)
    .map(({ x, y }) => ({ left: x - TIP, right: x + TIP, top: y - TIP, bottom: y + TIP }))
}

function meet(a: Box, b: Box): boolean {
  return a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
}

/** Numbers and names of the axes, none on another and none on a tip. */
interface AxisTexts {
  readonly re: readonly AxisNumber[]
  readonly im: readonly AxisNumber[]
  /** Angles of the rays of a polar grid. */
  readonly rays: readonly AxisNumber[]
  readonly names: { readonly re: Box; readonly im: Box }
}

function axisTexts(frame: PlaneFrame, origin: Pixel): AxisTexts {
  const tips = tipBoxes(frame)
  const names = axisNamePlaces(frame.size, origin, frame.plate, tips)
  const taken = [names.re, names.im, ...tips, ...barBoxes(frame)]
  const clear = ({ box }: AxisNumber): boolean => !taken.some((other) => meet(box, other))
  const { re, im } = axisNumbers(frame)
  const numbers = { re: re.filter(clear), im: im.filter(clear) }
  const boxes = [...numbers.re, ...numbers.im].map((number) => number.box)
  const rays = rayAngles(frame).filter((angle) => clear(angle) && !boxes.some((box) => meet(box, angle.box)))
  return { ...numbers, rays, names }
}

/** The numbers of both axes: the real ones below theirs, the imaginary ones left of theirs. */
function axisNumbers({ view, size, conventions }: PlaneFrame): {
  readonly re: readonly AxisNumber[]
  readonly im: readonly AxisNumber[]
} {
  const bounds = boundsOf(view, size)
  const step = gridStep(view)
  const origin = toPixel(view, size, { re: 0, im: 0 })
  const row = Math.min(size.height - 16, Math.max(4, origin.y + 5))
  const column = Math.min(size.width - 6, Math.max(30, origin.x - 6))
  const re = ticksBetween(bounds.left, bounds.right, step).flatMap((tick): AxisNumber[] => {
    const { x } = toPixel(view, size, { re: tick, im: 0 })
    if (tick === 0 || x <= 14 || x >= size.width - 14) return []
    const text = tickText(tick, conventions)
    const half = (text.length * DIGIT) / 2
    return [{ text, x, y: row, box: { left: x - half, right: x + half, top: row, bottom: row + NUMBER_HEIGHT } }]
  })
  const im = ticksBetween(bounds.bottom, bounds.top, step).flatMap((tick): AxisNumber[] => {
    const { y } = toPixel(view, size, { re: 0, im: tick })
    if (tick === 0 || y <= 8 || y >= size.height - 8) return []
    const text = tickText(tick, conventions)
    const half = NUMBER_HEIGHT / 2
    const left = column - text.length * DIGIT
    return [{ text, x: column, y, box: { left, right: column, top: y - half, bottom: y + half } }]
  })
  return { re, im }
}

function drawNumbers(ctx: CanvasRenderingContext2D, frame: PlaneFrame, { re, im, rays }: AxisTexts): void {
  ctx.font = `12px ${SANS}`
  ctx.fillStyle = frame.theme.quiet
  ctx.textBaseline = 'top'
  ctx.textAlign = 'center'
  // A halo of the ground keeps a number legible on a grid line.
  ctx.strokeStyle = frame.theme.leaf
  ctx.lineJoin = 'round'
  ctx.lineWidth = 3
  const write = ({ text, x, y }: AxisNumber): void => {
    ctx.strokeText(text, x, y)
    ctx.fillText(text, x, y)
  }
  re.forEach(write)
  ctx.textBaseline = 'middle'
  ctx.textAlign = 'right'
  im.forEach(write)
  ctx.fillStyle = frame.theme.brassText
  ctx.textAlign = 'center'
  rays.forEach(write)
}

/** About the width of a letter of an axis name, in pixels. */
const LETTER = 9

/** How high the name of an axis is, and what the row of the numbers takes, in pixels. */
const NAME_HEIGHT = 18
const NUMBER_ROW = 20

/**
 * Where the names of the axes stand: that of the real one at the end of its axis, in the row of its numbers, above it or
 * below that row; that of the imaginary one beside the top of its axis. The first place that is clear of tips is taken.
 */
function axisNamePlaces(
  size: Size,
  origin: Pixel,
  names: Pick<PlanePlate, 're' | 'im'>,
  tips: readonly Box[],
): { readonly re: Box; readonly im: Box } {
  const [wide, high] = [names.re.length * LETTER + 4, names.im.length * LETTER + 5]
  const within = (top: number): number => Math.min(size.height - NAME_HEIGHT - 2, Math.max(3, top))
  const at = (top: number): Box => ({ left: size.width - wide - 6, right: size.width - 6, top: within(top), bottom: within(top) + NAME_HEIGHT }) // prettier-ignore
  const beside = (left: number): Box => {
    const kept = Math.max(7, Math.min(size.width - high - 7, left))
    return { left: kept, right: kept + high, top: 6, bottom: 25 }
  }
  const isClear = (box: Box): boolean => !tips.some((tip) => meet(box, tip))
  const firstClear = (places: readonly [Box, ...Box[]]): Box => places.find(isClear) ?? places[0]
  const below = origin.y + 3
  return {
    re: firstClear([at(below), at(origin.y - NAME_HEIGHT - 4), at(below + NUMBER_ROW), at(origin.y - 2 * NAME_HEIGHT)]),
    im: firstClear([beside(origin.x + 7), beside(origin.x - high - 7)]),
  }
}

function drawAxisNames(ctx: CanvasRenderingContext2D, { theme, plate }: PlaneFrame, { names }: AxisTexts): void {
  ctx.font = `italic 15px ${SERIF}`
  ctx.fillStyle = theme.ink
  ctx.textBaseline = 'top'
  ctx.textAlign = 'right'
  ctx.fillText(plate.re, names.re.right, names.re.top)
  ctx.textAlign = 'left'
  ctx.fillText(plate.im, names.im.left, names.im.top)
}

/** Room that the numbers and names of the axes take. */
export function takenByAxes(whole: PlaneFrame, origin: Pixel): Box[] {
  if (!whole.plate.axes) return [...barBoxes(whole)]
  const frame = inFront(whole)
  const { re, im, rays, names } = axisTexts(frame, origin)
  return [...barBoxes(whole), names.re, names.im, ...[...re, ...im, ...rays].map((number) => number.box)]
}
