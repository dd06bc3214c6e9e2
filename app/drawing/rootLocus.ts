import type { LocusPicture } from '#core/scene/drawn'
import type { Ink } from '#core/scene/scene'
import type { Complex } from '#core/numbers/complex'
import { toPixel } from '#core/scene/view'
import type { Pixel } from '#core/scene/view'
import { hueColour, line, SANS, tickText } from './frame'
import type { PlaneFrame } from './frame'

/** Root loci: their branches, and what is known of them without drawing. */

/** A root locus on a plane, with the scale of its unit there. */
export interface ShownBranches {
  readonly line: string
  readonly ink: Ink
  readonly scale: number
  readonly picture: LocusPicture
}

export function drawBranches(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  ctx.save()
  ctx.lineJoin = 'round'
  for (const shown of frame.branches ?? []) {
    if (!frame.mini) drawAsymptotes(ctx, frame, shown)
    ctx.strokeStyle = hueColour(frame.theme, shown.ink)
    ctx.lineWidth = (frame.mini ? 0.7 : 1) * shown.ink.width
    ctx.setLineDash([])
    for (const branch of shown.picture.branches) drawBranch(ctx, frame, shown, branch)
    if (frame.plate.below) {
      ctx.setLineDash([5, 4])
      for (const branch of shown.picture.negative) drawBranch(ctx, frame, shown, branch)
      ctx.setLineDash([])
    }
    drawEnds(ctx, frame, shown)
    if (!frame.mini) drawPlaces(ctx, frame, shown)
  }
  ctx.restore()
}

/** Beyond this canvases lose their precision. */
const FAR = 20_000

function drawBranch(
  ctx: CanvasRenderingContext2D,
  { view, size }: PlaneFrame,
  { scale }: ShownBranches,
  { re, im }: LocusPicture['branches'][number],
): void {
  ctx.beginPath()
  let open = false
  for (let k = 0; k < re.length; k += 1) {
    const { x, y } = toPixel(view, size, { re: (re[k] ?? NaN) * scale, im: (im[k] ?? NaN) * scale })
    const inside = Math.abs(x) < FAR && Math.abs(y) < FAR
    if (inside && open) ctx.lineTo(x, y)
    else if (inside) ctx.moveTo(x, y)
    open = inside
  }
  ctx.stroke()
}

/** Straight on from the centroid, thin: where the branches go. */
function drawAsymptotes(ctx: CanvasRenderingContext2D, frame: PlaneFrame, { scale, picture }: ShownBranches): void {
  if (picture.asymptotes.length === 0) return
  const from = toPixel(frame.view, frame.size, { re: picture.centroid * scale, im: 0 })
  const far = 2 * Math.hypot(frame.size.width, frame.size.height)
  ctx.strokeStyle = frame.theme.edge
  ctx.lineWidth = 1
  ctx.setLineDash([2, 5])
  if (Math.hypot(from.x, from.y) < FAR)
    for (const angle of picture.asymptotes) line(ctx, from.x, from.y, from.x + far * Math.cos(angle), from.y - far * Math.sin(angle)) // prettier-ignore
  ctx.setLineDash([])
}

/** The poles that branches begin at as thin crosses, the zeros that they end in as rings. */
function drawEnds(ctx: CanvasRenderingContext2D, frame: PlaneFrame, { scale, picture, ink }: ShownBranches): void {
  const half = frame.mini ? 2.5 : 4.5
  ctx.strokeStyle = hueColour(frame.theme, ink)
  ctx.lineWidth = 1.3
  for (const at of picture.poles) {
    const { x, y } = toPixel(frame.view, frame.size, scaled(at, scale))
    line(ctx, x - half, y - half, x + half, y + half)
    line(ctx, x - half, y + half, x + half, y - half)
  }
  for (const at of picture.zeros) {
    const { x, y } = toPixel(frame.view, frame.size, scaled(at, scale))
    ctx.beginPath()
    ctx.arc(x, y, half, 0, 2 * Math.PI)
    ctx.stroke()
  }
}

const scaled = (z: Complex, scale: number): Complex => ({ re: z.re * scale, im: z.im * scale })

/** Where branches meet, cross the axis and leave complex poles, each with its figure. */
function drawPlaces(ctx: CanvasRenderingContext2D, frame: PlaneFrame, { scale, picture }: ShownBranches): void {
  const { view, size, theme, conventions } = frame
  ctx.font = `12px ${SANS}`
  ctx.textBaseline = 'middle'
  const short = (x: number): string => tickText(Number(x.toPrecision(4)), conventions)
  const write = (text: string, { x, y }: Pixel): void => {
    const left = x > size.width - 120
    ctx.textAlign = left ? 'right' : 'left'
    ctx.strokeStyle = theme.leaf
    ctx.lineWidth = 4
    ctx.strokeText(text, x + (left ? -9 : 9), y)
    ctx.fillStyle = theme.quiet
    ctx.fillText(text, x + (left ? -9 : 9), y)
  }
  const dot = ({ x, y }: Pixel): void => {
    ctx.beginPath()
    ctx.arc(x, y, 3, 0, 2 * Math.PI)
    ctx.fillStyle = theme.leaf
    ctx.fill()
    ctx.strokeStyle = theme.ink
    ctx.lineWidth = 1.4
    ctx.stroke()
  }
  for (const { at, k } of picture.breakaways) {
    const place = toPixel(view, size, scaled(at, scale))
    dot(place)
    if (at.im >= 0) write(`k = ${short(k)}`, { x: place.x, y: place.y + 15 })
  }
  for (const { at, k } of picture.crossings) {
    const place = toPixel(view, size, scaled(at, scale))
    dot(place)
    if (at.im > 0) write(`k = ${short(k)}`, { x: place.x, y: place.y - 12 })
  }
  const turn = conventions.angle === 'deg' ? 180 / Math.PI : 1
  for (const { at, angle, arrives } of picture.departures) {
    if (at.im < 0) continue
    const place = toPixel(view, size, scaled(at, scale))
    const text = `${short(angle * turn)}${conventions.angle === 'deg' ? '°' : ' rad'}`
    write(`${arrives ? 'in' : 'out'} ${text}`, { x: place.x, y: place.y - 14 })
  }
}

/** What of a locus is to be in sight: where branches begin, meet, cross and end. */
export function placesOf({ scale, picture }: ShownBranches): readonly Complex[] {
  const { poles, zeros, breakaways, crossings } = picture
  const all = [...poles, ...zeros, ...breakaways.map(({ at }) => at), ...crossings.map(({ at }) => at)]
  return all.filter((z) => Number.isFinite(z.re) && Number.isFinite(z.im)).map((z) => scaled(z, scale))
}

/** The gain of the point of a branch that is nearest to a place, between the points that were reckoned. */
export function nearestGain({ k, branches, negative, negativeK }: LocusPicture, to: Complex, below: boolean): number {
  let [best, gain] = [Infinity, 0]
  const search = (list: LocusPicture['branches'], gains: Float64Array): void => {
    for (const { re, im } of list)
      for (let n = 1; n < re.length; n += 1) {
        const [ax, ay] = [re[n - 1] ?? NaN, im[n - 1] ?? NaN]
        const [dx, dy] = [(re[n] ?? NaN) - ax, (im[n] ?? NaN) - ay]
        const length = dx * dx + dy * dy
        const share = length > 0 ? Math.max(0, Math.min(1, ((to.re - ax) * dx + (to.im - ay) * dy) / length)) : 0
        const away = Math.hypot(ax + share * dx - to.re, ay + share * dy - to.im)
        if (!(away < best)) continue
        best = away
        gain = (gains[n - 1] ?? 0) + share * ((gains[n] ?? 0) - (gains[n - 1] ?? 0))
      }
  }
  search(branches, k)
  if (below) search(negative, negativeK)
  return gain
}
