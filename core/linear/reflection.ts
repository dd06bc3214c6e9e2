/** H = I − τ·v·vᴴ with Hᴴ·x = (head, 0, …, 0): `head` is real, and v stands where x was. */
export interface Reflection {
  readonly head: number
  readonly tauRe: number
  readonly tauIm: number
}

/**
 * The reflection that leaves only the entry `from` of a vector (what is before it does not count), as LAPACK's xLARFG
 * makes it: v has 1 there. Squares of the entries are within the range of doubles.
 */
export function reflectionOf(re: Float64Array, im: Float64Array, from: number): Reflection {
  const headRe = re[from] as number
  const headIm = im[from] as number
  let sum = 0
  for (let i = from + 1; i < re.length; i += 1) sum += (re[i] as number) ** 2 + (im[i] as number) ** 2
  re[from] = 1
  im[from] = 0
  if (sum === 0 && headIm === 0) {
    re.fill(0, from + 1)
    im.fill(0, from + 1)
    return { head: headRe, tauRe: 0, tauIm: 0 }
  }
  const length = Math.sqrt(headRe * headRe + headIm * headIm + sum)
  const head = headRe > 0 ? -length : length
  // 1/(x₀ − head)
  const [dr, di] = [headRe - head, headIm]
  const size = dr * dr + di * di
  const [fr, fi] = [dr / size, -di / size]
  for (let i = from + 1; i < re.length; i += 1) {
    const [x, y] = [re[i] as number, im[i] as number]
    re[i] = fr * x - fi * y
    im[i] = fr * y + fi * x
  }
  return { head, tauRe: (head - headRe) / head, tauIm: -headIm / head }
}
