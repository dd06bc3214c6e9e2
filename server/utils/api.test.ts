import { createServer } from 'node:http'
import type { Server } from 'node:http'
import { connect } from 'node:net'
import type { AddressInfo } from 'node:net'
import { createApp, createRouter, toNodeListener } from 'h3'
import { text, z } from '#shared/schema'
import { BODY_LIMIT } from '../../shared/limits'
import { DataFileError } from '../db/database'
import { DamagedFolio } from '../db/folios'
import doors from '../middleware/doors'
import { ApiProblem, defineApi, folioId, readBytes, readJson, toProblem } from './api'
import { methodsAt } from './routes'

/** The doors before a few routes, as they stand in the application, on a server of their own. */
let server: Server
let address: string
let failing: unknown = null

beforeAll(async () => {
  const app = createApp()
  app.use(doors)
  const router = createRouter()
  router.get('/api/folios', defineApi(async () => {
    if (failing) throw failing
    return { folios: [] }
  })) // prettier-ignore
  router.post(
    '/api/folios',
    defineApi(async (event) => readJson(event, z.strictObject({ title: text(5) }))),
  )
  router.get(
    '/api/folios/:id',
    defineApi(async (event) => ({ id: folioId(event) })),
  )
  router.put('/api/folios/:id/blocks/:block', defineApi(async (event) => ({ size: (await readBytes(event, 1024)).length }))) // prettier-ignore
  app.use(router)
  server = createServer(toNodeListener(app))
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => new Promise<void>((done) => server.close(() => done())))
beforeEach(() => {
  failing = null
  jest.spyOn(process.stderr, 'write').mockReturnValue(true)
})
afterEach(() => jest.restoreAllMocks())

async function ask(
  path: string,
  init: RequestInit = {},
): Promise<{ status: number; body: Record<string, unknown>; headers: Headers }> {
  // prettier-ignore
  const response = await fetch(`${address}${path}`, init)
  return {
    status: response.status,
    body: (await response.json()) as Record<string, unknown>,
    headers: response.headers,
  }
}
const post = (body: string, headers: Record<string, string> = {}): RequestInit => ({
  method: 'POST',
  body,
  headers: { 'content-type': 'application/json', ...headers },
})

/** An answer to a request that no browser would send. */
function raw(text: string): Promise<string> {
  const { port } = server.address() as AddressInfo
  return new Promise((done, fail) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(text))
    let answer = ''
    socket.setTimeout(3_000, () => socket.destroy())
    socket.on('data', (chunk) => (answer += String(chunk)))
    socket.on('close', () => done(answer))
    socket.on('error', fail)
  })
}

test('a body that fits is taken', async () => {
  expect(await ask('/api/folios', post('{"title": "Lamp"}'))).toMatchObject({ status: 200, body: { title: 'Lamp' } })
})

test.each([
  ['no JSON at all', post('Lamp'), 400, 'The body is not JSON'],
  ['another kind of body', post('{}', { 'content-type': 'text/plain' }), 415, 'The body must be JSON'],
  ['a field that is too long', post('{"title": "Lamp circuit"}'), 422, 'The body does not fit'],
  ['a field that nobody knows', post('{"title": "Lamp", "admin": true}'), 422, 'The body does not fit'],
  ['a list', post('[]'), 422, 'The body does not fit'],
  ['null', post('null'), 422, 'The body does not fit'],
])('%s is refused with a sentence', async (_, init, status, title) => {
  const answer = await ask('/api/folios', init)
  expect([answer.status, answer.body.title, answer.body.status]).toEqual([status, title, status])
  expect(answer.headers.get('content-type')).toContain('application/problem+json')
})

test('a body beyond the limit is refused, whether it says so or not', async () => {
  const large = JSON.stringify({ title: 'x'.repeat(BODY_LIMIT) })
  expect((await ask('/api/folios', post(large))).status).toBe(413)
  const bytes = (size: number): RequestInit => ({
    method: 'PUT',
    body: new Uint8Array(size),
    headers: { 'content-type': 'application/octet-stream' },
  })
  expect(await ask('/api/folios/folio-01/blocks/block-01', bytes(1024))).toMatchObject({ status: 200, body: { size: 1024 } }) // prettier-ignore
  expect((await ask('/api/folios/folio-01/blocks/block-01', bytes(1025))).status).toBe(413)
  const said = await raw(`PUT /api/folios/folio-01/blocks/block-01 HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/octet-stream\r\nContent-Length: 99999999\r\nConnection: close\r\n\r\n`) // prettier-ignore
  expect(said).toContain('413')
})

test('writes that another site sends are refused, reading is not', async () => {
  const foreign = { origin: 'https://elsewhere.example' }
  expect((await ask('/api/folios', post('{"title": "Lamp"}', foreign))).status).toBe(403)
  expect((await ask('/api/folios', post('{"title": "Lamp"}', { 'sec-fetch-site': 'cross-site' }))).status).toBe(403)
  expect((await ask('/api/folios', post('{"title": "Lamp"}', { origin: 'nonsense' }))).status).toBe(403)
  expect((await ask('/api/folios', post('{"title": "Lamp"}', { origin: address, 'sec-fetch-site': 'same-origin' }))).status).toBe(200) // prettier-ignore
  expect((await ask('/api/folios', { headers: foreign })).status).toBe(200)
})

test('a host that the server was not told to serve gets no answer of the application', async () => {
  const answer = await raw('GET /api/folios HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n')
  expect(answer).toMatch(/^HTTP\/1.1 421/)
  expect(answer).not.toContain('"folios"')
  expect(await raw('GET /api/folios HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n')).toContain('200')
})

test('what cannot be done at an address says what can', async () => {
  const answer = await ask('/api/folios', { method: 'PATCH' })
  expect([answer.status, answer.headers.get('allow')]).toEqual([405, 'GET, POST, HEAD'])
  expect((await ask('/api/folios/folio-01/bin', { method: 'POST' })).status).toBe(405)
})

test('an identifier that is none is a folio that is not there', async () => {
  expect(await ask('/api/folios/folio-01')).toMatchObject({ status: 200, body: { id: 'folio-01' } })
  for (const id of ['..%2f..%2fetc', '%00', 'x'.repeat(300), "';drop table folios;--"])
    expect([id, (await ask(`/api/folios/${encodeURI(id)}`)).status]).toEqual([id, 404])
})

test.each([
  [new Error('SQLITE_FULL: database or disk is full'), 507, 'The disk is full'],
  [new Error('ENOSPC: no space left on device'), 507, 'The disk is full'],
  [new Error('SQLITE_IOERR: disk I/O error'), 507, 'The disk does not take it'],
  [new Error('SQLITE_READONLY: attempt to write'), 507, 'The data file cannot be written'],
  [new Error('SQLITE_CORRUPT: malformed'), 500, 'The data file is damaged'],
  [new DataFileError('It was made by a newer version.'), 503, 'The data file cannot be used'],
  [new Error('anything at all'), 500, 'The server could not do this'],
  ['a text', 500, 'The server could not do this'],
  [new ApiProblem(404, 'There is no such folio'), 404, 'There is no such folio'],
])('failure %# is told as a problem without a trace', async (error, status, title) => {
  failing = error
  const answer = await ask('/api/folios')
  expect([answer.status, answer.body.title]).toEqual([status, title])
  expect(JSON.stringify(answer.body)).not.toMatch(/SQLITE|ENOSPC|\.ts:|at Object/)
})

test('a damaged folio says that it can be saved as a file', () => {
  expect(toProblem(new DamagedFolio('Its lines cannot be read.'))).toMatchObject({
    status: 500,
    extra: { damaged: true },
  })
})

test('every address has its methods, with a question behind it and a stroke at its end, too', () => {
  expect(methodsAt('/api/folios?sort=title')).toEqual(['GET', 'POST', 'HEAD'])
  expect(methodsAt('/api/folios/')).toEqual(['GET', 'POST', 'HEAD'])
  expect(methodsAt('/api/folios/x/operations')).toEqual(['POST'])
  expect(methodsAt('/api/nothing')).toBeNull()
})
