import { getQuery } from 'h3'
import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

/** What was done to a folio, newest first; `?before=` goes on before a revision. */
export default defineApi(async (event) => {
  const before = Number(getQuery(event).before ?? Number.MAX_SAFE_INTEGER)
  const journal = await (await useFolios()).journal(folioId(event), Number.isInteger(before) ? before : undefined)
  if (!journal) throw noFolio()
  return journal
})
