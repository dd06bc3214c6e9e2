import { newId } from './id'
import type { Operation } from './operations'
import { operationSchema } from './operations'
import { idSchema, z } from './schema'

/**
 * What is sent is sent in parts: each builds on the one before it, fits into one
 * request, and has a key, so that one whose answer was lost can be sent again.
 */
export const partSchema = z.object({ key: idSchema, operations: z.array(operationSchema) })
export interface Part {
  readonly key: string
  readonly operations: readonly Operation[]
}

/** Operations and characters of one part: small enough that a slow server still answers soon. */
export const PART_OPERATIONS = 500
export const PART_LENGTH = 1_000_000

/** About how many characters an operation has on the wire. */
function lengthOf(operation: Operation): number {
  switch (operation.type) {
    case 'insert':
      return 80 + operation.line.source.length
    case 'edit':
      return 80 + operation.source.length + operation.was.length
    case 'remove':
      return 60 + (operation.was?.length ?? 0)
    case 'plate':
      return JSON.stringify(operation).length
    default:
      return 100
  }
}

/** True where a part has room for one more operation; an empty part always has. */
export function hasRoom(part: Part, operation: Operation): boolean {
  if (part.operations.length === 0) return true
  if (part.operations.length >= PART_OPERATIONS) return false
  let length = lengthOf(operation)
  for (const other of part.operations) length += lengthOf(other)
  return length <= PART_LENGTH
}

/** The part with one more operation; with `joining`, two edits of one line in a row are one. */
export function withOperation(part: Part, next: Operation, joining = true): Part {
  const last = part.operations.at(-1)
  if (joining && next.type === 'edit' && last?.type === 'edit' && last.id === next.id)
    return { ...part, operations: [...part.operations.slice(0, -1), { ...next, was: last.was }] }
  return { ...part, operations: [...part.operations, next] }
}

export function freshPart(operations: readonly Operation[] = []): Part {
  return { key: newId(), operations }
}

/** Operations as parts, each within its bounds. */
export function partsOf(operations: readonly Operation[]): Part[] {
  const parts: Part[] = []
  let open: Operation[] = []
  let length = 0
  for (const operation of operations) {
    const more = lengthOf(operation)
    if (open.length > 0 && (open.length >= PART_OPERATIONS || length + more > PART_LENGTH)) {
      parts.push(freshPart(open))
      open = []
      length = 0
    }
    open.push(operation)
    length += more
  }
  if (open.length > 0) parts.push(freshPart(open))
  return parts
}
