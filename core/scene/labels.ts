import type { Pixel } from './view'

/** Places labels clear of arrows, marks, axes and one another. */

export interface LabelRequest {
  readonly id: string
  /** The tip that the label names. */
  readonly anchor: Pixel
  readonly width: number
  readonly height: number
  /** The direction in which it would best stand off, in pixels (y down). */
  readonly away: Pixel
  /** The place it had in the picture before: kept unless another is much better, so that nothing flickers. */
  readonly before?: number | undefined
}

export interface PlacedLabel {
  readonly id: string
  /** Top left corner. */
  readonly x: number
  readonly y: number
  /** Which of the places round its tip it took; see `before`. */
  readonly place: number
  /** From the tip to the label, where it had to move far. */
  readonly leader: Segment | null
}

export interface Segment {
  readonly from: Pixel
  readonly to: Pixel
}

export interface Box {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

const DISTANCES = [11, 20, 32, 54, 84]
/** From this distance on a line leads from the tip to its label. */
const LEADER_FROM = 3
/** What the place of the picture before is worth. */
const STAYING = 24
const DIRECTIONS = 16

/**
 * Greedy placement: each label in turn takes the cheapest of the places round
 * its tip. A place costs for what it covers and for how far it strays from the
 * direction the arrow points in. `hurried`: under a moving hand a label keeps
 * its place unless it would cover another label.
 */
export function placeLabels(
  requests: readonly LabelRequest[],
  segments: readonly Segment[],
  marks: readonly Pixel[],
  size: { readonly width: number; readonly height: number },
  taken: readonly Box[] = [],
  hurried = false,
): PlacedLabel[] {
  const placed: PlacedLabel[] = []
  const obstacles = flattened(segments)
  const others = taken.map((box) => ({ box }))
  for (const request of requests) {
    const [first] = request.before === undefined ? [] : [candidate(request, request.before)]
    let best: Candidate | null = null
    let least = Infinity
    const consider = (box: Candidate, bonus: number): void => {
      const cost =
        box.cost - bonus + covering(box, others, obstacles, marks, size, request.anchor, least - box.cost + bonus)
      if (cost >= least) return
      least = cost
      best = box
    }
    const stays = hurried && first && others.every(({ box }) => overlapShare(first, box) === 0)
    if (stays) best = first
    else if (first) consider(first, STAYING)
    for (let place = 0; !stays && place < PLACES.length; place += 1) {
      // The places come cheapest first: none of the others can be better.
      if ((PLACES[place]?.cost ?? 0) >= least) break
      const box = candidate(request, place)
      if (box) consider(box, 0)
    }
    const taking = best as Candidate | null
    if (!taking) continue
    others.push({ box: taking })
    placed.push({
      id: request.id,
      x: taking.left,
      y: taking.top,
      place: taking.place,
      leader: taking.ring >= LEADER_FROM ? { from: request.anchor, to: nearestEdge(taking, request.anchor) } : null,
    })
  }
  return placed
}

/** The point of a box that is nearest to a tip. */
function nearestEdge(box: Box, { x, y }: Pixel): Pixel {
  return { x: Math.max(box.left, Math.min(box.right, x)), y: Math.max(box.top, Math.min(box.bottom, y)) }
}

/** Distances and directions round a tip with what each costs by itself, the cheapest first. */
const PLACES = DISTANCES.flatMap((distance, ring) =>
  Array.from({ length: DIRECTIONS }, (_, k) => {
    const turn = ((k % 2 === 0 ? k : -k - 1) / 2) * ((2 * Math.PI) / DIRECTIONS)
    return { distance, ring, turn, cost: ring * 6 + Math.max(0, ring - 2) * 6 + Math.abs(turn) * 3 }
  }),
).sort((a, b) => a.cost - b.cost)

interface Candidate extends Box {
  readonly place: number
  readonly ring: number
  readonly cost: number
}

function candidate({ anchor, width, height, away }: LabelRequest, place: number): Candidate | null {
  const at = PLACES[place]
  if (!at) return null
  const direction = Math.atan2(away.y, away.x) + at.turn
  const x = anchor.x + Math.cos(direction) * (at.distance + width / 2)
  const y = anchor.y + Math.sin(direction) * (at.distance + height / 2)
  return {
    left: x - width / 2,
    right: x + width / 2,
    top: y - height / 2,
    bottom: y + height / 2,
    place,
    ring: at.ring,
    cost: at.cost,
  }
}

function covering(
  box: Box,
  placed: readonly { readonly box: Box }[],
  obstacles: Float64Array,
  marks: readonly Pixel[],
  size: { readonly width: number; readonly height: number },
  own: Pixel,
  enough: number,
): number {
  let cost = 0
  if (box.left < 0 || box.top < 0 || box.right > size.width || box.bottom > size.height) cost += 200
  for (const other of placed) cost += 400 * overlapShare(box, other.box)
  if (cost >= enough) return cost
  const wide = grown(box, 4)
  for (const mark of marks) if (mark !== own && inside(wide, mark)) cost += 60
  if (cost >= enough) return cost
  for (let k = 0; k < obstacles.length; k += 4) {
    const x = obstacles[k] as number
    const y = obstacles[k + 1] as number
    const toX = obstacles[k + 2] as number
    const toY = obstacles[k + 3] as number
    if (x < box.left ? toX < box.left : x > box.right && toX > box.right) continue
    if (y < box.top ? toY < box.top : y > box.bottom && toY > box.bottom) continue
    if (!cuts(box, x, y, toX, toY)) continue
    cost += 40
    if (cost >= enough) return cost
  }
  return cost
}

/** Segments as rows of four numbers: they are gone through very often. */
function flattened(segments: readonly Segment[]): Float64Array {
  const flat = new Float64Array(4 * segments.length)
  segments.forEach(({ from, to }, k) => flat.set([from.x, from.y, to.x, to.y], 4 * k))
  return flat
}

/** A segment whose bounds meet those of a box: does it meet the box itself? Where all corners lie on one side it does not. */
function cuts(box: Box, x: number, y: number, toX: number, toY: number): boolean {
  const dx = toX - x
  const dy = toY - y
  const a = (box.left - x) * dy - (box.top - y) * dx
  const b = (box.right - x) * dy - (box.top - y) * dx
  const c = (box.left - x) * dy - (box.bottom - y) * dx
  const d = (box.right - x) * dy - (box.bottom - y) * dx
  return !((a > 0 && b > 0 && c > 0 && d > 0) || (a < 0 && b < 0 && c < 0 && d < 0))
}

function overlapShare(a: Box, b: Box): number {
  const width = Math.min(a.right, b.right) - Math.max(a.left, b.left)
  const height = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
  if (width <= 0 || height <= 0) return 0
  return 0.25 + (width * height) / ((a.right - a.left) * (a.bottom - a.top))
}

function inside(box: Box, p: Pixel): boolean {
  return p.x > box.left && p.x < box.right && p.y > box.top && p.y < box.bottom
}

function grown(box: Box, by: number): Box {
  return { left: box.left - by, top: box.top - by, right: box.right + by, bottom: box.bottom + by }
}
