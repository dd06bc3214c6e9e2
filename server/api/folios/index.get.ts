import { getQuery } from 'h3'
import { defineApi } from '../../utils/api'
import { useFolios } from '../../utils/folios'

/** The shelf: every folio, the ones in the bin too, last changed first; `?find=` looks for a text. */
export default defineApi(async (event) => {
  const { find } = getQuery(event)
  const text = typeof find === 'string' ? find.trim().slice(0, 200) : ''
  return { folios: await (await useFolios()).cards(text) }
})
