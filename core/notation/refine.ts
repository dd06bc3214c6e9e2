import { parseLine } from './parser'
import type { Node, Range } from './tree'

/** How much finer a range becomes at once. */
const FINER = 4

/** A line that keeps a range, with a finer step; `null` where its range is not written out. */
export function refineRange(source: string): string | null {
  const { statement, problem } = parseLine(source)
  if (problem || (statement.type !== 'define' && statement.type !== 'expression')) return null
  const range = rangeIn(statement.body)
  if (!range) return null
  const { amount } = range
  if (!amount) return `${source.slice(0, range.to)} step ${plain(1 / FINER)}${source.slice(range.to)}`
  const text = source.slice(amount.from, amount.to)
  const put = (next: string): string => source.slice(0, amount.from) + next + source.slice(amount.to)
  const number = Number(text)
  if (range.by === 'count') return put(Number.isInteger(number) ? String((number - 1) * FINER + 1) : `${text}*${FINER}`)
  if (range.by === 'decade') return put(Number.isFinite(number) ? String(number * FINER) : `${FINER}*(${text})`)
  return put(Number.isFinite(number) && text.trim() !== '' ? plain(number / FINER) : `(${text})/${FINER}`)
}

const plain = (x: number): string => String(Number(x.toPrecision(12))).replace('e+', 'e')

function rangeIn(node: Node): Range | null {
  if (node.type === 'group') return rangeIn(node.inner)
  return node.type === 'range' ? node : null
}
