import { whole, z } from '#shared/schema'
import { thumbnailSchema } from '../../../../shared/folio'
import { defineApi, folioId, readJson } from '../../../utils/api'
import { useStore } from '../../../utils/folios'

const bodySchema = z.strictObject({ revision: whole(0), thumbnail: thumbnailSchema })

/** Keeps the small picture that a browser has reckoned for a revision; of another revision it is not taken. */
export default defineApi(async (event) => {
  const id = folioId(event)
  const { revision, thumbnail } = await readJson(event, bodySchema)
  await (await useStore()).shelf.keepPicture(id, revision, thumbnail)
  return { kept: true }
})
