import { deleteCookie, getCookie } from 'h3'
import { SESSION_COOKIE, useGate } from '../utils/access'
import { defineApi } from '../utils/api'

/** Signs out. */
export default defineApi(async (event) => {
  useGate()?.signOut(getCookie(event, SESSION_COOKIE))
  deleteCookie(event, SESSION_COOKIE, { path: '/' })
  return { signedIn: false }
})
