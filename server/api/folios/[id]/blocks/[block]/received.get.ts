import { blockId, defineApi, folioId } from '../../../../../utils/api'
import { useStore } from '../../../../../utils/folios'

/** How many bytes of a block have arrived, and whether that is all of it: where sending goes on. */
export default defineApi(async (event) => (await useStore()).blocks.received(folioId(event), blockId(event)))
