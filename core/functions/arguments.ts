import { asMatrix } from '../values/matrices'
import type { AngleValue, MatrixValue, NumberValue, Value, VectorValue } from '../values/types'

/**
 * Readers for arguments that `call.ts` has already checked against the
 * parameter kinds: a mismatch here is a bug in a definition, not bad input.
 */
export function argumentAt(args: readonly Value[], index: number): Value {
  const value = args[index]
  if (value === undefined) throw new Error(`argument ${index + 1} is declared`)
  return value
}

export function numberAt(args: readonly Value[], index: number): NumberValue {
  const value = args[index]
  if (value?.kind !== 'number') throw new Error(`argument ${index + 1} is declared as a number`)
  return value
}

export function textAt(args: readonly Value[], index: number): string {
  const value = args[index]
  if (value?.kind !== 'text') throw new Error(`argument ${index + 1} is declared as a text`)
  return value.text
}

export function angleAt(args: readonly Value[], index: number): AngleValue {
  const value = args[index]
  if (value?.kind !== 'angle') throw new Error(`argument ${index + 1} is declared as an angle`)
  return value
}

export function vectorAt(args: readonly Value[], index: number): VectorValue {
  const value = args[index]
  if (value?.kind !== 'vector') throw new Error(`argument ${index + 1} is declared as a vector`)
  return value
}

/** A matrix; a vector counts as a column. */
export function matrixAt(args: readonly Value[], index: number): MatrixValue {
  const value = args[index]
  const matrix = value ? asMatrix(value) : null
  if (!matrix) throw new Error(`argument ${index + 1} is declared as a matrix`)
  return matrix
}
