import { setResponseHeader } from 'h3'
import { blockId, defineApi, folioId, noBlock } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

/** The numbers of measured data, little-endian doubles; they never change. */
export default defineApi(async (event) => {
  const numbers = await (await useStore()).blocks.open(folioId(event), blockId(event))
  if (!numbers) throw noBlock()
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  setResponseHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  return numbers
})
