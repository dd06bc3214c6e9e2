import type { LineView } from '#core/views/lineView'
import type { Readout, Twin } from '#core/format/readout'
import { spokenUnit } from '#core/units/spoken'

/** What a line came to, as a screen reader says it: both forms, the first entries, or the error. */

/** Entries of a vector, and rows and columns of a matrix, that are said one by one. */
const ENTRIES = 6
const SIDE = 3

const both = (value: string | Twin): string =>
  typeof value === 'string' ? value : `${value.rectangular}, ${value.polar}`

function saidReadout(readout: Readout): string {
  switch (readout.shape) {
    case 'twin':
      return both(readout)
    case 'single':
    case 'words':
    case 'algebra':
      return readout.text
    case 'list': {
      const told = readout.entries.slice(0, ENTRIES).map(both)
      const rest = readout.count - told.length
      return `vector of ${readout.count}: ${told.join('; ')}${rest > 0 ? `; and ${rest} more` : ''}`
    }
    case 'grid': {
      const rows = Array.from({ length: Math.min(SIDE, readout.shownRows) }, (_, r) => {
        const cells = readout.cells.slice(
          r * readout.shownCols,
          r * readout.shownCols + Math.min(SIDE, readout.shownCols),
        )
        return `row ${r + 1}: ${cells.join(', ')}`
      })
      const whole = readout.rows <= SIDE && readout.cols <= SIDE
      return `${readout.rows} by ${readout.cols} matrix, ${whole ? '' : 'its corner, '}${rows.join('; ')}`
    }
    case 'sweep':
      return `${readout.count} points, from ${both(readout.first)} to ${both(readout.last)}`
    case 'none':
      return ''
  }
}

/** A line with what it found for each sought name. */
export function spokenWithAnswers(view: LineView): string {
  const found = view.problem ? [] : view.answers.map((answer) => `${answer.name} ${spokenResult(answer)}`)
  const equation = view.place?.role === 'equation' ? [`equation ${view.place.number}`] : []
  return [...equation, ...[spokenResult(view)].filter((text) => text !== ''), ...found].join('; ')
}

export function spokenResult({ problem, readout }: Pick<LineView, 'problem' | 'readout'>): string {
  if (problem) return `error: ${problem.message}`
  const unit = 'unit' in readout && readout.unit ? ` ${spokenUnit(readout.unit)}` : ''
  return `${saidReadout(readout)}${unit}`.replace(/ ∠ /g, ' angle ')
}
