import { getRouterParam } from 'h3'
import { ApiProblem, defineApi, folioId } from '../../../../utils/api'
import { useFolios } from '../../../../utils/folios'

/** The folio as it stood after a revision. */
export default defineApi(async (event) => {
  const revision = Number(getRouterParam(event, 'revision'))
  const state = Number.isInteger(revision) ? await (await useFolios()).stateAt(folioId(event), revision) : null
  if (!state) throw new ApiProblem(404, 'There is no such earlier state', 'The journal lists the states there are.')
  return state
})
