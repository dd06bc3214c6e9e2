import { setResponseStatus } from 'h3'
import { folioFileSchema } from '../../../shared/folio'
import { defineApi, readJson } from '../../utils/api'
import { useFolios } from '../../utils/folios'

/** A new folio. */
export default defineApi(async (event) => {
  const file = await readJson(event, folioFileSchema)
  const folio = await (await useFolios()).create(file)
  setResponseStatus(event, 201)
  return folio
})
