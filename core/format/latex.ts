import type { NumberValue } from '../values/types'
import type { Conventions } from './conventions'
import { formatNumber } from './number'

/** Readouts as LaTeX, with the digits on show: `3 + \mathrm{j}4`, `5\,\angle\,53.13^{\circ}`. */

export function numberLatex(value: NumberValue, conventions: Conventions): string {
  return readoutToLatex(formatNumber(value, conventions), conventions.letter)
}

/** The text of a readout as LaTeX. */
export function readoutToLatex(text: string, letter: 'i' | 'j'): string {
  const pieces = text.replace(/-/g, '-').match(/[\d.]+(?:e[+-]?\d+)?|[a-zµπ]+|\S/giu) ?? []
  let latex = ''
  pieces.forEach((piece, k) => {
    const power = /^([\d.]+)e([+-]?)(\d+)$/.exec(piece)
    if (power) latex += `${power[1]} \\times 10^{${power[2] === '-' ? '-' : ''}${power[3]}}`
    else if (piece === letter) latex += `\\mathrm{${letter}}`
    else if (piece === '∠') latex += ' \\,\\angle\\, '
    else if (piece === '°') latex += '^{\\circ}'
    else if (piece === "'") latex += "'"
    else if (piece === '"') latex += "''"
    else if (piece === 'pi' || piece === 'π') latex += '\\pi '
    else if (piece === 'rad') latex += '\\,\\mathrm{rad}'
    else if (piece === '∞') latex += '\\infty '
    else if (piece === '+' || piece === '-') latex += k === 0 ? piece : ` ${piece} `
    else if (piece === '*') latex += ' \\cdot '
    else if (/^[a-zµ]+$/i.test(piece))
      latex += piece === `k${letter}` ? `\\,\\mathrm{k}\\mathrm{${letter}}` : `\\,\\mathrm{${piece}}`
    else latex += piece
  })
  return latex
    .replace(
      /(\d*(?:\\mathrm\{[ij]\}|\\pi ?)?)\/(\d+)/g,
      (_, top: string, bottom: string) => `\\frac{${top.trim()}}{${bottom}}`,
    )
    .trim()
}
