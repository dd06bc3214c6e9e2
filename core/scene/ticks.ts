/** The step 1, 2 or 5 times a power of ten that is nearest above `least`. */
export function niceStep(least: number): number {
  if (!(least > 0) || !Number.isFinite(least)) return 1
  const power = 10 ** Math.floor(Math.log10(least))
  const share = least / power
  const factor = share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10
  // 2 · 10^-3 from a product is 0.002 only after it has gone through its decimal form.
  return Number((factor * power).toPrecision(3))
}

/** Multiples of a step in an interval, without accumulating rounding. */
export function ticksBetween(low: number, high: number, step: number): number[] {
  const first = Math.ceil(low / step - 1e-9)
  const last = Math.floor(high / step + 1e-9)
  // Beyond the whole numbers of doubles counting one further leads nowhere.
  const countable = Math.abs(first) < 2 ** 53 && Math.abs(last) < 2 ** 53
  if (!countable || last - first > 1000) return []
  const places = Math.max(0, -Math.floor(Math.log10(step)) + 1)
  const ticks: number[] = []
  for (let k = first; k <= last; k += 1) ticks.push(places <= 20 ? Number((k * step).toFixed(places)) : k * step)
  return ticks
}
