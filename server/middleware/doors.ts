import { defineEventHandler, getCookie, getHeader, setResponseHeader } from 'h3'
import { hostName, servedHosts, SESSION_COOKIE, useGate } from '../utils/access'
import { ApiProblem, sendProblem } from '../utils/api'
import { methodsAt } from '../utils/routes'

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])
/** What may be asked without a session. */
const OPEN = /^\/api\/(session|version)\/?(\?|$)/
const hosts = servedHosts()

/**
 * Refuses hosts the server was not told to serve (a name of another site that
 * points here), writes that another site's page sends, and, from the network,
 * whoever has no session.
 */
export default defineEventHandler((event) => {
  const host = getHeader(event, 'host') ?? ''
  if (!hosts.has(hostName(host)))
    return sendProblem(
      event,
      new ApiProblem(
        421,
        'This server does not answer for that host',
        'Names it may be reached by are listed in ORNATE_PHASOR_ADDRESSES.',
      ),
    )
  if (!event.path.startsWith('/api/')) return undefined
  if (!READING.has(event.method) && isForeign(getHeader(event, 'sec-fetch-site'), getHeader(event, 'origin'), host))
    return sendProblem(event, new ApiProblem(403, 'Writes from another site are refused'))
  const methods = methodsAt(event.path)
  if (methods && !methods.includes(event.method)) {
    setResponseHeader(event, 'allow', methods.join(', '))
    return sendProblem(
      event,
      new ApiProblem(405, 'This cannot be done at this address', `What can be done here: ${methods.join(', ')}.`),
    )
  }
  const gate = useGate()
  if (gate && !OPEN.test(event.path) && !gate.knows(getCookie(event, SESSION_COOKIE)))
    return sendProblem(
      event,
      new ApiProblem(401, 'You are not signed in', 'Sign in with the passphrase of this server.'),
    )
  return undefined
})

function isForeign(site: string | undefined, origin: string | undefined, host: string): boolean {
  return (
    (site !== undefined && site !== 'same-origin' && site !== 'none') ||
    (origin !== undefined && hostOf(origin) !== host)
  )
}

function hostOf(origin: string): string {
  try {
    return new URL(origin).host
  } catch {
    return ''
  }
}
