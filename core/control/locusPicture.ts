import type { Complex } from '../numbers/complex'
import type { LocusPicture } from '../scene/drawn'
import type { LocusOf } from '../values/types'
import { Branches, gainAt, locusRules } from './rootLocus'
import type { Transfer } from './transfer'

/** A root locus as a plane draws it. Worked out once for an open loop: only the gain moves under the hand. */

const known = new WeakMap<LocusOf['top'], LocusPicture | null>()

export function locusPicture(of: LocusOf): LocusPicture | null {
  const before = known.get(of.top)
  if (before !== undefined) return before
  const found = pictureOf({ unknown: null, exact: false, ...of })
  known.set(of.top, found)
  return found
}

const POINTS = 260

function pictureOf(l: Transfer): LocusPicture | null {
  const rules = locusRules(l)
  const other = locusRules(l, 'negative')
  if (!rules || !other) return null
  const [positive, negative] = ([1, -1] as const).map((sign) => branchesIn(l, sign, sign > 0 ? rules : other))
  if (!positive || !negative) return null
  return {
    k: positive.k,
    branches: positive.branches,
    negative: negative.branches,
    negativeK: negative.k,
    poles: rules.poles,
    zeros: rules.zeros,
    centroid: rules.asymptotes?.centroid ?? 0,
    asymptotes: rules.asymptotes?.angles ?? [],
    breakaways: rules.breakaways.map(({ at, k }) => ({ at, k })),
    crossings: rules.crossings,
    departures: rules.departures,
  }
}

type Drawn = Pick<LocusPicture, 'k' | 'branches'>

function branchesIn(
  l: Transfer,
  sign: 1 | -1,
  { poles, zeros, breakaways, crossings }: NonNullable<ReturnType<typeof locusRules>>,
): Drawn {
  // prettier-ignore
  const branches = new Branches(l, sign, false)
  const special = [...breakaways, ...crossings].flatMap(({ k }) => [0.999999, 1, 1.000001].map((f) => Math.abs(k) * f))
  const [low, high] = gains(l, poles, zeros, special)
  const even = Array.from({ length: POINTS }, (_, n) => low * (high / low) ** (n / (POINTS - 1)))
  const wanted = [0, ...[...even, ...special.filter((k) => k > 0 && k < high)].sort((a, b) => a - b)]
  const rows: { readonly k: number; readonly roots: readonly Complex[] }[] = []
  for (const k of wanted) {
    const roots = branches.at(k * sign)
    if (!roots || roots.length !== poles.length) break
    rows.push({ k: k * sign, roots })
  }
  return {
    k: Float64Array.from(rows, ({ k }) => k),
    branches: poles.map((_, i) => ({
      re: Float64Array.from(rows, ({ roots }) => roots[i]?.re ?? NaN),
      im: Float64Array.from(rows, ({ roots }) => roots[i]?.im ?? NaN),
    })),
  }
}

/** From where roots begin to leave the poles to where they are far out, or close to the zeros. */
function gains(
  l: Transfer,
  poles: readonly Complex[],
  zeros: readonly Complex[],
  special: readonly number[],
): readonly [number, number] {
  // prettier-ignore
  const reach = Math.max(1e-300, ...[...poles, ...zeros].map((z) => Math.hypot(z.re, z.im)))
  const scale = reach > 1e-200 ? reach : 1
  const at = (z: Complex, away: number): number[] =>
    [0, 1, 2, 3].map((n) => {
      const turn = 0.4 + (n * Math.PI) / 2
      const k = gainAt(l, { re: z.re + away * scale * Math.cos(turn), im: z.im + away * scale * Math.sin(turn) })
      return Math.hypot(k.re, k.im)
    })
  const usable = (list: readonly number[]): number[] => list.filter((k) => k > 0 && Number.isFinite(k))
  const low = Math.min(...usable(poles.flatMap((z) => at(z, 0.01))), ...usable(special.map((k) => k / 10)))
  const high = Math.max(...usable(at({ re: 0, im: 0 }, 6)), ...usable(zeros.flatMap((z) => at(z, 0.01))), ...usable(special.map((k) => k * 4))) // prettier-ignore
  return [low, Math.max(high, low * 10)]
}
