import type { SweepValue } from '../values/types'

/** What a line shows. All texts are plain characters that read back in; the interface dresses them. */

/** A complex value in both forms. */
export interface Twin {
  readonly rectangular: string
  readonly polar: string
}

/**
 * What a line shows: one text, a twin readout of a complex value, or the entries
 * of a vector. All texts are plain characters that read back in; the interface
 * dresses them.
 */
export type Readout =
  | ({ readonly shape: 'twin' } & Twin & WithUnit)
  | ({ readonly shape: 'single'; readonly text: string } & WithUnit)
  | { readonly shape: 'words'; readonly text: string; /** It takes the full width. */ readonly broad?: boolean }
  | GridReadout
  | ({
      readonly shape: 'list'
      readonly entries: readonly (string | Twin)[]
      readonly count: number
      readonly size: VectorSize | null
    } & WithUnit)
  | SweepReadout
  /** Polynomials, and arrays of them: typeset, and as text that reads back. */
  | ({ readonly shape: 'algebra'; readonly latex: string; readonly text: string } & WithUnit)
  | { readonly shape: 'none' }

/** The unit that stands once behind all numbers of a readout; left out where they have none. */
export interface WithUnit {
  readonly unit?: string
}

/** What two or three components, or complex entries, say besides: the length, and in the plane the direction. */
export interface VectorSize {
  readonly magnitude: string
  readonly direction: string | null
}

/** A matrix: its size, and its entries row by row as far as they are shown. */
export interface GridReadout extends WithUnit {
  readonly shape: 'grid'
  readonly rows: number
  readonly cols: number
  /** How many rows and columns the cells are of. */
  readonly shownRows: number
  readonly shownCols: number
  readonly cells: readonly string[]
  /** The same in polar form, where an entry is complex. */
  readonly polar: readonly string[] | null
}

/** A sweep in short: how many points, the first and the last, and the shape of its curve. */
export interface SweepReadout extends WithUnit {
  readonly shape: 'sweep'
  readonly count: number
  readonly of: SweepValue['of']
  readonly complex: boolean
  readonly first: string | Twin
  readonly last: string | Twin
  /** The quantity it runs along; `null` where that has no name, or it is the quantity itself. */
  readonly along: string | null
  /** Heights of a small curve: real values, or magnitudes; lows and highs in turn. */
  readonly curve: readonly number[]
  /** What the curve shows. */
  readonly shows: 'value' | 'magnitude' | 'angle' | null
}

/** A readout as text to copy: what reads back in. */
export function readoutText(shown: Readout): string {
  return unitBehind(numbersText(shown), shown)
}

/** A text with the unit of the readout behind it. */
function unitBehind(text: string, shown: Readout): string {
  return 'unit' in shown && shown.unit ? `${text} ${shown.unit}` : text
}

function numbersText(shown: Readout): string {
  switch (shown.shape) {
    case 'twin':
      return shown.rectangular
    case 'grid': {
      const rows = Array.from({ length: shown.shownRows }, (_, r) =>
        shown.cells.slice(r * shown.shownCols, (r + 1) * shown.shownCols).join(', '),
      )
      return `[[${rows.join('], [')}]]`
    }
    case 'list':
      return `[${shown.entries.map((e) => (typeof e === 'string' ? e : e.rectangular)).join(', ')}]`
    case 'sweep':
      return `${shown.count} points, ${sideText(shown.first)} … ${sideText(shown.last)}`
    case 'none':
      return ''
    default:
      return shown.text
  }
}

/** A readout as one text, or as two where the value has a polar form as well; what is left out is said. */
export function readoutForms(shown: Readout): readonly string[] {
  return numberForms(shown).map((form) => unitBehind(form, shown))
}

function numberForms(shown: Readout): readonly string[] {
  switch (shown.shape) {
    case 'twin':
      return [shown.rectangular, shown.polar]
    case 'grid': {
      const { rows, cols, shownRows, shownCols, polar } = shown
      const rest = shownRows < rows || shownCols < cols ? ` … of ${rows} × ${cols}` : ''
      const forms = polar ? [numbersText(shown), numbersText({ ...shown, cells: polar })] : [numbersText(shown)]
      return forms.map((form) => form + rest)
    }
    case 'list': {
      const { entries, count } = shown
      const rest = entries.length < count ? ` … of ${count}` : ''
      const form = (of: (entry: string | Twin) => string): string => `[${entries.map(of).join(', ')}]${rest}`
      const complex = entries.some((e) => typeof e !== 'string')
      return complex ? [form(sideText), form((e) => (typeof e === 'string' ? e : e.polar))] : [form(sideText)]
    }
    case 'none':
      return []
    default:
      return [numbersText(shown)]
  }
}

const sideText = (side: string | Twin): string => (typeof side === 'string' ? side : side.rectangular)
