import { getQuery } from 'h3'
import { whole, z } from '#shared/schema'
import { ENCLOSED_BYTES_MOST, PIECE_MOST } from '../../../../../shared/enclosure'
import { ApiProblem, blockId, defineApi, folioId, noFolio, readBytes } from '../../../../utils/api'
import { useStore } from '../../../../utils/folios'

const pieceSchema = z.object({ start: z.pipe(z.coerce.number(), whole(0)), of: z.pipe(z.coerce.number(), whole(8, ENCLOSED_BYTES_MOST)) }) // prettier-ignore

/**
 * Keeps a piece of the numbers of measured data: `?start=&of=` says where it
 * begins and how long the whole is; without them it is the whole. The answer
 * says how much is there. Sent again it is kept once.
 */
export default defineApi(async (event) => {
  const [id, block] = [folioId(event), blockId(event)]
  const query = getQuery(event)
  const inPieces = query.start !== undefined || query.of !== undefined
  const asked = inPieces ? pieceSchema.safeParse(query) : null
  if (asked && !asked.success) throw new ApiProblem(422, 'This is no piece of a block')
  const numbers = await readBytes(event, inPieces ? PIECE_MOST : ENCLOSED_BYTES_MOST)
  const { start, of } = asked?.data ?? { start: 0, of: numbers.length }
  if (numbers.length === 0 || of % 8 !== 0 || start + numbers.length > of)
    throw new ApiProblem(422, 'These are no doubles')
  const outcome = await (await useStore()).blocks.keep(id, block, { numbers, start, of })
  switch (outcome.status) {
    case 'missing':
      throw noFolio()
    case 'full':
      throw new ApiProblem(
        413,
        'Too many numbers wait in this folio',
        'Of what no enclosure refers to at most 128 MiB are kept; it is tidied away within a week.',
      )
    case 'part':
      return { kept: false, received: outcome.received }
    case 'kept':
      return { kept: true, received: of }
  }
})
