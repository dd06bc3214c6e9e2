import { unitLatex } from '../units/typeset'
import { parsed } from '../units/unit'
import type { Conventions } from '../format/conventions'
import { readoutToLatex } from '../format/latex'
import { pmatrixOfRows } from '../notation/latex'
import { answerPlace } from '../views/answerIds'
import type { LineView } from '../views/lineView'
import { readoutText } from '../format/readout'
import type { Readout, Twin } from '../format/readout'
import { withoutMarks } from '../notation/latex'

/** A folio as it is handed in: what the sheet, the Markdown and the LaTeX file are made from. */
export interface Report {
  readonly head: ReportHead
  /** The conventions in one line. */
  readonly conventions: string
  readonly letter: 'i' | 'j'
  readonly blocks: readonly Block[]
  readonly answers: readonly Answer[]
}

export interface ReportHead {
  readonly title: string
  readonly course: string
  readonly sheet: string
  readonly date: string
  readonly names: readonly string[]
}

export type Block = Note | Entry | Figure

export interface Note {
  readonly kind: 'note'
  readonly number: number
  readonly text: string
}

export interface Figure {
  readonly kind: 'figure'
  readonly number: number
  readonly caption: string
  readonly id: string
}

export interface Entry {
  readonly kind: 'entry'
  readonly id: string
  readonly number: number
  readonly source: string
  /** LaTeX of the reading, without marks for the screen; empty where the line could not be read. */
  readonly reading: string
  readonly remark: string | null
  readonly result: Result
  /** The sentence of its error. */
  readonly problem: string | null
  /** The part of the sheet that it answers, `1 a`. */
  readonly answer: string | null
}

/** A result in print. Every piece stands as LaTeX and as text. */
export type Result =
  | { readonly kind: 'none' }
  | { readonly kind: 'value'; readonly forms: readonly Piece[] }
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'check'; readonly text: string; readonly pass: boolean }

export interface Piece {
  readonly latex: string
  readonly text: string
}

export interface Answer {
  readonly label: string
  readonly entry: Entry
}

/** A line of a folio, as far as a report shows it. */
export interface ReportSource {
  readonly id: string
  readonly source: string
  readonly note?: true | undefined
  readonly hidden?: true | undefined
  readonly answer?: string | undefined
}

export interface ReportPlate {
  readonly id: string
  readonly number: number
  readonly caption: string
  /** Lines that it shows. */
  readonly lines: readonly string[]
}

export function makeReport(
  head: ReportHead,
  conventions: Conventions,
  lines: readonly ReportSource[],
  viewOf: (id: string) => LineView | null,
  plates: readonly ReportPlate[] = [],
): Report {
  const places = new Map(lines.map((line, k) => [line.id, k]))
  const placeOf = (id: string): number => places.get(id) ?? places.get(answerPlace(id)?.line ?? '') ?? -1
  /** A plate stands after the last of the lines that it shows: there every one of them is known. */
  const after = new Map<number, ReportPlate[]>()
  for (const plate of plates) {
    const place = Math.max(-1, ...plate.lines.map(placeOf))
    const at = place < 0 ? lines.length - 1 : place
    after.set(at, [...(after.get(at) ?? []), plate])
  }
  const blocks = lines.flatMap((line, k): Block[] => {
    const number = k + 1
    const figures = (after.get(k) ?? []).map((p): Figure => ({ kind: 'figure', number: p.number, caption: p.caption, id: p.id })) // prettier-ignore
    if (line.note)
      return line.source.trim() === '' ? figures : [{ kind: 'note', number, text: line.source }, ...figures]
    const view = viewOf(line.id)
    if (line.source.trim() === '' || !view) return figures
    const answered = line.hidden || view.problem ? [] : view.answers.map((answer) => answerEntry(line.id, number, answer, conventions)) // prettier-ignore
    return [entryOf(line, number, view, conventions), ...answered, ...figures]
  })
  const entries = blocks.flatMap((block) => (block.kind === 'entry' ? [block] : []))
  const answers = entries.flatMap((entry) => (entry.answer === null ? [] : [{ label: entry.answer, entry }]))
  return { head, conventions: conventionsLine(conventions), letter: conventions.letter, blocks, answers }
}

function entryOf(line: ReportSource, number: number, view: LineView, conventions: Conventions): Entry {
  return {
    kind: 'entry',
    id: line.id,
    number,
    source: line.source,
    reading: withoutMarks(view.reading),
    remark: view.remark,
    result: line.hidden || view.problem ? { kind: 'none' } : resultOf(view.readout, conventions.letter, view.pass),
    problem: view.problem?.message ?? null,
    answer: line.answer ?? null,
  }
}

/** What equations were solved for: each sought name with its value, under the line that found it. */
function answerEntry(line: string, number: number, view: LineView, conventions: Conventions): Entry {
  const { id, name, reading, readout } = view
  return { kind: 'entry', id: `${line} ${id}`, number, source: name ?? '', reading, remark: null, result: resultOf(readout, conventions.letter), problem: null, answer: null } // prettier-ignore
}

/** What a readout says, in print; `pass` of a check. */
export function resultOf(readout: Readout, letter: 'i' | 'j', pass: boolean | null = null): Result {
  if (pass !== null) return { kind: 'check', text: readoutText(readout), pass }
  const found = numbersOf(readout, letter)
  return 'unit' in readout && readout.unit ? withUnit(found, readout.unit) : found
}

/** The unit behind every form. */
function withUnit(result: Result, text: string): Result {
  const unit = parsed(text)
  if (result.kind === 'words') return { ...result, text: `${result.text} ${text}` }
  if (result.kind !== 'value' || !unit) return result
  const latex = unitLatex(unit)
  return { ...result, forms: result.forms.map((form) => ({ latex: `${form.latex}\\,${latex}`, text: `${form.text} ${text}` })) } // prettier-ignore
}

function numbersOf(readout: Readout, letter: 'i' | 'j'): Result {
  const piece = (text: string): Piece => ({ text, latex: readoutToLatex(text, letter) })
  switch (readout.shape) {
    case 'none':
      return { kind: 'none' }
    case 'twin':
      return { kind: 'value', forms: [piece(readout.rectangular), piece(readout.polar)] }
    case 'single':
      return { kind: 'value', forms: [piece(readout.text)] }
    case 'algebra':
      return { kind: 'value', forms: [{ latex: withoutMarks(readout.latex), text: readout.text }] }
    case 'grid':
      return gridResult(readout, letter)
    case 'list':
      return listResult(readout, letter)
    case 'words':
      return { kind: 'words', text: readout.text }
    case 'sweep': {
      const signed = (text: string): string => text.replace(/-/g, '−')
      const side = (s: string | Twin): string => signed(typeof s === 'string' ? s : `${s.rectangular} = ${s.polar}`)
      const along = readout.along === null ? '' : ` along ${readout.along}`
      return {
        kind: 'words',
        text: `${readout.count} points${along}, from ${side(readout.first)} to ${side(readout.last)}`,
      }
    }
  }
}

function gridResult(readout: Extract<Readout, { shape: 'grid' }>, letter: 'i' | 'j'): Result {
  const { rows, cols, shownRows, shownCols, cells, polar } = readout
  const form = (of: readonly string[]): Piece => {
    const rowsOf = Array.from({ length: shownRows }, (_, r) => of.slice(r * shownCols, (r + 1) * shownCols))
    const latex = rowsOf.map((row) => [...row.map((cell) => readoutToLatex(cell, letter)), ...(shownCols < cols ? ['\\cdots'] : [])].join(' & ')) // prettier-ignore
    if (shownRows < rows) latex.push(['\\vdots', ...Array.from({ length: shownCols - 1 }, () => '')].join(' & '))
    return { latex: pmatrixOfRows(latex), text: `[[${rowsOf.map((row) => row.join(', ')).join('], [')}]]` }
  }
  return { kind: 'value', forms: polar ? [form(cells), form(polar)] : [form(cells)] }
}

function listResult({ entries, count }: Extract<Readout, { shape: 'list' }>, letter: 'i' | 'j'): Result {
  const form = (of: (entry: string | Twin) => string): Piece => {
    const rows = entries.map((entry) => readoutToLatex(of(entry), letter))
    if (entries.length < count) rows.push('\\vdots')
    return { latex: pmatrixOfRows(rows), text: `[${entries.map(of).join(', ')}]` }
  }
  const rectangular = form((e) => (typeof e === 'string' ? e : e.rectangular))
  const isComplex = entries.some((e) => typeof e !== 'string')
  return { kind: 'value', forms: isComplex ? [rectangular, form((e) => (typeof e === 'string' ? e : e.polar))] : [rectangular] } // prettier-ignore
}

const STYLES: Readonly<Record<Conventions['style'], string>> = {
  plain: 'plain decimals',
  scientific: 'scientific notation',
  engineering: 'engineering notation',
  prefix: 'SI prefixes',
}

/** The conventions in one line, in words. */
export function conventionsLine({ angle, letter, digits, style, exact, degrees }: Conventions): string {
  const unit = angle === 'rad' ? 'angles in radians' : degrees === 'minutes' ? 'angles in degrees, minutes and seconds' : 'angles in degrees' // prettier-ignore
  const fractions = exact === 'decimal' ? [] : [exact === 'mixed' ? 'exact values as mixed numbers' : 'exact values as fractions'] // prettier-ignore
  return [unit, `imaginary unit ${letter}`, `${digits} significant digits`, STYLES[style], ...fractions].join(', ')
}
