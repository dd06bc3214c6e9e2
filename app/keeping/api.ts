import { z } from '#shared/schema'
import type { ZodMiniType } from 'zod/mini'
import { folioSchema, shelfPageSchema } from '#shared/folio'
import type { Folio, FolioFile, ShelfPage, ShelfSort, Thumbnail } from '#shared/folio'
import { folioStateSchema, journalSchema, missedSchema } from '#shared/operations'
import type { FolioState, Journal, Missed, Save } from '#shared/operations'
import { httpProblemSchema } from '#shared/problem'
import type { HttpProblem } from '#shared/problem'

/** An answer of the server other than success, or no answer at all (`status` 0). */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problem: HttpProblem | null = null,
  ) {
    super(message)
  }

  get unreachable(): boolean {
    return this.status === 0
  }

  /** The server asks for its passphrase. */
  get signedOut(): boolean {
    return this.status === 401
  }

  /** True where the same request will never be accepted: trying again is of no use. */
  get final(): boolean {
    return this.status >= 400 && this.status < 500 && ![401, 408, 409, 421, 425, 429].includes(this.status)
  }
}

/** How long an answer may take, in milliseconds: a connection that hangs is tried anew. */
const PATIENCE = 30_000
/** The same for a block of numbers. */
const BLOCK_PATIENCE = 120_000

/** Whatever the server answers; that it does not is an error. */
async function answerTo(path: string, init: RequestInit = {}): Promise<Response> {
  try {
    return await fetch(path, { signal: AbortSignal.timeout(PATIENCE), ...init })
  } catch {
    throw new RequestError(0, 'The server does not answer.')
  }
}

async function request<T>(schema: ZodMiniType<T>, path: string, init: RequestInit = {}): Promise<T> {
  const response = await answerTo(path, init)
  const body: unknown = await response.json().catch(() => null)
  if (!response.ok) {
    const problem = httpProblemSchema.safeParse(body)
    if (problem.success) {
      const { title, detail } = problem.data
      throw new RequestError(response.status, detail ? `${title}. ${detail}` : `${title}.`, problem.data)
    }
    throw new RequestError(response.status, 'The server gave an answer that cannot be read.')
  }
  const result = schema.safeParse(body)
  if (!result.success) throw new RequestError(response.status, 'The server gave an answer that cannot be read.')
  return result.data
}

function json(method: string, body: unknown): RequestInit {
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
}

const savedSchema = z.object({ revision: z.int(), changedAt: z.string() })
export type Saved = z.infer<typeof savedSchema>

export const api = {
  shelf(asked: { find: string; sort: ShelfSort; from: number; bin: boolean }): Promise<ShelfPage> {
    const query = new URLSearchParams({ sort: asked.sort, from: String(asked.from) })
    if (asked.find !== '') query.set('find', asked.find)
    if (asked.bin) query.set('bin', '1')
    return request(shelfPageSchema, `/api/folios?${query}`)
  },
  async keepThumbnail(id: string, revision: number, thumbnail: Thumbnail): Promise<void> {
    await request(z.unknown(), `/api/folios/${id}/thumbnail`, json('PUT', { revision, thumbnail }))
  },
  create: (file: FolioFile): Promise<Folio> => request(folioSchema, '/api/folios', json('POST', file)),
  open: (id: string): Promise<Folio> => request(folioSchema, `/api/folios/${id}`),
  duplicate: (id: string): Promise<Folio> => request(folioSchema, `/api/folios/${id}/duplicate`, json('POST', {})),
  async bin(id: string, binned: boolean): Promise<void> {
    await request(z.unknown(), `/api/folios/${id}/bin`, json('PUT', { binned }))
  },
  async remove(id: string): Promise<void> {
    await request(z.unknown(), `/api/folios/${id}`, { method: 'DELETE' })
  },
  async emptyBin(): Promise<void> {
    await request(z.unknown(), '/api/bin', { method: 'DELETE' })
  },
  journal: (id: string, before?: number): Promise<Journal> =>
    request(journalSchema, `/api/folios/${id}/journal${before === undefined ? '' : `?before=${before}`}`),
  stateAt: (id: string, revision: number): Promise<FolioState> =>
    request(folioStateSchema, `/api/folios/${id}/states/${revision}`),
  missed: (id: string, since: number): Promise<Missed> =>
    request(missedSchema, `/api/folios/${id}/missed?since=${since}`),
  async nameState(id: string, revision: number, name: string | null): Promise<void> {
    await request(z.unknown(), `/api/folios/${id}/states/${revision}`, json('PUT', { name }))
  },
  async putBlock(id: string, block: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    const headers = { 'content-type': 'application/octet-stream' }
    const init = { method: 'PUT', headers, body: bytes, signal: AbortSignal.timeout(BLOCK_PATIENCE) }
    await request(z.unknown(), `/api/folios/${id}/blocks/${block}`, init)
  },
  /** The numbers of measured data; `null` where the server has none. */
  async block(id: string, block: string): Promise<Uint8Array | null> {
    const signal = AbortSignal.timeout(BLOCK_PATIENCE)
    const response = await answerTo(`/api/folios/${id}/blocks/${block}`, { signal })
    if (response.status === 404) return null
    if (!response.ok) throw new RequestError(response.status, 'The server could not give the numbers.')
    return new Uint8Array(await response.arrayBuffer())
  },
  async signIn(passphrase: string): Promise<void> {
    await request(z.unknown(), '/api/session', json('POST', { passphrase }))
  },
  session: (): Promise<{ needed: boolean; signedIn: boolean }> =>
    request(z.object({ needed: z.boolean(), signedIn: z.boolean() }), '/api/session'),
  save: (id: string, save: Save): Promise<Saved> =>
    request(savedSchema, `/api/folios/${id}/operations`, json('POST', save)),
}
