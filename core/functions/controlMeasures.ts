import { unknownsOf } from '../algebra/ratio'
import * as Q from '../numbers/rational'
import { NONE } from '../units/dimension'
import { PER_SECOND } from '../units/marks'
import { measure, PLAIN } from '../units/measure'
import type { Measure } from '../units/measure'
import { coherentUnit, quantityWords } from '../units/named'
import { isWild, measureOf } from '../quantities/shape'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Bare, Period, Value } from '../values/types'
import { dressed } from './measures'
import type { Measured, MeasureRule } from '../signatures/definition'

/** What the results of control engineering measure: frequencies as the unknown does, times as its reciprocal. */

/** What the unknown of a transfer function measures; of one of samples that was made with a time in seconds, 1/s. */
export function unknownMeasure(value: Value | undefined): Measure {
  const period = value && periodIn(bare(value))
  if (period) return period.measured ? measure(PER_SECOND) : PLAIN
  return declaredMeasure(value)
}

/** What the unknown was declared to measure. */
export function declaredMeasure(value: Value | undefined): Measure {
  if (value?.kind !== 'quantity' || !value.unknowns) return PLAIN
  return [...value.unknowns.values()][0] ?? PLAIN
}

function periodIn(value: Bare): Period | null {
  return value.kind === 'polynomial' ? (value.period ?? null) : null
}

/** The same as an angle rate. */
export const rateOf = (value: Value | undefined): Measure => {
  const m = unknownMeasure(value)
  return m.dimension === PER_SECOND ? m.with({ turn: 'rate' }) : m
}

export const timeOf = (value: Value | undefined): Measure => PLAIN.over(unknownMeasure(value))

/** Parts of a result with what each measures. */
export const partsOf =
  (of: (args: readonly Value[]) => Readonly<Record<string, Measure>>): MeasureRule =>
  (args, result) => {
    if (result.kind !== 'parts') return PLAIN
    const measures = of(args)
    const parts = [...result.parts].map(([name, part]) => [name, withMeasure(part, measures[name])] as const)
    return dressed({ ...result, parts: new Map(parts) })
  }

function withMeasure(part: Value, m: Measure | undefined): Value {
  const inner = bare(part)
  return m && inner.kind !== 'text' && inner.kind !== 'angle' ? quantity(inner, m) : part
}

/** A loop is a plain ratio: what it measures would have to be 1 to be added to. */
export function plainLoop(value: Value | undefined, name: string): Failure | null {
  if (!value || isWild(value)) return null
  const m = measureOf(value)
  return m.dimension === NONE ? null : failure('unit-plain', { name, quantity: quantityWords(m) })
}

/** First refuses a loop that is no plain ratio. */
export const ofLoop =
  (rule: MeasureRule): MeasureRule =>
  (args, result, name) =>
    plainLoop(args[0], name) ?? rule(args, result, name)

/** Why a time does not go with the unknown; `null` where it does. */
export function timeMisfit(g: Value | undefined, t: Value | undefined, name: string): Failure | null {
  if (!g || !t || isWild(t)) return null
  const [unknown, time] = [unknownMeasure(g), measureOf(t)]
  if (unknown.times(time).dimension === NONE) return null
  const inner = bare(g)
  const [only] = inner.kind === 'polynomial' ? unknownsOf(inner) : []
  if (unknown.dimension === NONE && only !== undefined)
    return failure('unit-unknown', { name: only, unit: reciprocalUnit(time) })
  return failure('unit-alike', { name, one: quantityWords(PLAIN.over(unknown)), other: quantityWords(time) })
}

function reciprocalUnit(time: Measure): string {
  const { text } = coherentUnit(measure(time.to(Q.whole(-1)).dimension))
  return text === 's⁻¹' ? '1/s' : text
}

/** A response measures what the transfer function does, times what the input is made of. */
export const responseMeasure =
  (input: (args: readonly Value[]) => Measure): MeasureRule =>
  (args, result, name): Measured => {
    const t = args[args.length - 1]
    const [g] = args
    return timeMisfit(g, t, name) ?? dressed(quantity(result, (g ? measureOf(g) : PLAIN).times(input(args))))
  }

/** One number that measures what a rule says, and that has no unknown in it. */
export const plainly =
  (of: (args: readonly Value[]) => Measure): MeasureRule =>
  (args, result) =>
    dressed(quantity(result, of(args)))
