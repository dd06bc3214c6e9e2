import { getHeader, getRequestIP, setCookie, setResponseHeader } from 'h3'
import { text, z } from '#shared/schema'
import { SESSION_COOKIE, SESSION_LASTS, useGate } from '../utils/access'
import { ApiProblem, defineApi, readJson } from '../utils/api'

const bodySchema = z.strictObject({ passphrase: text(1_000) })

/** Signs in with the passphrase; attempts are limited. */
export default defineApi(async (event) => {
  const { passphrase } = await readJson(event, bodySchema)
  const gate = useGate()
  if (!gate) return { signedIn: true }
  const outcome = await gate.signIn(passphrase, getRequestIP(event) ?? '')
  switch (outcome.status) {
    case 'wrong':
      throw new ApiProblem(403, 'This is not the passphrase', 'It is printed where the server was started.')
    case 'wait':
      setResponseHeader(event, 'retry-after', outcome.seconds)
      throw new ApiProblem(429, 'Too many attempts', `Try again in ${waitText(outcome.seconds)}.`)
    case 'in': {
      const secure = getHeader(event, 'x-forwarded-proto') === 'https' || 'encrypted' in event.node.req.socket
      setCookie(event, SESSION_COOKIE, outcome.token, {
        httpOnly: true,
        sameSite: 'strict',
        secure,
        path: '/',
        maxAge: SESSION_LASTS / 1000,
      })
      return { signedIn: true }
    }
  }
})

function waitText(seconds: number): string {
  return seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`
}
