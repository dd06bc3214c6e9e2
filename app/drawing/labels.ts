import { placeLabels } from '#core/scene/labels'
import type { PlacedLabel } from '#core/scene/labels'
import { drawnName } from '#core/scene/name'
import { ORIGIN } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { Pixel, Size } from '#core/scene/view'
import type { Theme } from '~/theme/tokens'
import { hueColour, line, SERIF } from './frame'
import type { PlaneFrame } from './frame'
import { takenByAxes } from './ground'
import { CROWD } from './marks'

/** The labels of a plane, clear of its marks and of one another. */

const LABEL_HEIGHT = 20
/** More labels than this would only cover one another. */
const LABELS_MOST = 60
const LABELS_IN_CROWD = 30

export function drawLabels(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  const { view, size, marks, theme, active, places } = frame
  const origin = toPixel(view, size, ORIGIN)
  const crowded = marks.length > CROWD
  const most = crowded ? LABELS_IN_CROWD : LABELS_MOST
  const shown = marks
    .filter((mark) => mark.labelled && inSight(toPixel(view, size, mark), size))
    .filter((mark, k) => k < most || mark.id === active)
  const requests = shown.map((mark) => {
    const tip = toPixel(view, size, mark)
    const tail = toPixel(view, size, mark.tail ?? ORIGIN)
    // The name of a term stands at the middle of its arrow, beside it.
    const anchor = mark.term ? { x: (tip.x + tail.x) / 2, y: (tip.y + tail.y) / 2 } : tip
    const along = { x: tip.x - tail.x, y: tip.y - tail.y }
    return {
      id: mark.id,
      anchor,
      width: measure(ctx, mark.label).width + 4,
      height: LABEL_HEIGHT,
      away: mark.term ? { x: along.y, y: -along.x } : along,
      before: places.get(mark.id),
    }
  })
  // Among very many arrows no place is clear of all: only the labelled ones are heeded.
  const heeded = crowded ? shown : marks
  const arrows = heeded
    .filter((mark) => mark.role === 'arrow')
    .map((mark) => ({ from: toPixel(view, size, mark.tail ?? ORIGIN), to: toPixel(view, size, mark) }))
  const axes = [
    { from: { x: 0, y: origin.y }, to: { x: size.width, y: origin.y } },
    { from: { x: origin.x, y: 0 }, to: { x: origin.x, y: size.height } },
  ]
  const tips = heeded.map((mark) => toPixel(view, size, mark)).filter((tip) => inSight(tip, size))
  const taken = takenByAxes(frame, origin)
  const placed = placeLabels(requests, [...arrows, ...axes], tips, size, taken, frame.hurried)
  const byId = new Map(shown.map((mark) => [mark.id, mark]))
  places.clear()
  ctx.save()
  for (const label of placed) {
    const mark = byId.get(label.id)
    if (!mark) continue
    places.set(label.id, label.place)
    if (label.leader) drawLeader(ctx, label.leader.from, label.leader.to, hueColour(theme, mark.ink))
    drawLabel(ctx, mark, label, theme)
  }
  ctx.restore()
}

function drawLeader(ctx: CanvasRenderingContext2D, from: Pixel, to: Pixel, colour: string): void {
  ctx.strokeStyle = colour
  ctx.lineWidth = 0.8
  line(ctx, from.x, from.y, to.x, to.y)
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
  ctx.fillStyle = hueColour(theme, mark.ink)
  const write = (text: string, x: number, y: number, font: string): void => {
    ctx.font = font
    ctx.strokeText(text, x, y)
    ctx.fillText(text, x, y)
  }
  write(base, at.x + 2, at.y + 15, `italic 600 16px ${SERIF}`)
  if (below !== '') write(below, at.x + 3 + baseWidth, at.y + 19, `600 11px ${SERIF}`)
}

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
