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

const LEAST_PER_PIXEL = 1e-300
const MOST_PER_PIXEL = 1e300

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
  const perPixel = Math.max((right - left) / width, (top - bottom) / height)
  return {
    re: (left + right) / 2,
    im: (bottom + top) / 2,
    perPixel: perPixel > 0 && Number.isFinite(perPixel) ? perPixel : 2 / Math.min(width, height),
  }
}

/** Zooms by a factor (above 1 comes nearer) and leaves the point under the pixel where it is. */
export function zoomAt(view: PlaneView, size: Size, pixel: Pixel, factor: number): PlaneView {
  const perPixel = Math.min(MOST_PER_PIXEL, Math.max(LEAST_PER_PIXEL, view.perPixel / factor))
  const fixed = toPlane(view, size, pixel)
  return {
    re: fixed.re - (pixel.x - size.width / 2) * perPixel,
    im: fixed.im + (pixel.y - size.height / 2) * perPixel,
    perPixel,
  }
}

/** Moves the picture by so many pixels. */
export function panBy(view: PlaneView, dx: number, dy: number): PlaneView {
  return { ...view, re: view.re - dx * view.perPixel, im: view.im + dy * view.perPixel }
}

/** The view that shows a range of both axes, whole, with one scale for both. */
export function fitRange({ left, right, bottom, top }: Bounds, size: Size): PlaneView {
  const perPixel = Math.max(Math.abs(right - left) / size.width, Math.abs(top - bottom) / size.height)
  return {
    re: (left + right) / 2,
    im: (bottom + top) / 2,
    perPixel: perPixel > 0 && Number.isFinite(perPixel) ? perPixel : 2 / Math.min(size.width, size.height),
  }
}
