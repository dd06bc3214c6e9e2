import type { Parsed } from './parser'
import { parseLine } from './parser'
import type { Node } from './tree'

/** A vector or matrix that is written out, as the cells of a grid. */
export interface GridText {
  readonly name: string | null
  /** Row by row, each cell as it is written. */
  readonly cells: readonly (readonly string[])[]
  readonly remark: string | null
  /** The unit behind the brackets, which holds for every cell. */
  readonly unit?: string
}

/** The cells of a line that is a literal; `null` where it is computed, or rows differ in length. */
export function readGrid(parsed: Parsed): GridText | null {
  const { statement, source, remark } = parsed
  if (parsed.problem || (statement.type !== 'define' && statement.type !== 'expression')) return null
  const whole = bare(statement.body)
  const body = whole.type === 'united' ? bare(whole.operand) : whole
  if (body.type !== 'list') return null
  const slice = (node: Node): string => source.slice(node.from, node.to)
  const rows = body.entries.map((e) => (e.type === 'list' ? e.entries : null))
  const matrix = rows.every((row) => row !== null)
  if (body.entries.some((e) => e.type === 'series') || rows.some((row) => row?.some((e) => e.type === 'series')))
    return null
  if (!matrix && rows.some((row) => row !== null)) return null
  const cells = matrix ? rows.map((row) => (row ?? []).map(slice)) : body.entries.map((e) => [slice(e)])
  const width = cells[0]?.length ?? 0
  if (cells.some((row) => row.length !== width)) return null
  const unit = whole.type === 'united' ? { unit: slice(whole).slice(whole.unit.from - whole.from) } : {}
  return { name: statement.type === 'define' ? statement.name.name : null, cells, remark, ...unit }
}

function bare(node: Node): Node {
  return node.type === 'group' ? bare(node.inner) : node
}

/** The line that a grid stands for, and where in it each cell is. Empty cells are 0; one column is a vector. */
/** A line that was begun for a grid, with a name and nothing behind `=` yet: that name; else `null`. */
export function begunName(source: string): string | null {
  return /^\s*([\p{L}_][\p{L}\p{Nd}_]*)\s*=[\s[\]]*$/u.exec(source)?.[1] ?? null
}

export function writeGrid({ name, cells, remark, unit }: GridText): {
  readonly source: string
  readonly spans: readonly (readonly { readonly from: number; readonly to: number }[])[]
} {
  let source = name === null ? '' : `${name} = `
  const column = (cells[0]?.length ?? 0) === 1
  const spans: { from: number; to: number }[][] = []
  source += '['
  cells.forEach((row, r) => {
    if (r > 0) source += ', '
    if (!column) source += '['
    spans.push(
      row.map((cell, c) => {
        if (c > 0) source += ', '
        const text = cell.trim() === '' ? '0' : cell.trim()
        const from = source.length
        source += text
        return { from, to: source.length }
      }),
    )
    if (!column) source += ']'
  })
  source += unit === undefined ? ']' : `] ${unit}`
  return { source: remark === null ? source : `${source}  # ${remark}`, spans }
}

/** Cells of another size; what falls outside is gone, what is new is empty. */
export function resized(cells: readonly (readonly string[])[], rows: number, cols: number): string[][] {
  return Array.from({ length: rows }, (_, r) => Array.from({ length: cols }, (__, c) => cells[r]?.[c] ?? ''))
}

export function transposedCells(cells: readonly (readonly string[])[]): string[][] {
  const cols = cells[0]?.length ?? 0
  return Array.from({ length: cols }, (_, c) => cells.map((row) => row[c] ?? ''))
}

/** What lies above the diagonal written below it, too. */
export function symmetricCells(cells: readonly (readonly string[])[]): string[][] {
  return cells.map((row, r) => row.map((cell, c) => (r > c ? (cells[c]?.[r] ?? cell) : cell)))
}

/** Text from a spreadsheet: rows by lines, cells by tabs, or by commas or semicolons where there are no tabs. */
export function cellsFromText(text: string): string[][] {
  const literal = readGrid(parseLine(text.trim()))
  if (literal) return literal.cells.map((row) => [...row])
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n+$/, '').split('\n')
  const separator = text.includes('\t') ? '\t' : text.includes(';') ? ';' : ','
  return lines.map((line) => line.split(separator).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1')))
}

export function cellsToText(cells: readonly (readonly string[])[]): string {
  return cells.map((row) => row.join('\t')).join('\n')
}
