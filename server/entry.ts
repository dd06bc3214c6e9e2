import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { RequestListener, Server } from 'node:http'
import { createServer as createSecureServer } from 'node:https'
import { toNodeListener } from 'h3'
import { useNitroApp } from 'nitropack/runtime'
import { portFrom } from '../shared/port.mjs'
import { DataFileError } from './db/database'
import { listenHost, useDoor } from './utils/access'
import { useStore } from './utils/folios'
import { cameToFormerPort, servePort } from './utils/handingOver'
import { useProxies } from './utils/visitor'

/**
 * The server by itself, in whichever way it is started: on this machine only
 * unless told otherwise, and with a sentence for whatever keeps it from starting.
 */

/** A request's head must have arrived after this time, in milliseconds; its body is watched where it is read. */
const HEAD_ARRIVES = 15_000
const REQUEST_ARRIVES = 20 * 60_000
const CHECKED_EVERY = 2_000

const host = listenHost()

function stop(sentence: string): never {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}

function serverFor(listener: RequestListener): Server {
  const timing = {
    requestTimeout: REQUEST_ARRIVES,
    headersTimeout: HEAD_ARRIVES,
    connectionsCheckingInterval: CHECKED_EVERY,
  }
  const { NITRO_SSL_CERT: cert, NITRO_SSL_KEY: key } = process.env
  return cert && key
    ? createSecureServer({ cert: pem(cert), key: pem(key), ...timing }, listener)
    : createServer(timing, listener)
}

/** A certificate is given as it is, or as the name of its file. */
function pem(text: string): string {
  return text.includes('-----BEGIN') ? text : readFileSync(text, 'utf8')
}

function addressAt(port: number): string {
  const scheme = process.env.NITRO_SSL_CERT && process.env.NITRO_SSL_KEY ? 'https' : 'http'
  const name = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host
  return `${scheme}://${name}:${port}`
}

/** What answers at a port that is taken. */
async function whoAnswers(address: string): Promise<string> {
  try {
    const response = await fetch(`${address}/api/version`, { signal: AbortSignal.timeout(2_000) })
    const body: unknown = await response.json()
    if (typeof body === 'object' && body !== null && 'program' in body && body.program === 'ornate-phasor') {
      if ('port' in body && typeof body.port === 'number')
        return `Ornate Phasor, which is at port ${body.port} now, holds it to hand over what a browser could not send there.`
      return `Ornate Phasor${'version' in body ? ` ${String(body.version)}` : ''} is running there already: open ${address}, or stop it first.`
    }
  } catch {
    // Something that does not speak as we do.
  }
  return 'Another program uses it.'
}

async function refusal(error: NodeJS.ErrnoException, port: number): Promise<string> {
  switch (error.code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken. ${await whoAnswers(addressAt(port))} Another port is chosen with PORT=….`
    case 'EACCES':
      return `Port ${port} may not be used by this user. Choose one above 1023 with PORT=….`
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return `This machine has no address ${host}. Choose another with HOST=…, or leave it out for this machine only.`
    default:
      return `The server cannot listen on ${addressAt(port)}: ${error.message}`
  }
}

/** Listens, and gives back at which port. */
function listen(server: Server, port: number): Promise<number> {
  return new Promise((done, failed) => {
    server.once('error', failed)
    server.listen({ port, host }, () => {
      server.off('error', failed)
      const bound = server.address()
      done(typeof bound === 'object' && bound ? bound.port : port)
    })
  })
}

async function start(): Promise<void> {
  // Whatever is made is its owner's alone.
  process.umask(0o077)
  const port = portFrom(process.env)
  if (typeof port === 'string') stop(port)
  const { wrong } = useProxies()
  if (wrong.length > 0)
    stop(`ORNATE_PHASOR_PROXY has ${wrong.join(', ')}; addresses are written as 10.0.0.2, 10.1.0.0/16 or fd00::7.`)
  const nitroApp = useNitroApp()
  const answer = toNodeListener(nitroApp.h3App)
  let ready = false
  const server = serverFor((request, response) => {
    if (ready) return answer(request, response)
    response.writeHead(503, { 'retry-after': '1' }).end()
  })
  // A port that cannot be had is found out before any file is made.
  const bound = await listen(server, port).catch(async (error: NodeJS.ErrnoException) =>
    stop(await refusal(error, port)),
  )
  const store = await useStore().catch((error: unknown) => {
    if (error instanceof DataFileError) stop(error.message)
    stop(`The data file could not be opened: ${error instanceof Error ? error.message : String(error)}`)
  })
  servePort(bound)
  useDoor()
  ready = true
  const servers = [server, ...(await serveFormerPorts(await store.handOver.ports(bound).catch(() => []), answer))]
  process.stdout.write(`Ornate Phasor is ready: ${addressAt(bound)}\n`)
  for (const event of ['unhandledRejection', 'uncaughtException'] as const)
    process.on(event, (error: unknown) => {
      process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
    })
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void leave(servers, nitroApp))
}

/**
 * What a browser could not send it keeps for the address and port of the page:
 * ports that were served before are served again, to hand that over.
 */
async function serveFormerPorts(ports: readonly number[], answer: RequestListener): Promise<Server[]> {
  const served: Server[] = []
  const taken: number[] = []
  for (const port of ports) {
    const server = serverFor((request, response) => {
      cameToFormerPort(request)
      return answer(request, response)
    })
    try {
      await listen(server, port)
      served.push(server)
    } catch {
      taken.push(port)
    }
  }
  if (taken.length > 0)
    process.stdout.write(
      `What a browser could not send at port ${taken.join(' or ')} before waits there still, and the port is taken now: free it and start anew, or start with PORT=${taken[0] ?? ''}.\n`,
    )
  return served
}

/** Requests that are under way have so long; then the data file is closed, all of it within two seconds. */
const ANSWERED_WITHIN = 1_000
const LEAVES_WITHIN = 1_900

async function leave(servers: readonly Server[], nitroApp: ReturnType<typeof useNitroApp>): Promise<void> {
  setTimeout(() => process.exit(0), LEAVES_WITHIN).unref()
  const cut = setTimeout(() => {
    for (const server of servers) server.closeAllConnections()
  }, ANSWERED_WITHIN)
  await Promise.all(
    servers.map((server) => {
      server.closeIdleConnections()
      return new Promise<void>((done) => server.close(() => done()))
    }),
  )
  clearTimeout(cut)
  await nitroApp.hooks.callHook('close')
  process.exit(0)
}

void start()

export default {}
