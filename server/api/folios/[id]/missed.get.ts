import { getQuery } from 'h3'
import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

/** What was saved since a revision: `?since=`. */
export default defineApi(async (event) => {
  const since = Number(getQuery(event).since ?? 0)
  const missed = await (await useFolios()).missed(folioId(event), Number.isInteger(since) ? since : 0)
  if (!missed) throw noFolio()
  return missed
})
