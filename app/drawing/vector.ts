import { Context } from 'svgcanvas'
import type { Size } from '#core/scene/view'
import type { Paint } from './files'

/** A picture as an SVG element: lines and texts that stay sharp at any size. */
export function svgElement(paint: Paint, size: Size, title: string): SVGElement {
  const ctx = new Context({ width: size.width, height: size.height })
  // A path is put into path elements only: the package complains of every other, and has nothing to put there.
  const putPath = ctx.__applyCurrentDefaultPath.bind(ctx)
  ctx.__applyCurrentDefaultPath = () => {
    if (ctx.__currentElement.nodeName === 'path') putPath()
  }
  paint(ctx)
  const root = ctx.getSvg()
  root.setAttribute('viewBox', `0 0 ${size.width} ${size.height}`)
  const name = document.createElementNS('http://www.w3.org/2000/svg', 'title')
  name.textContent = title
  root.prepend(name)
  return root
}
