import type { EventHandlerRequest, H3Event } from 'h3'
import { defineEventHandler, getHeader, getRouterParam, setResponseHeader, setResponseStatus } from 'h3'
import type { ZodMiniType } from 'zod/mini'
import { copyNameSchema } from '../../shared/copies'
import { BODY_LIMIT } from '../../shared/limits'
import type { HttpProblem } from '../../shared/problem'
import { idSchema } from '../../shared/schema'
import { DataFileError, isBusy } from '../db/database'
import { DamagedFolio } from '../db/folios'

/** An answer other than success, as a JSON problem (RFC 9457). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail?: string,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(title)
  }
}

/** A route of the API: what goes wrong is answered as a JSON problem with a clear sentence. */
export function defineApi<T>(handler: (event: H3Event<EventHandlerRequest>) => Promise<T>) {
  return defineEventHandler(async (event) => {
    try {
      return await handler(event)
    } catch (error) {
      return sendProblem(event, toProblem(error))
    }
  })
}

export function sendProblem(event: H3Event, problem: ApiProblem): HttpProblem {
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  const { status, title, detail, extra } = problem
  return { type: 'about:blank', title, status, ...(detail === undefined ? {} : { detail }), ...extra }
}

export function toProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error
  const text = error instanceof Error ? `${error.message}` : String(error)
  if (text.includes('SQLITE_FULL') || text.includes('ENOSPC') || text.includes('SQLITE_IOERR')) {
    const title = text.includes('SQLITE_IOERR') ? 'The disk does not take it' : 'The disk is full'
    return new ApiProblem(507, title, 'Nothing was saved. See that there is space on it: it is tried again by itself.')
  }
  if (isBusy(error))
    return new ApiProblem(503, 'The data file is busy', 'Another program is writing to it. It is tried again shortly.')
  if (error instanceof DamagedFolio) {
    return new ApiProblem(
      500,
      'This folio is damaged',
      `${error.reason} The other folios are not touched by it; what can be read of this one can be saved as a file.`,
      { damaged: true },
    )
  }
  if (error instanceof DataFileError) return new ApiProblem(503, 'The data file cannot be used', error.message)
  if (text.includes('SQLITE_CORRUPT') || text.includes('SQLITE_NOTADB')) {
    process.stderr.write(`The data file is damaged: ${text}\n`)
    return new ApiProblem(
      500,
      'The data file is damaged',
      'A part of it cannot be read. Earlier copies, on the shelf, has whole ones; a check there says what can still be read.',
    )
  }
  if (text.includes('SQLITE_READONLY') || text.includes('SQLITE_CANTOPEN')) {
    return new ApiProblem(507, 'The data file cannot be written', 'Check the permissions of the data folder.')
  }
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : text}\n`)
  return new ApiProblem(500, 'The server could not do this', 'The cause stands in the server’s log.')
}

/** Reads and validates a JSON body of bounded size. */
export async function readJson<T>(event: H3Event, schema: ZodMiniType<T>): Promise<T> {
  const type = getHeader(event, 'content-type') ?? ''
  if (!/^application\/json\b/i.test(type)) throw new ApiProblem(415, 'The body must be JSON')
  const text = Buffer.from(await readLimited(event, BODY_LIMIT)).toString('utf8')
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    throw new ApiProblem(400, 'The body is not JSON')
  }
  const result = schema.safeParse(data)
  if (result.success) return result.data
  const [issue] = result.error.issues
  const place = issue?.path.join('.') ?? ''
  throw new ApiProblem(
    422,
    'The body does not fit',
    issue ? `${place === '' ? 'body' : place}: ${issue.message}` : undefined,
  )
}

/** The bytes of a body that is no JSON, up to a limit. */
export async function readBytes(event: H3Event, limit: number): Promise<Uint8Array> {
  const type = getHeader(event, 'content-type') ?? ''
  if (!/^application\/octet-stream\b/i.test(type)) throw new ApiProblem(415, 'The body must be bytes')
  return readLimited(event, limit)
}

async function readLimited(event: H3Event, limit: number): Promise<Uint8Array> {
  const tooLarge = (): ApiProblem =>
    new ApiProblem(413, 'The body is too large', `At most ${limit / 1024 / 1024} MiB are accepted.`)
  const declared = Number(getHeader(event, 'content-length') ?? 0)
  if (declared > limit) throw tooLarge()
  const chunks: Uint8Array[] = []
  let size = 0
  const { req } = event.node
  const watch = watchFlow(
    () => size,
    () => req.destroy(),
  )
  try {
    for await (const chunk of req as AsyncIterable<Uint8Array>) {
      size += chunk.length
      if (size > limit) throw tooLarge()
      chunks.push(chunk)
    }
  } catch (error) {
    if (error instanceof ApiProblem) throw error
    throw new ApiProblem(408, 'The body did not arrive', 'The connection ended before all of it was there.')
  } finally {
    clearInterval(watch)
  }
  return Buffer.concat(chunks)
}

/** In each such time so many bytes must come: a slow line is waited for, however long, one that stands still is not. */
const LOOKED_EVERY = 15_000
const BYTES_LEAST = 1_024

function watchFlow(arrived: () => number, stopped: () => void): ReturnType<typeof setInterval> {
  let before = 0
  const timer = setInterval(() => {
    if (arrived() - before < BYTES_LEAST) stopped()
    before = arrived()
  }, LOOKED_EVERY)
  return timer.unref()
}

/** The folio identifier of the route. */
export function folioId(event: H3Event): string {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  if (!id.success) throw noFolio()
  return id.data
}

/** The identifier of a block of numbers in the route. */
export function blockId(event: H3Event): string {
  const id = idSchema.safeParse(getRouterParam(event, 'block'))
  if (!id.success) throw noBlock()
  return id.data
}

/** The name of an earlier copy in the route: nothing that leads elsewhere. */
export function copyName(event: H3Event): string {
  const name = copyNameSchema.safeParse(getRouterParam(event, 'name'))
  if (!name.success) throw noCopy()
  return name.data
}

export function noCopy(): ApiProblem {
  return new ApiProblem(
    404,
    'There is no such copy',
    'It may have been thinned out. The shelf lists the copies there are.',
  )
}

export function damagedCopy(cause: unknown): ApiProblem {
  process.stderr.write(`A copy cannot be read: ${cause instanceof Error ? cause.message : String(cause)}\n`)
  return new ApiProblem(422, 'This copy cannot be read', 'Another one may be whole.')
}

/** What a browser calls what it hands over: nobody guesses it. */
export function ticketOf(event: H3Event): string {
  const ticket = getRouterParam(event, 'ticket') ?? ''
  if (!/^[A-Za-z0-9_-]{20,64}$/.test(ticket)) throw new ApiProblem(404, 'There is nothing at this address')
  return ticket
}

export function noBlock(): ApiProblem {
  return new ApiProblem(404, 'There are no such numbers', 'They may not have arrived yet, or were never sent.')
}

export function noState(): ApiProblem {
  return new ApiProblem(404, 'There is no such earlier state', 'The journal lists the states there are.')
}

export function noFolio(): ApiProblem {
  return new ApiProblem(
    404,
    'There is no such folio',
    'It may have been removed for good. The shelf lists the folios there are.',
  )
}
