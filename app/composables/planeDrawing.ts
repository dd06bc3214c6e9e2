import type { Plugin } from 'chart.js'
import { formatReal } from '#core/format/decimal'
import { placeLabels } from '#core/scene/labels'
import type { Box, PlacedLabel } from '#core/scene/labels'
import { drawnName } from '#core/scene/name'
import { dashOf, hueOf } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { edgePoint, polarGrid } from '#core/scene/polarGrid'
import { niceStep, ticksBetween } from '#core/scene/ticks'
import { boundsOf, toPixel } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import type { AngleUnit } from '#core/evaluate/context'
import type { Plate } from '#shared/plate'
import type { Theme } from '~/theme/tokens'

/** What the drawing of a plane needs; read anew for each frame. */
export interface PlaneFrame {
  readonly view: PlaneView
  readonly size: Size
  readonly marks: readonly PlaneMark[]
  readonly theme: Theme
  /** The mark under the pointer or being dragged. */
  readonly active: string | null
  /** How the plate is drawn: its grid, its axes, what is drawn besides. */
  readonly plate: Plate
  readonly unit: AngleUnit
}

const SERIF = "'Fraunces Variable', Georgia, serif"
const SANS = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif"
/** Least distance of two grid lines, in pixels. */
const GRID_LEAST = 62
const HEAD = 11

/** Grid, axes, arrows and labels of a plane, drawn on a chart of Chart.js. */
export function planePlugin(frame: () => PlaneFrame): Plugin<'scatter'> {
  return {
    id: 'plane',
    afterDraw: (chart) => paintPlane(chart.ctx, frame()),
  }
}

/** The whole picture of a plane, on any canvas: of the page, or of a file. */
export function paintPlane(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  drawGround(ctx, frame)
  if (frame.plate.conjugates) drawConjugates(ctx, frame)
  drawHeads(ctx, frame)
  if (frame.plate.labels) drawLabels(ctx, frame)
}

function drawGround(ctx: CanvasRenderingContext2D, { view, size, theme, plate, unit }: PlaneFrame): void {
  const bounds = boundsOf(view, size)
  const step = niceStep(GRID_LEAST * view.perPixel)
  const origin = toPixel(view, size, { re: 0, im: 0 })
  ctx.save()
  ctx.fillStyle = theme.leaf
  ctx.fillRect(0, 0, size.width, size.height)
  ctx.lineWidth = 1
  ctx.strokeStyle = theme.grid
  const squared = plate.grid === 'rectangular'
  const xs = squared ? ticksBetween(bounds.left, bounds.right, step) : []
  const ys = squared ? ticksBetween(bounds.bottom, bounds.top, step) : []
  if (plate.grid === 'polar') drawPolarGrid(ctx, { view, size, theme, unit })
  for (const re of xs) line(ctx, sharp(toPixel(view, size, { re, im: 0 }).x), 0, null, size.height)
  for (const im of ys) line(ctx, 0, sharp(toPixel(view, size, { re: 0, im }).y), size.width, null)
  ctx.strokeStyle = theme.ink
  ctx.lineWidth = 1.2
  line(ctx, 0, sharp(origin.y), size.width, null)
  line(ctx, sharp(origin.x), 0, null, size.height)
  if (plate.unitCircle) drawUnitCircle(ctx, { view, theme }, origin)
  drawNumbers(ctx, { view, size, theme })
  drawAxisNames(ctx, size, theme, origin, plate)
  ctx.restore()
}

/** Rings and rays, the rays with their angle at the edge of the picture. */
function drawPolarGrid(
  ctx: CanvasRenderingContext2D,
  { view, size, theme, unit }: Pick<PlaneFrame, 'view' | 'size' | 'theme' | 'unit'>,
): void {
  const { centre, rings, rays } = polarGrid(view, size, unit, GRID_LEAST)
  for (const { pixels } of rings) {
    ctx.beginPath()
    ctx.arc(centre.x, centre.y, pixels, 0, 2 * Math.PI)
    ctx.stroke()
  }
  for (const { to } of rays) line(ctx, centre.x, centre.y, to.x, to.y)
  ctx.font = `12px ${SANS}`
  ctx.fillStyle = theme.brassText
  ctx.textAlign = 'center'
  ctx.textBaseline = 'middle'
  for (const { to, label } of rays) {
    const place = edgePoint(centre, to, size, 18)
    // Beside the axes their own numbers stand.
    if (place && !/^(0|180|−?90)°$|^(0|π|−?π\/2)$/.test(label)) ctx.fillText(label, place.x, place.y)
  }
}

function drawUnitCircle(
  ctx: CanvasRenderingContext2D,
  { view, theme }: Pick<PlaneFrame, 'view' | 'theme'>,
  origin: Pixel,
): void {
  ctx.beginPath()
  ctx.arc(origin.x, origin.y, 1 / view.perPixel, 0, 2 * Math.PI)
  ctx.strokeStyle = theme.teal
  ctx.lineWidth = 1.4
  ctx.setLineDash([6, 4])
  ctx.stroke()
  ctx.setLineDash([])
}

/** The conjugate of each value: its mirror image in the real axis, thin and dashed, without a head. */
function drawConjugates(ctx: CanvasRenderingContext2D, { view, size, marks, theme }: PlaneFrame): void {
  const origin = toPixel(view, size, { re: 0, im: 0 })
  ctx.save()
  ctx.lineWidth = 1.2
  ctx.setLineDash([3, 4])
  for (const mark of marks) {
    const tip = toPixel(view, size, { re: mark.re, im: -mark.im })
    ctx.strokeStyle = hueColour(theme, mark)
    line(ctx, origin.x, origin.y, tip.x, tip.y)
    ctx.beginPath()
    ctx.arc(tip.x, tip.y, 3.5, 0, 2 * Math.PI)
    ctx.stroke()
  }
  ctx.restore()
}

const sharp = (x: number): number => Math.round(x) + 0.5

function line(ctx: CanvasRenderingContext2D, x: number, y: number, toX: number | null, toY: number | null): void {
  ctx.beginPath()
  ctx.moveTo(x, y)
  ctx.lineTo(toX ?? x, toY ?? y)
  ctx.stroke()
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

/** The numbers of both axes: the real ones below theirs, the imaginary ones left of theirs. */
function axisNumbers(view: PlaneView, size: Size): { readonly re: AxisNumber[]; readonly im: AxisNumber[] } {
  const bounds = boundsOf(view, size)
  const step = niceStep(GRID_LEAST * view.perPixel)
  const origin = toPixel(view, size, { re: 0, im: 0 })
  const row = Math.min(size.height - 16, Math.max(4, origin.y + 5))
  const column = Math.min(size.width - 6, Math.max(30, origin.x - 6))
  const re = ticksBetween(bounds.left, bounds.right, step).flatMap((tick): AxisNumber[] => {
    const { x } = toPixel(view, size, { re: tick, im: 0 })
    if (tick === 0 || x <= 14 || x >= size.width - 40) return []
    const text = tickText(tick)
    const half = (text.length * DIGIT) / 2
    return [{ text, x, y: row, box: { left: x - half, right: x + half, top: row, bottom: row + NUMBER_HEIGHT } }]
  })
  const im = ticksBetween(bounds.bottom, bounds.top, step).flatMap((tick): AxisNumber[] => {
    const { y } = toPixel(view, size, { re: 0, im: tick })
    if (tick === 0 || y <= 24 || y >= size.height - 8) return []
    const text = tickText(tick)
    const half = NUMBER_HEIGHT / 2
    return [
      {
        text,
        x: column,
        y,
        box: { left: column - text.length * DIGIT, right: column, top: y - half, bottom: y + half },
      },
    ]
  })
  return { re, im }
}

function drawNumbers(
  ctx: CanvasRenderingContext2D,
  { view, size, theme }: Pick<PlaneFrame, 'view' | 'size' | 'theme'>,
): void {
  const { re, im } = axisNumbers(view, size)
  ctx.font = `12px ${SANS}`
  ctx.fillStyle = theme.quiet
  ctx.textBaseline = 'top'
  ctx.textAlign = 'center'
  for (const { text, x, y } of re) ctx.fillText(text, x, y)
  ctx.textBaseline = 'middle'
  ctx.textAlign = 'right'
  for (const { text, x, y } of im) ctx.fillText(text, x, y)
}

function tickText(value: number): string {
  return formatReal(value, { digits: 6, style: 'plain' })
    .replace('-', '−')
    .replace(/e−?(\d+)/, (all) => all.replace('e', '·10^'))
}

/** About the width of a letter of an axis name, in pixels. */
const LETTER = 9

/** Where the names of the axes stand: that of the real one in the row of its numbers, that of the imaginary one beside it. */
function axisNamePlaces(size: Size, origin: Pixel, names: Pick<Plate, 're' | 'im'>): { re: Box; im: Box } {
  const [wide, high] = [names.re.length * LETTER + 4, names.im.length * LETTER + 5]
  const top = Math.min(size.height - 20, Math.max(3, origin.y + 3))
  const last = size.width - high - 7
  const left = Math.max(7, Math.min(last, origin.x + 7))
  return {
    re: { left: size.width - wide - 6, right: size.width - 6, top, bottom: top + 18 },
    im: { left, right: left + high, top: 6, bottom: 25 },
  }
}

function drawAxisNames(
  ctx: CanvasRenderingContext2D,
  size: Size,
  theme: Theme,
  origin: Pixel,
  names: Pick<Plate, 're' | 'im'>,
): void {
  const { re, im } = axisNamePlaces(size, origin, names)
  ctx.font = `italic 15px ${SERIF}`
  ctx.fillStyle = theme.ink
  ctx.textBaseline = 'top'
  ctx.textAlign = 'right'
  ctx.fillText(names.re, re.right, re.top)
  ctx.textAlign = 'left'
  ctx.fillText(names.im, im.left, im.top)
}

function hueColour(theme: Theme, mark: PlaneMark): string {
  return theme.hues[hueOf(mark.slot)] ?? theme.ink
}

function drawHeads(ctx: CanvasRenderingContext2D, { view, size, marks, theme, active }: PlaneFrame): void {
  const origin = toPixel(view, size, { re: 0, im: 0 })
  ctx.save()
  const crowded = marks.length > CROWD
  if (crowded) drawCrowd(ctx, { view, size, marks, theme }, origin)
  for (const mark of marks) {
    if (crowded && mark.id !== active) continue
    const tip = toPixel(view, size, mark)
    const angle = Math.atan2(tip.y - origin.y, tip.x - origin.x)
    const length = Math.hypot(tip.x - origin.x, tip.y - origin.y)
    ctx.fillStyle = hueColour(theme, mark)
    if (length < 2) {
      ctx.beginPath()
      ctx.arc(tip.x, tip.y, 4, 0, 2 * Math.PI)
      ctx.fill()
      continue
    }
    const head = Math.min(HEAD, length)
    drawShaft(ctx, origin, tip, mark, { theme, active })
    ctx.beginPath()
    ctx.moveTo(tip.x, tip.y)
    for (const side of [-1, 1]) {
      ctx.lineTo(tip.x - head * Math.cos(angle + side * 0.38), tip.y - head * Math.sin(angle + side * 0.38))
    }
    ctx.closePath()
    ctx.fill()
    if (mark.draggable || mark.id === active) drawGrip(ctx, tip, hueColour(theme, mark), mark.id === active)
  }
  ctx.restore()
}

/** More arrows than this are thin lines without a style of their own. */
const CROWD = 120

/** Very many arrows: one path for each hue. */
function drawCrowd(
  ctx: CanvasRenderingContext2D,
  { view, size, marks, theme }: Pick<PlaneFrame, 'view' | 'size' | 'marks' | 'theme'>,
  origin: Pixel,
): void {
  ctx.lineWidth = 1
  theme.hues.forEach((hue, k) => {
    ctx.strokeStyle = hue
    ctx.fillStyle = hue
    ctx.beginPath()
    const tips = marks.filter((mark) => hueOf(mark.slot) === k).map((mark) => toPixel(view, size, mark))
    for (const tip of tips) {
      ctx.moveTo(origin.x, origin.y)
      ctx.lineTo(tip.x, tip.y)
    }
    ctx.stroke()
    for (const tip of tips) ctx.fillRect(tip.x - 2, tip.y - 2, 4, 4)
  })
}

/** The line of an arrow, in the hue and the line style of its value. */
function drawShaft(
  ctx: CanvasRenderingContext2D,
  from: Pixel,
  to: Pixel,
  mark: PlaneMark,
  { theme, active }: Pick<PlaneFrame, 'theme' | 'active'>,
): void {
  ctx.strokeStyle = hueColour(theme, mark)
  ctx.lineWidth = mark.id === active ? 3 : 2
  ctx.setLineDash([...dashOf(mark.slot)])
  ctx.beginPath()
  ctx.moveTo(from.x, from.y)
  ctx.lineTo(to.x, to.y)
  ctx.stroke()
  ctx.setLineDash([])
}

/** A ring round a tip that can be dragged. */
function drawGrip(ctx: CanvasRenderingContext2D, tip: Pixel, colour: string, active: boolean): void {
  ctx.beginPath()
  ctx.arc(tip.x, tip.y, active ? 10 : 7, 0, 2 * Math.PI)
  ctx.strokeStyle = colour
  ctx.lineWidth = active ? 2 : 1.2
  ctx.stroke()
}

const LABEL_HEIGHT = 20

/** Widths measured before; emptied when it grows. */
const measured = new Map<string, { readonly base: number; readonly width: number }>()
const MEASURED_MOST = 2_000

function measure(ctx: CanvasRenderingContext2D, label: string): { readonly base: number; readonly width: number } {
  const known = measured.get(label)
  if (known) return known
  if (measured.size >= MEASURED_MOST) measured.clear()
  const widths = measureAnew(ctx, label)
  measured.set(label, widths)
  return widths
}

function measureAnew(ctx: CanvasRenderingContext2D, label: string): { base: number; width: number } {
  const { base, below } = drawnName(label)
  ctx.font = `italic 600 16px ${SERIF}`
  const baseWidth = ctx.measureText(base).width
  if (below === '') return { base: baseWidth, width: baseWidth }
  ctx.font = `600 11px ${SERIF}`
  return { base: baseWidth, width: baseWidth + 1 + ctx.measureText(below).width }
}

/** More labels than this would only cover one another. */
const LABELS_MOST = 60
const LABELS_IN_CROWD = 30

function drawLabels(ctx: CanvasRenderingContext2D, { view, size, marks, theme, active, plate }: PlaneFrame): void {
  const origin = toPixel(view, size, { re: 0, im: 0 })
  const inside = marks.filter((mark) => inSight(toPixel(view, size, mark), size))
  const most = marks.length > CROWD ? LABELS_IN_CROWD : LABELS_MOST
  const shown = inside.filter((mark, k) => k < most || mark.id === active)
  const tips = new Map(shown.map((mark) => [mark.id, toPixel(view, size, mark)]))
  const requests = shown.map((mark) => {
    const tip = tips.get(mark.id) ?? origin
    return {
      id: mark.id,
      anchor: tip,
      width: measure(ctx, mark.label).width + 4,
      height: LABEL_HEIGHT,
      away: { x: tip.x - origin.x, y: tip.y - origin.y },
    }
  })
  // Among very many arrows no place is clear of all: only the labelled ones are heeded.
  const heeded = marks.length > CROWD ? shown : marks
  const arrows = heeded.map((mark) => ({ from: origin, to: toPixel(view, size, mark) }))
  const axes = [
    { from: { x: 0, y: origin.y }, to: { x: size.width, y: origin.y } },
    { from: { x: origin.x, y: 0 }, to: { x: origin.x, y: size.height } },
  ]
  const placed = placeLabels(
    requests,
    [...arrows, ...axes],
    [...tips.values()],
    size,
    takenByAxes(view, size, origin, plate),
  )
  const byId = new Map(shown.map((mark) => [mark.id, mark]))
  ctx.save()
  for (const label of placed) {
    const mark = byId.get(label.id)
    if (mark) drawLabel(ctx, mark, label, theme)
  }
  ctx.restore()
}

/** Room that the numbers and names of the axes take. */
function takenByAxes(view: PlaneView, size: Size, origin: Pixel, names: Pick<Plate, 're' | 'im'>): Box[] {
  const { re, im } = axisNumbers(view, size)
  return [...Object.values(axisNamePlaces(size, origin, names)), ...re.map((n) => n.box), ...im.map((n) => n.box)]
}

function inSight({ x, y }: Pixel, size: Size): boolean {
  return x >= -1 && y >= -1 && x <= size.width + 1 && y <= size.height + 1
}

function drawLabel(ctx: CanvasRenderingContext2D, mark: PlaneMark, at: PlacedLabel, theme: Theme): void {
  const { base, below } = drawnName(mark.label)
  const { base: baseWidth } = measure(ctx, mark.label)
  ctx.textAlign = 'left'
  ctx.textBaseline = 'alphabetic'
  ctx.lineJoin = 'round'
  ctx.lineWidth = 4
  ctx.strokeStyle = theme.leaf
  ctx.fillStyle = hueColour(theme, mark)
  const write = (text: string, x: number, y: number, font: string): void => {
    ctx.font = font
    ctx.strokeText(text, x, y)
    ctx.fillText(text, x, y)
  }
  write(base, at.x + 2, at.y + 15, `italic 600 16px ${SERIF}`)
  if (below !== '') write(below, at.x + 3 + baseWidth, at.y + 19, `600 11px ${SERIF}`)
}
