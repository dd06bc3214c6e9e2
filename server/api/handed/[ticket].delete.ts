import { defineApi, ticketOf } from '../../utils/api'
import { useStore } from '../../utils/folios'

/** It has arrived. */
export default defineApi(async (event) => {
  await (await useStore()).handOver.drop(ticketOf(event))
  return { dropped: true }
})
