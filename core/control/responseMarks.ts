import type { CurveMark, SweepData } from '../scene/curve'
import type { StepOf, SweepValue } from '../values/types'
import { stepFigures } from './stepFigures'

/** The figures of a step response as its curve marks them. */

const known = new WeakMap<StepOf, readonly CurveMark[]>()

export function stepMarked(data: SweepData | null, { stepOf, axis }: SweepValue): SweepData | null {
  if (!data || !stepOf || !(data.x.length > 1)) return data
  const marks = known.get(stepOf) ?? figuresOf(stepOf)
  known.set(stepOf, marks)
  // The curve may run along another unit than that of coherent times.
  const [a = 0, b = 1] = [axis.values[0], axis.values.at(-1)]
  const [c = 0, d = 1] = [data.x[0], data.x.at(-1)]
  const rate = b === a ? 1 : (d - c) / (b - a)
  const inside = marks.filter(({ x }) => x * rate <= Math.max(c, d) * (1 + 1e-9))
  return {
    ...data,
    marks: inside.map((m) => ({ ...m, x: m.x * rate, ...(m.to === undefined ? {} : { to: m.to * rate }) })),
  }
}

function figuresOf(of: StepOf): readonly CurveMark[] {
  const f = stepFigures({ unknown: null, exact: false, ...of })
  if (typeof f === 'string') return []
  const per = of.discrete ? (of.period?.value.re ?? 1) : 1
  const marks: CurveMark[] = [{ what: 'final', x: 0, value: f.final }]
  if (f.settling > 0) marks.push({ what: 'settling', x: f.settling * per, value: f.final })
  if (f.peakAt !== null) marks.push({ what: 'peak', x: f.peakAt * per, value: f.peak })
  if (f.rise !== null && f.riseFrom !== null) marks.push({ what: 'rise', x: f.riseFrom * per, to: (f.riseFrom + f.rise) * per, value: f.start + 0.1 * (f.final - f.start) }) // prettier-ignore
  return marks
}
