/**
 * The inner loops of dense linear algebra on complex matrices of doubles, compiled to WebAssembly with vectors of
 * two doubles: what this buys is a third of the time of the same loops in JavaScript, and less. Written in
 * AssemblyScript; `npm run kernels` compiles it into core/linear/kernelBytes.ts, and core/linear/kernels.ts is the
 * only one who calls it.
 *
 * A matrix is two planes of doubles, real and imaginary parts, row by row. Every row is `stride` bytes after the one
 * before in both planes, and has room for a whole number of eight doubles: what stands beyond the columns is zero.
 * Addresses and strides are in bytes, rows and columns in entries. A range of columns ends at a multiple of four
 * where `product` is told of it.
 */

const DOUBLE: usize = 8

function at(plane: usize, stride: usize, row: i32, column: i32): usize {
  return plane + <usize>row * stride + ((<usize>column) << 3)
}

/** C ± A·B for A of m × k and B of k × n entries; `pack` has room for 64·k bytes. */
export function product(
  m: i32,
  k: i32,
  n: i32,
  ar: usize,
  ai: usize,
  as: usize,
  br: usize,
  bi: usize,
  bs: usize,
  cr: usize,
  ci: usize,
  cs: usize,
  pack: usize,
  sign: f64,
): void {
  const signs = f64x2.splat(sign)
  for (let j = 0; j < n; j += 4) {
    // Four columns of B lie together: the innermost loop runs along memory.
    let to = pack
    for (let p = 0; p < k; p += 1) {
      const x = at(br, bs, p, j)
      const y = at(bi, bs, p, j)
      v128.store(to, v128.load(x))
      v128.store(to, v128.load(x, 16), 16)
      v128.store(to, v128.load(y), 32)
      v128.store(to, v128.load(y, 16), 48)
      to += 64
    }
    let i = 0
    for (; i + 1 < m; i += 2) {
      let xr = f64x2.splat(0)
      let yr = f64x2.splat(0)
      let xi = f64x2.splat(0)
      let yi = f64x2.splat(0)
      let zr = f64x2.splat(0)
      let wr = f64x2.splat(0)
      let zi = f64x2.splat(0)
      let wi = f64x2.splat(0)
      let first = at(ar, as, i, 0)
      let firstIm = at(ai, as, i, 0)
      let from = pack
      for (let p = 0; p < k; p += 1) {
        const b0 = v128.load(from)
        const b1 = v128.load(from, 16)
        const c0 = v128.load(from, 32)
        const c1 = v128.load(from, 48)
        let f = v128.load64_splat(first)
        let g = v128.load64_splat(firstIm)
        xr = f64x2.sub(f64x2.add(xr, f64x2.mul(f, b0)), f64x2.mul(g, c0))
        yr = f64x2.sub(f64x2.add(yr, f64x2.mul(f, b1)), f64x2.mul(g, c1))
        xi = f64x2.add(f64x2.add(xi, f64x2.mul(f, c0)), f64x2.mul(g, b0))
        yi = f64x2.add(f64x2.add(yi, f64x2.mul(f, c1)), f64x2.mul(g, b1))
        f = v128.load64_splat(first + as)
        g = v128.load64_splat(firstIm + as)
        zr = f64x2.sub(f64x2.add(zr, f64x2.mul(f, b0)), f64x2.mul(g, c0))
        wr = f64x2.sub(f64x2.add(wr, f64x2.mul(f, b1)), f64x2.mul(g, c1))
        zi = f64x2.add(f64x2.add(zi, f64x2.mul(f, c0)), f64x2.mul(g, b0))
        wi = f64x2.add(f64x2.add(wi, f64x2.mul(f, c1)), f64x2.mul(g, b1))
        from += 64
        first += DOUBLE
        firstIm += DOUBLE
      }
      let out = at(cr, cs, i, j)
      accumulate(out, xr, yr, signs)
      accumulate(out + cs, zr, wr, signs)
      out = at(ci, cs, i, j)
      accumulate(out, xi, yi, signs)
      accumulate(out + cs, zi, wi, signs)
    }
    if (i < m) {
      let xr = f64x2.splat(0)
      let yr = f64x2.splat(0)
      let xi = f64x2.splat(0)
      let yi = f64x2.splat(0)
      let first = at(ar, as, i, 0)
      let firstIm = at(ai, as, i, 0)
      let from = pack
      for (let p = 0; p < k; p += 1) {
        const b0 = v128.load(from)
        const b1 = v128.load(from, 16)
        const c0 = v128.load(from, 32)
        const c1 = v128.load(from, 48)
        const f = v128.load64_splat(first)
        const g = v128.load64_splat(firstIm)
        xr = f64x2.sub(f64x2.add(xr, f64x2.mul(f, b0)), f64x2.mul(g, c0))
        yr = f64x2.sub(f64x2.add(yr, f64x2.mul(f, b1)), f64x2.mul(g, c1))
        xi = f64x2.add(f64x2.add(xi, f64x2.mul(f, c0)), f64x2.mul(g, b0))
        yi = f64x2.add(f64x2.add(yi, f64x2.mul(f, c1)), f64x2.mul(g, b1))
        from += 64
        first += DOUBLE
        firstIm += DOUBLE
      }
      accumulate(at(cr, cs, i, j), xr, yr, signs)
      accumulate(at(ci, cs, i, j), xi, yi, signs)
    }
  }
}

function accumulate(out: usize, x: v128, y: v128, signs: v128): void {
  v128.store(out, f64x2.add(v128.load(out), f64x2.mul(signs, x)))
  v128.store(out, f64x2.add(v128.load(out, 16), f64x2.mul(signs, y)), 16)
}

/** C + A·B for real A of m × k and B of k × n entries; `pack` has room for 32·k bytes. */
export function realProduct(
  m: i32,
  k: i32,
  n: i32,
  a: usize,
  as: usize,
  b: usize,
  bs: usize,
  c: usize,
  cs: usize,
  pack: usize,
): void {
  const signs = f64x2.splat(1)
  for (let j = 0; j < n; j += 4) {
    let to = pack
    for (let p = 0; p < k; p += 1) {
      const x = at(b, bs, p, j)
      v128.store(to, v128.load(x))
      v128.store(to, v128.load(x, 16), 16)
      to += 32
    }
    let i = 0
    for (; i + 3 < m; i += 4) {
      let x0 = f64x2.splat(0)
      let y0 = f64x2.splat(0)
      let x1 = f64x2.splat(0)
      let y1 = f64x2.splat(0)
      let x2 = f64x2.splat(0)
      let y2 = f64x2.splat(0)
      let x3 = f64x2.splat(0)
      let y3 = f64x2.splat(0)
      let first = at(a, as, i, 0)
      let third = first + 2 * as
      let from = pack
      for (let p = 0; p < k; p += 1) {
        const b0 = v128.load(from)
        const b1 = v128.load(from, 16)
        let f = v128.load64_splat(first)
        x0 = f64x2.add(x0, f64x2.mul(f, b0))
        y0 = f64x2.add(y0, f64x2.mul(f, b1))
        f = v128.load64_splat(first + as)
        x1 = f64x2.add(x1, f64x2.mul(f, b0))
        y1 = f64x2.add(y1, f64x2.mul(f, b1))
        f = v128.load64_splat(third)
        x2 = f64x2.add(x2, f64x2.mul(f, b0))
        y2 = f64x2.add(y2, f64x2.mul(f, b1))
        f = v128.load64_splat(third + as)
        x3 = f64x2.add(x3, f64x2.mul(f, b0))
        y3 = f64x2.add(y3, f64x2.mul(f, b1))
        from += 32
        first += DOUBLE
        third += DOUBLE
      }
      const out = at(c, cs, i, j)
      accumulate(out, x0, y0, signs)
      accumulate(out + cs, x1, y1, signs)
      accumulate(out + 2 * cs, x2, y2, signs)
      accumulate(out + 3 * cs, x3, y3, signs)
    }
    for (; i < m; i += 1) {
      let x = f64x2.splat(0)
      let y = f64x2.splat(0)
      let first = at(a, as, i, 0)
      let from = pack
      for (let p = 0; p < k; p += 1) {
        const f = v128.load64_splat(first)
        x = f64x2.add(x, f64x2.mul(f, v128.load(from)))
        y = f64x2.add(y, f64x2.mul(f, v128.load(from, 16)))
        from += 32
        first += DOUBLE
      }
      accumulate(at(c, cs, i, j), x, y, signs)
    }
  }
}

/** Row at (xr, xi) less f times the row at (yr, yi), over so many entries. */
function subtractRow(xr: usize, xi: usize, yr: usize, yi: usize, fr: f64, fi: f64, count: i32): void {
  const f = f64x2.splat(fr)
  const g = f64x2.splat(fi)
  let j = 0
  for (; j + 1 < count; j += 2) {
    const by = (<usize>j) << 3
    const pr = v128.load(yr + by)
    const pi = v128.load(yi + by)
    v128.store(xr + by, f64x2.sub(v128.load(xr + by), f64x2.sub(f64x2.mul(f, pr), f64x2.mul(g, pi))))
    v128.store(xi + by, f64x2.sub(v128.load(xi + by), f64x2.add(f64x2.mul(f, pi), f64x2.mul(g, pr))))
  }
  if (j < count) {
    const by = (<usize>j) << 3
    const pr = load<f64>(yr + by)
    const pi = load<f64>(yi + by)
    store<f64>(xr + by, load<f64>(xr + by) - (fr * pr - fi * pi))
    store<f64>(xi + by, load<f64>(xi + by) - (fr * pi + fi * pr))
  }
}

let quotientRe: f64 = 0
let quotientIm: f64 = 0

/** (a + jb)/(c + jd) by R. L. Smith's method (Communications of the ACM 5, 1962), into the two above. */
function divide(a: f64, b: f64, c: f64, d: f64): void {
  if (Math.abs(c) >= Math.abs(d)) {
    const r = d / c
    const t = c + d * r
    quotientRe = (a + b * r) / t
    quotientIm = (b - a * r) / t
  } else {
    const r = c / d
    const t = c * r + d
    quotientRe = (a * r + b) / t
    quotientIm = (b * r - a) / t
  }
}

function swapRows(x: usize, y: usize, count: i32): void {
  for (let j = 0; j < count; j += 1) {
    const by = (<usize>j) << 3
    const kept = load<f64>(x + by)
    store<f64>(x + by, load<f64>(y + by))
    store<f64>(y + by, kept)
  }
}

/**
 * Columns from `start` to `stop` of P·A = L·U, with partial pivoting by |re| + |im| among all rows below; whole rows
 * are exchanged. The row taken for each column is left at `pivots`. Gives back how many pivots are exactly zero.
 */
export function factorPanel(
  re: usize,
  im: usize,
  stride: usize,
  rows: i32,
  columns: i32,
  start: i32,
  stop: i32,
  pivots: usize,
): i32 {
  let missing = 0
  for (let k = start; k < stop; k += 1) {
    let pivot = k
    let most: f64 = -1
    for (let r = k; r < rows; r += 1) {
      const size = Math.abs(load<f64>(at(re, stride, r, k))) + Math.abs(load<f64>(at(im, stride, r, k)))
      if (size > most) {
        most = size
        pivot = r
      }
    }
    store<i32>(pivots + ((<usize>k) << 2), pivot)
    if (most === 0) {
      missing += 1
      continue
    }
    if (pivot !== k) {
      swapRows(at(re, stride, k, 0), at(re, stride, pivot, 0), columns)
      swapRows(at(im, stride, k, 0), at(im, stride, pivot, 0), columns)
    }
    const topRe = load<f64>(at(re, stride, k, k))
    const topIm = load<f64>(at(im, stride, k, k))
    for (let r = k + 1; r < rows; r += 1) {
      const x = at(re, stride, r, k)
      const y = at(im, stride, r, k)
      divide(load<f64>(x), load<f64>(y), topRe, topIm)
      store<f64>(x, quotientRe)
      store<f64>(y, quotientIm)
      const top = at(re, stride, k, k + 1)
      const topToo = at(im, stride, k, k + 1)
      subtractRow(x + DOUBLE, y + DOUBLE, top, topToo, quotientRe, quotientIm, stop - k - 1)
    }
  }
  return missing
}

/** Rows from `start` to `stop` of X become those of L⁻¹·X, in columns from `first` to `last`; ones stand on L's diagonal. */
export function solveLower(
  lr: usize,
  li: usize,
  ls: usize,
  xr: usize,
  xi: usize,
  xs: usize,
  start: i32,
  stop: i32,
  first: i32,
  last: i32,
): void {
  for (let r = start + 1; r < stop; r += 1) {
    for (let k = start; k < r; k += 1) {
      const fr = load<f64>(at(lr, ls, r, k))
      const fi = load<f64>(at(li, ls, r, k))
      const row = at(xr, xs, r, first)
      subtractRow(row, at(xi, xs, r, first), at(xr, xs, k, first), at(xi, xs, k, first), fr, fi, last - first)
    }
  }
}

/** Rows from `start` to `stop` of X become those of U⁻¹·X. */
export function solveUpper(
  ur: usize,
  ui: usize,
  us: usize,
  xr: usize,
  xi: usize,
  xs: usize,
  start: i32,
  stop: i32,
  columns: i32,
): void {
  for (let r = stop - 1; r >= start; r -= 1) {
    const x = at(xr, xs, r, 0)
    const y = at(xi, xs, r, 0)
    for (let k = r + 1; k < stop; k += 1) {
      const fr = load<f64>(at(ur, us, r, k))
      const fi = load<f64>(at(ui, us, r, k))
      subtractRow(x, y, at(xr, xs, k, 0), at(xi, xs, k, 0), fr, fi, columns)
    }
    divide(1, 0, load<f64>(at(ur, us, r, r)), load<f64>(at(ui, us, r, r)))
    scaleRow(x, y, quotientRe, quotientIm, columns)
  }
}

function scaleRow(x: usize, y: usize, fr: f64, fi: f64, count: i32): void {
  for (let j = 0; j < count; j += 1) {
    const by = (<usize>j) << 3
    const p = load<f64>(x + by)
    const q = load<f64>(y + by)
    store<f64>(x + by, fr * p - fi * q)
    store<f64>(y + by, fr * q + fi * p)
  }
}

/**
 * A − τ·v·(vᴴ·A) on rows from `top` on and columns from `left` to `right`: a reflection from the left. The entries of
 * v stand at (vr, vi) by row number; (sr, si) have room for a row.
 */
export function reflectLeft(
  re: usize,
  im: usize,
  stride: usize,
  top: i32,
  rows: i32,
  left: i32,
  right: i32,
  vr: usize,
  vi: usize,
  tauRe: f64,
  tauIm: f64,
  sr: usize,
  si: usize,
): void {
  const count = right - left
  memory.fill(sr, 0, (<usize>count + 1) << 3)
  memory.fill(si, 0, (<usize>count + 1) << 3)
  let i = top
  // Two rows at once: sums are fetched and stored half as often.
  for (; i + 1 < rows; i += 2) {
    const v = vr + ((<usize>i) << 3)
    const w = vi + ((<usize>i) << 3)
    const fr = v128.load64_splat(v)
    const fi = v128.load64_splat(w)
    const gr = v128.load64_splat(v, 8)
    const gi = v128.load64_splat(w, 8)
    const x = at(re, stride, i, left)
    const y = at(im, stride, i, left)
    for (let j = 0; j < count; j += 2) {
      const by = (<usize>j) << 3
      const pr = v128.load(x + by)
      const pi = v128.load(y + by)
      const qr = v128.load(x + stride + by)
      const qi = v128.load(y + stride + by)
      let s = v128.load(sr + by)
      s = f64x2.add(f64x2.add(s, f64x2.mul(fr, pr)), f64x2.mul(fi, pi))
      s = f64x2.add(f64x2.add(s, f64x2.mul(gr, qr)), f64x2.mul(gi, qi))
      v128.store(sr + by, s)
      let t = v128.load(si + by)
      t = f64x2.sub(f64x2.add(t, f64x2.mul(fr, pi)), f64x2.mul(fi, pr))
      t = f64x2.sub(f64x2.add(t, f64x2.mul(gr, qi)), f64x2.mul(gi, qr))
      v128.store(si + by, t)
    }
  }
  if (i < rows)
    subtractRow(
      sr,
      si,
      at(re, stride, i, left),
      at(im, stride, i, left),
      -load<f64>(vr + ((<usize>i) << 3)),
      load<f64>(vi + ((<usize>i) << 3)),
      count,
    )
  scaleRow(sr, si, tauRe, tauIm, count)
  for (i = top; i < rows; i += 1) {
    const fr = load<f64>(vr + ((<usize>i) << 3))
    const fi = load<f64>(vi + ((<usize>i) << 3))
    subtractRow(at(re, stride, i, left), at(im, stride, i, left), sr, si, fr, fi, count)
  }
}

/** A − τ·(A·v)·vᴴ on rows from `top` on and columns from `left` to `right`; v by column number. */
export function reflectRight(
  re: usize,
  im: usize,
  stride: usize,
  top: i32,
  rows: i32,
  left: i32,
  right: i32,
  vr: usize,
  vi: usize,
  tauRe: f64,
  tauIm: f64,
): void {
  const v = vr + ((<usize>left) << 3)
  const w = vi + ((<usize>left) << 3)
  const count = right - left
  for (let i = top; i < rows; i += 1) {
    const x = at(re, stride, i, left)
    const y = at(im, stride, i, left)
    // Sums apart for each of the four products: an addition need not wait for the one before it.
    let s = f64x2.splat(0)
    let s2 = f64x2.splat(0)
    let t = f64x2.splat(0)
    let t2 = f64x2.splat(0)
    let j = 0
    for (; j + 1 < count; j += 2) {
      const by = (<usize>j) << 3
      const pr = v128.load(x + by)
      const pi = v128.load(y + by)
      const qr = v128.load(v + by)
      const qi = v128.load(w + by)
      s = f64x2.add(s, f64x2.mul(pr, qr))
      s2 = f64x2.add(s2, f64x2.mul(pi, qi))
      t = f64x2.add(t, f64x2.mul(pr, qi))
      t2 = f64x2.add(t2, f64x2.mul(pi, qr))
    }
    s = f64x2.sub(s, s2)
    t = f64x2.add(t, t2)
    let sumRe = f64x2.extract_lane(s, 0) + f64x2.extract_lane(s, 1)
    let sumIm = f64x2.extract_lane(t, 0) + f64x2.extract_lane(t, 1)
    if (j < count) {
      const by = (<usize>j) << 3
      const pr = load<f64>(x + by)
      const pi = load<f64>(y + by)
      const qr = load<f64>(v + by)
      const qi = load<f64>(w + by)
      sumRe += pr * qr - pi * qi
      sumIm += pr * qi + pi * qr
    }
    const fr = tauRe * sumRe - tauIm * sumIm
    const fi = tauRe * sumIm + tauIm * sumRe
    subtractConjugate(x, y, v, w, fr, fi, count)
  }
}

/** Row at (xr, xi) less f times the conjugate of the row at (yr, yi). */
function subtractConjugate(xr: usize, xi: usize, yr: usize, yi: usize, fr: f64, fi: f64, count: i32): void {
  const f = f64x2.splat(fr)
  const g = f64x2.splat(fi)
  let j = 0
  for (; j + 1 < count; j += 2) {
    const by = (<usize>j) << 3
    const pr = v128.load(yr + by)
    const pi = v128.load(yi + by)
    v128.store(xr + by, f64x2.sub(v128.load(xr + by), f64x2.add(f64x2.mul(f, pr), f64x2.mul(g, pi))))
    v128.store(xi + by, f64x2.sub(v128.load(xi + by), f64x2.sub(f64x2.mul(g, pr), f64x2.mul(f, pi))))
  }
  if (j < count) {
    const by = (<usize>j) << 3
    const pr = load<f64>(yr + by)
    const pi = load<f64>(yi + by)
    store<f64>(xr + by, load<f64>(xr + by) - (fr * pr + fi * pi))
    store<f64>(xi + by, load<f64>(xi + by) - (fi * pr - fr * pi))
  }
}

/**
 * Real rotations of neighbouring rows of one plane, one after another: the k-th makes the rows x = first + k and
 * y = first + k + 1 into c·x + s·y and c·y − s·x, with c and s at `cosines` and `sines`; from the last to the first with
 * `backward`. Eight columns at a time, so that the row which two rotations share is not stored in between; so `stride`
 * is a multiple of 64 bytes.
 */
export function rotateRows(
  plane: usize,
  stride: usize,
  columns: i32,
  first: i32,
  count: i32,
  cosines: usize,
  sines: usize,
  backward: bool,
): void {
  const start = at(plane, stride, backward ? first + count : first, 0)
  const step: usize = backward ? <usize>0 - stride : stride
  const firstBy: usize = backward ? (<usize>(count - 1)) << 3 : 0
  const stepBy: usize = backward ? <usize>0 - DOUBLE : DOUBLE
  for (let j = 0; j < columns; j += 8) {
    let row = start + ((<usize>j) << 3)
    let by = firstBy
    let x0 = v128.load(row)
    let x1 = v128.load(row, 16)
    let x2 = v128.load(row, 32)
    let x3 = v128.load(row, 48)
    for (let k = 0; k < count; k += 1) {
      const c = v128.load64_splat(cosines + by)
      // Upwards the row that is kept is the lower of the two, and the sine changes its sign.
      const s = backward ? f64x2.neg(v128.load64_splat(sines + by)) : v128.load64_splat(sines + by)
      const next = row + step
      const y0 = v128.load(next)
      const y1 = v128.load(next, 16)
      const y2 = v128.load(next, 32)
      const y3 = v128.load(next, 48)
      v128.store(row, f64x2.add(f64x2.mul(c, x0), f64x2.mul(s, y0)))
      v128.store(row, f64x2.add(f64x2.mul(c, x1), f64x2.mul(s, y1)), 16)
      v128.store(row, f64x2.add(f64x2.mul(c, x2), f64x2.mul(s, y2)), 32)
      v128.store(row, f64x2.add(f64x2.mul(c, x3), f64x2.mul(s, y3)), 48)
      x0 = f64x2.sub(f64x2.mul(c, y0), f64x2.mul(s, x0))
      x1 = f64x2.sub(f64x2.mul(c, y1), f64x2.mul(s, x1))
      x2 = f64x2.sub(f64x2.mul(c, y2), f64x2.mul(s, x2))
      x3 = f64x2.sub(f64x2.mul(c, y3), f64x2.mul(s, x3))
      row = next
      by += stepBy
    }
    v128.store(row, x0)
    v128.store(row, x1, 16)
    v128.store(row, x2, 32)
    v128.store(row, x3, 48)
  }
}

/** Rows x and y become c·x + s·y and c·y − s̄·x, for real c and s = sr − j·si, or its conjugate with −si. */
function turnComplexRows(xr: usize, xi: usize, yr: usize, yi: usize, c: f64, sr: f64, si: f64, count: i32): void {
  const cc = f64x2.splat(c)
  const s = f64x2.splat(sr)
  const t = f64x2.splat(si)
  let j = 0
  for (; j + 1 < count; j += 2) {
    const by = (<usize>j) << 3
    const pr = v128.load(xr + by)
    const pi = v128.load(xi + by)
    const qr = v128.load(yr + by)
    const qi = v128.load(yi + by)
    v128.store(xr + by, f64x2.add(f64x2.add(f64x2.mul(cc, pr), f64x2.mul(s, qr)), f64x2.mul(t, qi)))
    v128.store(xi + by, f64x2.sub(f64x2.add(f64x2.mul(cc, pi), f64x2.mul(s, qi)), f64x2.mul(t, qr)))
    v128.store(yr + by, f64x2.add(f64x2.sub(f64x2.mul(cc, qr), f64x2.mul(s, pr)), f64x2.mul(t, pi)))
    v128.store(yi + by, f64x2.sub(f64x2.sub(f64x2.mul(cc, qi), f64x2.mul(s, pi)), f64x2.mul(t, pr)))
  }
  if (j < count) {
    const by = (<usize>j) << 3
    const pr = load<f64>(xr + by)
    const pi = load<f64>(xi + by)
    const qr = load<f64>(yr + by)
    const qi = load<f64>(yi + by)
    store<f64>(xr + by, c * pr + sr * qr + si * qi)
    store<f64>(xi + by, c * pi + sr * qi - si * qr)
    store<f64>(yr + by, c * qr - sr * pr + si * pi)
    store<f64>(yi + by, c * qi - sr * pi - si * pr)
  }
}

/**
 * One step of the QR iteration on rows lo to hi of a Hessenberg matrix H of order n, with a shift: H − σ = Q·R, then
 * R·Q + σ, on all of its rows and columns; the rows of Zᵀ are turned along. (cosines, sinesRe, sinesIm) have room for
 * n doubles each.
 */
export function qrStep(
  hr: usize,
  hi: usize,
  zr: usize,
  zi: usize,
  stride: usize,
  n: i32,
  low: i32,
  high: i32,
  shiftRe: f64,
  shiftIm: f64,
  cosines: usize,
  sinesRe: usize,
  sinesIm: usize,
): void {
  shiftDiagonal(hr, hi, stride, low, high, -shiftRe, -shiftIm)
  for (let k = low; k < high; k += 1) {
    const x = at(hr, stride, k, k)
    const y = at(hi, stride, k, k)
    const ar = load<f64>(x)
    const ai = load<f64>(y)
    const br = load<f64>(x + stride)
    const bi = load<f64>(y + stride)
    const top = length(ar, ai)
    const whole = length(top, length(br, bi))
    const by = (<usize>k) << 3
    if (whole === 0) {
      store<f64>(cosines + by, 1)
      store<f64>(sinesRe + by, 0)
      store<f64>(sinesIm + by, 0)
      continue
    }
    const er = top === 0 ? 1 : ar / top
    const ei = top === 0 ? 0 : ai / top
    const c = top / whole
    const s1 = (er * br + ei * bi) / whole
    const s2 = (er * bi - ei * br) / whole
    store<f64>(cosines + by, c)
    store<f64>(sinesRe + by, s1)
    store<f64>(sinesIm + by, s2)
    store<f64>(x, er * whole)
    store<f64>(y, ei * whole)
    store<f64>(x + stride, 0)
    store<f64>(y + stride, 0)
    const p = x + DOUBLE
    const q = y + DOUBLE
    turnComplexRows(p, q, p + stride, q + stride, c, s1, s2, n - k - 1)
  }
  for (let k = low; k < high; k += 1) {
    const by = (<usize>k) << 3
    const c = load<f64>(cosines + by)
    const s1 = load<f64>(sinesRe + by)
    const s2 = load<f64>(sinesIm + by)
    const x = at(zr, stride, k, 0)
    const y = at(zi, stride, k, 0)
    turnComplexRows(x, y, x + stride, y + stride, c, s1, -s2, n)
  }
  rotateColumns(hr, hi, stride, low, high, cosines, sinesRe, sinesIm)
  shiftDiagonal(hr, hi, stride, low, high, shiftRe, shiftIm)
}

function shiftDiagonal(hr: usize, hi: usize, stride: usize, low: i32, high: i32, re: f64, im: f64): void {
  for (let k = low; k <= high; k += 1) {
    const x = at(hr, stride, k, k)
    const y = at(hi, stride, k, k)
    store<f64>(x, load<f64>(x) + re)
    store<f64>(y, load<f64>(y) + im)
  }
}

/** √(x² + y²); entries are within the range of squares. */
function length(x: f64, y: f64): f64 {
  return Math.sqrt(x * x + y * y)
}

/**
 * Columns k and k + 1 become c·x + s·y and c·y − s̄·x, for k from low to high − 1, in the rows that reach there. Two
 * rows go along together in one vector: of each only the entries carried from turn to turn are put together.
 */
function rotateColumns(
  hr: usize,
  hi: usize,
  stride: usize,
  low: i32,
  high: i32,
  cosines: usize,
  sinesRe: usize,
  sinesIm: usize,
): void {
  let r = 0
  for (; r + 1 <= high; r += 2) {
    // The second row of the two begins one column later than the first where both are in the block.
    let k = r - 1 > low ? r - 1 : low
    let x = at(hr, stride, r, k)
    let y = at(hi, stride, r, k)
    if (r > low) {
      turnEntries(x, y, cosines, sinesRe, sinesIm, k)
      k += 1
      x += DOUBLE
      y += DOUBLE
    }
    let pr = pair(x, stride)
    let pi = pair(y, stride)
    for (; k < high; k += 1) {
      const by = (<usize>k) << 3
      const c = v128.load64_splat(cosines + by)
      const s = v128.load64_splat(sinesRe + by)
      const t = v128.load64_splat(sinesIm + by)
      const qr = pair(x + DOUBLE, stride)
      const qi = pair(y + DOUBLE, stride)
      apart(x, stride, f64x2.sub(f64x2.add(f64x2.mul(c, pr), f64x2.mul(s, qr)), f64x2.mul(t, qi)))
      apart(y, stride, f64x2.add(f64x2.add(f64x2.mul(c, pi), f64x2.mul(s, qi)), f64x2.mul(t, qr)))
      const nextRe = f64x2.sub(f64x2.sub(f64x2.mul(c, qr), f64x2.mul(s, pr)), f64x2.mul(t, pi))
      pi = f64x2.add(f64x2.sub(f64x2.mul(c, qi), f64x2.mul(s, pi)), f64x2.mul(t, pr))
      pr = nextRe
      x += DOUBLE
      y += DOUBLE
    }
    apart(x, stride, pr)
    apart(y, stride, pi)
  }
  if (r <= high) {
    for (let k = r - 1 > low ? r - 1 : low; k < high; k += 1) {
      turnEntries(at(hr, stride, r, k), at(hi, stride, r, k), cosines, sinesRe, sinesIm, k)
    }
  }
}

function pair(x: usize, stride: usize): v128 {
  return v128.load64_lane(x + stride, v128.load64_zero(x), 1)
}

function apart(x: usize, stride: usize, both: v128): void {
  v128.store64_lane(x, both, 0)
  v128.store64_lane(x + stride, both, 1)
}

function turnEntries(x: usize, y: usize, cosines: usize, sinesRe: usize, sinesIm: usize, k: i32): void {
  const by = (<usize>k) << 3
  const c = load<f64>(cosines + by)
  const s = load<f64>(sinesRe + by)
  const t = load<f64>(sinesIm + by)
  const pr = load<f64>(x)
  const pi = load<f64>(y)
  const qr = load<f64>(x + DOUBLE)
  const qi = load<f64>(y + DOUBLE)
  store<f64>(x, c * pr + (s * qr - t * qi))
  store<f64>(y, c * pi + (s * qi + t * qr))
  store<f64>(x + DOUBLE, c * qr - (s * pr + t * pi))
  store<f64>(y + DOUBLE, c * qi - (s * pi - t * pr))
}
