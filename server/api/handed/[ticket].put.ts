import { list, text, whole, z } from '#shared/schema'
import { BODY_LIMIT } from '../../../shared/limits'
import { ApiProblem, defineApi, readJson, ticketOf } from '../../utils/api'
import { useStore } from '../../utils/folios'

const bodySchema = z.strictObject({ from: whole(0), records: list(text(BODY_LIMIT), 1_000) })

/** Takes what a browser kept for a port that the server had before. */
export default defineApi(async (event) => {
  const { from, records } = await readJson(event, bodySchema)
  if (!(await (await useStore()).handOver.keep(ticketOf(event), from, records)))
    throw new ApiProblem(413, 'This is more than can be handed over')
  return { kept: from + records.length }
})
