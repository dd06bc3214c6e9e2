import { asMatrix } from '../values/matrices'
import type { AngleValue, Kind, MatrixValue, NumberValue, Value, VectorValue } from '../values/types'

/**
 * Readers for arguments that `call.ts` has already checked against the
 * parameter kinds: a mismatch here is a bug in a definition, not bad input.
 */
export function argumentAt<T>(args: readonly T[], index: number): T {
  const value = args[index]
  if (value === undefined) throw new Error(`argument ${index + 1} is declared`)
  return value
}

function ofKind<K extends Kind>(args: readonly Value[], index: number, kind: K): Extract<Value, { kind: K }> {
  const value = args[index]
  if (!value || !isOf(value, kind)) throw new Error(`argument ${index + 1} is declared as ${kind}`)
  return value
}

function isOf<K extends Kind>(value: Value, kind: K): value is Extract<Value, { kind: K }> {
  return value.kind === kind
}

export const angleAt = (args: readonly Value[], index: number): AngleValue => ofKind(args, index, 'angle')
export const vectorAt = (args: readonly Value[], index: number): VectorValue => ofKind(args, index, 'vector')
export const textAt = (args: readonly Value[], index: number): string => ofKind(args, index, 'text').text

/** Asked for in nearly every function: on its own, so that it stays one small piece. */
export function numberAt(args: readonly Value[], index: number): NumberValue {
  const value = args[index]
  if (value?.kind !== 'number') throw new Error(`argument ${index + 1} is declared as a number`)
  return value
}

/** A matrix; a vector counts as a column. */
export function matrixAt(args: readonly Value[], index: number): MatrixValue {
  const matrix = asMatrix(argumentAt(args, index))
  if (!matrix) throw new Error(`argument ${index + 1} is declared as a matrix`)
  return matrix
}
