import * as Q from '../numbers/rational'
import { BASE, NONE } from './dimension'
import type { Dimension } from './dimension'
import { ENERGY, perSecond, PER_SECOND } from './marks'
import type { Measure } from './measure'
import { unitSymbol } from './symbols'
import { unit, UNITY, unitOf } from './unit'
import type { Unit } from './unit'

/** Which unit a result is shown in, where none is asked for and none was written. */

/** One unit for each dimension that has one of its own, the likeliest first. */
const NAMED = new Map<Dimension, Unit>()
for (const text of [
  'm', 'kg', 's', 'A', 'K', 'mol', 'cd', 'V', 'Ω', 'S', 'F', 'H', 'W', 'C', 'T', 'N', 'Pa', 'm/s', 'm/s²', 'N·m·s',
  'V/m', 'A/m', 'V/s', 'A/s', 'Ω·m', 'S/m', 'F/m', 'H/m', 'W/m²', 'J/K', 'J/(kg·K)', 'W/(m·K)', 'V/K', 'N/m', 'A/m²',
  'V²', 'A²', 'V²/Hz', 'lx', 'C/m²', 'V·m', 'J/kg', 'W/K', 'K/W', 'Ω/m',
]) {
  const of = unit(text)
  if (!NAMED.has(of.measure.dimension)) NAMED.set(of.measure.dimension, of)
} // prettier-ignore

const JOULE = unit('J')
const NEWTON_METRE = unit('N·m')
const WEBER = unit('Wb')
const VOLT_SECOND = unit('V·s')
const WATT = unit('W')
const PER = { rate: unit('rad/s'), cycles: unit('Hz'), none: unit('s⁻¹') } as const
const POWERS = { none: WATT, ratio: WATT, conj: unit('VA'), VA: unit('VA'), W: WATT, var: unit('var') } as const

/** The coherent unit that a quantity is shown in: the named one of its dimension, else base units. */
export function coherentUnit(of: Measure): Unit {
  const { dimension } = of
  if (dimension === NONE) return UNITY
  if (dimension === PER_SECOND) return PER[perSecond(of)]
  if (dimension === ENERGY) return isEnergy(of) ? JOULE : NEWTON_METRE
  if (dimension === WEBER.measure.dimension) return of.flux ? WEBER : VOLT_SECOND
  if (dimension === WATT.measure.dimension) return POWERS[of.power]
  return NAMED.get(dimension) ?? inBaseUnits(dimension)
}

/** Power by an angle rate, and J·α, are torques; J·ω² is an energy; else what shows an electrical unit is one. */
function isEnergy({ turn, spin, electric }: Measure): boolean {
  if (turn === 'rate' && spin !== 0) return Math.abs(spin) === 2
  return electric
}

const composed = new Map<Dimension, Unit>()

function inBaseUnits(dimension: Dimension): Unit {
  const found = composed.get(dimension)
  if (found) return found
  const power = powerOfNamed(dimension)
  if (power) {
    composed.set(dimension, power)
    return power
  }
  const parts = BASE.flatMap((base, k) => {
    const symbol = unitSymbol(base)
    const power = dimension.powers[k]
    return symbol && power && !Q.isZero(power) ? [{ unit: symbol, power }] : []
  })
  const made = unitOf(parts)
  if (!made) throw new Error('powers of base units have no factor')
  composed.set(dimension, made)
  return made
}

const POWERS_TRIED = [2, 3, 4, 5, 6, -1, -2].map(Q.whole).concat([1, -1].map((n) => ({ n, d: 2 })))

/** Powers and roots of the units that have names: `Ω³`, `V²`. */
function powerOfNamed(dimension: Dimension): Unit | null {
  for (const text of ['V', 'A', 'Ω', 'S', 'N', 'F', 'H', 'W']) {
    const one = unit(text)
    for (const exponent of POWERS_TRIED) {
      const [part] = one.parts
      if (part && one.measure.dimension.to(exponent) === dimension)
        return unitOf([{ unit: part.unit, power: exponent }])
    }
  }
  return null
}

/** What a dimension is called in a sentence: `a voltage`; of others, their unit. */
export function quantityWords(of: Measure): string {
  if (of.dimension === NONE) return 'a plain number'
  if (of.dimension === PER_SECOND) return { rate: 'an angle rate', cycles: 'a frequency', none: 'a value in s⁻¹' }[perSecond(of)] // prettier-ignore
  if (of.dimension === JOULE.measure.dimension) return of.electric ? 'an energy' : 'a torque or an energy'
  return WORDS.get(of.dimension) ?? `a value in ${coherentUnit(of).text}`
}

const WORDS = new Map<Dimension, string>(
  (
    [
      ['m', 'a length'], ['kg', 'a mass'], ['s', 'a time'], ['A', 'a current'], ['K', 'a temperature'],
      ['mol', 'an amount of substance'], ['cd', 'a luminous intensity'], ['V', 'a voltage'], ['Ω', 'an impedance'],
      ['S', 'an admittance'], ['F', 'a capacitance'], ['H', 'an inductance'], ['W', 'a power'], ['C', 'a charge'],
      ['T', 'a flux density'], ['Wb', 'a magnetic flux'], ['N', 'a force'], ['Pa', 'a pressure'], ['m/s', 'a speed'],
      ['m/s²', 'an acceleration'], ['m²', 'an area'], ['m³', 'a volume'], ['lx', 'an illuminance'],
      ['V/m', 'an electric field'], ['kg·m²', 'a moment of inertia'], ['rad/s²', 'an angular acceleration'],
    ] as const
  ).map(([text, words]) => [unit(text).measure.dimension, words]),
) // prettier-ignore
