import { randomBytes } from 'node:crypto'
import { getCookie, setCookie, setResponseHeader } from 'h3'
import { text, z } from '#shared/schema'
import { SESSION_LASTS } from '../db/sessions'
import { BROWSER_COOKIE, SESSION_COOKIE, useDoor } from '../utils/access'
import { ApiProblem, defineApi, readJson } from '../utils/api'
import { useSessions } from '../utils/folios'
import { visitorOf } from '../utils/visitor'

const bodySchema = z.strictObject({ passphrase: text(1_000) })

/** As long as a browser keeps a cookie at most. */
const BROWSER_LASTS = 400 * 24 * 3_600

/** Signs in with the passphrase; after some wrong ones from an address the next ones are held. */
export default defineApi(async (event) => {
  const { passphrase } = await readJson(event, bodySchema)
  const door = useDoor()
  const sessions = await useSessions()
  if (!door || !sessions) return { signedIn: true }
  const { address, secure } = visitorOf(event)
  const verdict = await door.gate.look(passphrase, address)
  if (verdict.status !== 'right' && verdict.seconds > 0) setResponseHeader(event, 'retry-after', verdict.seconds)
  switch (verdict.status) {
    case 'wrong': {
      const held = verdict.seconds > 0 ? ` The next one is looked at in ${waitText(verdict.seconds)}.` : ''
      throw new ApiProblem(403, 'This is not the passphrase', `It is printed where the server was started.${held}`)
    }
    case 'wait':
      throw new ApiProblem(
        429,
        'Too many attempts at once',
        `Others try from the same address. Try again in ${waitText(verdict.seconds)}.`,
      )
    case 'right': {
      const browser = getCookie(event, BROWSER_COOKIE) ?? randomBytes(16).toString('base64url')
      const token = await sessions.open(browser, getCookie(event, SESSION_COOKIE))
      const common = { httpOnly: true, sameSite: 'strict', secure, path: '/' } as const
      setCookie(event, SESSION_COOKIE, token, { ...common, maxAge: SESSION_LASTS / 1000 })
      setCookie(event, BROWSER_COOKIE, browser, { ...common, maxAge: BROWSER_LASTS })
      return { signedIn: true }
    }
  }
})

function waitText(seconds: number): string {
  return seconds === 1 ? 'a second' : `${seconds} seconds`
}
