import { ENCLOSED_BYTES_MOST } from '../../../../../shared/enclosure'
import { ApiProblem, blockId, defineApi, folioId, noFolio, readBytes } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

/** Keeps the numbers of measured data, before the operation that encloses it. Sent again it is kept once. */
export default defineApi(async (event) => {
  const [id, block] = [folioId(event), blockId(event)]
  const bytes = await readBytes(event, ENCLOSED_BYTES_MOST)
  if (bytes.length === 0 || bytes.length % 8 !== 0) throw new ApiProblem(422, 'These are no doubles')
  const outcome = await (await useStore()).blocks.keep(id, block, bytes)
  if (outcome === 'missing') throw noFolio()
  return { kept: true }
})
