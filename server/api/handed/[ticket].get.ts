import { getQuery } from 'h3'
import { defineApi, ticketOf } from '../../utils/api'
import { useStore } from '../../utils/folios'

/** What a browser has handed over under its ticket, from a place on: `?from=`. */
export default defineApi(async (event) => {
  const from = Number(getQuery(event).from ?? 0)
  return { records: await (await useStore()).handOver.fetch(ticketOf(event), Number.isInteger(from) ? from : 0) }
})
