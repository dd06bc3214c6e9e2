import type { Line } from './folio'
import { applyOperation, fullFor } from './operations'
import type { FolioState, Operation } from './operations'

/** Local operations put on top of a state that others have changed meanwhile. */
export interface Merged<S extends FolioState> {
  readonly state: S
  readonly operations: readonly Operation[]
  /** Lines changed on both sides: both texts are kept, one below the other. */
  readonly kept: number
  /** Lines removed elsewhere while their text was changed here: the text is a line again. */
  readonly revived: number
  /** Lines removed here whose text was changed elsewhere: they stay. */
  readonly spared: number
  /** Operations with texts for which the folio has no room any more. */
  readonly unfit: readonly Operation[]
  /** Lines that stand under another identifier now, by their old one. */
  readonly copies: ReadonlyMap<string, string>
}

/**
 * Puts local operations on top of a state that others have changed meanwhile.
 * No text is lost: where both sides edited one line both texts are kept, one
 * below the other, and an edit wins over a removal that had not seen it. With
 * the state that the operations were made on (`base`) new lines come to stand
 * below the same neighbours as there.
 */
export function rebase<S extends FolioState>(
  theirs: S,
  local: readonly Operation[],
  newId: () => string,
  base: FolioState | null = null,
): Merged<S> {
  return new Rebase(theirs, newId, base).run(local)
}

class Rebase<S extends FolioState> {
  private readonly operations: Operation[] = []
  private readonly unfit: Operation[] = []
  private readonly copies = new Map<string, string>()
  private readonly revived = new Set<string>()
  private spared = 0
  /** The state as the author of the operations saw it. */
  private seen: FolioState | null

  constructor(
    private state: S,
    private readonly newId: () => string,
    base: FolioState | null,
  ) {
    this.seen = base
  }

  run(local: readonly Operation[]): Merged<S> {
    for (const operation of local) {
      this.take(operation)
      if (this.seen) this.seen = applyOperation(this.seen, operation) ?? this.seen
    }
    return {
      state: this.state,
      operations: this.operations,
      kept: this.copies.size - this.revived.size,
      revived: this.revived.size,
      spared: this.spared,
      unfit: this.unfit,
      copies: this.copies,
    }
  }

  private put(operation: Operation): void {
    const next = applyOperation(this.state, operation)
    if (next) {
      this.state = next
      this.operations.push(operation)
    } else if (fullFor(this.state, operation)) this.unfit.push(operation)
  }

  private take(operation: Operation): void {
    switch (operation.type) {
      case 'edit':
        return this.edit(operation)
      case 'remove':
        return this.remove(operation)
      case 'insert':
        return this.insert(operation)
      case 'move':
        return this.put({ ...operation, id: this.idOf(operation.id), to: this.placeOfMove(operation) })
      case 'mark':
        return this.put({ ...operation, id: this.idOf(operation.id) })
      default:
        return this.put(operation)
    }
  }

  private idOf(id: string): string {
    return this.copies.get(id) ?? id
  }

  private lineOf(id: string): Line | undefined {
    return this.state.lines.find((l) => l.id === id)
  }

  private insert(operation: Extract<Operation, { type: 'insert' }>): void {
    const at = this.placeAmong(operation.at) ?? operation.at
    const { line } = operation
    const there = this.lineOf(line.id)
    if (!there) return this.put({ ...operation, at })
    // A line that was put back here, and stands there with another text.
    if (there.source === line.source) return
    this.copy(line, at, there)
  }

  /** A text of ours as a line of its own. */
  private copy(line: Line, at: number, there: Line | undefined): void {
    const before = this.operations.length
    const id = this.newId()
    this.put({ type: 'insert', line: { ...line, id }, at })
    if (this.operations.length === before) return
    this.copies.set(line.id, id)
    if (!there) this.revived.add(line.id)
  }

  private edit(operation: Extract<Operation, { type: 'edit' }>): void {
    const copy = this.copies.get(operation.id)
    const line = this.lineOf(copy ?? operation.id)
    if (line && (copy !== undefined || line.source === operation.was || line.source === operation.source)) {
      this.put({ ...operation, id: line.id, was: line.source })
      return
    }
    // The line was changed or removed elsewhere: this text becomes a line of its own.
    const seen = this.seen?.lines.find((l) => l.id === operation.id)
    const index = line ? this.state.lines.indexOf(line) + 1 : (this.placeBelow(operation.id) ?? this.state.lines.length)
    this.copy({ ...(seen ?? line), id: operation.id, source: operation.source }, index, line)
  }

  private remove(operation: Extract<Operation, { type: 'remove' }>): void {
    const copy = this.copies.get(operation.id)
    if (copy !== undefined) {
      // What is removed is the own text; the other one had not been seen.
      this.copies.delete(operation.id)
      if (!this.revived.delete(operation.id)) this.spared += 1
      this.put({ ...operation, id: copy })
      return
    }
    const line = this.lineOf(operation.id)
    if (line && operation.was !== undefined && line.source !== operation.was) this.spared += 1
    else this.put(operation)
  }

  /** Where a line comes to stand that stood at a place of the state its author saw. */
  private placeAmong(at: number, without: string | null = null): number | null {
    if (!this.seen) return null
    const seen = without === null ? this.seen.lines : this.seen.lines.filter((l) => l.id !== without)
    const here = this.state.lines.filter((l) => without === null || l.id !== this.idOf(without))
    for (let k = Math.min(at, seen.length) - 1; k >= 0; k -= 1) {
      const above = seen[k]
      const found = above ? here.findIndex((l) => l.id === this.idOf(above.id)) : -1
      if (found >= 0) return found + 1
    }
    return 0
  }

  private placeOfMove(operation: Extract<Operation, { type: 'move' }>): number {
    return this.placeAmong(operation.to, operation.id) ?? operation.to
  }

  /** Below the nearest line that stood above this one and is still there. */
  private placeBelow(id: string): number | null {
    const at = this.seen?.lines.findIndex((l) => l.id === id) ?? -1
    return at < 0 ? null : this.placeAmong(at)
  }
}

/** What a merge did, in a sentence for the student; `null` where there is nothing to say. */
export function mergeSentence(merged: Pick<Merged<FolioState>, 'kept' | 'revived' | 'spared'>): string | null {
  const { kept, revived, spared } = merged
  const said: string[] = []
  if (kept === 1) said.push('A line was changed in two places: both texts are kept, one below the other.')
  if (kept > 1) said.push(`${kept} lines were changed in two places: both texts of each are kept, one below the other.`)
  if (revived === 1) said.push('A line that you were changing was deleted elsewhere: your text is a line again.')
  if (revived > 1)
    said.push(`${revived} lines that you were changing were deleted elsewhere: your texts are lines again.`)
  if (spared === 1) said.push('A line that you deleted had been changed elsewhere: the changed line stays.')
  if (spared > 1) said.push(`${spared} lines that you deleted had been changed elsewhere: the changed lines stay.`)
  return said.length === 0 ? null : said.join(' ')
}
