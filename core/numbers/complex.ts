/**
 * Floating complex arithmetic on IEEE 754 doubles.
 *
 * Branch cuts and special values follow C99 Annex G, save that −0 is not told
 * from +0: a point on a cut belongs to the side that arg in (−π, π] gives.
 */
export interface Complex {
  readonly re: number
  readonly im: number
}

export const complex = (re: number, im = 0): Complex => ({ re: re + 0, im: im + 0 })

const LN2 = Math.LN2

export function isFinite(z: Complex): boolean {
  return Number.isFinite(z.re) && Number.isFinite(z.im)
}

export function isInfinite(z: Complex): boolean {
  return Math.abs(z.re) === Infinity || Math.abs(z.im) === Infinity
}

/** |z| without overflow or underflow in between. */
export function abs(z: Complex): number {
  const a = Math.abs(z.re)
  const b = Math.abs(z.im)
  if (b === 0) return a
  if (a === 0) return b
  if (a === Infinity || b === Infinity) return Infinity
  const large = a > b ? a : b
  // In the middle of the range the plain formula neither overflows nor loses digits.
  if (large < 1e150 && large > 1e-140) return Math.sqrt(a * a + b * b)
  const small = a > b ? b : a
  const ratio = small / large
  return large * Math.sqrt(1 + ratio * ratio)
}

/** arg z in (−π, π]; 0 at z = 0. */
export function arg(z: Complex): number {
  return Math.atan2(z.im + 0, z.re + 0)
}

export function add(a: Complex, b: Complex): Complex {
  return complex(a.re + b.re, a.im + b.im)
}

export function subtract(a: Complex, b: Complex): Complex {
  return complex(a.re - b.re, a.im - b.im)
}

export function multiply(a: Complex, b: Complex): Complex {
  if (a.im === 0) return scale(b, a.re)
  if (b.im === 0) return scale(a, b.re)
  const re = a.re * b.re - a.im * b.im
  const im = a.re * b.im + a.im * b.re
  // Annex G.5.1: an infinite factor times a non-zero one is infinite.
  if (Number.isNaN(re) && Number.isNaN(im) && (isInfinite(a) || isInfinite(b))) return infiniteProduct(a, b)
  return complex(re, im)
}

function box(x: number): number {
  return Math.abs(x) === Infinity ? Math.sign(x) : 0
}

const orZero = (x: number): number => (Number.isNaN(x) ? 0 : x)

function infiniteProduct(a: Complex, b: Complex): Complex {
  const p = isInfinite(a) ? { re: box(a.re), im: box(a.im) } : { re: orZero(a.re), im: orZero(a.im) }
  const q = isInfinite(b) ? { re: box(b.re), im: box(b.im) } : { re: orZero(b.re), im: orZero(b.im) }
  const re = p.re * q.re - p.im * q.im
  const im = p.re * q.im + p.im * q.re
  return complex(re === 0 ? 0 : Infinity * re, im === 0 ? 0 : Infinity * im)
}

/** z times a real number: a zero part stays zero, also times ∞; of 0 times ∞ nothing is known. */
function scale(z: Complex, factor: number): Complex {
  return complex(z.re === 0 && z.im !== 0 ? 0 : z.re * factor, z.im === 0 ? 0 : z.im * factor)
}

/**
 * a/b by Smith's method with the operands scaled to the middle of the range.
 * R. L. Smith, "Algorithm 116", CACM 5 (1962); scaling after M. Baudin and
 * R. L. Smith, "A robust complex division in Scilab" (2012).
 * A non-zero a over 0 is ∞ (the caller decides on its direction).
 */
export function divide(a: Complex, b: Complex): Complex {
  if (b.im === 0) {
    if (b.re === 0) {
      if ((a.re === 0 && a.im === 0) || Number.isNaN(a.re) || Number.isNaN(a.im)) return complex(NaN, 0)
      return complex(Infinity, 0)
    }
    return complex(a.re / b.re, a.im === 0 ? 0 : a.im / b.re)
  }
  if (isInfinite(b)) return isInfinite(a) ? complex(NaN, 0) : complex(0, 0)
  let re = a.re
  let im = a.im
  let c = b.re
  let d = b.im
  let grow = 1
  const top = Math.max(Math.abs(re), Math.abs(im))
  const bottom = Math.max(Math.abs(c), Math.abs(d))
  if (top > 1e300) {
    re *= 2 ** -60
    im *= 2 ** -60
    grow *= 2 ** 60
  } else if (top < 1e-280) {
    re *= 2 ** 120
    im *= 2 ** 120
    grow *= 2 ** -120
  }
  if (bottom > 1e300) {
    c *= 2 ** -60
    d *= 2 ** -60
    grow *= 2 ** -60
  } else if (bottom < 1e-280) {
    c *= 2 ** 120
    d *= 2 ** 120
    grow *= 2 ** 120
  }
  if (Math.abs(d) <= Math.abs(c)) {
    const r = d / c
    const t = 1 / (c + d * r)
    const [x, y] = r === 0 ? [re + d * (im / c), im - d * (re / c)] : [re + im * r, im - re * r]
    return complex(x * t * grow, y * t * grow)
  }
  const r = c / d
  const t = 1 / (c * r + d)
  const [x, y] = r === 0 ? [c * (re / d) + im, c * (im / d) - re] : [re * r + im, im * r - re]
  return complex(x * t * grow, y * t * grow)
}

/** magnitude·(cos θ + j sin θ). */
export function polar(magnitude: number, radians: number): Complex {
  return complex(
    magnitude === 0 ? 0 : magnitude * Math.cos(radians),
    magnitude === 0 || radians === 0 ? 0 : magnitude * Math.sin(radians),
  )
}

export function exp(z: Complex): Complex {
  if (z.im === 0) return complex(Math.exp(z.re))
  if (z.re === -Infinity) return complex(0)
  // e^710 overflows although e^710·cos θ may not: share the growth between two factors.
  if (z.re > 709 && z.re < 1400) {
    const half = Math.exp(z.re / 2)
    return complex(half * Math.cos(z.im) * half, half * Math.sin(z.im) * half)
  }
  const size = Math.exp(z.re)
  return complex(size * Math.cos(z.im), size * Math.sin(z.im))
}

/**
 * ln|z|, accurate also where |z| is near 1, where the plain logarithm cancels:
 * ln|z| = ½·log1p((|x|−1)(|x|+1) + y²) with |x| ≥ |y|, the products split exactly.
 */
export function logAbs(z: Complex): number {
  const a = Math.max(Math.abs(z.re), Math.abs(z.im))
  const b = Math.min(Math.abs(z.re), Math.abs(z.im))
  if (b === 0) return Math.log(a)
  if (a === Infinity) return Infinity
  if (a > 0.5 && a < 2 && b < 2) {
    const excess = squareSumMinusOne(a, b)
    if (Math.abs(excess) < 0.5) return Math.log1p(excess) / 2
  }
  if (a > 1e150 || b < 1e-150) {
    const ratio = b / a
    return Math.log(a) + Math.log1p(ratio * ratio) / 2
  }
  return Math.log(a * a + b * b) / 2
}

/** a² + b² − 1 with error-free products (Dekker, "A floating-point technique", 1971) and sorted sums. */
function squareSumMinusOne(a: number, b: number): number {
  const [a2, ea] = squareExactly(a)
  const [b2, eb] = squareExactly(b)
  // a² − 1 is exact by Sterbenz where a² is in [½, 2]; otherwise the terms do not cancel.
  return a2 >= b2 ? a2 - 1 + b2 + (ea + eb) : b2 - 1 + a2 + (ea + eb)
}

function squareExactly(x: number): [number, number] {
  const square = x * x
  const c = 134217729 * x
  const high = c - (c - x)
  const low = x - high
  return [square, high * high - square + 2 * high * low + low * low]
}

export function log(z: Complex): Complex {
  if (z.re === 0 && z.im === 0) return complex(-Infinity)
  return complex(logAbs(z), arg(z))
}

/** Principal square root, real part ≥ 0 (Kahan, "Branch cuts for complex elementary functions", 1987). */
export function sqrt(z: Complex): Complex {
  if (z.im === 0) return z.re >= 0 ? complex(Math.sqrt(z.re)) : complex(0, Math.sqrt(-z.re))
  if (Math.abs(z.im) === Infinity) return complex(Infinity, z.im)
  let { re, im } = z
  let scaleBack = 1
  const size = Math.max(Math.abs(re), Math.abs(im))
  if (size > 1e300) {
    re /= 16
    im /= 16
    scaleBack = 4
  } else if (size < 1e-290) {
    re *= 2 ** 120
    im *= 2 ** 120
    scaleBack = 2 ** -60
  }
  const t = Math.sqrt((Math.abs(re) + abs({ re, im })) / 2)
  const u = Math.abs(im) / (2 * t)
  const s = re >= 0 ? complex(t, im < 0 ? -u : u) : complex(u, im < 0 ? -t : t)
  return scale(s, scaleBack)
}

/** z to a small integer power by repeated squaring. */
export function powerInteger(z: Complex, n: number): Complex {
  if (n < 0) return divide(complex(1), powerInteger(z, -n))
  let result = complex(1)
  let base = z
  for (let e = n; e > 0; e = Math.floor(e / 2)) {
    if (e % 2 === 1) result = multiply(result, base)
    if (e > 1) base = multiply(base, base)
  }
  return result
}

/** The principal power a^b = exp(b·ln a); 0^0 is 1. */
export function power(a: Complex, b: Complex): Complex {
  if (b.re === 0 && b.im === 0) return complex(1)
  if (a.re === 0 && a.im === 0) {
    if (b.re > 0) return complex(0)
    return b.im === 0 ? complex(Infinity) : complex(NaN)
  }
  // A product is rounded once; a general power is dearer, and off by more.
  if (a.im === 0 && b.im === 0 && b.re === 2) return complex(a.re * a.re)
  if (a.im === 0 && b.im === 0 && (a.re > 0 || Number.isInteger(b.re))) return complex(a.re ** b.re)
  if (b.im === 0) {
    if (b.re === 0.5) return sqrt(a)
    if (Number.isInteger(b.re) && Math.abs(b.re) <= 64) return powerInteger(a, b.re)
    const size = abs(a) ** b.re
    return turn(size, arg(a) * b.re)
  }
  const l = log(a)
  const product = multiply(b, l)
  return exp(product)
}

/** size at an angle, with quarter turns that came out of atan2 kept clean. */
function turn(size: number, radians: number): Complex {
  const quarters = radians / (Math.PI / 2)
  if (Number.isInteger(quarters)) {
    const q = ((quarters % 4) + 4) % 4
    return [complex(size), complex(0, size), complex(-size), complex(0, -size)][q] ?? complex(NaN)
  }
  return complex(size * Math.cos(radians), size * Math.sin(radians))
}

export function sinh(z: Complex): Complex {
  if (z.im === 0) return complex(Math.sinh(z.re))
  return complex(hyperbolic(z.re, Math.cos(z.im), 'sinh'), hyperbolic(z.re, Math.sin(z.im), 'cosh'))
}

export function cosh(z: Complex): Complex {
  if (z.im === 0) return complex(Math.cosh(z.re))
  return complex(hyperbolic(z.re, Math.cos(z.im), 'cosh'), hyperbolic(z.re, Math.sin(z.im), 'sinh'))
}

/** sinh x or cosh x times a factor, without overflow where the product still fits. */
function hyperbolic(x: number, factor: number, kind: 'sinh' | 'cosh'): number {
  if (factor === 0) return 0
  if (Math.abs(x) > 709 && Math.abs(x) < 1400) {
    const half = Math.exp(Math.abs(x) / 2)
    const sign = kind === 'sinh' && x < 0 ? -1 : 1
    return sign * (half * (factor / 2)) * half
  }
  return (kind === 'sinh' ? Math.sinh(x) : Math.cosh(x)) * factor
}

/** tanh z = (sinh 2x + j sin 2y)/(cosh 2x + cos 2y), in Kahan's form that never overflows. */
export function tanh(z: Complex): Complex {
  if (z.im === 0) return complex(Math.tanh(z.re))
  if (Math.abs(z.re) > 22) {
    const decay = Math.abs(z.re) > 380 ? 0 : 4 * Math.exp(-2 * Math.abs(z.re))
    return complex(Math.sign(z.re), decay * Math.sin(z.im) * Math.cos(z.im))
  }
  const t = Math.tan(z.im)
  const beta = 1 + t * t
  const s = Math.sinh(z.re)
  const rho = Math.sqrt(1 + s * s)
  if (!Number.isFinite(t)) return complex(rho / s, 1 / t)
  const bottom = 1 + beta * s * s
  return complex((beta * rho * s) / bottom, t / bottom)
}

const timesJ = (z: Complex): Complex => complex(-z.im, z.re)
const timesMinusJ = (z: Complex): Complex => complex(z.im, -z.re)

export function sin(z: Complex): Complex {
  return z.im === 0 ? complex(Math.sin(z.re)) : timesMinusJ(sinh(timesJ(z)))
}

export function cos(z: Complex): Complex {
  return z.im === 0 ? complex(Math.cos(z.re)) : cosh(timesJ(z))
}

export function tan(z: Complex): Complex {
  return z.im === 0 ? complex(Math.tan(z.re)) : timesMinusJ(tanh(timesJ(z)))
}

/** Beyond this |Im z| the smaller exponential of sine and cosine is nothing beside the larger. */
const FAR = 300

/** 1/cos z; far from the real axis by the larger exponential alone, since cos z leaves the range of doubles there. */
export function sec(z: Complex): Complex {
  if (!(Math.abs(z.im) > FAR)) return divide(complex(1), cos(z))
  return farReciprocal(z)
}

/** 1/sin z, likewise. */
export function csc(z: Complex): Complex {
  if (!(Math.abs(z.im) > FAR)) return divide(complex(1), sin(z))
  const { re, im } = farReciprocal(z)
  // 1/sin z = ∓j·(1/cos z) there, by the sign of the imaginary part.
  return z.im > 0 ? complex(im, -re) : complex(-im, re)
}

/** 2·e^(−|y|)·e^(±jx). */
function farReciprocal({ re: x, im: y }: Complex): Complex {
  const size = 2 * Math.exp(-Math.abs(y))
  return complex(size * Math.cos(x), Math.sign(y) * size * Math.sin(x))
}

/**
 * The inverse functions follow Hull, Fairgrieve and Tang, "Implementing the
 * complex arcsine and arccosine functions using exception handling" (1997),
 * in the cancellation-free form of their region formulas.
 */
export function arcsin(z: Complex): Complex {
  // Below a billionth the next term of the series, z³/6, is nothing beside z; squares would leave the range.
  if (Math.abs(z.re) < 1e-9 && Math.abs(z.im) < 1e-9) return z
  if (z.im === 0 && Math.abs(z.re) <= 1) return complex(Math.asin(z.re))
  const { beta, alpha, root, x } = inverseParts(z)
  const re = beta <= 0.6417 ? Math.asin(beta) : Math.atan2(x, root)
  const side = z.im === 0 ? (z.re > 1 ? 1 : 1) : Math.sign(z.im)
  return complex(z.re < 0 ? -re : re, side * alpha)
}

export function arccos(z: Complex): Complex {
  if (z.im === 0 && Math.abs(z.re) <= 1) return complex(Math.acos(z.re))
  const { beta, alpha, root, x } = inverseParts(z)
  const first = beta <= 0.6417 ? Math.acos(beta) : Math.atan2(root, x)
  const side = z.im === 0 ? 1 : Math.sign(z.im)
  return complex(z.re < 0 ? Math.PI - first : first, -side * alpha)
}

/** For |Re z|, |Im z|: B = x/A as in the paper, ln(A + √(A²−1)), and √(A²−x²). */
function inverseParts(z: Complex): { beta: number; alpha: number; root: number; x: number } {
  const x = Math.abs(z.re)
  const y = Math.abs(z.im)
  if (Math.max(x, y) > 1e150) {
    return { beta: x / abs({ re: x, im: y }), alpha: LN2 + logAbs({ re: x, im: y }), root: y, x }
  }
  const r = abs({ re: x + 1, im: y })
  const s = abs({ re: x - 1, im: y })
  const a = (r + s) / 2
  const beta = x / a
  const apx = a + x
  let root: number
  if (x <= 1) root = Math.sqrt((apx / 2) * ((y * y) / (r + x + 1) + (s + (1 - x))))
  else root = y * Math.sqrt((apx / (r + x + 1) + apx / (s + (x - 1))) / 2)
  let alpha: number
  if (a <= 1.5) {
    const am1 =
      x < 1 ? ((y * y) / (r + (x + 1)) + (y * y) / (s + (1 - x))) / 2 : ((y * y) / (r + (x + 1)) + (s + (x - 1))) / 2
    alpha = Math.log1p(am1 + Math.sqrt(am1 * (a + 1)))
  } else alpha = Math.log(a + Math.sqrt(a * a - 1))
  return { beta, alpha, root, x }
}

export function arsinh(z: Complex): Complex {
  if (z.im === 0) return complex(Math.asinh(z.re))
  // arsinh z = −j·arcsin(jz); the cut side of arcsin on the real axis is that of jz.
  return timesMinusJ(arcsin(timesJ(z)))
}

export function arcosh(z: Complex): Complex {
  if (z.im === 0 && z.re >= 1) return complex(Math.acosh(z.re))
  const w = arccos(z)
  // arcosh z has the real part ≥ 0 and the imaginary part in (−π, π].
  return w.im <= 0 && !(w.im === 0 && z.im < 0) ? complex(-w.im, w.re) : complex(w.im, -w.re)
}

/** artanh z = ½·ln((1+z)/(1−z)) by Kahan's formulas; ±1 are poles. */
export function artanh(z: Complex): Complex {
  if (z.im === 0 && Math.abs(z.re) <= 1) return complex(Math.atanh(z.re))
  const x = Math.abs(z.re)
  const y = Math.abs(z.im)
  let re: number
  if (x > 1e150 || y > 1e150) re = x === 0 ? 0 : 1 / (x + (y / x) * y)
  else if (Math.abs(1 - x) < 1e-100 && y < 1e-100) re = Math.log(2 / Math.hypot(1 - x, y)) / 2
  else re = Math.log1p((4 * x) / ((1 - x) * (1 - x) + y * y)) / 4
  const im = Math.atan2(2 * y, (1 - x) * (1 + x) - y * y) / 2
  const up = z.im === 0 ? 1 : Math.sign(z.im)
  return complex(z.re < 0 ? -re : re, up * im)
}

export function arctan(z: Complex): Complex {
  if (z.im === 0) return complex(Math.atan(z.re))
  if (z.re === 0 && Math.abs(z.im) > 1) {
    // On the cut Re = ±π/2; without −0 the point belongs to the side of C99's +0.
    // artanh(1/y) = ½·ln((y + 1)/(y − 1)): y − 1 is exact near 1, where 1/y is not (W. Kahan, 1987).
    return complex(Math.PI / 2, (Math.sign(z.im) * Math.log1p(2 / (Math.abs(z.im) - 1))) / 2)
  }
  return timesMinusJ(artanh(timesJ(z)))
}
