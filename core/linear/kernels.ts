import type { Dense } from './dense'
import { KERNEL_BYTES } from './kernelBytes'

/**
 * The inner loops of kernels/linear.ts, and the memory they work in. They are for matrices that are large, finite and
 * well within the range of doubles; all others are reckoned by the plain loops beside each of their callers, which
 * are also what an engine without WebAssembly is left with.
 */
export interface Kernels {
  readonly memory: WebAssembly.Memory
  product(
    m: number,
    k: number,
    n: number,
    ar: number,
    ai: number,
    as: number,
    br: number,
    bi: number,
    bs: number,
    cr: number,
    ci: number,
    cs: number,
    pack: number,
    sign: number,
  ): void
  realProduct(
    m: number,
    k: number,
    n: number,
    a: number,
    as: number,
    b: number,
    bs: number,
    c: number,
    cs: number,
    pack: number,
  ): void
  factorPanel(
    re: number,
    im: number,
    stride: number,
    rows: number,
    columns: number,
    start: number,
    stop: number,
    pivots: number,
  ): number
  solveLower(
    lr: number,
    li: number,
    ls: number,
    xr: number,
    xi: number,
    xs: number,
    start: number,
    stop: number,
    first: number,
    last: number,
  ): void
  solveUpper(
    ur: number,
    ui: number,
    us: number,
    xr: number,
    xi: number,
    xs: number,
    start: number,
    stop: number,
    columns: number,
  ): void
  reflectLeft(
    re: number,
    im: number,
    stride: number,
    top: number,
    rows: number,
    left: number,
    right: number,
    vr: number,
    vi: number,
    tauRe: number,
    tauIm: number,
    sr: number,
    si: number,
  ): void
  reflectRight(
    re: number,
    im: number,
    stride: number,
    top: number,
    rows: number,
    left: number,
    right: number,
    vr: number,
    vi: number,
    tauRe: number,
    tauIm: number,
  ): void
  rotateRows(
    plane: number,
    stride: number,
    columns: number,
    first: number,
    count: number,
    cosines: number,
    sines: number,
    backward: boolean,
  ): void
  qrStep(
    hr: number,
    hi: number,
    zr: number,
    zi: number,
    stride: number,
    n: number,
    low: number,
    high: number,
    shiftRe: number,
    shiftIm: number,
    cosines: number,
    sinesRe: number,
    sinesIm: number,
  ): void
}

/** From this order on the kernels gain more than the way there and back costs. */
export const LARGE = 32

let loaded: Kernels | null | undefined

function kernels(): Kernels | null {
  if (loaded !== undefined) return loaded
  try {
    const bytes = Uint8Array.from(atob(KERNEL_BYTES), (c) => c.charCodeAt(0))
    loaded = new WebAssembly.Instance(new WebAssembly.Module(bytes)).exports as Kernels & WebAssembly.Exports
  } catch {
    // An engine without WebAssembly or its vectors, or a page that forbids them.
    loaded = null
  }
  return loaded
}

/** A matrix in the memory of the kernels; `stride` is in bytes. */
export interface Held {
  readonly rows: number
  readonly cols: number
  readonly stride: number
  readonly re: number
  readonly im: number
}

/** Rows and columns of a matrix, both from one number to another. */
export function part(held: Held, top: number, bottom: number, left: number, right: number): Held {
  const by = top * held.stride + left * 8
  return { rows: bottom - top, cols: right - left, stride: held.stride, re: held.re + by, im: held.im + by }
}

/** What the kernels reckon with from the first matrix that is put there to the outcome that is taken away. */
export class Workspace {
  readonly run: Kernels
  private top = 64

  constructor(run: Kernels) {
    this.run = run
  }

  /** Room for so many doubles, all zero. */
  room(count: number): number {
    const start = this.top
    this.top = Math.ceil((start + count * 8) / 64) * 64
    const missing = this.top - this.run.memory.buffer.byteLength
    if (missing > 0) this.run.memory.grow(Math.ceil(missing / 65536))
    this.doubles(start, count).fill(0)
    return start
  }

  /** Doubles in the memory, to be used before more room is taken. */
  doubles(address: number, count: number): Float64Array {
    return new Float64Array(this.run.memory.buffer, address, count)
  }

  whole(address: number, count: number): Int32Array {
    return new Int32Array(this.run.memory.buffer, address, count)
  }

  zeros(rows: number, cols: number): Held {
    const wide = Math.ceil(cols / 8) * 8
    const re = this.room(rows * wide)
    return { rows, cols, stride: wide * 8, re, im: this.room(rows * wide) }
  }

  /** Ones on the diagonal; with fewer columns than rows the first columns of the identity. */
  identity(rows: number, cols: number): Held {
    const held = this.zeros(rows, cols)
    for (let k = 0; k < cols; k += 1) this.row(held.re, held, k)[k] = 1
    return held
  }

  put(a: Dense): Held {
    const held = this.zeros(a.rows, a.cols)
    this.fill(held, a)
    return held
  }

  /** The entries of a matrix into one that is there. */
  fill(held: Held, a: Dense): void {
    for (const [plane, from] of [
      [held.re, a.re],
      [held.im, a.im],
    ] as const) {
      for (let r = 0; r < a.rows; r += 1) this.row(plane, held, r).set(from.subarray(r * a.cols, r * a.cols + a.cols))
    }
  }

  take(held: Held): Dense {
    const { rows, cols } = held
    const result = { rows, cols, re: new Float64Array(rows * cols), im: new Float64Array(rows * cols) }
    for (let r = 0; r < rows; r += 1) {
      result.re.set(this.row(held.re, held, r), r * cols)
      result.im.set(this.row(held.im, held, r), r * cols)
    }
    return result
  }

  row(plane: number, held: Held, r: number): Float64Array {
    return this.doubles(plane + r * held.stride, held.cols)
  }
}

/** More entries than this are not brought into the memory of the kernels: it grows and never shrinks. */
const ENTRIES_MOST = 4_000_000

/**
 * Where matrices are large enough for the kernels, of so many entries together, and the kernels are there. One
 * workspace at a time: the next one begins where this one did.
 */
export function workspaceFor(order: number, entries: number): Workspace | null {
  if (order < LARGE || entries > ENTRIES_MOST) return null
  const run = kernels()
  return run && new Workspace(run)
}

/** Squares of all entries, and quotients of them, are within the range of doubles. */
export function ordinary({ re, im }: Dense): boolean {
  let most = 0
  for (let k = 0; k < re.length; k += 1) {
    const size = Math.abs(re[k] as number) + Math.abs(im[k] as number)
    if (!(size <= 1e100)) return false
    if (size > most) most = size
  }
  return most === 0 || most >= 1e-100
}

/** Columns to a whole number of fours. */
export function padded(columns: number): number {
  return Math.ceil(columns / 4) * 4
}
