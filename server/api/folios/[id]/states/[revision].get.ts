import { getRouterParam } from 'h3'
import { defineApi, folioId, noState } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

/** The folio as it stood after a revision. */
export default defineApi(async (event) => {
  const revision = Number(getRouterParam(event, 'revision'))
  const state = Number.isInteger(revision) ? await (await useStore()).journal.stateAt(folioId(event), revision) : null
  if (!state) throw noState()
  return state
})
