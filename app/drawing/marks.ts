import { MARKERS, ORIGIN } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { Pixel } from '#core/scene/view'
import { hueColour, line } from './frame'
import type { PlaneFrame } from './frame'

/** The marks of a plane: arrows, points, crosses and rings, with what is drawn to each of them. */

/** More marks than this are thin lines without a style of their own. */
export const CROWD = 120
const HEAD = 11
/** Half the size of a point, a cross or a ring, in pixels. */
const MARKER = 5

export function drawMarks(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  const { marks, active, plate } = frame
  ctx.save()
  if (plate.conjugates) drawConjugates(ctx, frame)
  const crowded = marks.length > CROWD
  if (crowded) drawCrowd(ctx, frame)
  for (const mark of marks) {
    if (crowded && mark.id !== active) continue
    if (plate.components || (mark.id === active && !frame.mini)) drawComponents(ctx, frame, mark)
    drawMark(ctx, frame, mark)
  }
  drawMeasured(ctx, frame)
  ctx.restore()
}

function drawMark(ctx: CanvasRenderingContext2D, frame: PlaneFrame, mark: PlaneMark): void {
  const { view, size, theme, active, picked, mini } = frame
  const tip = toPixel(view, size, mark)
  const lively = mark.id === active
  ctx.fillStyle = hueColour(theme, mark.ink)
  ctx.strokeStyle = ctx.fillStyle
  if (mark.role === 'arrow') drawArrow(ctx, frame, mark, tip, lively)
  else drawMarker(ctx, mark, tip, mini ? 3 : lively ? MARKER + 1.5 : MARKER)
  if (mini) return
  if (mark.draggable || lively) drawGrip(ctx, tip, lively)
  if (picked.includes(mark.id)) drawPick(ctx, tip, theme.brass)
}

function drawArrow(
  ctx: CanvasRenderingContext2D,
  { view, size, mini }: PlaneFrame,
  mark: PlaneMark,
  tip: Pixel,
  lively: boolean,
): void {
  const from = toPixel(view, size, mark.tail ?? ORIGIN)
  const angle = Math.atan2(tip.y - from.y, tip.x - from.x)
  const length = Math.hypot(tip.x - from.x, tip.y - from.y)
  if (length < 2) {
    ctx.beginPath()
    ctx.arc(tip.x, tip.y, 4, 0, 2 * Math.PI)
    ctx.fill()
    return
  }
  const head = Math.min((mini ? 6 : HEAD) + (mark.ink.width - 2), length)
  ctx.lineWidth = (mini ? 0.7 : 1) * (mark.term ? Math.max(1, mark.ink.width - 0.8) : mark.ink.width) + (lively ? 1 : 0)
  ctx.setLineDash([...mark.ink.dash])
  line(ctx, from.x, from.y, tip.x - 0.6 * head * Math.cos(angle), tip.y - 0.6 * head * Math.sin(angle))
  ctx.setLineDash([])
  ctx.beginPath()
  ctx.moveTo(tip.x - head * Math.cos(angle - 0.38), tip.y - head * Math.sin(angle - 0.38))
  ctx.lineTo(tip.x, tip.y)
  ctx.lineTo(tip.x - head * Math.cos(angle + 0.38), tip.y - head * Math.sin(angle + 0.38))
  // The head of a term is open: it is no value of a line.
  if (mark.term) {
    ctx.lineWidth = 1.6
    ctx.stroke()
    return
  }
  ctx.closePath()
  ctx.fill()
}

function drawMarker(ctx: CanvasRenderingContext2D, mark: PlaneMark, { x, y }: Pixel, half: number): void {
  ctx.lineWidth = mark.ink.width
  if (mark.role === 'cross') {
    line(ctx, x - half, y - half, x + half, y + half)
    line(ctx, x - half, y + half, x + half, y - half)
    return
  }
  ctx.beginPath()
  if (mark.role === 'ring') {
    ctx.arc(x, y, half, 0, 2 * Math.PI)
    ctx.stroke()
    return
  }
  markerPath(ctx, mark.ink.hue, { x, y }, half)
  ctx.fill()
}

/** The outline of the marker of a hue. */
export function markerPath(ctx: CanvasRenderingContext2D, hue: number, { x, y }: Pixel, half: number): void {
  const outline = MARKERS[hue] ?? 'disc'
  if (outline === 'disc') {
    ctx.arc(x, y, half, 0, 2 * Math.PI)
    return
  }
  outline.forEach(([dx, dy], k) => {
    if (k === 0) ctx.moveTo(x + half * dx, y + half * dy)
    else ctx.lineTo(x + half * dx, y + half * dy)
  })
  ctx.closePath()
}

/** Very many marks: one path for each hue. */
function drawCrowd(ctx: CanvasRenderingContext2D, { view, size, marks, theme }: PlaneFrame): void {
  ctx.lineWidth = 1
  theme.hues.forEach((hue, k) => {
    const group = marks.filter((mark) => mark.ink.hue === k)
    if (group.length === 0) return
    ctx.strokeStyle = hue
    ctx.fillStyle = hue
    ctx.beginPath()
    for (const mark of group) {
      if (mark.role !== 'arrow') continue
      const from = toPixel(view, size, mark.tail ?? ORIGIN)
      const tip = toPixel(view, size, mark)
      ctx.moveTo(from.x, from.y)
      ctx.lineTo(tip.x, tip.y)
    }
    ctx.stroke()
    for (const mark of group) {
      const tip = toPixel(view, size, mark)
      ctx.fillRect(tip.x - 2, tip.y - 2, 4, 4)
    }
  })
}

/** The conjugate of each value: its mirror image in the real axis, thin and dashed, without a head. */
function drawConjugates(ctx: CanvasRenderingContext2D, { view, size, marks, theme }: PlaneFrame): void {
  const origin = toPixel(view, size, ORIGIN)
  ctx.lineWidth = 1.2
  ctx.setLineDash([3, 4])
  for (const mark of marks) {
    if (mark.term) continue
    const tip = toPixel(view, size, { re: mark.re, im: -mark.im })
    ctx.strokeStyle = hueColour(theme, mark.ink)
    if (mark.role === 'arrow') line(ctx, origin.x, origin.y, tip.x, tip.y)
    ctx.beginPath()
    ctx.arc(tip.x, tip.y, 3.5, 0, 2 * Math.PI)
    ctx.stroke()
  }
  ctx.setLineDash([])
}

/** A tip dropped to both axes. */
function drawComponents(ctx: CanvasRenderingContext2D, { view, size, theme }: PlaneFrame, mark: PlaneMark): void {
  if (mark.term) return
  const origin = toPixel(view, size, ORIGIN)
  const tip = toPixel(view, size, mark)
  ctx.strokeStyle = hueColour(theme, mark.ink)
  ctx.lineWidth = 1
  ctx.setLineDash([2, 3])
  line(ctx, tip.x, tip.y, tip.x, origin.y)
  line(ctx, tip.x, tip.y, origin.x, tip.y)
  ctx.setLineDash([])
  ctx.lineWidth = 2.4
  line(ctx, tip.x, origin.y - 4, tip.x, origin.y + 4)
  line(ctx, origin.x - 4, tip.y, origin.x + 4, tip.y)
}

/** A ring round a tip that can be dragged. */
function drawGrip(ctx: CanvasRenderingContext2D, tip: Pixel, lively: boolean): void {
  ctx.beginPath()
  ctx.arc(tip.x, tip.y, lively ? 10 : 7, 0, 2 * Math.PI)
  ctx.lineWidth = lively ? 2 : 1.2
  ctx.stroke()
}

/** Four ticks round a tip that is picked to be measured. */
function drawPick(ctx: CanvasRenderingContext2D, { x, y }: Pixel, colour: string): void {
  ctx.strokeStyle = colour
  ctx.lineWidth = 2.4
  for (const [dx, dy] of [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ] as const)
    // prettier-ignore
    line(ctx, x + 9 * dx, y + 9 * dy, x + 16 * dx, y + 16 * dy)
}

/** The line between the two marks that are measured. */
function drawMeasured(ctx: CanvasRenderingContext2D, { view, size, marks, theme, picked }: PlaneFrame): void {
  const [from, to] = picked.map((id) => marks.find((m) => m.id === id))
  if (!from || !to) return
  const [a, b] = [toPixel(view, size, from), toPixel(view, size, to)]
  ctx.strokeStyle = theme.brass
  ctx.lineWidth = 1.6
  ctx.setLineDash([6, 3, 1, 3])
  line(ctx, a.x, a.y, b.x, b.y)
  ctx.setLineDash([])
}
