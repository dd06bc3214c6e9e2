import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { table } from '../table'
import { measure, PLAIN } from './measure'
import type { Measure } from './measure'
import { unitSymbol, withPrefix } from './symbols'
import type { UnitSymbol } from './symbols'

/** A symbol of a unit with its power: `s⁻²`. */
export interface UnitPart {
  readonly unit: UnitSymbol
  readonly power: Rational
}

/** A unit as it is written: `kΩ`, `N·m`, `m/s²`, `J/(kg·K)`. */
export interface Unit {
  /** As the readout writes it; it can be typed so, too. */
  readonly text: string
  readonly parts: readonly UnitPart[]
  /** How many coherent SI units it is, exactly; of some, of degrees, times π. */
  readonly factor: Rational
  readonly ofPi: boolean
  readonly measure: Measure
}

const RAISED = table<string>({ '-': '⁻', '0': '⁰', '1': '¹', '2': '²', '3': '³', '4': '⁴', '5': '⁵', '6': '⁶', '7': '⁷', '8': '⁸', '9': '⁹' }) // prettier-ignore

function powerText(power: Rational): string {
  if (!Q.isInteger(power)) return `^(${Q.toText(power)})`
  return Array.from(Q.toText(power), (sign) => RAISED.get(sign) ?? sign).join('')
}

const partText = ({ unit, power }: UnitPart): string =>
  power.n === 1 && power.d === 1 ? unit.symbol : `${unit.symbol}${powerText(power)}`

/** The parts above the slash and those below it, all with positive powers. */
export function sidesOf(parts: readonly UnitPart[]) {
  const above = parts.filter(({ power }) => Q.sign(power) > 0)
  const below = parts.flatMap(({ unit, power }) => (Q.sign(power) < 0 ? [{ unit, power: Q.negate(power) }] : []))
  return { above, below }
}

/** Parts with a negative power stand below a slash; several of them in brackets (ISO 80000-1, 7.2.3). */
function unitText(parts: readonly UnitPart[]): string {
  const { above, below } = sidesOf(parts)
  const top = above.map(partText).join('·')
  const bottom = below.map(partText).join('·')
  if (below.length === 0) return top
  // Nothing above: with negative powers, so that it can be typed behind a number.
  if (above.length === 0) return parts.map(partText).join('·')
  return `${top}/${below.length > 1 ? `(${bottom})` : bottom}`
}

/** What plain numbers are in: nothing is written behind them. */
export const UNITY: Unit = { text: '', parts: [], factor: Q.ONE, ofPi: false, measure: PLAIN }

/** A unit of its parts; `null` where its factor is too large to be kept. */
export function unitOf(parts: readonly UnitPart[]): Unit | null {
  let factor: Rational | null = Q.ONE
  let of: Measure = PLAIN
  let pi = 0
  for (const { unit, power } of parts) {
    // The power of a factor that is no power of ten can be a root: none of those is written.
    const scaled: Rational | null = Q.isInteger(power)
      ? Q.power(unit.factor, Q.toNumber(power))
      : Q.equals(unit.factor, Q.ONE)
        ? Q.ONE
        : null
    factor = factor && scaled && Q.multiply(factor, scaled)
    if (unit.ofPi) pi += Q.toNumber(power)
    const raised = unit.measure.to(power)
    of = of === PLAIN ? raised : of.times(raised)
  }
  if (factor === null || (pi !== 0 && pi !== 1)) return null
  // What is written is meant: a W among several is no W of its own, and a cycle that is not per second is none.
  return { text: unitText(parts), parts, factor, ofPi: pi === 1, measure: onlyWritten(of, parts) }
}

function onlyWritten(of: Measure, parts: readonly UnitPart[]): Measure {
  return parts.length === 1 ? of : measure(of.dimension, { ...of, power: 'none' })
}

/** A unit that the core itself writes, as it is typed. */
export function unit(text: string): Unit {
  const found = parsed(text)
  if (!found) throw new Error(`${text} is no unit`)
  return found
}

/** `N·m`, `m/s²`, `J/(kg·K)` and `s⁻¹` as they are written by {@link unitText}; `null` of other texts. */
export function parsed(text: string): Unit | null {
  const [top = '', bottom, more] = text.split('/')
  if (more !== undefined) return null
  const inner = bottom?.startsWith('(') && bottom.endsWith(')') ? bottom.slice(1, -1) : bottom
  const above = top === '1' ? [] : partsOf(top)
  const below = inner === undefined ? [] : partsOf(inner)
  if (!above || !below || above.length + below.length === 0) return null
  return unitOf([...above, ...below.map(({ unit: of, power }) => ({ unit: of, power: Q.negate(power) }))])
}

function partsOf(text: string): readonly UnitPart[] | null {
  const parts: UnitPart[] = []
  for (const word of text.split(/[·*\s]/)) {
    const match = /^([^\d⁻⁰¹²³⁴-⁹^]+)(?:\^?(-?\d+)|([⁻⁰¹²³⁴-⁹]+))?$/u.exec(word)
    const symbol = match?.[1] ? unitSymbol(match[1]) : null
    if (!match || !symbol) return null
    const raised = match[3] ? Array.from(match[3], (c) => LOWERED.get(c) ?? c).join('') : (match[2] ?? '1')
    parts.push({ unit: symbol, power: Q.whole(Number(raised)) })
  }
  return parts
}

const LOWERED = new Map([...RAISED].map(([plain, raised]) => [raised, plain]))

/**
 * The same unit with another prefix on its first symbol, for a value that is larger or smaller by powers of a
 * thousand. None is put on what has a power, on kg, K, °, % and what is of time above the second.
 */
export function prefixed(of: Unit, exponent: number): Unit | null {
  const [first, ...rest] = of.parts
  if (!first || !takesPrefix(of)) return null
  const symbol = withPrefix(first.unit, exponent)
  return symbol && unitOf([{ unit: symbol, power: first.power }, ...rest])
}

const UNPREFIXED: ReadonlySet<string> = new Set([
  'g',
  'K',
  '°',
  '%',
  '‰',
  'rad',
  'r',
  'min',
  'h',
  'mol',
  'cd',
  'lm',
  'l',
])

export function takesPrefix({ parts }: Unit): boolean {
  const [first] = parts
  return first !== undefined && first.power.n === 1 && first.power.d === 1 && !UNPREFIXED.has(first.unit.stem)
}

const LARGEST = 12
const SMALLEST = -15

/** The prefix that brings a size to 0.1 … 1000: none where it is there already. */
export function unitForSize(unit: Unit, size: number): Unit {
  if (!takesPrefix(unit)) return unit
  if (!Number.isFinite(size) || size === 0 || (size >= 0.1 && size < 1000)) return unit
  const exponent = 3 * Math.floor(Math.log10(size) / 3 + 1e-12)
  const within = Math.max(SMALLEST, Math.min(LARGEST, exponent))
  return (within === 0 ? null : prefixed(unit, within)) ?? unit
}

/** How many coherent SI units a unit is, as a double; 1 where there is none. */
export function factorNumber(unit: Unit | null | undefined): number {
  return unit ? Q.toNumber(unit.factor) * (unit.ofPi ? Math.PI : 1) : 1
}

/** The exponent of the prefix that a unit carries on its first symbol. */
export const prefixOf = ({ parts }: Unit): number => parts[0]?.unit.prefix ?? 0

/**
 * Units of several symbols that are customary: where one of their letters is kept as well, they are units all the
 * same. Prefixes make no difference.
 */
const CUSTOMARY: ReadonlySet<string> = new Set(
  'm/s m/s² m/h m²/s m³/s rad/s rad/s² °/s r/min r/s N·m N·m/A N·m/rad N·m·s N·s N/m N/m² N·s/m V·s V·s/rad V/m V/s V/A V·A V/K A·s A/m A/s A/V A/m² W·s W·h A·h W/m² W/m W/K W/(m·K) V·A·h Ω·m Ω/m S/m F/m H/m J/K J/(kg·K) J/kg J/s kg/m³ kg/s kg·m² kg·m/s kg/m g/m³ l/min l/s l/h m³/h C/s C/V s⁻¹ min⁻¹'.split(
    ' ',
  ),
)

/** Is it one of those that are taken for a unit though a letter of it is kept? */
export function isCustomary({ parts }: Unit): boolean {
  const bare = parts.flatMap(({ unit: of, power }) => {
    const stem = of.stem === 'g' && of.prefix === 3 ? of : withPrefix(of, 0)
    return stem ? [{ unit: stem, power }] : []
  })
  return CUSTOMARY.has(unitText(bare))
}
