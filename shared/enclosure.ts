import { some, text, whole, z } from './schema'
import { COLUMNS_MOST, ROWS_MOST } from '#core/measured/data'
import { partNames } from '#core/measured/partNames'
import type { Column, Data } from '#core/measured/data'

/**
 * Measured data that is kept with a folio: what it is called and how it is laid out. Its numbers are a block of
 * their own, which never changes: newer data under the same name is another block.
 */

const id = z.string().check(z.regex(/^[A-Za-z0-9_-]{8,40}$/, 'an identifier of 8 to 40 letters and digits'))

/** The name of a file, as a line says it: `lamp.s1p`. */
export const ENCLOSURE_NAME_MAX = 120
export const enclosureNameSchema = z
  .string()
  .check(
    z.minLength(1),
    z.maxLength(ENCLOSURE_NAME_MAX),
    z.regex(/^[^"“”\\\p{Cc}]+$/u, 'a name without quotation marks'),
  )

/** Bytes of the numbers of one enclosure. */
export const ENCLOSED_BYTES_MOST = 64 * 1024 * 1024
/** Numbers travel in pieces: of at least so many bytes, so that a slow line gets one through, and at most so many. */
export const PIECE_LEAST = 32 * 1024
export const PIECE_MOST = 1024 * 1024
/** Bytes of a folio that wait for an enclosure, or for the rest of their block. */
export const STRAY_BYTES_MOST = 2 * ENCLOSED_BYTES_MOST
/** Enclosures of one folio. */
export const ENCLOSURES_MOST = 40

const columnSchema = z.strictObject({
  name: text(200),
  unit: text(40),
  /** 1 of numbers; n where every row holds an n × n matrix. */
  order: whole(1, 200),
  complex: z.boolean(),
})

const anyEnclosure = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('table'),
    name: enclosureNameSchema,
    block: id,
    rows: whole(1, ROWS_MOST),
    columns: some(columnSchema, COLUMNS_MOST),
    /** Which column the others run along; -1 for none. */
    parameter: whole(-1),
  }),
  z.strictObject({
    kind: z.literal('matrix'),
    name: enclosureNameSchema,
    block: id,
    rows: whole(1),
    cols: whole(1),
    complex: z.boolean(),
  }),
])
export type Enclosure = Readonly<z.infer<typeof anyEnclosure>>

export const enclosureSchema = anyEnclosure.check(
  z.refine((e) => bytesOf(e) <= ENCLOSED_BYTES_MOST, 'at most 64 MB of numbers'),
)

/** Bytes that the numbers take: doubles, little-endian. */
export function bytesOf(enclosure: Enclosure): number {
  const doubles =
    enclosure.kind === 'matrix'
      ? enclosure.rows * enclosure.cols * (enclosure.complex ? 2 : 1)
      : enclosure.columns.reduce((sum, c) => sum + enclosure.rows * c.order ** 2 * (c.complex ? 2 : 1), 0)
  return doubles * 8
}

/** What is said of data: everything but its numbers. */
export function describe(name: string, block: string, data: Data): Enclosure {
  if (data.kind === 'matrix')
    return { kind: 'matrix', name, block, rows: data.rows, cols: data.cols, complex: data.im !== null }
  const columns = data.columns.map(({ name: own, unit, order, im }) => ({ name: own.slice(0, 200), unit: unit.slice(0, 40), order, complex: im !== null })) // prettier-ignore
  return { kind: 'table', name, block, rows: data.rows, columns, parameter: data.parameter }
}

/** The numbers of data, column after column, real parts before imaginary ones. */
export function numbersOf(data: Data): Uint8Array {
  const parts = (data.kind === 'matrix' ? [data] : data.columns).flatMap(({ re, im }) => (im ? [re, im] : [re]))
  const count = parts.reduce((sum, part) => sum + part.length, 0)
  const bytes = new Uint8Array(count * 8)
  const view = new DataView(bytes.buffer)
  let at = 0
  for (const part of parts)
    for (let k = 0; k < part.length; k += 1) {
      view.setFloat64(at, part[k] ?? NaN, true)
      at += 8
    }
  return bytes
}

/** Data from its numbers; `null` where they are not as many as the description says. */
export function dataFrom(enclosure: Enclosure, bytes: Uint8Array): Data | null {
  if (bytes.length !== bytesOf(enclosure)) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let at = 0
  const part = (count: number): Float64Array => {
    const values = new Float64Array(count)
    for (let k = 0; k < count; k += 1) {
      values[k] = view.getFloat64(at, true)
      at += 8
    }
    return values
  }
  if (enclosure.kind === 'matrix') {
    const { rows, cols, complex } = enclosure
    return { kind: 'matrix', rows, cols, re: part(rows * cols), im: complex ? part(rows * cols) : null }
  }
  const { rows, columns, parameter } = enclosure
  const filled = columns.map(({ name, unit, order, complex }): Column => {
    const size = rows * order ** 2
    return { name, unit, order, re: part(size), im: complex ? part(size) : null }
  })
  return { kind: 'table', rows, columns: filled, parameter }
}

/** The names under which its columns are taken up; none of a matrix. */
export function partsOf(enclosure: Enclosure): readonly string[] {
  return enclosure.kind === 'matrix' ? [] : partNames(enclosure.columns)
}

/** A name for a line that takes it up: `lamp` of `lamp.s1p`. */
export function lineNameOf(enclosure: Enclosure): string {
  const stem = enclosure.name.replace(/\.[A-Za-z0-9]{1,12}$/, '')
  return partNames([{ name: stem === '' ? 'data' : stem }])[0] ?? 'data'
}
