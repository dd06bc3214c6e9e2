import type { Value } from './types'

/**
 * How many doubles a value holds in memory: what large sweeps and matrices take. Small things, and
 * what is made only when it is asked for, count for nothing.
 */
export function doublesOf(value: Value): number {
  switch (value.kind) {
    case 'sweep': {
      const own = value.re === value.axis.values ? 0 : value.re.length
      return value.axis.values.length + own + (value.im?.length ?? 0) + itemsOf(value.items ?? [])
    }
    case 'matrix':
      return 2 * value.rows * value.cols
    case 'vector':
      return itemsOf(value.items)
    case 'parts':
      return itemsOf([...value.parts.values()])
    case 'check':
      return doublesOf(value.left) + doublesOf(value.right)
    default:
      return 0
  }
}

/** A value of its own is an object of about ten doubles. */
const OBJECT = 10

function itemsOf(items: readonly Value[]): number {
  let count = items.length * OBJECT
  for (const item of items) if (item.kind !== 'number') count += doublesOf(item)
  return count
}
