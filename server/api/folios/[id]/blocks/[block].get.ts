import { getQuery, setResponseHeader } from 'h3'
import { useDoor } from '../../../../utils/access'
import { blockId, defineApi, folioId, noBlock } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

/** The numbers of measured data, little-endian doubles; they never change. `?from=` goes on at a byte. */
export default defineApi(async (event) => {
  const numbers = await (await useStore()).blocks.open(folioId(event), blockId(event))
  if (!numbers) throw noBlock()
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  // Behind a door the browser keeps nothing for whoever comes next.
  if (!useDoor()) setResponseHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  const from = Number(getQuery(event).from ?? 0)
  return Number.isInteger(from) && from > 0 ? numbers.subarray(Math.min(from, numbers.length)) : numbers
})
