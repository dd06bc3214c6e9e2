/**
 * What is said of a file: why it cannot be taken, and what a reader did with it that the file does not say
 * itself. A code with the data of its sentence; the sentences stand at the end and nowhere else.
 */

interface FaultData {
  /** More bytes than are read. */
  readonly 'too-big': { readonly bytes: number; readonly most: number }
  readonly empty: object
  readonly binary: object
  readonly 'bad-number': { readonly text: string }
  readonly 'number-too-large': { readonly text: string }
  readonly 'matrix-market-banner': { readonly text: string }
  readonly 'matrix-market-sizes': { readonly text: string }
  readonly 'matrix-market-square': { readonly rows: number; readonly cols: number; readonly kind: string }
  readonly 'matrix-market-place': { readonly row: number; readonly col: number; readonly rows: number; readonly cols: number } // prettier-ignore
  readonly 'matrix-market-triangle': { readonly row: number; readonly col: number; readonly kind: string }
  readonly 'hermitian-diagonal': { readonly row: number }
  readonly 'pattern-array': object
  readonly 'entries-missing': { readonly has: number; readonly needs: number }
  readonly 'entries-over': { readonly needs: number }
  readonly 'entry-form': { readonly has: number; readonly needs: number }
  readonly 'too-many-entries': { readonly count: number; readonly most: number }
  readonly 'touchstone-option': { readonly text: string }
  readonly 'touchstone-keyword': { readonly text: string }
  readonly 'touchstone-version': { readonly text: string }
  readonly 'touchstone-mixed': object
  readonly 'touchstone-ports': object
  readonly 'touchstone-no-ports': object
  readonly 'touchstone-order': object
  readonly 'touchstone-two-ports': { readonly parameter: string; readonly ports: number }
  readonly 'touchstone-cut': { readonly has: number; readonly needs: number }
  readonly 'touchstone-count': { readonly has: number; readonly needs: number }
  readonly 'touchstone-falls': { readonly frequency: number }
  readonly 'touchstone-reference': { readonly has: number; readonly needs: number }
  readonly 'no-data': object
  readonly 'no-table': object
  readonly 'too-many-columns': { readonly count: number; readonly most: number }
  readonly 'too-many-rows': { readonly most: number }
  readonly 'json-damaged': { readonly why: string }
  readonly 'folio-form': { readonly where: string; readonly why: string }
  readonly 'folio-newer': { readonly version: number; readonly knows: number }
  readonly 'archive-damaged': object
  readonly 'archive-empty': object
  readonly 'archive-too-big': { readonly name: string; readonly most: number }
  readonly 'archive-whole-too-big': { readonly most: number }
  readonly 'archive-too-many': { readonly count: number; readonly most: number }
  /** What cannot be written in a format. */
  readonly 'nothing-to-write': { readonly format: string; readonly needs: string }
  readonly 'not-rising': { readonly format: string }
  readonly 'no-such-name': { readonly name: string }
  readonly 'wrong-value': { readonly name: string; readonly format: string; readonly needs: string }
}

interface RemarkData {
  readonly 'noise-skipped': { readonly points: number }
  readonly 'ports-guessed': { readonly ports: number }
  readonly denormalized: { readonly parameter: string; readonly ohms: number }
  readonly 'reference-ohms': { readonly ohms: string }
  readonly 'points-repeated': { readonly points: number }
  readonly 'duplicates-summed': { readonly entries: number }
  readonly 'cells-undefined': { readonly cells: number; readonly line: number; readonly column: number; readonly text: string } // prettier-ignore
  readonly 'columns-of-text': { readonly names: string }
  readonly 'lines-before': { readonly lines: number }
  readonly 'lines-after': { readonly lines: number }
  readonly 'parameter-unsorted': { readonly name: string }
  readonly 'parameter-repeated': { readonly name: string; readonly points: number }
  readonly encoding: { readonly name: string }
}

export type FaultCode = keyof FaultData
export type RemarkCode = keyof RemarkData

/** Why a file is not taken, with the place in it, counted from 1. */
export interface Fault<C extends FaultCode = FaultCode> {
  readonly kind: 'fault'
  readonly code: C
  readonly data: FaultData[C]
  readonly line: number | null
  readonly column: number | null
}

/** What a reader did that the student should know. */
export interface Remark<C extends RemarkCode = RemarkCode> {
  readonly code: C
  readonly data: RemarkData[C]
}

export function fault<C extends FaultCode>(
  code: C,
  data: FaultData[C],
  line: number | null = null,
  column: number | null = null,
): Fault<C> {
  return { kind: 'fault', code, data, line, column }
}

export function remark<C extends RemarkCode>(code: C, data: RemarkData[C]): Remark<C> {
  return { code, data }
}

type Sentences<D> = { readonly [C in keyof D]: (data: D[C]) => string }

const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`
const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`

const FAULTS: Sentences<FaultData> = {
  'too-big': (d) => `The file has ${megabytes(d.bytes)}; up to ${megabytes(d.most)} are read.`,
  empty: () => 'The file is empty.',
  binary: () => 'This is no text file: it holds bytes that no text has.',
  'bad-number': (d) => `“${d.text}” is not a number.`,
  'number-too-large': (d) => `“${d.text}” is too large for a number here.`,
  'matrix-market-banner': (d) =>
    `The first line should say “%%MatrixMarket matrix”, then array or coordinate, the kind of numbers, and the symmetry; “${d.text}” is not one of these.`,
  'matrix-market-sizes': (d) => `The line of sizes should hold whole numbers of rows and columns, not “${d.text}”.`,
  'matrix-market-square': (d) => `A ${d.kind} matrix is square; this one is said to be ${d.rows} × ${d.cols}.`,
  'matrix-market-place': (d) => `Row ${d.row}, column ${d.col} lies outside the ${d.rows} × ${d.cols} matrix.`,
  'matrix-market-triangle': (d) =>
    `Of a ${d.kind} matrix only the lower triangle is written${d.kind === 'skew-symmetric' ? ', without the diagonal' : ''}; row ${d.row}, column ${d.col} is not in it.`,
  'hermitian-diagonal': (d) => `The diagonal of a hermitian matrix is real; the entry in row ${d.row} is not.`,
  'pattern-array': () => 'A pattern is written by coordinates only, not as an array.',
  'entries-missing': (d) =>
    `The file ends after ${count(d.has, 'entry', 'entries')}; it says that there are ${d.needs}.`,
  'entries-over': (d) => `There are more entries than the ${d.needs} that the file says.`,
  'entry-form': (d) => `An entry should have ${count(d.needs, 'number')} here; this line has ${d.has}.`,
  'too-many-entries': (d) => `The matrix would have ${d.count} entries; up to ${d.most} are read.`,
  'touchstone-option': (d) => `“${d.text}” is not known in the option line.`,
  'touchstone-keyword': (d) => `The keyword ${d.text} is not known here.`,
  'touchstone-version': (d) => `Version ${d.text} is not read here; versions 1 and 2 are.`,
  'touchstone-mixed': () => 'Mixed-mode parameters are not read here; write the file for single-ended ports.',
  'touchstone-ports': () =>
    'How many ports these are cannot be told: the numbers of a frequency fill no square matrix.',
  'touchstone-no-ports': () => '[Number of Ports] should stand before the network data.',
  'touchstone-order': () => '[Two-Port Data Order] should say 12_21 or 21_12 before the network data.',
  'touchstone-two-ports': (d) => `${d.parameter} parameters are of two ports; the file has ${count(d.ports, 'port')}.`,
  'touchstone-cut': (d) => `The last frequency has ${d.has} of its ${d.needs} numbers: the file is cut off.`,
  'touchstone-count': (d) => `The file says ${d.needs} frequencies and has ${d.has}.`,
  'touchstone-falls': (d) => `The frequency falls here, to ${d.frequency} Hz; it should rise.`,
  'touchstone-reference': (d) => `[Reference] has ${d.has} of the ${d.needs} resistances of the ports.`,
  'no-data': () => 'There are no numbers in the file.',
  'no-table': () => 'No table of numbers was found in the file.',
  'too-many-columns': (d) => `The table has ${d.count} columns; up to ${d.most} are read.`,
  'too-many-rows': (d) => `The table has more than ${d.most} rows.`,
  'json-damaged': (d) => `This is not a folio file: its JSON is damaged (${d.why}).`,
  'folio-form': (d) => `This is not a folio file: ${d.where === '' ? '' : `${d.where}: `}${d.why}.`,
  'folio-newer': (d) =>
    `The folio file has version ${d.version}; this program reads up to version ${d.knows}. A newer one of it will open the file.`,
  'archive-damaged': () => 'The archive is damaged or cut off.',
  'archive-empty': () => 'The archive holds no folio.',
  'archive-too-big': (d) => `“${d.name}” in the archive would unpack to more than ${megabytes(d.most)}.`,
  'archive-whole-too-big': (d) => `The archive would unpack to more than ${megabytes(d.most)}.`,
  'archive-too-many': (d) => `The archive holds ${d.count} files; up to ${d.most} are read.`,
  'nothing-to-write': (d) => `There is nothing here that ${d.format} can hold: it takes ${d.needs}.`,
  'not-rising': (d) => `${d.format} needs a parameter that rises from point to point, and is not below 0.`,
  'no-such-name': (d) => `No line keeps the name ${d.name}, or it is in error.`,
  'wrong-value': (d) => `${d.name} cannot be written as ${d.format}, which takes ${d.needs}.`,
}

const REMARKS: Sentences<RemarkData> = {
  'noise-skipped': (d) => `Noise data of ${count(d.points, 'frequency', 'frequencies')} was left out.`,
  'ports-guessed': (d) => `The file does not say how many ports it is of; by its numbers they are ${d.ports}.`,
  denormalized: (d) =>
    `The file holds its ${d.parameter} parameters relative to ${d.ohms} Ω; they were multiplied out.`,
  'reference-ohms': (d) => `Reference resistance ${d.ohms} Ω.`,
  'points-repeated': (d) => `${count(d.points, 'frequency is', 'frequencies are')} there more than once.`,
  'duplicates-summed': (d) =>
    `${count(d.entries, 'entry was', 'entries were')} given more than once; they were added up.`,
  'cells-undefined': (d) =>
    `${count(d.cells, 'cell is', 'cells are')} undefined, the first in line ${d.line}, column ${d.column} (${d.text === '' ? 'empty' : `“${d.text}”`}).`,
  'columns-of-text': (d) => `Columns without numbers were left out: ${d.names}.`,
  'lines-before': (d) => `${count(d.lines, 'line')} before the table ${d.lines === 1 ? 'was' : 'were'} passed over.`,
  'lines-after': (d) => `${count(d.lines, 'line')} after the table ${d.lines === 1 ? 'was' : 'were'} passed over.`,
  'parameter-unsorted': (d) => `${d.name} does not rise from row to row; the order of the file is kept.`,
  'parameter-repeated': (d) => `${d.name} takes ${count(d.points, 'value')} more than once.`,
  encoding: (d) => `Read as ${d.name}.`,
}

/** The sentence of a fault, with its place. */
export function faultSentence<C extends FaultCode>(f: Fault<C>): string {
  const place = f.line === null ? '' : f.column === null ? `Line ${f.line}: ` : `Line ${f.line}, column ${f.column}: `
  return place + FAULTS[f.code](f.data)
}

export function remarkSentence<C extends RemarkCode>(r: Remark<C>): string {
  return REMARKS[r.code](r.data)
}
