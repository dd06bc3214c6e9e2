import type { Rational } from './rational'
import { fromBig } from './rational'

const VIEW = new DataView(new ArrayBuffer(8))

/** A finite double as mantissa·2^exponent, with a whole mantissa. */
export function parted(x: number): { readonly mantissa: bigint; readonly exponent: number } {
  VIEW.setFloat64(0, x)
  const bits = VIEW.getBigUint64(0)
  const raw = Number((bits >> 52n) & 0x7ffn)
  const fraction = bits & 0xfffffffffffffn
  const mantissa = raw === 0 ? fraction : fraction | (1n << 52n)
  return { mantissa: x < 0 ? -mantissa : mantissa, exponent: (raw === 0 ? 1 : raw) - 1075 }
}

/** A double as the fraction that it is; `null` of what is not finite, or outgrows the budget of fractions. */
export function toDyadic(x: number): Rational | null {
  if (!Number.isFinite(x)) return null
  const { mantissa, exponent } = parted(x)
  return exponent >= 0 ? fromBig(mantissa << BigInt(exponent), 1n) : fromBig(mantissa, 1n << BigInt(-exponent))
}
