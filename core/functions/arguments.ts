import type { AngleValue, NumberValue, Value } from '../values/types'

/**
 * Readers for arguments that `call.ts` has already checked against the
 * parameter kinds: a mismatch here is a bug in a definition, not bad input.
 */
export function numberAt(args: readonly Value[], index: number): NumberValue {
  const value = args[index]
  if (value?.kind !== 'number') throw new Error(`argument ${index + 1} is declared as a number`)
  return value
}

export function angleAt(args: readonly Value[], index: number): AngleValue {
  const value = args[index]
  if (value?.kind !== 'angle') throw new Error(`argument ${index + 1} is declared as an angle`)
  return value
}
