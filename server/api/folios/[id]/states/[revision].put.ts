import { getRouterParam } from 'h3'
import { stateNameSchema } from '../../../../../shared/operations'
import { defineApi, folioId, noState, readJson } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

/** Gives the state after a revision a name, by which it is kept for good; `null` takes it off. */
export default defineApi(async (event) => {
  const id = folioId(event)
  const revision = Number(getRouterParam(event, 'revision'))
  const { name } = await readJson(event, stateNameSchema)
  const named = Number.isInteger(revision) && (await (await useStore()).journal.nameState(id, revision, name))
  if (!named) throw noState()
  return { name }
})
