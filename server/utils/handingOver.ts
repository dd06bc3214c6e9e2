import type { IncomingMessage } from 'node:http'
import type { H3Event } from 'h3'

/** Requests that came to a port that the server had before. */
const former = new WeakSet<IncomingMessage>()
let present = 0

/** The port that is served now. */
export function presentPort(): number {
  return present
}

export function servePort(port: number): void {
  present = port
}

export function cameToFormerPort(request: IncomingMessage): void {
  former.add(request)
}

/** True of a request at a port at which only what a browser could not send is handed over. */
export function isHandingOver(event: H3Event): boolean {
  return former.has(event.node.req)
}

const DOCUMENTS = /^\/(hand-over|sign-in)\/?(\?|$)/
const ASKED = /^\/api\/(version|session)\/?(\?|$)/
const HANDED = /^\/api\/handed\//

/** What is served there: the page that hands over, the door, and where it puts what it has. */
export function isForHandingOver(path: string, method: string): boolean {
  if (path.startsWith('/api/')) return ASKED.test(path) || (HANDED.test(path) && method === 'PUT')
  return DOCUMENTS.test(path)
}
