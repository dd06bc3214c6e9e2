import { getQuery } from 'h3'
import * as z from 'zod'
import { SHELF_SORTS } from '../../../shared/folio'
import { defineApi } from '../../utils/api'
import { useStore } from '../../utils/folios'

const querySchema = z.object({
  find: z.string().catch(''),
  sort: z.enum(SHELF_SORTS).catch('changed'),
  from: z.coerce.number().int().min(0).catch(0),
  bin: z.literal('1').optional().catch(undefined),
})

/**
 * A page of the shelf: `?find=` looks for a text, `?sort=` orders, `?from=` goes
 * on, `?bin=1` asks for what is in the bin.
 */
export default defineApi(async (event) => {
  const { find, sort, from, bin } = querySchema.parse(getQuery(event))
  // A text has no zero characters, and SQLite ends at them.
  const text = find.replaceAll('\0', '').trim().slice(0, 200)
  return (await useStore()).shelf.page({ find: text, sort, from, bin: bin !== undefined })
})
