import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

export default defineApi(async (event) => {
  const folio = await (await useFolios()).open(folioId(event))
  if (!folio) throw noFolio()
  return folio
})
