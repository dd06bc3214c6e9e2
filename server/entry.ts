import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { RequestListener, Server } from 'node:http'
import { createServer as createSecureServer } from 'node:https'
import { toNodeListener } from 'h3'
import { useNitroApp } from 'nitropack/runtime'
import { DataFileError } from './db/database'
import { isLoopback, listenHost, useGate } from './utils/access'
import { useStore } from './utils/folios'

/**
 * The server by itself, in whichever way it is started: on this machine only
 * unless told otherwise, and with a sentence for whatever keeps it from starting.
 */

/** A request must have arrived after this time, its head after the other, in milliseconds. */
const REQUEST_ARRIVES = 30_000
const HEAD_ARRIVES = 15_000
const CHECKED_EVERY = 2_000

const host = listenHost()
const asked = process.env.NITRO_PORT ?? process.env.PORT ?? '4747'
const port = Number(asked)

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

/** What answers at a port that is taken. */
async function whoAnswers(address: string): Promise<string> {
  try {
    const response = await fetch(`${address}/api/version`, { signal: AbortSignal.timeout(2_000) })
    const body: unknown = await response.json()
    if (typeof body === 'object' && body !== null && 'program' in body && body.program === 'ornate-phasor')
      return `Ornate Phasor${'version' in body ? ` ${String(body.version)}` : ''} is running there already: open ${address}, or stop it first.`
  } catch {
    // Something that does not speak as we do.
  }
  return 'Another program uses it.'
}

async function refusal(error: NodeJS.ErrnoException, address: string): Promise<string> {
  switch (error.code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken. ${await whoAnswers(address)} Another port is chosen with PORT=….`
    case 'EACCES':
      return `Port ${port} may not be used by this user. Choose one above 1023 with PORT=….`
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return `This machine has no address ${host}. Choose another with HOST=…, or leave it out for this machine only.`
    default:
      return `The server cannot listen on ${address}: ${error.message}`
  }
}

async function start(): Promise<void> {
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    stop(`PORT is ${JSON.stringify(asked)}; it must be a number from 0 to 65535.`)
  const nitroApp = useNitroApp()
  try {
    await useStore()
  } catch (error) {
    if (error instanceof DataFileError) stop(error.message)
    stop(`The data file could not be opened: ${error instanceof Error ? error.message : String(error)}`)
  }
  const server = serverFor(toNodeListener(nitroApp.h3App))
  const scheme = process.env.NITRO_SSL_CERT && process.env.NITRO_SSL_KEY ? 'https' : 'http'
  const name = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host
  const addressAt = (at: number): string => `${scheme}://${name}:${at}`
  server.once('error', (error: NodeJS.ErrnoException) => void refusal(error, addressAt(port)).then(stop))
  const listener = server.listen({ port, host }, () => {
    if (!isLoopback(host)) useGate()
    const bound = listener.address()
    process.stdout.write(
      `Ornate Phasor is ready: ${addressAt(typeof bound === 'object' && bound ? bound.port : port)}\n`,
    )
  })
  for (const event of ['unhandledRejection', 'uncaughtException'] as const)
    process.on(event, (error: unknown) => {
      process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
    })
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void leave(listener, nitroApp))
}

/** Requests that are under way are answered, then the data file is closed. */
const LEAVES_WITHIN = 4_000

async function leave(listener: Server, nitroApp: ReturnType<typeof useNitroApp>): Promise<void> {
  setTimeout(() => process.exit(0), LEAVES_WITHIN).unref()
  listener.closeIdleConnections()
  await new Promise<void>((done) => listener.close(() => done()))
  await nitroApp.hooks.callHook('close')
  process.exit(0)
}

void start()

export default {}
