/**
 * Singular values of a real upper bidiagonal matrix by the implicit QR iteration, with a zero shift where a shift would
 * cost small singular values their digits. J. Demmel and W. Kahan, SIAM J. Sci. Stat. Comput. 11 (1990); the order of
 * the tests follows LAPACK's xBDSQR (E. Anderson et al., LAPACK Users' Guide, 1999).
 */

/** Rotations of neighbouring rows first + k and first + k + 1 by (cosines[k], sines[k]), upwards or downwards. */
export interface Rotations {
  readonly first: number
  readonly count: number
  readonly backward: boolean
  readonly cosines: Float64Array
  readonly sines: Float64Array
}

/** Told of the rotations of every step, before the next is made: those of the left and of the right singular vectors. */
export type Turned = (left: Rotations, right: Rotations) => void

/** Steps for one singular value, at most. */
const STEPS = 30
const TOLERANCE = Number.EPSILON / 2
/** What an entry is small beside: about 2⁻⁴⁶, as in the source. */
const SMALL = Math.max(10, Math.min(100, TOLERANCE ** (-1 / 8))) * TOLERANCE
/** The least normal double. */
const LEAST = 2 ** -1022

/** A part of the matrix from one row to another (both in it) whose entries beside the diagonal count. */
interface Block {
  readonly low: number
  readonly high: number
}

/**
 * The diagonal d and the entries e beside it are worked on in place; d becomes the singular values, with signs and in
 * no order. False where that does not come to an end.
 */
export function iterateBidiagonal(d: Float64Array, e: Float64Array, turned: Turned): boolean {
  const n = d.length
  const floor = smallest(d, e)
  const room = roomFor(n)
  let high = n - 1
  for (let left = STEPS * n; high > 0; left -= 1) {
    if (left === 0) return false
    const low = blockAt(d, e, high, floor)
    if (low === high) {
      high -= 1
      left += 1
      continue
    }
    const block = { low, high }
    const downwards = Math.abs(d[low] as number) >= Math.abs(d[high] as number)
    const least = downwards ? leastDownwards(d, e, block) : leastUpwards(d, e, block)
    if (least === null) continue
    const shift = shiftFor(d, e, block, downwards, least)
    step(d, e, block, downwards, shift, room, turned)
    if (downwards && Math.abs(e[high - 1] as number) <= floor) e[high - 1] = 0
    if (!downwards && Math.abs(e[low] as number) <= floor) e[low] = 0
  }
  return true
}

/** What counts as zero: a part of an estimate of the least singular value. */
function smallest(d: Float64Array, e: Float64Array): number {
  const n = d.length
  let mu = Math.abs(d[0] as number)
  let least = mu
  for (let i = 1; i < n && least > 0; i += 1) {
    mu = Math.abs(d[i] as number) * (mu / (mu + Math.abs(e[i - 1] as number)))
    least = Math.min(least, mu)
  }
  return Math.max((SMALL * least) / Math.sqrt(n), 6 * n * n * LEAST)
}

/** Where the block begins that ends at a row; entries that do not count become zero on the way. */
function blockAt(d: Float64Array, e: Float64Array, high: number, floor: number): number {
  if (Math.abs(d[high] as number) <= floor) d[high] = 0
  for (let k = high - 1; k >= 0; k -= 1) {
    if (Math.abs(d[k] as number) <= floor) d[k] = 0
    if (Math.abs(e[k] as number) <= floor) {
      e[k] = 0
      return k + 1
    }
  }
  return 0
}

/** An estimate of the least singular value of the block; nothing where an entry turned out not to count. */
function leastDownwards(d: Float64Array, e: Float64Array, { low, high }: Block): number | null {
  if (Math.abs(e[high - 1] as number) <= SMALL * Math.abs(d[high] as number)) {
    e[high - 1] = 0
    return null
  }
  let mu = Math.abs(d[low] as number)
  let least = mu
  for (let k = low; k < high; k += 1) {
    const size = Math.abs(e[k] as number)
    if (size <= SMALL * mu) {
      e[k] = 0
      return null
    }
    mu = Math.abs(d[k + 1] as number) * (mu / (mu + size))
    least = Math.min(least, mu)
  }
  return least
}

function leastUpwards(d: Float64Array, e: Float64Array, { low, high }: Block): number | null {
  if (Math.abs(e[low] as number) <= SMALL * Math.abs(d[low] as number)) {
    e[low] = 0
    return null
  }
  let mu = Math.abs(d[high] as number)
  let least = mu
  for (let k = high - 1; k >= low; k -= 1) {
    const size = Math.abs(e[k] as number)
    if (size <= SMALL * mu) {
      e[k] = 0
      return null
    }
    mu = Math.abs(d[k] as number) * (mu / (mu + size))
    least = Math.min(least, mu)
  }
  return least
}

/** The shift of the next step; zero where it would harm the least singular values. */
function shiftFor(d: Float64Array, e: Float64Array, { low, high }: Block, downwards: boolean, least: number): number {
  let most = 0
  for (let k = low; k <= high; k += 1) most = Math.max(most, Math.abs(d[k] as number))
  for (let k = low; k < high; k += 1) most = Math.max(most, Math.abs(e[k] as number))
  if (d.length * SMALL * (least / most) <= Math.max(TOLERANCE, 0.01 * SMALL)) return 0
  const first = Math.abs(d[downwards ? low : high] as number)
  const k = downwards ? high - 1 : low
  const shift = leastOfTwo(d[k] as number, e[k] as number, d[k + 1] as number)
  return first > 0 && (shift / first) ** 2 < TOLERANCE ? 0 : shift
}

/** The lesser singular value of [f, g; 0, h] (LAPACK's xLAS2). */
function leastOfTwo(f: number, g: number, h: number): number {
  const [fa, ga, ha] = [Math.abs(f), Math.abs(g), Math.abs(h)]
  const [low, high] = [Math.min(fa, ha), Math.max(fa, ha)]
  if (low === 0) return 0
  if (ga < high) {
    const [as, at, au] = [1 + low / high, (high - low) / high, (ga / high) ** 2]
    return low * (2 / (Math.sqrt(as * as + au) + Math.sqrt(at * at + au)))
  }
  const au = high / ga
  if (au === 0) return (low * high) / ga
  const [as, at] = [1 + low / high, (high - low) / high]
  return 2 * (low * (1 / (Math.sqrt(1 + (as * au) ** 2) + Math.sqrt(1 + (at * au) ** 2))) * au)
}

interface Rotation {
  c: number
  s: number
  r: number
}

/** c and s with c·f + s·g = r and c·g − s·f = 0, into three numbers that are there: none are made for each rotation. */
function rotation(f: number, g: number, into: Rotation): void {
  const square = f * f + g * g
  const r = square > 1e-200 && square < 1e200 ? Math.sqrt(square) : Math.hypot(f, g)
  into.c = r === 0 ? 1 : f / r
  into.s = r === 0 ? 0 : g / r
  into.r = r
}

/** Room for the rotations of one step, used for all. */
interface Room {
  readonly columns: { readonly cosines: Float64Array; readonly sines: Float64Array }
  readonly rows: { readonly cosines: Float64Array; readonly sines: Float64Array }
  readonly one: Rotation
  readonly two: Rotation
}

function roomFor(n: number): Room {
  const rotations = () => ({ cosines: new Float64Array(n), sines: new Float64Array(n) })
  return { columns: rotations(), rows: rotations(), one: { c: 1, s: 0, r: 0 }, two: { c: 1, s: 0, r: 0 } }
}

/**
 * One step on a block, downwards or upwards. Upwards is downwards on the block read backwards: the matrix is then
 * lower bidiagonal, which exchanges left and right.
 */
function step(
  d: Float64Array,
  e: Float64Array,
  { low, high }: Block,
  downwards: boolean,
  shift: number,
  room: Room,
  turned: Turned,
): void {
  const count = high - low
  if (shift === 0) stepWithoutShift(d, e, low, high, downwards ? 1 : -1, room)
  else stepWithShift(d, e, low, high, downwards ? 1 : -1, shift, room)
  const [left, right] = downwards ? [room.rows, room.columns] : [room.columns, room.rows]
  const which = { first: low, count, backward: !downwards }
  turned({ ...which, ...left }, { ...which, ...right })
}

function keep({ columns, rows, one, two }: Room, place: number, sign: number): void {
  columns.cosines[place] = one.c
  columns.sines[place] = sign * one.s
  rows.cosines[place] = two.c
  rows.sines[place] = sign * two.s
}

function stepWithoutShift(d: Float64Array, e: Float64Array, low: number, high: number, sign: number, room: Room): void {
  const { one, two } = room
  const count = high - low
  let i = sign > 0 ? low : high
  // The entry between i and the next: above it downwards, before it upwards.
  let j = sign > 0 ? low : high - 1
  let cs = 1
  two.c = 1
  two.s = 0
  for (let k = 0; k < count; k += 1) {
    rotation((d[i] as number) * cs, e[j] as number, one)
    if (k > 0) e[j - sign] = two.s * one.r
    rotation(two.c * one.r, (d[i + sign] as number) * one.s, two)
    d[i] = two.r
    keep(room, j - low, sign)
    cs = one.c
    i += sign
    j += sign
  }
  const last = (d[i] as number) * cs
  d[i] = last * two.c
  e[j - sign] = last * two.s
}

function stepWithShift(
  d: Float64Array,
  e: Float64Array,
  low: number,
  high: number,
  sign: number,
  shift: number,
  room: Room,
): void {
  const { one, two } = room
  const count = high - low
  let i = sign > 0 ? low : high
  let j = sign > 0 ? low : high - 1
  const head = d[i] as number
  let f = (Math.abs(head) - shift) * ((head < 0 ? -1 : 1) + shift / head)
  let g = e[j] as number
  for (let k = 0; k < count; k += 1) {
    rotation(f, g, one)
    if (k > 0) e[j - sign] = one.r
    const here = d[i] as number
    const beside = e[j] as number
    const next = d[i + sign] as number
    const besideNow = one.c * beside - one.s * here
    const nextNow = one.c * next
    rotation(one.c * here + one.s * beside, one.s * next, two)
    d[i] = two.r
    f = two.c * besideNow + two.s * nextNow
    d[i + sign] = two.c * nextNow - two.s * besideNow
    if (k < count - 1) {
      const after = e[j + sign] as number
      g = two.s * after
      e[j + sign] = two.c * after
    }
    keep(room, j - low, sign)
    i += sign
    j += sign
  }
  e[j - sign] = f
}
