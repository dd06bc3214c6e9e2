import { setResponseStatus } from 'h3'
import { defineApi, folioId, noFolio } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

export default defineApi(async (event) => {
  const copy = await (await useFolios()).duplicate(folioId(event))
  if (!copy) throw noFolio()
  setResponseStatus(event, 201)
  return copy
})
