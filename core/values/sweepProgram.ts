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

/** Real or imaginary parts of a stretch of points: one number after another, or one that stands for all. */
interface Part {
  readonly x: Float64Array
  readonly one: boolean
  /** True for a buffer of the runner, to be given back when it is used up. */
  readonly pooled: boolean
}

interface Stretch {
  readonly re: Part
  /** `null` where all are real. */
  readonly im: Part | null
}

const single = (x: number): Part => ({ x: Float64Array.of(x), one: true, pooled: false })
const NONE = single(0)

class Runner {
  private readonly free: Float64Array[] = []
  overflow = false

  constructor(private readonly count: number) {}

  private buffer(): Part {
    return { x: this.free.pop() ?? new Float64Array(BLOCK), one: false, pooled: true }
  }

  /** Gives a buffer back, unless it lives on in the outcome. */
  private release(part: Part | null, found: Stretch): void {
    if (part?.pooled && part !== found.re && part !== found.im) this.free.push(part.x)
  }

  done({ re, im }: Stretch): void {
    if (re.pooled) this.free.push(re.x)
    if (im?.pooled) this.free.push(im.x)
  }

  /** The outcome of a program at `n` points from `from` on. */
  stretch(p: Program, from: number, n: number): Stretch {
    if (p.type === 'leaf') {
      const one = p.re.length === 1 && this.count !== 1
      const part = (x: Float64Array): Part => ({ x: one ? x : x.subarray(from, from + n), one, pooled: false })
      return { re: part(p.re), im: p.im && part(p.im) }
    }
    if (p.type === 'join') {
      const a = this.stretch(p.left, from, n)
      const b = this.stretch(p.right, from, n)
      const found = this.joined(p, a, b, n)
      for (const part of [a.re, a.im, b.re, b.im]) this.release(part, found)
      return found
    }
    const inner = p.type === 'power' ? p.base : p.operand
    const a = this.stretch(inner, from, n)
    const found =
      p.type === 'power'
        ? this.raised(a, p.exponent, n)
        : { re: this.negated(a.re, n), im: a.im && this.negated(a.im, n) }
    for (const part of [a.re, a.im]) this.release(part, found)
    return found
  }

  private joined(p: Extract<Program, { type: 'join' }>, a: Stretch, b: Stretch, n: number): Stretch {
    switch (p.sign) {
      case '+':
      case '-':
        return this.sum(a, b, n, p.sign === '+' ? 1 : -1)
      case '*':
        return this.product(a, b, n)
      case '/':
        this.watch(p.left, a, n)
        this.watch(p.right, b, n)
        return this.quotient(a, b, n)
      case '||':
        this.watch(p.left, a, n)
        this.watch(p.right, b, n)
        return this.parallel(a, b, n)
    }
  }

  /**
   * An infinite number goes on through sums and products to the outcome or into a
   * quotient, where it would be lost: there it is looked for.
   */
  watch(p: Program, { re, im }: Stretch, n: number): void {
    if (this.overflow || p.type === 'leaf' || !isWhole(p)) return
    const odd = strays(re.x, re.one ? 1 : n) || (im !== null && strays(im.x, im.one ? 1 : n))
    if (odd && leavesAreFinite(p)) this.overflow = true
  }

  private sum(a: Stretch, b: Stretch, n: number, sign: 1 | -1): Stretch {
    const im =
      a.im && b.im ? this.sumOf(a.im, b.im, n, sign) : (a.im ?? (b.im && (sign > 0 ? b.im : this.negated(b.im, n))))
    return { re: this.sumOf(a.re, b.re, n, sign), im }
  }

  private sumOf(a: Part, b: Part, n: number, sign: 1 | -1): Part {
    if (a.one && b.one) return single((a.x[0] as number) + sign * (b.x[0] as number))
    const out = this.buffer()
    addParts(a, b, out.x, n, sign)
    return out
  }

  private negated(a: Part, n: number): Part {
    if (a.one) return single(-(a.x[0] as number))
    const out = this.buffer()
    for (let k = 0; k < n; k += 1) out.x[k] = -(a.x[k] as number)
    return out
  }

  private product(a: Stretch, b: Stretch, n: number): Stretch {
    if (!a.im || !b.im) {
      const factor = a.im ? b.re : a.re
      const [re, im] = a.im ? [a.re, a.im] : [b.re, b.im]
      return { re: this.productOf(re, factor, n), im: im && this.productOf(im, factor, n) }
    }
    const [ar, ai, br, bi] = [a.re, a.im, b.re, b.im]
    const [p, q] = [this.productOf(ar, br, n), this.productOf(ai, bi, n)]
    const [r, s] = [this.productOf(ar, bi, n), this.productOf(ai, br, n)]
    const found = { re: this.sumOf(p, q, n, -1), im: this.sumOf(r, s, n, 1) }
    for (const part of [p, q, r, s])
      if (part !== ar && part !== ai && part !== br && part !== bi) this.release(part, found)
    return found
  }

  private productOf(a: Part, b: Part, n: number): Part {
    if (a.one && b.one) return single((a.x[0] as number) * (b.x[0] as number))
    const factor = a.one ? (a.x[0] as number) : b.one ? (b.x[0] as number) : null
    // A factor of 1 changes nothing, and one of 0 leaves nothing of what is finite.
    if (factor === 0 && !strays((a.one ? b : a).x, n)) return NONE
    if (factor === 1) return a.one ? b : a
    const out = this.buffer()
    if (factor === null) for (let k = 0; k < n; k += 1) out.x[k] = (a.x[k] as number) * (b.x[k] as number)
    else scale((a.one ? b : a).x, factor, out.x, n)
    return out
  }

  private quotient(a: Stretch, b: Stretch, n: number): Stretch {
    if (!b.im) {
      const bottom = b.re
      return { re: this.quotientOf(a.re, bottom, n), im: a.im && this.quotientOf(a.im, bottom, n) }
    }
    const [re, im] = [this.buffer(), this.buffer()]
    if (a.re.one && (!a.im || (a.im.one && a.im.x[0] === 0))) invert(a.re.x[0] as number, b.re, b.im, re.x, im.x, n)
    else divide(a.re, a.im ?? NONE, b.re, b.im, re.x, im.x, n)
    return { re, im }
  }

  private quotientOf(a: Part, b: Part, n: number): Part {
    // −0 is not told from 0.
    if (a.one && b.one) return single((a.x[0] as number) / ((b.x[0] as number) + 0))
    if (a.one && a.x[0] === 0 && !strays(b.x, n) && !hasZero(b.x, n)) return NONE
    const out = this.buffer()
    const [s, t] = [a.one ? 0 : 1, b.one ? 0 : 1]
    for (let k = 0; k < n; k += 1) out.x[k] = (a.x[k * s] as number) / ((b.x[k * t] as number) + 0)
    return out
  }

  private parallel(a: Stretch, b: Stretch, n: number): Stretch {
    const [re, im] = [this.buffer(), a.im || b.im ? this.buffer() : null]
    const one = { re: 1, im: 0 }
    const at = (z: Stretch, k: number): C.Complex => ({
      re: z.re.x[z.re.one ? 0 : k] as number,
      im: z.im ? (z.im.x[z.im.one ? 0 : k] as number) : 0,
    })
    for (let k = 0; k < n; k += 1) {
      const [x, y] = [at(a, k), at(b, k)]
      const zero = (x.re === 0 && x.im === 0) || (y.re === 0 && y.im === 0)
      const value = zero
        ? { re: 0, im: 0 }
        : C.isInfinite(x)
          ? y
          : C.isInfinite(y)
            ? x
            : C.divide(one, C.add(C.divide(one, x), C.divide(one, y)))
      re.x[k] = value.re
      if (im) im.x[k] = value.im
    }
    return { re, im }
  }

  private raised(a: Stretch, exponent: number, n: number): Stretch {
    const [re, im] = [this.buffer(), a.im ? this.buffer() : null]
    raise(a.re, a.im, exponent, re.x, im && im.x, n)
    return { re, im }
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

function hasZero(x: Float64Array, n: number): boolean {
  for (let k = 0; k < n; k += 1) if (x[k] === 0) return true
  return false
}

function addParts(a: Part, b: Part, out: Float64Array, n: number, sign: 1 | -1): void {
  const [p, q] = [a.x, b.x]
  if (a.one) {
    const x = p[0] as number
    if (sign > 0) for (let k = 0; k < n; k += 1) out[k] = x + (q[k] as number)
    else for (let k = 0; k < n; k += 1) out[k] = x - (q[k] as number)
  } else if (b.one) {
    const y = sign * (q[0] as number)
    for (let k = 0; k < n; k += 1) out[k] = (p[k] as number) + y
  } else if (sign > 0) for (let k = 0; k < n; k += 1) out[k] = (p[k] as number) + (q[k] as number)
  else for (let k = 0; k < n; k += 1) out[k] = (p[k] as number) - (q[k] as number)
}

function scale(x: Float64Array, factor: number, out: Float64Array, n: number): void {
  for (let k = 0; k < n; k += 1) out[k] = (x[k] as number) * factor
}

/** Between these the square of a magnitude neither overflows nor loses digits. */
const SMALL = 1e-140
const LARGE = 1e140

function divide(a: Part, ai: Part, b: Part, bi: Part, re: Float64Array, im: Float64Array, n: number): void {
  const [s, u, t, v] = [a.one ? 0 : 1, ai.one ? 0 : 1, b.one ? 0 : 1, bi.one ? 0 : 1]
  for (let k = 0; k < n; k += 1) {
    const w = a.x[k * s] as number
    const x = ai.x[k * u] as number
    const y = b.x[k * t] as number
    const z = bi.x[k * v] as number
    const size = Math.abs(y) + Math.abs(z)
    const top = Math.abs(w) + Math.abs(x)
    if (size > SMALL && size < LARGE && top < LARGE && (top > SMALL || top === 0)) {
      const bottom = 1 / (y * y + z * z)
      re[k] = (w * y + x * z) * bottom
      im[k] = (x * y - w * z) * bottom
    } else dividePoint(w, x, y, z, re, im, k)
  }
}

/** A real number over complex ones. */
function invert(w: number, b: Part, bi: Part, re: Float64Array, im: Float64Array, n: number): void {
  const safe = Math.abs(w) < LARGE && Math.abs(w) > SMALL
  if (b.one && !bi.one && safe) {
    invertUpright(w, b.x[0] as number, bi.x, re, im, n)
    return
  }
  const [t, v] = [b.one ? 0 : 1, bi.one ? 0 : 1]
  for (let k = 0; k < n; k += 1) invertPoint(w, safe, b.x[k * t] as number, bi.x[k * v] as number, re, im, k)
}

/** The same where all real parts are one number: what 1 + jωT comes to. */
function invertUpright(w: number, y: number, bi: Float64Array, re: Float64Array, im: Float64Array, n: number): void {
  const square = y * y
  for (let k = 0; k < n; k += 1) {
    const z = bi[k] as number
    const size = square + z * z
    if (size > 1e-280 && size < 1e280) {
      const bottom = w / size
      re[k] = y * bottom
      im[k] = -z * bottom
    } else dividePoint(w, 0, y, z, re, im, k)
  }
}

function invertPoint(
  w: number,
  safe: boolean,
  y: number,
  z: number,
  re: Float64Array,
  im: Float64Array,
  k: number,
): void {
  const square = y * y + z * z
  if (safe && square > 1e-280 && square < 1e280) {
    const bottom = w / square
    re[k] = y * bottom
    im[k] = -z * bottom
  } else dividePoint(w, 0, y, z, re, im, k)
}

function dividePoint(w: number, x: number, y: number, z: number, re: Float64Array, im: Float64Array, k: number): void {
  const value = C.divide({ re: w, im: x }, { re: y + 0, im: z + 0 })
  re[k] = value.re
  im[k] = value.im
}

function raise(a: Part, ai: Part | null, exponent: number, re: Float64Array, im: Float64Array | null, n: number): void {
  const [s, u] = [a.one ? 0 : 1, ai?.one ? 0 : 1]
  const steps = Math.abs(exponent)
  for (let k = 0; k < n; k += 1) {
    let x = a.x[k * s] as number
    let y = ai ? (ai.x[k * u] as number) : 0
    let p = 1
    let q = 0
    for (let m = steps; m > 0; m >>= 1) {
      if (m & 1) {
        const r = p * x - q * y
        q = p * y + q * x
        p = r
      }
      const r = x * x - y * y
      y = 2 * x * y
      x = r
    }
    if (exponent < 0) {
      const inverse = C.divide({ re: 1, im: 0 }, { re: p + 0, im: q + 0 })
      p = inverse.re
      q = inverse.im
    }
    re[k] = p
    if (im) im[k] = q
  }
}

/** A part where it belongs in the outcome; −0 is not told from 0. */
function write(part: Part, out: Float64Array, from: number, n: number): void {
  const { x } = part
  if (part.one) out.fill((x[0] as number) + 0, from, from + n)
  else for (let k = 0; k < n; k += 1) out[from + k] = (x[k] as number) + 0
}

/** Runs a program at every point; `overflow` where a sum or a product left the range of doubles. */
export function run(program: Program, count: number): Numbers & { readonly overflow: boolean } {
  const runner = new Runner(count)
  const re = new Float64Array(count)
  const im = isReal(program) ? null : new Float64Array(count)
  for (let from = 0; from < count; from += BLOCK) {
    const n = Math.min(BLOCK, count - from)
    const found = runner.stretch(program, from, n)
    runner.watch(program, found, n)
    write(found.re, re, from, n)
    if (im && found.im) write(found.im, im, from, n)
    runner.done(found)
  }
  return { re, im, overflow: runner.overflow }
}
