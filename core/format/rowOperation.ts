import type { RowOperation } from '../linear/reduction'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import { fractionText } from './full'

/** A row by its number, as equations are numbered: R1 and R2 are resistors here. */
const row = (index: number): string => `(${index + 1})`

/** A row operation in print: `(2) → (2) − 3·(1)`, `(1) ↔ (3)`, `(2) → 1/2·(2)`. */
export function rowOperationText(operation: RowOperation, letter: 'i' | 'j'): string {
  return rowOperationWith(operation, (z) => fractionText(z, letter))
}

/** The same with factors of any sort, as `number` writes them. */
export function rowOperationWith<Factor>(operation: RowOperation<Factor>, number: (factor: Factor) => string): string {
  switch (operation.type) {
    case 'swap':
      return `${row(operation.a)} ↔ ${row(operation.b)}`
    case 'scale':
      return `${row(operation.row)} → ${factor(number(operation.factor))}${row(operation.row)}`
    case 'add': {
      const changed = row(operation.row)
      const text = number(operation.factor)
      const negative = text.startsWith('-') && !text.includes(' ')
      const size = negative ? text.slice(1) : text
      return `${changed} → ${changed} ${negative ? '−' : '+'} ${size === '1' ? '' : factor(size)}${row(operation.from)}`
    }
  }
}

const factor = (text: string): string =>
  / [+-] /.test(text) ? `(${text.replace(/-/g, '−')})·` : `${text.replace(/-/g, '−')}·`

/** A row as it is typed, `r2`, or as it is written, `(2)`: two groups, of which one has the number. */
const ROW = String.raw`(?:R ?(\d+)|\( ?(\d+) ?\))`
const SWAP = new RegExp(`^${ROW} ?(?:↔|<->|<=>) ?${ROW}$`, 'i')
const ARROW = new RegExp(`^${ROW} ?(?:→|->|=>|:=|=) ?(.*)$`, 'i')
const FIRST = new RegExp(`^${ROW} ?`, 'i')
const SUM = new RegExp(`^([+-]) ?(.*?) ?\\*? ?${ROW}$`, 'i')
const SCALED = new RegExp(`^(.+?) ?\\*? ?${ROW}$`, 'i')

/** The row that two groups of a match name, counted from 0. */
function rowIn(match: RegExpExecArray, group: number): number {
  return Number(match[group] ?? match[group + 1]) - 1
}

/** Reads `r2 -> r2 - 3r1`, `(1) ↔ (3)`, `r2 -> r2/2`, `1/2 r2`; `null` where it cannot be understood. */
export function readRowOperation(text: string, number: (text: string) => Gaussian | null): RowOperation | null {
  const plain = text.replace(/−/g, '-').replace(/[·*×]/g, '*').replace(/\s+/g, ' ').trim()
  const swap = SWAP.exec(plain)
  if (swap) return { type: 'swap', a: rowIn(swap, 1), b: rowIn(swap, 3) }
  const arrow = ARROW.exec(plain)
  if (!arrow) return null
  const changed = rowIn(arrow, 1)
  const rest = arrow[3] ?? ''
  const first = FIRST.exec(rest)
  const changes = first !== null && rowIn(first, 1) === changed ? changeOf(changed, rest.slice(first[0].length), number) : null // prettier-ignore
  return changes ?? scalingOf(changed, rest, number)
}

/** What stands behind the row itself: `/2`, `- 3r1`. */
function changeOf(changed: number, tail: string, number: (text: string) => Gaussian | null): RowOperation | null {
  const division = /^\/ ?(.+)$/.exec(tail)
  if (division) {
    const by = number(division[1] ?? '')
    const scale = by && !G.isZero(by) ? G.divide(G.ONE, by) : null
    return scale && { type: 'scale', row: changed, factor: scale }
  }
  const sum = SUM.exec(tail)
  if (!sum) return null
  const size = sum[2] === '' ? G.ONE : number(sum[2] ?? '')
  return size && { type: 'add', row: changed, from: rowIn(sum, 3), factor: sum[1] === '-' ? G.negate(size) : size }
}

/** `1/2 r2`: the row itself with a factor before it. */
function scalingOf(changed: number, rest: string, number: (text: string) => Gaussian | null): RowOperation | null {
  const scaled = SCALED.exec(rest)
  if (!scaled || rowIn(scaled, 2) !== changed) return null
  const size = scaled[1] === '-' ? G.negate(G.ONE) : number(scaled[1] ?? '')
  return size && { type: 'scale', row: changed, factor: size }
}
