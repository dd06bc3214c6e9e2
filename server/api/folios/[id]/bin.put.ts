import { z } from '#shared/schema'
import { defineApi, folioId, noFolio, readJson } from '../../../utils/api'
import { useFolios } from '../../../utils/folios'

const bodySchema = z.strictObject({ binned: z.boolean() })

/** Puts a folio in the bin or takes it out. */
export default defineApi(async (event) => {
  const id = folioId(event)
  const { binned } = await readJson(event, bodySchema)
  if (!(await (await useFolios()).bin(id, binned))) throw noFolio()
  return { binned }
})
