import { getCookie } from 'h3'
import { SESSION_COOKIE, useGate } from '../utils/access'
import { defineApi } from '../utils/api'

/** Whether whoever asks is let in. */
export default defineApi(async (event) => {
  const gate = useGate()
  return { needed: gate !== null, signedIn: gate === null || gate.knows(getCookie(event, SESSION_COOKIE)) }
})
