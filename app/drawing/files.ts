import type { Size } from '#core/scene/view'

/** A plate as a file or on the clipboard, drawn anew at the size that is asked for. */

export type Paint = (ctx: CanvasRenderingContext2D) => void

/** PNG at so many pixels for each of the screen's. */
export function pngOf(paint: Paint, size: Size, scale: number): Promise<Blob | null> {
  const paper = document.createElement('canvas')
  paper.width = Math.round(size.width * scale)
  paper.height = Math.round(size.height * scale)
  const ctx = paper.getContext('2d')
  if (!ctx) return Promise.resolve(null)
  ctx.scale(scale, scale)
  paint(ctx)
  return new Promise((done) => paper.toBlob(done, 'image/png'))
}

/** SVG: a vector file with text as text. */
export async function svgOf(paint: Paint, size: Size, title: string): Promise<Blob> {
  const { svgElement } = await import('./vector')
  const root = svgElement(paint, size, title)
  const text = new XMLSerializer().serializeToString(root)
  return new Blob([`<?xml version="1.0" encoding="UTF-8"?>\n`, text], { type: 'image/svg+xml' })
}

export function saveAs(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** `Lamp-circuit-plate-1.png` */
export function fileName(title: string, number: number, ending: string): string {
  return `${title.replace(/[^\p{L}\p{Nd}]+/gu, '-')}-plate-${number}.${ending}`
}

/** Puts a picture on the clipboard; false where the browser does not let us. */
export async function copyPicture(png: Promise<Blob | null>): Promise<boolean> {
  try {
    const blob = await png
    if (!blob) return false
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })])
    return true
  } catch {
    return false
  }
}

/** A canvas that Chart.js can draw on, whose context is the one that is given. */
export function paperFor(ctx: CanvasRenderingContext2D, { width, height }: Size): HTMLCanvasElement {
  const paper = document.createElement('canvas')
  paper.width = width
  paper.height = height
  paper.style.width = `${width}px`
  paper.style.height = `${height}px`
  const own = new Proxy(ctx, {
    get(target, name) {
      if (name === 'canvas') return paper
      // The picture is not wiped, nor its scale forgotten, when the chart lets go of it.
      if (name === 'clearRect' || name === 'resetTransform' || name === 'setTransform') return () => undefined
      const value: unknown = Reflect.get(target, name)
      return typeof value === 'function' ? value.bind(target) : value
    },
    set: (target, name, value) => Reflect.set(target, name, value),
  })
  Object.defineProperty(paper, 'getContext', { value: () => own })
  return paper
}
