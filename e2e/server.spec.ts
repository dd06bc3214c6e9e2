import { request } from 'node:http'
import { expect, test } from '@playwright/test'
import { PORT } from './setting'

/** The server as a stranger meets it: every refusal is a JSON problem with a sentence. */

async function create(
  api: import('@playwright/test').APIRequestContext,
): Promise<{ id: string; lines: { id: string }[] }> {
  const response = await api.post('/api/folios', { data: { title: 'Harbour', lines: [{ source: 'a = 1' }] } })
  expect(response.status()).toBe(201)
  return (await response.json()) as { id: string; lines: { id: string }[] }
}

const save = (operations: unknown[], revision = 0) => ({ data: { revision, operations } })

test('forged and malformed bodies', async ({ request: api }) => {
  const { id } = await create(api)
  const url = `/api/folios/${id}/operations`
  const cases = [
    [await api.post(url, { data: Buffer.from('{not json'), headers: { 'content-type': 'application/json' } }), 400],
    [await api.post(url, { data: 'x', headers: { 'content-type': 'text/plain' } }), 415],
    [await api.post(url, { data: {} }), 422],
    [await api.post(url, save([{ type: 'drop' }])), 422],
    [await api.post(url, save([{ type: 'rename', title: 'x', extra: 1 }])), 422],
    [await api.post(url, save([{ type: 'remove', id: 'nosuchline' }])), 422],
    [await api.post('/api/folios', { data: { title: '', lines: [] } }), 422],
    [await api.get('/api/folios/..%2F..%2Fetc'), 404],
    [await api.get('/api/folios/AAAAAAAAAAAA'), 404],
    [await api.delete(`/api/folios/${id}`), 409],
    [await api.get('/api/nothing'), 404],
  ] as const
  for (const [response, status] of cases) {
    expect(response.status()).toBe(status)
    expect(response.headers()['content-type']).toContain('application/problem+json')
    const problem = (await response.json()) as { title: string; status: number; stack?: unknown }
    expect(problem).toMatchObject({ status, title: expect.stringMatching(/^[A-Z]/) })
    expect(JSON.stringify(problem)).not.toMatch(/node_modules|\.mjs|at Object/)
  }
})

test('a body that is too large is refused, and the folio is as it was', async ({ request: api }) => {
  const { id } = await create(api)
  const response = await api.post(
    `/api/folios/${id}/operations`,
    save([{ type: 'rename', title: 'x'.repeat(5_000_000) }]),
  )
  expect(response.status()).toBe(413)
  const folio = (await (await api.get(`/api/folios/${id}`)).json()) as { title: string; revision: number }
  expect(folio).toMatchObject({ title: 'Harbour', revision: 0 })
})

test('writes from another site and hosts that are not this machine’s are refused', async ({ request: api }) => {
  const { id } = await create(api)
  const foreign: Record<string, string>[] = [{ origin: 'http://elsewhere.example' }, { 'sec-fetch-site': 'cross-site' }]
  for (const headers of foreign) {
    const response = await api.put(`/api/folios/${id}/bin`, { data: { binned: true }, headers })
    expect(response.status()).toBe(403)
  }
  const status = await new Promise<number | undefined>((done, failed) => {
    const call = request(
      { host: '127.0.0.1', port: PORT, path: '/api/folios', headers: { host: 'rebound.example' } },
      (r) => done(r.statusCode),
    )
    call.on('error', failed).end()
  })
  expect(status).toBe(421)
})

test('a save on an old revision gets what it missed', async ({ request: api }) => {
  const { id, lines } = await create(api)
  const edit = (source: string) => ({ type: 'edit', id: lines[0]?.id, source, was: 'a = 1' })
  expect((await api.post(`/api/folios/${id}/operations`, save([edit('a = 2')]))).status()).toBe(200)
  const late = await api.post(`/api/folios/${id}/operations`, save([edit('a = 3')]))
  expect(late.status()).toBe(409)
  expect(await late.json()).toMatchObject({
    missed: { revision: 1, saves: [{ revision: 1, key: null, operations: [edit('a = 2')] }] },
  })
})

test('the page comes with a strict policy', async ({ request: api }) => {
  const response = await api.get('/')
  const policy = response.headers()['content-security-policy'] ?? ''
  expect(policy).toContain("default-src 'self'")
  expect(policy).toContain("'strict-dynamic'")
  expect(policy).toContain("object-src 'none'")
  expect(policy).toContain("frame-ancestors 'none'")
  expect(policy).not.toMatch(/script-src [^;]*unsafe/)
  // Styles come from the server or carry the nonce of the page; only attributes of typeset mathematics do not.
  expect(policy).toMatch(/style-src 'self' 'nonce-[^']+';/)
})

test('compiled loops run in the worker of the evaluator; the page itself compiles nothing', async ({ page }) => {
  const compiles = (): boolean => {
    try {
      // The shortest module there is: its signature and its version.
      return new WebAssembly.Module(new Uint8Array([0, 97, 115, 109, 1, 0, 0, 0])) instanceof WebAssembly.Module
    } catch {
      return false
    }
  }
  const { id } = await create(page.request)
  await page.goto(`/folio/${id}`)
  await expect(page.locator('[data-line="1"] .single > .value')).toHaveText('1')
  const evaluator = page.workers().find((worker) => worker.url().includes('evaluator'))
  expect(await evaluator?.evaluate(compiles)).toBe(true)
  expect(await page.evaluate(compiles)).toBe(false)
})
