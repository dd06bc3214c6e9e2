import { defineApi } from '../../utils/api'
import { useFolios } from '../../utils/folios'

/** The shelf: every folio, the ones in the bin too, last changed first. */
export default defineApi(async () => ({ folios: await (await useFolios()).cards() }))
