import { defineApi } from '../utils/api'
import { useFolios } from '../utils/folios'

/** Removes every folio in the bin for good. */
export default defineApi(async () => ({ removed: await (await useFolios()).emptyBin() }))
