import { bringBackSchema } from '../../../../shared/copies'
import { copyName, defineApi, noCopy, readJson } from '../../../utils/api'
import { useStore } from '../../../utils/folios'

/** Brings folios of a copy back, each as a new one beside what is there. */
export default defineApi(async (event) => {
  const name = copyName(event)
  const { folios } = await readJson(event, bringBackSchema)
  const brought = await (await useStore()).copies.bringBack(name, folios)
  if (!brought) throw noCopy()
  return brought
})
