import { z } from '#shared/schema'
import type { ZodMiniType } from 'zod/mini'
import { broughtBackSchema, checkSchema, copiesSchema, copyContentSchema } from '#shared/copies'
import type { BroughtBack, Check, CopiedFolio, Copies } from '#shared/copies'
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

/** How long nothing may come before a connection counts as hanging and is tried anew, in milliseconds. */
const PATIENCE = 30_000
/** A slow line carries so many bytes in a millisecond at least: what is sent has as much more time. */
const SLOWEST = 4

interface Answer {
  readonly response: Response
  readonly bytes: Uint8Array<ArrayBuffer>
}

/**
 * Whatever the server answers, all of it; that it does not is an error. What
 * counts is that nothing comes for a while, not how long all of it takes. What
 * came of a good answer that breaks off stays in `came`.
 */
async function answerTo(path: string, init: RequestInit = {}, sent = 0, came: Uint8Array[] = []): Promise<Answer> {
  const controller = new AbortController()
  let timer: ReturnType<typeof setTimeout> | undefined
  const wait = (time: number): void => {
    clearTimeout(timer)
    timer = setTimeout(() => controller.abort(), time)
  }
  const stopped = init.signal
  const stop = (): void => controller.abort()
  stopped?.addEventListener('abort', stop)
  try {
    wait(PATIENCE + sent / SLOWEST)
    const response = await fetch(path, { ...init, signal: controller.signal })
    wait(PATIENCE)
    const pieces = response.ok ? came : []
    const reader = response.body?.getReader()
    for (let piece = await reader?.read(); piece?.value; piece = await reader?.read()) {
      pieces.push(piece.value)
      wait(PATIENCE)
    }
    return { response, bytes: joined(pieces) }
  } catch {
    throw new RequestError(0, 'The server does not answer.')
  } finally {
    clearTimeout(timer)
    stopped?.removeEventListener('abort', stop)
  }
}

function joined(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0))
  let at = 0
  for (const piece of pieces) {
    all.set(piece, at)
    at += piece.length
  }
  return all
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    return null
  }
}

async function request<T>(schema: ZodMiniType<T>, path: string, init: RequestInit = {}): Promise<T> {
  const { body: given } = init
  const sent = typeof given === 'string' ? given.length : given instanceof Uint8Array ? given.length : 0
  const { response, bytes } = await answerTo(path, init, sent)
  const body = parsed(bytes)
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

const keptSchema = z.object({ kept: z.boolean(), received: z.int() })
const toldSchema = z.array(z.object({ since: z.number(), seen: z.number() }))
const sessionSchema = z.object({
  needed: z.boolean(),
  signedIn: z.boolean(),
  /** The sessions of this browser and those of others: since when, and when last used. */
  here: toldSchema,
  others: toldSchema,
})
export type Session = z.infer<typeof sessionSchema>

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
  /** Sends a piece of a block; gives back how much of it the server has then. */
  putPiece(
    id: string,
    block: string,
    piece: { readonly bytes: Uint8Array<ArrayBuffer>; readonly start: number; readonly of: number },
    signal: AbortSignal,
  ): Promise<{ kept: boolean; received: number }> {
    const headers = { 'content-type': 'application/octet-stream' }
    const path = `/api/folios/${id}/blocks/${block}?start=${piece.start}&of=${piece.of}`
    return request(keptSchema, path, { method: 'PUT', headers, body: piece.bytes, signal })
  },
  /** How much of a block the server has. */
  received: (id: string, block: string): Promise<{ received: number; whole: boolean }> =>
    request(z.object({ received: z.int(), whole: z.boolean() }), `/api/folios/${id}/blocks/${block}/received`),
  /** The numbers of measured data; `null` where the server has none. What breaks off goes on where it was. */
  async block(id: string, block: string): Promise<Uint8Array | null> {
    const came: Uint8Array[] = []
    for (let from = 0; ;) {
      try {
        const { response, bytes } = await answerTo(`/api/folios/${id}/blocks/${block}?from=${from}`, {}, 0, came)
        if (response.status === 404) return null
        if (!response.ok) throw new RequestError(response.status, 'The server could not give the numbers.')
        return bytes
      } catch (error) {
        const length = came.reduce((sum, piece) => sum + piece.length, 0)
        if (length === from || !(error instanceof RequestError) || !error.unreachable) throw error
        from = length
      }
    }
  },
  async signIn(passphrase: string): Promise<void> {
    await request(z.unknown(), '/api/session', json('POST', { passphrase }))
  },
  session: (): Promise<Session> => request(sessionSchema, '/api/session'),
  async signOut(which: 'this' | 'browser' | 'others'): Promise<void> {
    await request(z.unknown(), `/api/session?which=${which}`, { method: 'DELETE' })
  },
  copies: (): Promise<Copies> => request(copiesSchema, '/api/copies'),
  inCopy: (name: string): Promise<{ folios: CopiedFolio[] }> => request(copyContentSchema, `/api/copies/${name}`),
  bringBack: (name: string, folios: readonly string[] | null): Promise<BroughtBack> =>
    request(broughtBackSchema, `/api/copies/${name}/folios`, json('POST', { folios })),
  check: (): Promise<Check> => request(checkSchema, '/api/check', json('POST', {})),
  /** Where the server is now, asked at a port that it had before. */
  version: (): Promise<{ port?: number | undefined }> =>
    request(z.object({ port: z.optional(z.int()) }), '/api/version'),
  async hand(ticket: string, from: number, records: readonly string[]): Promise<void> {
    await request(z.unknown(), `/api/handed/${ticket}`, json('PUT', { from, records }))
  },
  handed: (ticket: string, from: number): Promise<{ records: string[] }> =>
    request(z.object({ records: z.array(z.string()) }), `/api/handed/${ticket}?from=${from}`),
  async dropHanded(ticket: string): Promise<void> {
    await request(z.unknown(), `/api/handed/${ticket}`, { method: 'DELETE' })
  },
  save: (id: string, save: Save): Promise<Saved> =>
    request(savedSchema, `/api/folios/${id}/operations`, json('POST', save)),
}
