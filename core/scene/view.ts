import type { Complex } from '../numbers/complex'

/** Which part of the complex plane a plate shows; one scale for both axes, always. */
export interface PlaneView {
  /** The point in the middle. */
  readonly re: number
  readonly im: number
  /** Plane units per pixel. */
  readonly perPixel: number
}

export interface Size {
  readonly width: number
  readonly height: number
}

export interface Pixel {
  readonly x: number
  readonly y: number
}

/** Bounds of a view in plane units. */
export interface Bounds {
  readonly left: number
  readonly right: number
  readonly bottom: number
  readonly top: number
}

const LEAST_PER_PIXEL = 1e-290
const MOST_PER_PIXEL = 1e290
/** A pixel is at least so much of the distance from the origin: sixteen doubles apart. */
const PRECISION = 2 ** -48
/** How near and how far the picture goes, as a share of the values it shows. */
const NEAREST = 1e-10
const FARTHEST = 1e8

/** Plane units per pixel within what doubles can tell apart in that place. */
function sound(perPixel: number, re: number, im: number): number {
  const least = Math.max(LEAST_PER_PIXEL, PRECISION * Math.max(Math.abs(re), Math.abs(im)))
  return Math.min(MOST_PER_PIXEL, Math.max(least, perPixel))
}

/** The largest distance from the origin among points, for the limits of zooming; 1 where there are none. */
export function extentOf(points: readonly Complex[]): number {
  let extent = 0
  for (const { re, im } of points) {
    const size = Math.max(Math.abs(re), Math.abs(im))
    if (Number.isFinite(size)) extent = Math.max(extent, size)
  }
  return extent > 0 ? extent : 1
}

export function toPixel(view: PlaneView, size: Size, z: Complex): Pixel {
  return {
    x: size.width / 2 + (z.re - view.re) / view.perPixel,
    y: size.height / 2 - (z.im - view.im) / view.perPixel,
  }
}

export function toPlane(view: PlaneView, size: Size, p: Pixel): Complex {
  return {
    re: view.re + (p.x - size.width / 2) * view.perPixel,
    im: view.im - (p.y - size.height / 2) * view.perPixel,
  }
}

export function boundsOf(view: PlaneView, size: Size): Bounds {
  const halfWidth = (size.width / 2) * view.perPixel
  const halfHeight = (size.height / 2) * view.perPixel
  return {
    left: view.re - halfWidth,
    right: view.re + halfWidth,
    bottom: view.im - halfHeight,
    top: view.im + halfHeight,
  }
}

/** The view that shows the origin and every point, with a margin in pixels for labels. */
export function fitView(points: readonly Complex[], size: Size, margin = 44): PlaneView {
  let [left, right, bottom, top] = [0, 0, 0, 0]
  for (const { re, im } of points) {
    if (!Number.isFinite(re) || !Number.isFinite(im)) continue
    left = Math.min(left, re)
    right = Math.max(right, re)
    bottom = Math.min(bottom, im)
    top = Math.max(top, im)
  }
  const width = Math.max(1, size.width - 2 * margin)
  const height = Math.max(1, size.height - 2 * margin)
  return framed(left, right, bottom, top, { width, height })
}

function framed(left: number, right: number, bottom: number, top: number, size: Size): PlaneView {
  // Halved first: the ends of the range of doubles have a middle, too.
  const [re, im] = [left / 2 + right / 2, bottom / 2 + top / 2]
  const perPixel = Math.max(
    Math.abs(right / size.width - left / size.width),
    Math.abs(top / size.height - bottom / size.height),
  )
  const usual = perPixel > 0 && Number.isFinite(perPixel) ? perPixel : 2 / Math.min(size.width, size.height)
  return { re, im, perPixel: sound(usual, re, im) }
}

/**
 * Zooms by a factor (above 1 comes nearer) and leaves the point under the pixel where it is. It ends
 * where there is nothing more to see: for values of this extent, and where doubles end.
 */
export function zoomAt(view: PlaneView, size: Size, pixel: Pixel, factor: number, extent: number): PlaneView {
  const fixed = toPlane(view, size, pixel)
  const wanted = Math.min(FARTHEST * extent, Math.max(NEAREST * extent, view.perPixel / factor))
  // A view that is beyond its limits already, by its range, may come back but goes no further.
  const within = factor > 1 ? Math.min(view.perPixel, wanted) : Math.max(view.perPixel, wanted)
  const perPixel = sound(within, fixed.re, fixed.im)
  return {
    re: fixed.re - (pixel.x - size.width / 2) * perPixel,
    im: fixed.im + (pixel.y - size.height / 2) * perPixel,
    perPixel,
  }
}

/** Moves the picture by so many pixels. */
export function panBy(view: PlaneView, dx: number, dy: number): PlaneView {
  const [re, im] = [view.re - dx * view.perPixel, view.im + dy * view.perPixel]
  return { re, im, perPixel: sound(view.perPixel, re, im) }
}

/** The view that shows a range of both axes, whole, with one scale for both. */
export function fitRange({ left, right, bottom, top }: Bounds, size: Size): PlaneView {
  return framed(left, right, bottom, top, size)
}
