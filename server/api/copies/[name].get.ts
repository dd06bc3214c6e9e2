import { copyName, damagedCopy, defineApi, noCopy } from '../../utils/api'
import { useStore } from '../../utils/folios'

/** The folios in a copy, and how each stands beside what is on the shelf. */
export default defineApi(async (event) => {
  const { copies } = await useStore()
  const folios = await copies.look(copyName(event)).catch((error: unknown) => {
    throw damagedCopy(error)
  })
  if (!folios) throw noCopy()
  return { folios }
})
