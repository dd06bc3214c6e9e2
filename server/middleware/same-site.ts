import { defineEventHandler, getHeader } from 'h3'
import { ApiProblem, sendProblem } from '../utils/api'

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Refuses writes that another site's page sends, and hosts that are not this machine's. */
export default defineEventHandler((event) => {
  if (!event.path.startsWith('/api/')) return undefined
  const host = getHeader(event, 'host') ?? ''
  if (!allowedHost(host)) return sendProblem(event, new ApiProblem(421, 'This server does not answer for that host'))
  if (READING.has(event.method)) return undefined
  const site = getHeader(event, 'sec-fetch-site')
  const origin = getHeader(event, 'origin')
  const foreignSite = site !== undefined && site !== 'same-origin' && site !== 'none'
  const foreignOrigin = origin !== undefined && hostOf(origin) !== host
  if (foreignSite || foreignOrigin) {
    return sendProblem(event, new ApiProblem(403, 'Writes from another site are refused'))
  }
  return undefined
})

function hostOf(origin: string): string {
  try {
    return new URL(origin).host
  } catch {
    return ''
  }
}

/** Only names of this machine, unless the server was told to listen elsewhere. */
function allowedHost(host: string): boolean {
  const listen = process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1'
  if (!['127.0.0.1', 'localhost', '::1'].includes(listen)) return true
  const name = host.replace(/:\d+$/, '')
  return ['127.0.0.1', 'localhost', '[::1]'].includes(name)
}
