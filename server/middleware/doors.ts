import { defineEventHandler, getCookie, getHeader, sendRedirect, setResponseHeader } from 'h3'
import type { H3Event } from 'h3'
import { hostName, servedHosts, SESSION_COOKIE, useDoor } from '../utils/access'
import { ApiProblem, sendProblem } from '../utils/api'
import { useSessions } from '../utils/folios'
import { isForHandingOver, isHandingOver, presentPort } from '../utils/handingOver'
import { methodsAt } from '../utils/routes'
import { visitorOf } from '../utils/visitor'

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])
/** What may be asked without a session. */
const OPEN = /^\/api\/(session|version)\/?(\?|$)/
/** The one document that shows nothing of anybody's. */
const SIGN_IN = /^\/sign-in\/?(\?|$)/
const hosts = servedHosts()

/**
 * Refuses hosts the server was not told to serve (a name of another site that
 * points here), writes that another site's page sends, and, where there is a
 * door, whoever has no session: documents, too, which no browser keeps then.
 */
export default defineEventHandler(async (event) => {
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
  const isDocument = !event.path.startsWith('/api/')
  if (isHandingOver(event) && !isForHandingOver(event.path, event.method))
    return isDocument
      ? sendRedirect(event, `/hand-over?to=${encodeURIComponent(event.path)}`, 302)
      : sendProblem(
          event,
          new ApiProblem(
            421,
            `The server is at port ${presentPort()} now`,
            'Load this page anew: what waits here is taken along.',
          ),
        )
  if (isDocument) return documentAt(event)
  const foreign = isForeign(getHeader(event, 'sec-fetch-site'), getHeader(event, 'origin'), visitorOf(event).hosts)
  if (!READING.has(event.method) && foreign)
    return sendProblem(event, new ApiProblem(403, 'Writes from another site are refused'))
  const methods = methodsAt(event.path)
  if (methods && !methods.includes(event.method)) {
    setResponseHeader(event, 'allow', methods.join(', '))
    return sendProblem(
      event,
      new ApiProblem(405, 'This cannot be done at this address', `What can be done here: ${methods.join(', ')}.`),
    )
  }
  if (!useDoor()) return undefined
  // What one has seen who was signed in, the browser does not show who comes next.
  setResponseHeader(event, 'cache-control', 'no-store')
  if (!OPEN.test(event.path) && !(await isSignedIn(event)))
    return sendProblem(
      event,
      new ApiProblem(401, 'You are not signed in', 'Sign in with the passphrase of this server.'),
    )
  return undefined
})

async function documentAt(event: H3Event): Promise<unknown> {
  if (!useDoor()) return undefined
  setResponseHeader(event, 'cache-control', 'no-store')
  if (SIGN_IN.test(event.path) || (await isSignedIn(event))) return undefined
  return sendRedirect(event, `/sign-in?to=${encodeURIComponent(event.path)}`, 302)
}

async function isSignedIn(event: H3Event): Promise<boolean> {
  return (await useSessions())?.knows(getCookie(event, SESSION_COOKIE)) ?? false
}

function isForeign(site: string | undefined, origin: string | undefined, hosts: readonly string[]): boolean {
  return (
    (site !== undefined && site !== 'same-origin' && site !== 'none') ||
    (origin !== undefined && !hosts.includes(hostOf(origin)))
  )
}

function hostOf(origin: string): string {
  try {
    return new URL(origin).host
  } catch {
    return ''
  }
}
