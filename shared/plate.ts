import { z } from 'zod'

/** A figure of the folio: what it shows, and how. */
const id = z.string().regex(/^[A-Za-z0-9_-]{8,40}$/, 'an identifier of 8 to 40 letters and digits')

export const plateSchema = z.strictObject({
  id,
  kind: z.literal('plane'),
  caption: z.string().max(200),
  /** Names of the axes with their units, as the student writes them. */
  re: z.string().max(60),
  im: z.string().max(60),
  grid: z.enum(['rectangular', 'polar', 'none']),
  unitCircle: z.boolean(),
  conjugates: z.boolean(),
  labels: z.boolean(),
  /** Lines whose values are taken off this plate; every other kept complex value is on it. */
  off: z.array(id).max(5_000),
})
export type Plate = z.infer<typeof plateSchema>

/** Most plates of a folio. */
export const PLATES_MOST = 60

/** The plate that a folio without plates shows. */
export function freshPlate(plateId: string): Plate {
  return {
    id: plateId,
    kind: 'plane',
    caption: 'Kept complex values',
    re: 'Re',
    im: 'Im',
    grid: 'rectangular',
    unitCircle: false,
    conjugates: false,
    labels: true,
    off: [],
  }
}
