import type { Copies } from '../../../shared/copies'
import { defineApi } from '../../utils/api'
import { useStore } from '../../utils/folios'

/** The earlier copies of the data file, the last look through it, and what keeps it from being saved or copied. */
export default defineApi(async (): Promise<Copies> => {
  const { copies, checks, database, housekeeping } = await useStore()
  return {
    copies: await copies.list(),
    check: await checks.last(),
    trouble: database.moved() ?? housekeeping.trouble,
  }
})
