import * as C from '../numbers/complex'

/**
 * Expressions on whole sweeps, worked off in blocks that stay in the
 * processor's cache: operators first build a tree of what is to be done, and
 * only its outcome becomes an array. No object is made per point.
 */

/** Numbers in arrays; one entry stands for every point. */
export interface Numbers {
  readonly re: Float64Array
  /** `null` where all are real. */
  readonly im: Float64Array | null
}

export type LoopSign = '+' | '-' | '*' | '/' | '||'

export type Program =
  | ({ readonly type: 'leaf' } & Numbers)
  | {
      readonly type: 'join'
      readonly sign: LoopSign
      readonly left: Program
      readonly right: Program
      readonly real: boolean
    }
  | { readonly type: 'power'; readonly base: Program; readonly exponent: number; readonly real: boolean }
  | { readonly type: 'negate'; readonly operand: Program; readonly real: boolean }

export function leaf(numbers: Numbers): Program {
  return { type: 'leaf', re: numbers.re, im: numbers.im }
}

const isReal = (p: Program): boolean => (p.type === 'leaf' ? p.im === null : p.real)

export function join(sign: LoopSign, left: Program, right: Program): Program {
  return { type: 'join', sign, left, right, real: isReal(left) && isReal(right) }
}

export function power(base: Program, exponent: number): Program {
  return { type: 'power', base, exponent, real: isReal(base) }
}

export function negate(operand: Program): Program {
  return { type: 'negate', operand, real: isReal(operand) }
}

const BLOCK = 1024

/** A stretch of numbers: one entry after another, or a single one for every point. */
interface Stretch {
  readonly re: Float64Array
  readonly im: Float64Array | null
  readonly single: boolean
}

class Runner {
  /** Buffers that are free: a stretch is used up before its neighbour is asked for another one. */
  private readonly free: Float64Array[] = []
  overflow = false

  constructor(private readonly count: number) {}

  private buffer(): Float64Array {
    return this.free.pop() ?? new Float64Array(BLOCK)
  }

  private release(stretch: Stretch, owner: Program): void {
    if (owner.type === 'leaf') return
    this.free.push(stretch.re)
    if (stretch.im) this.free.push(stretch.im)
  }

  /** The outcome of a program at `n` points from `from` on, in the given stretch or in buffers. */
  stretch(p: Program, from: number, n: number, out: Stretch | null): Stretch {
    if (p.type === 'leaf') {
      const single = p.re.length === 1 && this.count !== 1
      if (single) return { re: p.re, im: p.im, single }
      return { re: p.re.subarray(from, from + n), im: p.im && p.im.subarray(from, from + n), single }
    }
    const target = out ?? { re: this.buffer(), im: p.real ? null : this.buffer(), single: false }
    if (p.type === 'join') {
      const a = this.stretch(p.left, from, n, null)
      const b = this.stretch(p.right, from, n, null)
      this.joined(p, a, b, target, n)
      this.release(a, p.left)
      this.release(b, p.right)
    } else {
      const inner = p.type === 'power' ? p.base : p.operand
      const a = this.stretch(inner, from, n, null)
      if (p.type === 'power') raise(a, p.exponent, target, n)
      else negateStretch(a, target, n)
      this.release(a, inner)
    }
    return target
  }

  private joined(p: Extract<Program, { type: 'join' }>, a: Stretch, b: Stretch, out: Stretch, n: number): void {
    switch (p.sign) {
      case '+':
      case '-':
        addStretch(a, b, out, n, p.sign === '+' ? 1 : -1)
        return
      case '*':
        multiplyStretch(a, b, out, n)
        return
      case '/':
        this.watch(p.left, a, n)
        this.watch(p.right, b, n)
        divideStretch(a, b, out, n)
        return
      case '||':
        this.watch(p.left, a, n)
        this.watch(p.right, b, n)
        parallelStretch(a, b, out, n)
        return
    }
  }

  /**
   * An infinite number goes on through sums and products to the outcome or into a
   * quotient, where it would be lost: there it is looked for.
   */
  watch(p: Program, { re, im, single }: Stretch, n: number): void {
    if (this.overflow || p.type === 'leaf' || !isWhole(p)) return
    const length = single ? 1 : n
    if ((strays(re, length) || (im !== null && strays(im, length))) && leavesAreFinite(p)) this.overflow = true
  }
}

/** True where nothing is divided: what is infinite then has left the range of doubles, or came in so. */
function isWhole(p: Program): boolean {
  switch (p.type) {
    case 'leaf':
      return true
    case 'join':
      return p.sign !== '/' && p.sign !== '||' && isWhole(p.left) && isWhole(p.right)
    case 'power':
      return p.exponent >= 0 && isWhole(p.base)
    case 'negate':
      return isWhole(p.operand)
  }
}

function leavesAreFinite(p: Program): boolean {
  switch (p.type) {
    case 'leaf':
      return !strays(p.re, p.re.length) && (p.im === null || !strays(p.im, p.im.length))
    case 'join':
      return leavesAreFinite(p.left) && leavesAreFinite(p.right)
    case 'power':
      return leavesAreFinite(p.base)
    case 'negate':
      return leavesAreFinite(p.operand)
  }
}

/** True where one of the first n numbers is infinite or not a number. */
function strays(x: Float64Array, n: number): boolean {
  let sum = 0
  for (let k = 0; k < n; k += 1) sum += (x[k] as number) * 0
  return sum !== 0
}

function addStretch(a: Stretch, b: Stretch, out: Stretch, n: number, sign: 1 | -1): void {
  addParts(a.re, a.single, b.re, b.single, out.re, n, sign)
  if (!out.im) return
  if (a.im && b.im) addParts(a.im, a.single, b.im, b.single, out.im, n, sign)
  else if (a.im) copyPart(a.im, a.single, out.im, n, 1)
  else if (b.im) copyPart(b.im, b.single, out.im, n, sign)
}

function addParts(
  a: Float64Array,
  oneLeft: boolean,
  b: Float64Array,
  oneRight: boolean,
  out: Float64Array,
  n: number,
  sign: 1 | -1,
): void {
  if (oneLeft || oneRight) {
    const x = oneLeft ? (a[0] as number) : sign * (b[0] as number)
    const other = oneLeft ? b : a
    if (oneLeft && sign < 0) for (let k = 0; k < n; k += 1) out[k] = x - (other[k] as number)
    else for (let k = 0; k < n; k += 1) out[k] = (other[k] as number) + x
  } else if (sign > 0) for (let k = 0; k < n; k += 1) out[k] = (a[k] as number) + (b[k] as number)
  else for (let k = 0; k < n; k += 1) out[k] = (a[k] as number) - (b[k] as number)
}

function copyPart(a: Float64Array, single: boolean, out: Float64Array, n: number, sign: 1 | -1): void {
  if (single) out.fill(sign * (a[0] as number), 0, n)
  else if (sign > 0) out.set(a.length === n ? a : a.subarray(0, n))
  else for (let k = 0; k < n; k += 1) out[k] = -(a[k] as number)
}

function multiplyStretch(a: Stretch, b: Stretch, out: Stretch, n: number): void {
  if (!a.im || !b.im) {
    multiplyParts(a.re, a.single, b.re, b.single, out.re, n)
    if (!out.im) return
    if (a.im) multiplyParts(a.im, a.single, b.re, b.single, out.im, n)
    else if (b.im) multiplyParts(a.re, a.single, b.im, b.single, out.im, n)
    return
  }
  if (!out.im) return
  if (a.single) scaleStretch(a.re[0] as number, a.im[0] as number, b.re, b.im, out.re, out.im, n)
  else if (b.single) scaleStretch(b.re[0] as number, b.im[0] as number, a.re, a.im, out.re, out.im, n)
  else multiplyComplex(a.re, a.im, b.re, b.im, out.re, out.im, n)
}

function scaleStretch(
  w: number,
  x: number,
  br: Float64Array,
  bi: Float64Array,
  re: Float64Array,
  im: Float64Array,
  n: number,
): void {
  for (let k = 0; k < n; k += 1) {
    const y = br[k] as number
    const z = bi[k] as number
    re[k] = w * y - x * z
    im[k] = w * z + x * y
  }
}

function multiplyComplex(
  ar: Float64Array,
  ai: Float64Array,
  br: Float64Array,
  bi: Float64Array,
  re: Float64Array,
  im: Float64Array,
  n: number,
): void {
  for (let k = 0; k < n; k += 1) {
    const w = ar[k] as number
    const x = ai[k] as number
    const y = br[k] as number
    const z = bi[k] as number
    re[k] = w * y - x * z
    im[k] = w * z + x * y
  }
}

function multiplyParts(
  a: Float64Array,
  oneLeft: boolean,
  b: Float64Array,
  oneRight: boolean,
  out: Float64Array,
  n: number,
): void {
  if (oneLeft || oneRight) {
    const x = (oneLeft ? a[0] : b[0]) as number
    const other = oneLeft ? b : a
    if (x === 0) out.fill(0, 0, n)
    else for (let k = 0; k < n; k += 1) out[k] = x * (other[k] as number)
  } else for (let k = 0; k < n; k += 1) out[k] = (a[k] as number) * (b[k] as number)
}

/** Between these the square of a magnitude neither overflows nor loses digits. */
const SMALL = 1e-140
const LARGE = 1e140

function divideStretch(a: Stretch, b: Stretch, out: Stretch, n: number): void {
  const { re, im } = out
  const [s, t] = [a.single ? 0 : 1, b.single ? 0 : 1]
  const [ar, br] = [a.re, b.re]
  if (!im) {
    // −0 is not told from 0.
    for (let k = 0; k < n; k += 1) re[k] = (ar[k * s] as number) / ((br[k * t] as number) + 0)
    return
  }
  if (a.single && b.im && (a.im === null || a.im[0] === 0)) {
    invertStretch(ar[0] as number, br, b.im, re, im, n)
    return
  }
  const ai = a.im ?? NONE
  const bi = b.im ?? NONE
  const [u, v] = [a.im ? s : 0, b.im ? t : 0]
  for (let k = 0; k < n; k += 1) {
    const w = ar[k * s] as number
    const x = ai[k * u] as number
    const y = br[k * t] as number
    const z = bi[k * v] as number
    const size = Math.abs(y) + Math.abs(z)
    const top = Math.abs(w) + Math.abs(x)
    if (size > SMALL && size < LARGE && top < LARGE && (top > SMALL || top === 0)) {
      const bottom = 1 / (y * y + z * z)
      re[k] = (w * y + x * z) * bottom
      im[k] = (x * y - w * z) * bottom
    } else dividePoint(w, x, y, z, re, im, k)
  }
}

const NONE = new Float64Array(1)

/** A real number over complex ones. */
function invertStretch(
  w: number,
  br: Float64Array,
  bi: Float64Array,
  re: Float64Array,
  im: Float64Array,
  n: number,
): void {
  const safe = Math.abs(w) < LARGE && Math.abs(w) > SMALL
  for (let k = 0; k < n; k += 1) {
    const y = br[k] as number
    const z = bi[k] as number
    const square = y * y + z * z
    if (safe && square > 1e-280 && square < 1e280) {
      const bottom = w / square
      re[k] = y * bottom
      im[k] = -z * bottom
    } else dividePoint(w, 0, y, z, re, im, k)
  }
}

function dividePoint(w: number, x: number, y: number, z: number, re: Float64Array, im: Float64Array, k: number): void {
  const value = C.divide({ re: w, im: x }, { re: y + 0, im: z + 0 })
  re[k] = value.re
  im[k] = value.im
}

/** 1/(1/a + 1/b), point by point; 0 where either is 0, the other where one is infinite. */
function parallelStretch(a: Stretch, b: Stretch, out: Stretch, n: number): void {
  const [s, t] = [a.single ? 0 : 1, b.single ? 0 : 1]
  const one = { re: 1, im: 0 }
  for (let k = 0; k < n; k += 1) {
    const x = { re: a.re[k * s] as number, im: a.im ? (a.im[k * s] as number) : 0 }
    const y = { re: b.re[k * t] as number, im: b.im ? (b.im[k * t] as number) : 0 }
    const zero = (x.re === 0 && x.im === 0) || (y.re === 0 && y.im === 0)
    const value = zero
      ? { re: 0, im: 0 }
      : C.isInfinite(x)
        ? y
        : C.isInfinite(y)
          ? x
          : C.divide(one, C.add(C.divide(one, x), C.divide(one, y)))
    out.re[k] = value.re
    if (out.im) out.im[k] = value.im
  }
}

function raise(a: Stretch, exponent: number, out: Stretch, n: number): void {
  const s = a.single ? 0 : 1
  const steps = Math.abs(exponent)
  for (let k = 0; k < n; k += 1) {
    let x = a.re[k * s] as number
    let y = a.im ? (a.im[k * s] as number) : 0
    let u = 1
    let v = 0
    for (let m = steps; m > 0; m >>= 1) {
      if (m & 1) {
        const r = u * x - v * y
        v = u * y + v * x
        u = r
      }
      const r = x * x - y * y
      y = 2 * x * y
      x = r
    }
    if (exponent < 0) {
      const inverse = C.divide({ re: 1, im: 0 }, { re: u + 0, im: v + 0 })
      u = inverse.re
      v = inverse.im
    }
    out.re[k] = u
    if (out.im) out.im[k] = v
  }
}

function negateStretch(a: Stretch, out: Stretch, n: number): void {
  copyPart(a.re, a.single, out.re, n, -1)
  if (out.im && a.im) copyPart(a.im, a.single, out.im, n, -1)
}

/** −0 is not told from 0. */
function tidy(x: Float64Array): void {
  for (let k = 0; k < x.length; k += 1) x[k] = (x[k] as number) + 0
}

/** Runs a program at every point; `overflow` where a sum or a product left the range of doubles. */
export function run(program: Program, count: number): Numbers & { readonly overflow: boolean } {
  const runner = new Runner(count)
  const re = new Float64Array(count)
  const im = isReal(program) ? null : new Float64Array(count)
  for (let from = 0; from < count; from += BLOCK) {
    const n = Math.min(BLOCK, count - from)
    const out = { re: re.subarray(from, from + n), im: im && im.subarray(from, from + n), single: false }
    const found = runner.stretch(program, from, n, out)
    if (program.type === 'leaf') {
      copyPart(found.re, found.single, out.re, n, 1)
      if (out.im && found.im) copyPart(found.im, found.single, out.im, n, 1)
    }
    runner.watch(program, out, n)
    tidy(out.re)
    if (out.im) tidy(out.im)
  }
  return { re, im, overflow: runner.overflow }
}
