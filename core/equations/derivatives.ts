import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'

/** Functions of one complex number with their derivatives (NIST Digital Library of Mathematical Functions, ch. 4). */
export interface Holomorphic {
  readonly value: (z: Complex) => Complex
  /** f′(z), where w is f(z). */
  readonly slope: (z: Complex, w: Complex) => Complex
  /** What its argument, or its result, is where that is an angle. */
  readonly angle?: 'in' | 'out'
}

const ONE: Complex = { re: 1, im: 0 }
const by = (z: Complex, factor: number): Complex => ({ re: z.re * factor, im: z.im * factor })
const inverse = (z: Complex): Complex => C.divide(ONE, z)
const negative = (z: Complex): Complex => by(z, -1)
const square = (z: Complex): Complex => C.multiply(z, z)
const onePlus = (z: Complex): Complex => ({ re: 1 + z.re, im: z.im })
const oneMinus = (z: Complex): Complex => ({ re: 1 - z.re, im: -z.im })
/** A constant times the natural logarithm. */
const logarithm = (base: number, factor = 1): Holomorphic => ({
  value: (z) => by(C.log(z), factor / base),
  slope: (z) => by(inverse(z), factor / base),
})
const through =
  (of: (z: Complex) => Complex): ((z: Complex) => Complex) =>
  (z) =>
    inverse(of(z))

const table: Readonly<Record<string, Holomorphic>> = {
  sqrt: { value: C.sqrt, slope: (_, w) => by(inverse(w), 0.5) },
  exp: { value: C.exp, slope: (_, w) => w },
  cis: { value: (z) => C.exp({ re: -z.im, im: z.re }), slope: (_, w) => ({ re: -w.im, im: w.re }), angle: 'in' },
  ln: logarithm(1),
  lg: logarithm(Math.LN10),
  lb: logarithm(Math.LN2),
  sin: { value: C.sin, slope: (z) => C.cos(z), angle: 'in' },
  cos: { value: C.cos, slope: (z) => negative(C.sin(z)), angle: 'in' },
  tan: { value: C.tan, slope: (_, w) => onePlus(square(w)), angle: 'in' },
  cot: { value: through(C.tan), slope: (_, w) => negative(onePlus(square(w))), angle: 'in' },
  sec: { value: C.sec, slope: (z, w) => C.multiply(w, C.tan(z)), angle: 'in' },
  csc: { value: C.csc, slope: (z, w) => negative(C.divide(w, C.tan(z))), angle: 'in' },
  arcsin: { value: C.arcsin, slope: (z) => inverse(C.sqrt(oneMinus(square(z)))), angle: 'out' },
  arccos: { value: C.arccos, slope: (z) => negative(inverse(C.sqrt(oneMinus(square(z))))), angle: 'out' },
  arctan: { value: C.arctan, slope: (z) => inverse(onePlus(square(z))), angle: 'out' },
  sinh: { value: C.sinh, slope: (z) => C.cosh(z) },
  cosh: { value: C.cosh, slope: (z) => C.sinh(z) },
  tanh: { value: C.tanh, slope: (_, w) => oneMinus(square(w)) },
  arsinh: { value: C.arsinh, slope: (z) => inverse(C.sqrt(onePlus(square(z)))) },
  arcosh: {
    value: C.arcosh,
    slope: (z) => inverse(C.multiply(C.sqrt({ re: z.re - 1, im: z.im }), C.sqrt({ re: z.re + 1, im: z.im }))),
  },
  artanh: { value: C.artanh, slope: (z) => inverse(oneMinus(square(z))) },
  from_dB: {
    value: (z) => C.exp(by(z, Math.LN10 / 20)),
    slope: (_, w) => by(w, Math.LN10 / 20),
  },
  rms: { value: (z) => by(z, Math.SQRT1_2), slope: () => ({ re: Math.SQRT1_2, im: 0 }) },
  peak: { value: (z) => by(z, Math.SQRT2), slope: () => ({ re: Math.SQRT2, im: 0 }) },
}

export function holomorphic(name: string): Holomorphic | null {
  return Object.hasOwn(table, name) ? (table[name] ?? null) : null
}

/** Their names, for tests. */
export const HOLOMORPHIC: readonly string[] = Object.keys(table)
