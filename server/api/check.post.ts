import { defineApi } from '../utils/api'
import { useStore } from '../utils/folios'

/** Looks through the data file now. */
export default defineApi(async () => (await useStore()).checks.run())
