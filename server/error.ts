import type { NitroErrorHandler } from 'nitropack'
import { send, setResponseHeader, setResponseStatus } from 'h3'

/** What slips past the routes: a JSON problem for the API, a short page for people. Never a stack trace. */
const handler: NitroErrorHandler = async (error, event) => {
  const status = error.statusCode >= 400 ? error.statusCode : 500
  setResponseStatus(event, status)
  const title = status === 404 ? 'There is nothing at this address' : 'The server could not do this'
  if (status >= 500) process.stderr.write(`${error.stack ?? error.message}\n`)
  if (event.path.startsWith('/api/')) {
    setResponseHeader(event, 'content-type', 'application/problem+json')
    await send(event, JSON.stringify({ type: 'about:blank', title, status }))
    return
  }
  setResponseHeader(event, 'content-type', 'text/html; charset=utf-8')
  await send(
    event,
    `<!doctype html><html lang="en"><title>${title}</title><body style="font:18px Georgia,serif;background:#fbf7ee;color:#1d2b3a;margin:15vh auto;max-width:30em;padding:0 1em"><h1>${title}</h1><p><a href="/" style="color:#0e6e6e">Back to the shelf</a></p></body></html>`,
  )
}

export default handler
