import { ApiProblem, defineApi, folioId } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

/** Removes a folio for good; it must be in the bin. */
export default defineApi(async (event) => {
  const removed = await (await useFolios()).remove(folioId(event))
  if (!removed) throw new ApiProblem(409, 'Only a folio in the bin can be removed for good')
  return { removed: true }
})
