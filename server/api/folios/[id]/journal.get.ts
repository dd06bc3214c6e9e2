import { getQuery } from 'h3'
import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useStore } from '../../../utils/folios'

/** What was done to a folio, newest first; `?before=` goes on before a revision. */
export default defineApi(async (event) => {
  const id = folioId(event)
  const before = Number(getQuery(event).before ?? Number.MAX_SAFE_INTEGER)
  const { folios, journal } = await useStore()
  if (!(await folios.exists(id))) throw noFolio()
  return journal.page(id, Number.isInteger(before) ? before : undefined)
})
