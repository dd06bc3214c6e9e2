import type { RowOperation } from '../linear/reduction'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { fractionText } from './full'

/** A row operation as the trade writes it: `R2 → R2 − 3·R1`, `R1 ↔ R3`, `R2 → 1/2·R2`. */
export function rowOperationText(operation: RowOperation, letter: 'i' | 'j'): string {
  switch (operation.type) {
    case 'swap':
      return `R${operation.a + 1} ↔ R${operation.b + 1}`
    case 'scale':
      return `R${operation.row + 1} → ${factor(operation.factor, letter)}R${operation.row + 1}`
    case 'add': {
      const row = `R${operation.row + 1}`
      const negative = isNegative(operation.factor)
      const size = negative ? G.negate(operation.factor) : operation.factor
      const times = G.equals(size, G.ONE) ? '' : factor(size, letter)
      return `${row} → ${row} ${negative ? '−' : '+'} ${times}R${operation.from + 1}`
    }
  }
}

function isNegative(z: Gaussian): boolean {
  return G.isReal(z) ? Q.sign(z.re) < 0 : Q.isZero(z.re) && Q.sign(z.im) < 0
}

function factor(z: Gaussian, letter: string): string {
  const text = fractionText(z, letter).replace(/-/g, '−')
  return / [+−] /.test(text) ? `(${text})·` : `${text}·`
}

const ROW = /^\s*R\s*(\d+)\s*/i

/** Reads `R2 → R2 − 3R1`, `R1 <-> R3`, `R2 -> R2/2`, `1/2 R2`; `null` where it cannot be understood. */
export function readRowOperation(text: string, number: (text: string) => Gaussian | null): RowOperation | null {
  const plain = text.replace(/−/g, '-').replace(/[·*×]/g, '*').replace(/\s+/g, ' ').trim()
  const swap = /^R ?(\d+) ?(?:↔|<->|<=>) ?R ?(\d+)$/i.exec(plain)
  if (swap) return { type: 'swap', a: Number(swap[1]) - 1, b: Number(swap[2]) - 1 }
  const arrow = /^R ?(\d+) ?(?:→|->|=>|:=|=) ?(.*)$/i.exec(plain)
  if (!arrow) return null
  const row = Number(arrow[1]) - 1
  const rest = arrow[2] ?? ''
  const first = ROW.exec(rest)
  if (first && Number(first[1]) - 1 === row) {
    const tail = rest.slice(first[0].length)
    const division = /^\/ ?(.+)$/.exec(tail)
    if (division) {
      const by = number(division[1] ?? '')
      const scale = by && !G.isZero(by) ? G.divide(G.ONE, by) : null
      return scale && { type: 'scale', row, factor: scale }
    }
    const sum = /^([+-]) ?(.*?) ?\*? ?R ?(\d+)$/i.exec(tail)
    if (!sum) return null
    const size = sum[2] === '' ? G.ONE : number(sum[2] ?? '')
    return size && { type: 'add', row, from: Number(sum[3]) - 1, factor: sum[1] === '-' ? G.negate(size) : size }
  }
  const scaled = /^(.+?) ?\*? ?R ?(\d+)$/i.exec(rest)
  if (!scaled || Number(scaled[2]) - 1 !== row) return null
  const factorText = scaled[1] ?? ''
  const value = factorText === '-' ? G.negate(G.ONE) : number(factorText)
  return value && { type: 'scale', row, factor: value }
}
