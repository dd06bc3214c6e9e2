import { setResponseHeader } from 'h3'
import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

/** As much of a folio as can be read, as a file to save. */
export default defineApi(async (event) => {
  const file = await (await useFolios()).rescue(folioId(event))
  if (!file) throw noFolio()
  setResponseHeader(event, 'content-disposition', 'attachment; filename="folio.json"')
  return file
})
