import type { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import { conjugated, Measure, PLAIN } from '../units/measure'
import { coherentUnit, quantityWords } from '../units/named'
import { compact, isWild, measureOf, measuresOf } from '../quantities/shape'
import { multiplied } from '../quantities/products'
import { measuresAlike } from '../quantities/sums'
import type { Rational } from '../numbers/rational'
import type { Measured, MeasureRule } from '../signatures/definition'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'

/** What the results of functions measure, from what their arguments do: rules that several functions share. */

const PLAIN_VALUE: Value = { kind: 'truth', truth: true }
const at = (args: readonly Value[], k: number): Value => args[k] ?? PLAIN_VALUE

/** The result measures nothing, whatever goes in: arg, sign, rank, count, unit vectors. */
export const free: MeasureRule = () => PLAIN

/** What the first argument measures; all others are plain numbers. */
export const first: MeasureRule = (args, _, name) => {
  const other = args.slice(1).find((arg) => measureOf(arg).dimension !== NONE && !isWild(arg))
  if (other) return failure('unit-plain', { name, quantity: quantityWords(measureOf(other)) })
  const [value] = args
  return value?.kind === 'quantity' ? value.measure : PLAIN
}

/** One measure throughout, in every argument and every entry, which the result has as well. */
export const keep: MeasureRule = (args, _, name) => oneOf(args, name)

/** One measure throughout; the result is a plain number. */
export const ratio: MeasureRule = (args, _, name) => {
  const found = oneOf(args, name)
  return 'code' in found ? found : PLAIN
}

/** The one measure of several values and of all their entries. */
export function oneOf(args: readonly Value[], name: string): Measure | Failure {
  let found: Measure | null = null
  for (const arg of args) {
    const here = uniform(arg, name)
    if ('code' in here) return here
    if (isWild(arg)) continue
    const both: Measure | Failure = found ? measuresAlike(found, here, 'put together') : here
    if ('code' in both) return notAlike(found ?? here, here, name)
    found = both
  }
  return found ?? PLAIN
}

function notAlike(one: Measure, other: Measure, name: string): Failure {
  return failure('unit-alike', { name, one: quantityWords(one), other: quantityWords(other) })
}

/** The measure of every entry; why there is no such one. */
export function uniform(value: Value, name: string): Measure | Failure {
  if (value.kind !== 'quantity' || value.measure instanceof Measure) return measureOf(value)
  const { measure } = value
  if (measure.uniform) return measure.uniform
  const all = measure.rows.flatMap((_, r) => measure.cols.flatMap((__, c) => measure.entry(r, c) ?? []))
  return whyNotAlike(all, name) ?? PLAIN
}

/** Why measures that must all be of one dimension are not; `null` where they are. */
export function whyNotAlike(all: readonly Measure[], name: string): Failure | null {
  const [one] = all
  const other = all.find((m) => m.dimension !== one?.dimension)
  return one && other ? notAlike(one, other, name) : null
}

/** A root or another known power of what goes in. */
export const raised =
  (exponent: Rational): MeasureRule =>
  ([value], _, name) => {
    if (!value) return PLAIN
    const of = uniform(value, name)
    return 'code' in of ? of : of.to(exponent)
  }

/** Entry by entry, with its marks changed: re, im, conj. */
export const marked =
  (change: (m: Measure) => Measure): MeasureRule =>
  ([value]) => {
    if (value?.kind !== 'quantity') return PLAIN
    const { measure } = value
    return measure instanceof Measure ? change(measure) : measure.scaled(change)
  }

/** What depends on the unit that it is counted in: floor, round(x). */
export const unitBound: MeasureRule = (args, _, name) => {
  const of = measureOf(at(args, 0))
  if (of.dimension === NONE) return PLAIN
  return failure('unit-whole', { name, unit: coherentUnit(of).text })
}

/** Entries of one array moved about. */
export const moved =
  (change: (m: ArrayMeasures) => ArrayMeasures): MeasureRule =>
  ([value]) =>
    value ? compact(change(measuresOf(value))) : PLAIN

/** A scalar product: of a row and a column. */
export const scalarProduct: MeasureRule = (args) => {
  // The first is conjugated: volts and amperes make VA.
  return multiplied(measuresOf(at(args, 0)).scaled(conjugated).transposed, measuresOf(at(args, 1)))
}

/** A result put together of values that have their measures each. */
export const dressed = (value: Value | Failure): Measured => ({ dressed: value })
