/** svgcanvas brings no types: what we use of it. */
declare module 'svgcanvas' {
  export const Context: new (options: { width: number; height: number }) => CanvasRenderingContext2D & {
    getSvg(): SVGSVGElement
    __currentElement: Element
    __applyCurrentDefaultPath(): void
  }
}
