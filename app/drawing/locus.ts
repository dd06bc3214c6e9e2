import { isCoarse, thinnedPath } from '#core/scene/curve'
import type { SweepData, ShownSweep } from '#core/scene/curve'
import { toPixel } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import { hueColour, SANS } from './frame'
import type { PlaneFrame } from './frame'

/** The way of a complex sweep through the plane: with its direction, its beginning and its end. */

interface Kept {
  readonly view: PlaneView
  readonly size: Size
  readonly path: Float64Array
}

/** Paths worked out before; a picture that only changes its cursor needs no new one. */
const kept = new WeakMap<SweepData, Kept>()

function pathOf(data: SweepData, view: PlaneView, size: Size): Float64Array {
  const before = kept.get(data)
  if (before && before.view.perPixel === view.perPixel && before.size === size) {
    if (before.view === view) return before.path
    // Only moved: so is the path.
    const [dx, dy] = [(before.view.re - view.re) / view.perPixel, (view.im - before.view.im) / view.perPixel]
    return before.path.map((v, k) => v + (k % 2 === 0 ? dx : dy))
  }
  const [cx, cy, per] = [size.width / 2, size.height / 2, 1 / view.perPixel]
  const path = thinnedPath(
    data.re,
    data.im ?? new Float64Array(data.re.length),
    (re) => cx + (re - view.re) * per,
    (im) => cy - (im - view.im) * per,
  )
  kept.set(data, { view, size, path })
  return path
}

export function drawLoci(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  ctx.save()
  ctx.lineJoin = 'round'
  for (const locus of frame.loci) {
    if (locus.data.loop) drawMirrored(ctx, frame, locus)
    drawLocus(ctx, frame, locus)
  }
  const loops = frame.loci.filter(({ data }) => data.loop)
  if (loops.length > 0) drawCritical(ctx, frame, loops)
  ctx.restore()
}

/** Beyond this canvases lose their precision: a stroke out there is left out. */
const FAR = 20_000

function drawLocus(ctx: CanvasRenderingContext2D, { view, size, theme, mini }: PlaneFrame, locus: ShownSweep): void {
  const path = pathOf(locus.data, view, size)
  ctx.strokeStyle = hueColour(theme, locus.ink)
  ctx.fillStyle = ctx.strokeStyle
  ctx.lineWidth = (mini ? 0.7 : 1) * locus.ink.width
  ctx.setLineDash([...locus.ink.dash])
  ctx.beginPath()
  let open = false
  for (let k = 0; k < path.length; k += 2) {
    const [x, y] = [path[k] as number, path[k + 1] as number]
    const drawn = Math.abs(x) < FAR && Math.abs(y) < FAR
    if (drawn && open) ctx.lineTo(x, y)
    else if (drawn) ctx.moveTo(x, y)
    open = drawn
  }
  ctx.stroke()
  ctx.setLineDash([])
  // Of a loop only what is in sight has heads; where it begins is far away as a rule.
  if (!mini) drawEnds(ctx, locus.data.loop ? inSight(path, size) : path, locus.data.loop ? null : theme.leaf)
}

/** The half for negative frequencies: the mirror image, dashed. */
function drawMirrored(
  ctx: CanvasRenderingContext2D,
  { view, size, theme, mini }: PlaneFrame,
  { data, ink }: ShownSweep,
): void {
  ctx.strokeStyle = hueColour(theme, ink)
  ctx.lineWidth = mini ? 0.7 : Math.max(1, ink.width - 0.6)
  ctx.setLineDash([4, 4])
  ctx.beginPath()
  let open = false
  for (let k = 0; k < data.re.length; k += 1) {
    const { x, y } = toPixel(view, size, { re: data.re[k] ?? NaN, im: -(data.im?.[k] ?? 0) })
    const drawn = Math.abs(x) < FAR && Math.abs(y) < FAR
    if (drawn && open) ctx.lineTo(x, y)
    else if (drawn) ctx.moveTo(x, y)
    open = drawn
  }
  ctx.stroke()
  ctx.setLineDash([])
}

/** The point −1, and for each loop how often it runs round it and what follows for the closed loop. */
function drawCritical(
  ctx: CanvasRenderingContext2D,
  { view, size, theme, mini }: PlaneFrame,
  loops: readonly ShownSweep[],
): void {
  const { x, y } = toPixel(view, size, { re: -1, im: 0 })
  ctx.strokeStyle = theme.brass
  ctx.lineWidth = mini ? 1 : 2.2
  const half = mini ? 3 : 7
  ctx.beginPath()
  ctx.moveTo(x - half, y)
  ctx.lineTo(x + half, y)
  ctx.moveTo(x, y - half)
  ctx.lineTo(x, y + half)
  ctx.stroke()
  if (mini) return
  ctx.font = `12.5px ${SANS}`
  ctx.textAlign = 'left'
  ctx.textBaseline = 'top'
  loops.forEach(({ name, data: { loop } }, k) => {
    if (!loop) return
    const verdict = loop.closed === 0 ? 'stable' : 'unstable'
    const text = `${name}: N = ${loop.encirclements}, P = ${loop.open}, Z = N + P = ${loop.closed}, ${verdict}`
    ctx.strokeStyle = theme.leaf
    ctx.lineWidth = 4
    ctx.strokeText(text, 12, 10 + 18 * k)
    ctx.fillStyle = theme.ink
    ctx.fillText(text, 12, 10 + 18 * k)
  })
}

/** A ring where it begins (none without a ground), a filled square where it ends, and heads that say which way it runs. */
function drawEnds(ctx: CanvasRenderingContext2D, path: Float64Array, ground: string | null): void {
  const [first, last] = [pointAt(path, 0), pointAt(path, path.length - 2)]
  if (!first || !last) return
  const ink = ctx.fillStyle
  for (const share of [0.25, 0.5, 0.75]) drawHead(ctx, path, share)
  ctx.lineWidth = 2
  if (ground !== null) {
    ctx.beginPath()
    ctx.arc(first.x, first.y, 4.5, 0, 2 * Math.PI)
    ctx.fillStyle = ground
    ctx.fill()
    ctx.stroke()
  }
  ctx.fillStyle = ink
  ctx.fillRect(last.x - 4, last.y - 4, 8, 8)
}

/** The part of a path from where it first comes into sight. */
function inSight(path: Float64Array, { width, height }: Size): Float64Array {
  for (let k = 0; k + 1 < path.length; k += 2) {
    const [x, y] = [path[k] as number, path[k + 1] as number]
    if (x >= 0 && x <= width && y >= 0 && y <= height) return path.subarray(k)
  }
  return path
}

function pointAt(path: Float64Array, k: number): Pixel | null {
  const [x, y] = [path[k], path[k + 1]]
  return x === undefined || y === undefined || Number.isNaN(x) ? null : { x, y }
}

/** A head at a share of the length of the path. */
function drawHead(ctx: CanvasRenderingContext2D, path: Float64Array, share: number): void {
  const wanted = lengthOf(path) * share
  let walked = 0
  for (let k = 2; k < path.length; k += 2) {
    const [dx, dy] = [(path[k] as number) - (path[k - 2] as number), (path[k + 1] as number) - (path[k - 1] as number)]
    const step = Math.hypot(dx, dy)
    if (!Number.isFinite(step) || step === 0) continue
    walked += step
    if (walked < wanted) continue
    const rest = (walked - wanted) / step
    const [x, y] = [(path[k] as number) - rest * dx, (path[k + 1] as number) - rest * dy]
    const angle = Math.atan2(dy, dx)
    ctx.beginPath()
    ctx.moveTo(x + 6 * Math.cos(angle), y + 6 * Math.sin(angle))
    for (const side of [-1, 1]) ctx.lineTo(x - 7 * Math.cos(angle + side * 0.5), y - 7 * Math.sin(angle + side * 0.5))
    ctx.closePath()
    ctx.fill()
    return
  }
}

function lengthOf(path: Float64Array): number {
  let sum = 0
  for (let k = 2; k < path.length; k += 2) {
    const step = Math.hypot((path[k] as number) - (path[k - 2] as number), (path[k + 1] as number) - (path[k - 1] as number)) // prettier-ignore
    if (Number.isFinite(step)) sum += step
  }
  return sum
}

/** The point of a locus under the pointer: which, and where. */
export function locusAt(
  loci: readonly ShownSweep[],
  view: PlaneView,
  size: Size,
  at: Pixel,
  reach: number,
): { readonly locus: ShownSweep; readonly index: number } | null {
  let found: { locus: ShownSweep; index: number } | null = null
  let least = reach * reach
  const [cx, cy, per] = [size.width / 2, size.height / 2, 1 / view.perPixel]
  for (const locus of loci) {
    const { re, im } = locus.data
    for (let k = 0; k < re.length; k += 1) {
      const dx = cx + ((re[k] as number) - view.re) * per - at.x
      const dy = cy - ((im?.[k] ?? 0) - view.im) * per - at.y
      const away = dx * dx + dy * dy
      if (away <= least) {
        least = away
        found = { locus, index: k }
      }
    }
  }
  return found ?? strokeAt(loci, view, size, at, 6)
}

/** Between two points that lie far apart: the nearer end of the stroke under the pointer. */
function strokeAt(
  loci: readonly ShownSweep[],
  view: PlaneView,
  size: Size,
  at: Pixel,
  reach: number,
): { readonly locus: ShownSweep; readonly index: number } | null {
  for (const locus of loci) {
    const { re, im } = locus.data
    if (re.length > 4_000) continue
    for (let k = 1; k < re.length; k += 1) {
      const a = toPixel(view, size, { re: re[k - 1] ?? NaN, im: im?.[k - 1] ?? 0 })
      const b = toPixel(view, size, { re: re[k] ?? NaN, im: im?.[k] ?? 0 })
      const [dx, dy] = [b.x - a.x, b.y - a.y]
      const length = dx * dx + dy * dy
      const share = length === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - a.x) * dx + (at.y - a.y) * dy) / length))
      if (Math.hypot(a.x + share * dx - at.x, a.y + share * dy - at.y) <= reach)
        return { locus, index: share < 0.5 ? k - 1 : k }
    }
  }
  return null
}

/** True where a locus is made of strokes too long to be true. */
export function isCoarseLocus({ data }: ShownSweep, view: PlaneView, size: Size): boolean {
  if (data.re.length > 1_500) return false
  const points = Array.from(data.re, (re, k) => toPixel(view, size, { re, im: data.im?.[k] ?? 0 }))
  return isCoarse(points)
}

/** How far from the origin a loop is looked at. */
const LOOP_SIGHT = 3

/** The corners of the box round a locus, to fit the picture to it. */
export function boxOf({ data }: ShownSweep): { re: number; im: number }[] {
  // Of a loop what lies about −1 is looked at: where it integrates it runs out of sight.
  const far = data.loop ? LOOP_SIGHT : Infinity
  const about = data.loop ? [{ re: -1.5, im: -1 }, { re: 0.5, im: 1 }] : [] // prettier-ignore
  let [left, right, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let k = 0; k < data.re.length; k += 1) {
    const [x, y] = [data.re[k] as number, data.im?.[k] ?? 0]
    if (x - x !== 0 || y - y !== 0 || Math.hypot(x, y) > far) continue
    if (x < left) left = x
    if (x > right) right = x
    if (y < bottom) bottom = y
    if (y > top) top = y
  }
  return left > right ? about : [...about, { re: left, im: bottom }, { re: right, im: top }]
}
