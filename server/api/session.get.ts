import { getCookie } from 'h3'
import { BROWSER_COOKIE, SESSION_COOKIE } from '../utils/access'
import { defineApi } from '../utils/api'
import { useSessions } from '../utils/folios'

/** Whether whoever asks is let in; who is, is told who else is. */
export default defineApi(async (event) => {
  const sessions = await useSessions()
  const token = getCookie(event, SESSION_COOKIE)
  if (!sessions) return { needed: false, signedIn: true, here: [], others: [] }
  if (token === undefined || !(await sessions.knows(token)))
    return { needed: true, signedIn: false, here: [], others: [] }
  return { needed: true, signedIn: true, ...(await sessions.told(token, getCookie(event, BROWSER_COOKIE))) }
})
