/** A canvas that writes down what is drawn on it, for tests of drawing. */

export interface Stroke {
  readonly what: 'stroke' | 'fill'
  readonly points: readonly (readonly [x: number, y: number])[]
  readonly arcs: readonly { readonly x: number; readonly y: number; readonly radius: number }[]
  readonly colour: string
  readonly dash: readonly number[]
  readonly width: number
}

export interface Written {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly align: string
}

/** How wide a letter is taken to be, in pixels. */
export const LETTER = 7

export function recording(): {
  readonly ctx: CanvasRenderingContext2D
  readonly strokes: Stroke[]
  readonly texts: Written[]
} {
  const strokes: Stroke[] = []
  const texts: Written[] = []
  let points: [number, number][] = []
  let arcs: Stroke['arcs'][number][] = []
  let dash: readonly number[] = []
  const state: Record<string, unknown> = { strokeStyle: '', fillStyle: '', lineWidth: 1, textAlign: 'left' }
  const drawn = (what: Stroke['what']) => (): void => {
    const colour = String(what === 'stroke' ? state.strokeStyle : state.fillStyle)
    strokes.push({ what, points, arcs, colour, dash, width: Number(state.lineWidth) })
  }
  const begin = (): void => {
    points = []
    arcs = []
  }
  const point = (x: number, y: number): void => {
    points = [...points, [x, y]]
  }
  const does: Record<string, (...args: never[]) => unknown> = {
    beginPath: begin,
    moveTo: point,
    lineTo: point,
    arc: (x: number, y: number, radius: number) => {
      arcs = [...arcs, { x, y, radius }]
    },
    rect: point,
    setLineDash: (next: readonly number[]) => {
      dash = next
    },
    getLineDash: () => dash,
    stroke: drawn('stroke'),
    fill: drawn('fill'),
    measureText: (text: string) => ({ width: [...text].length * LETTER }),
    fillText: (text: string, x: number, y: number) => {
      texts.push({ text, x, y, align: String(state.textAlign) })
    },
  }
  const target = new Proxy(state, {
    get: (_, name) => does[String(name)] ?? (String(name) in state ? state[String(name)] : () => undefined),
    set: (_, name, value) => {
      state[String(name)] = value
      return true
    },
  })
  return { ctx: target as never, strokes, texts }
}
