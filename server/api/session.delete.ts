import { deleteCookie, getCookie, getQuery } from 'h3'
import { z } from '#shared/schema'
import { BROWSER_COOKIE, SESSION_COOKIE } from '../utils/access'
import { defineApi } from '../utils/api'
import { useSessions } from '../utils/folios'

const whichSchema = z.enum(['this', 'browser', 'others'])

/** Signs out: this session, all of this browser (`?which=browser`), or all but those (`?which=others`). */
export default defineApi(async (event) => {
  const which = whichSchema.safeParse(getQuery(event).which).data ?? 'this'
  const sessions = await useSessions()
  const token = getCookie(event, SESSION_COOKIE)
  if (sessions && token !== undefined && (await sessions.knows(token)))
    await sessions.signOut(token, getCookie(event, BROWSER_COOKIE), which)
  if (which === 'others') return { signedIn: true }
  deleteCookie(event, SESSION_COOKIE, { path: '/' })
  return { signedIn: false }
})
