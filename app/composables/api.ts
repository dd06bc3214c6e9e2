import { z } from 'zod'
import type { ZodType } from 'zod'
import { folioCardSchema, folioSchema } from '#shared/folio'
import type { Folio, FolioCard, FolioFile } from '#shared/folio'
import { folioStateSchema, journalSchema } from '#shared/operations'
import type { FolioState, Journal, Save } from '#shared/operations'
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
}

async function request<T>(schema: ZodType<T>, path: string, init: RequestInit = {}): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, init)
  } catch {
    throw new RequestError(0, 'The server does not answer.')
  }
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
  async shelf(find = ''): Promise<FolioCard[]> {
    const query = find === '' ? '' : `?find=${encodeURIComponent(find)}`
    return (await request(z.object({ folios: z.array(folioCardSchema) }), `/api/folios${query}`)).folios
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
  save: (id: string, save: Save): Promise<Saved> =>
    request(savedSchema, `/api/folios/${id}/operations`, json('POST', save)),
}
