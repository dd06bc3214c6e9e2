import { saveSchema } from '../../../../shared/operations'
import { ApiProblem, defineApi, folioId, noFolio, readJson } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

/** A save: operations on top of a revision. 409 carries what was saved in between. */
export default defineApi(async (event) => {
  const id = folioId(event)
  const save = await readJson(event, saveSchema)
  const outcome = await (await useFolios()).save(id, save)
  switch (outcome.status) {
    case 'saved':
      return { revision: outcome.revision, changedAt: outcome.changedAt }
    case 'missing':
      throw noFolio()
    case 'conflict':
      throw new ApiProblem(409, 'The folio was changed elsewhere', 'What was saved since comes with this answer.', {
        missed: outcome.missed,
      })
    case 'misfit':
      throw new ApiProblem(
        422,
        'An operation does not fit the folio',
        `Operation ${outcome.index + 1} names a line that is not there, or is there already, or there is no room for it.`,
        { index: outcome.index },
      )
  }
})
