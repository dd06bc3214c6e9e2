import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { table } from '../table'
import { dimension, NONE } from './dimension'
import type { Base, Dimension } from './dimension'
import { ENERGY, POWER } from './marks'
import { measure } from './measure'
import type { Marks } from './marks'
import type { Measure } from './measure'

/**
 * The units that an entry may carry, by their symbols (SI Brochure, 9th edition, tables 2, 4, 7 and 8; IEC 80000-6
 * for VA and var; IEC 80000-3 for the revolution). One table: names, completion and the handbook are made from it.
 */
export interface UnitSymbol {
  /** As it is written: `kΩ`. */
  readonly symbol: string
  /** As it is typed on a plain keyboard: `kohm`. */
  readonly typed: string
  /** The symbol without its prefix. */
  readonly stem: string
  /** The power of ten that its prefix stands for. */
  readonly prefix: number
  /** How many coherent SI units it is, exactly; of the degree by how much π is multiplied. */
  readonly factor: Rational
  readonly ofPi: boolean
  readonly measure: Measure
  readonly name: string
}

type Prefixes = 'all' | 'small' | 'none'

export interface Stem {
  readonly symbol: string
  readonly typed?: string
  readonly name: string
  readonly of: Dimension
  readonly marks?: Partial<Marks>
  readonly factor?: readonly [n: number, d: number]
  readonly ofPi?: true
  readonly prefixes: Prefixes
}

const of = (powers: Readonly<Partial<Record<Base, number>>>): Dimension => dimension(powers)
const ELECTRIC = { electric: true } as const

const CHARGE = of({ s: 1, A: 1 })

/** In the order in which they are listed. */
export const STEMS: readonly Stem[] = [
  { symbol: 'V', name: 'volt', of: of({ kg: 1, m: 2, s: -3, A: -1 }), marks: ELECTRIC, prefixes: 'all' },
  { symbol: 'A', name: 'ampere', of: of({ A: 1 }), marks: ELECTRIC, prefixes: 'all' },
  { symbol: 'Ω', typed: 'ohm', name: 'ohm', of: of({ kg: 1, m: 2, s: -3, A: -2 }), prefixes: 'all' },
  { symbol: 'S', name: 'siemens', of: of({ kg: -1, m: -2, s: 3, A: 2 }), prefixes: 'all' },
  { symbol: 'F', name: 'farad', of: of({ kg: -1, m: -2, s: 4, A: 2 }), prefixes: 'all' },
  { symbol: 'H', name: 'henry', of: of({ kg: 1, m: 2, s: -2, A: -2 }), prefixes: 'all' },
  { symbol: 'Hz', name: 'hertz', of: of({ s: -1 }), marks: { turn: 'cycles', spin: 1 }, prefixes: 'all' },
  { symbol: 'W', name: 'watt', of: POWER, marks: { electric: true, power: 'W' }, prefixes: 'all' },
  { symbol: 'VA', name: 'voltampere', of: POWER, marks: { electric: true, power: 'VA' }, prefixes: 'all' },
  { symbol: 'var', name: 'var', of: POWER, marks: { electric: true, power: 'var' }, prefixes: 'all' },
  { symbol: 'J', name: 'joule', of: ENERGY, marks: ELECTRIC, prefixes: 'all' },
  { symbol: 'Wh', name: 'watthour', of: ENERGY, marks: ELECTRIC, factor: [3600, 1], prefixes: 'all' },
  { symbol: 'C', name: 'coulomb', of: CHARGE, marks: ELECTRIC, prefixes: 'all' },
  { symbol: 'Ah', name: 'amperehour', of: CHARGE, marks: ELECTRIC, factor: [3600, 1], prefixes: 'all' },
  { symbol: 'Wb', name: 'weber', of: of({ kg: 1, m: 2, s: -2, A: -1 }), marks: { flux: true }, prefixes: 'all' },
  { symbol: 'T', name: 'tesla', of: of({ kg: 1, s: -2, A: -1 }), marks: { flux: true }, prefixes: 'all' },
  { symbol: 's', name: 'second', of: of({ s: 1 }), prefixes: 'small' },
  { symbol: 'min', name: 'minute', of: of({ s: 1 }), factor: [60, 1], prefixes: 'none' },
  { symbol: 'h', name: 'hour', of: of({ s: 1 }), factor: [3600, 1], prefixes: 'none' },
  { symbol: 'rad', name: 'radian', of: NONE, marks: { turn: 'angle', spin: 1 }, prefixes: 'small' },
  { symbol: '°', typed: 'deg', name: 'degree', of: NONE, marks: { turn: 'angle', spin: 1 }, factor: [1, 180], ofPi: true, prefixes: 'none' }, // prettier-ignore
  { symbol: 'r', name: 'revolution', of: NONE, marks: { turn: 'cycles', spin: 1 }, prefixes: 'none' },
  { symbol: 'm', name: 'metre', of: of({ m: 1 }), prefixes: 'all' },
  { symbol: 'g', name: 'gram', of: of({ kg: 1 }), factor: [1, 1000], prefixes: 'all' },
  { symbol: 'N', name: 'newton', of: of({ kg: 1, m: 1, s: -2 }), prefixes: 'all' },
  { symbol: 'Pa', name: 'pascal', of: of({ kg: 1, m: -1, s: -2 }), prefixes: 'all' },
  { symbol: 'l', name: 'litre', of: of({ m: 3 }), factor: [1, 1000], prefixes: 'small' },
  { symbol: 'K', name: 'kelvin', of: of({ K: 1 }), prefixes: 'all' },
  { symbol: 'mol', name: 'mole', of: of({ mol: 1 }), prefixes: 'all' },
  { symbol: 'cd', name: 'candela', of: of({ cd: 1 }), prefixes: 'all' },
  { symbol: 'lm', name: 'lumen', of: of({ cd: 1 }), prefixes: 'all' },
  { symbol: 'lx', name: 'lux', of: of({ cd: 1, m: -2 }), prefixes: 'all' },
  { symbol: '%', name: 'percent', of: NONE, factor: [1, 100], prefixes: 'none' },
  { symbol: '‰', name: 'permille', of: NONE, factor: [1, 1000], prefixes: 'none' },
]

export interface Prefix {
  readonly symbol: string
  readonly typed: string
  readonly name: string
  readonly exponent: number
}

export const PREFIXES: readonly Prefix[] = [
  { symbol: 'T', typed: 'T', name: 'tera', exponent: 12 },
  { symbol: 'G', typed: 'G', name: 'giga', exponent: 9 },
  { symbol: 'M', typed: 'M', name: 'mega', exponent: 6 },
  { symbol: 'k', typed: 'k', name: 'kilo', exponent: 3 },
  { symbol: 'h', typed: 'h', name: 'hecto', exponent: 2 },
  { symbol: 'da', typed: 'da', name: 'deca', exponent: 1 },
  { symbol: 'd', typed: 'd', name: 'deci', exponent: -1 },
  { symbol: 'c', typed: 'c', name: 'centi', exponent: -2 },
  { symbol: 'm', typed: 'm', name: 'milli', exponent: -3 },
  { symbol: 'µ', typed: 'u', name: 'micro', exponent: -6 },
  { symbol: 'n', typed: 'n', name: 'nano', exponent: -9 },
  { symbol: 'p', typed: 'p', name: 'pico', exponent: -12 },
  { symbol: 'f', typed: 'f', name: 'femto', exponent: -15 },
]

/** Hecto, deca, deci and centi stand where they are usual only. */
const MIDDLE: ReadonlyMap<string, ReadonlySet<string>> = new Map([
  ['h', new Set(['Pa', 'l'])],
  ['da', new Set(['N'])],
  ['d', new Set(['m', 'l'])],
  ['c', new Set(['m', 'l'])],
])

/** True where a prefix may stand before a unit. */
export function takes(stem: Stem, { symbol, exponent }: Prefix): boolean {
  if (MIDDLE.has(symbol)) return MIDDLE.get(symbol)?.has(stem.symbol) ?? false
  switch (stem.prefixes) {
    case 'all':
      return true
    case 'small':
      return exponent < 0
    case 'none':
      return false
  }
}

const ONE: readonly [number, number] = [1, 1]

function symbolOf(stem: Stem, prefix: Prefix | null): UnitSymbol {
  const typed = stem.typed ?? stem.symbol
  const [n, d] = stem.factor ?? ONE
  const power = Q.power(Q.whole(10), prefix?.exponent ?? 0) ?? Q.ONE
  return {
    symbol: `${prefix?.symbol ?? ''}${stem.symbol}`,
    typed: `${prefix?.typed ?? ''}${typed}`,
    stem: stem.symbol,
    prefix: prefix?.exponent ?? 0,
    factor: Q.multiply(Q.ratio(n, d), power) ?? Q.ONE,
    ofPi: stem.ofPi ?? false,
    measure: measure(stem.of, stem.marks),
    name: `${prefix?.name ?? ''}${stem.name}`,
  }
}

/** All of them, those without a prefix before those with one. */
export const UNIT_SYMBOLS: readonly UnitSymbol[] = [
  ...STEMS.map((stem) => symbolOf(stem, null)),
  ...STEMS.flatMap((stem) => PREFIXES.filter((p) => takes(stem, p)).map((p) => symbolOf(stem, p))),
]

const bySpelling = new Map<string, UnitSymbol>()
export const FULL_NAMES = new Set<string>()
for (const unit of UNIT_SYMBOLS) {
  for (const spelling of [unit.symbol, unit.typed, unit.name])
    if (!bySpelling.has(spelling)) bySpelling.set(spelling, unit)
  if (unit.name !== unit.symbol) FULL_NAMES.add(unit.name)
}

/** Signs that look alike are one (U+00B5 and U+03BC, the ohm and the kelvin sign, the ring and the degree sign). */
const ALIKE = table<string>({ '\u03bc': 'µ', '\u2126': 'Ω', '\u212a': 'K', '\u00ba': '°', '\u02da': '°' })

export function plainSpelling(text: string): string {
  for (let k = 0; k < text.length; k += 1)
    if (text.charCodeAt(k) > 127) return Array.from(text, (letter) => ALIKE.get(letter) ?? letter).join('')
  return text
}

/** The unit of a symbol or a name; `null` of what is none. */
export function unitSymbol(text: string): UnitSymbol | null {
  return bySpelling.get(text) ?? bySpelling.get(plainSpelling(text)) ?? null
}

/** True of names written out, which are units whatever else is kept. */
export function isUnitName(text: string): boolean {
  return FULL_NAMES.has(text)
}

/** The same stem with another prefix; `null` where it takes none. */
export function withPrefix({ stem }: UnitSymbol, exponent: number): UnitSymbol | null {
  if (exponent === 0) return bySpelling.get(stem) ?? null
  const prefix = PREFIXES.find((p) => p.exponent === exponent)
  return prefix ? (bySpelling.get(`${prefix.symbol}${stem}`) ?? null) : null
}
