import type { Column } from '../measured/data'
import { writeNumeral } from './numerals'
import { fault } from './told'
import type { Fault } from './told'
import type { Parameter } from './touchstone'

/** Pairs of numbers that stand on one line of a file of three ports or more. */
const PAIRS_MOST = 4

/**
 * Writes network data, version 1.1: frequencies in Hz, real and imaginary parts, relative to 1 Ω, so that every
 * number stands in the file as it is. Points that are undefined are left out, and counted in a remark.
 */
export function writeTouchstone(
  frequencies: Float64Array,
  { re, im, order: n }: Column,
  parameter: Parameter,
  title: string,
): string | Fault {
  const format = 'network data'
  if ((parameter === 'G' || parameter === 'H') && n !== 2) return fault('touchstone-two-ports', { parameter, ports: n })
  const size = n * n
  const places = Array.from({ length: size }, (_, k) => k)
  const order = n === 2 ? [0, 2, 1, 3] : places
  const body: string[] = []
  let leftOut = 0
  let last = -1
  for (let k = 0; k < frequencies.length; k += 1) {
    const f = frequencies[k] ?? NaN
    const parts = (at: number): readonly [number, number] => [re[k * size + at] ?? NaN, im?.[k * size + at] ?? 0]
    const known = Number.isFinite(f) && places.every((at) => parts(at).every(Number.isFinite))
    if (!known) {
      leftOut += 1
      continue
    }
    if (f < 0 || f <= last) return fault('not-rising', { format })
    last = f
    const pairs = order.map((at) => parts(at).map(writeNumeral).join(' '))
    const perLine = n === 2 ? size : n
    for (let row = 0; row < size; row += perLine)
      for (let from = row; from < row + perLine; from += n === 2 ? size : PAIRS_MOST) {
        const to = n === 2 ? size : Math.min(from + PAIRS_MOST, row + perLine)
        const line = pairs.slice(from, to).join(' ')
        body.push(row === 0 && from === 0 ? `${writeNumeral(f)} ${line}` : `  ${line}`)
      }
  }
  if (body.length === 0) return fault('nothing-to-write', { format, needs: 'a sweep of numbers or square matrices' })
  const head = title.split(/[\r\n]+/).map((line) => `! ${line}`)
  if (leftOut > 0) head.push(`! ${leftOut} undefined ${leftOut === 1 ? 'point' : 'points'} left out`)
  return [...head, `# Hz ${parameter} RI R 1`, ...body, ''].join('\n')
}
