/** The addresses below /api, and what may be done at each. */
const ROUTES: readonly (readonly [RegExp, readonly string[]])[] = [
  [/^\/api\/folios$/, ['GET', 'POST']],
  [/^\/api\/bin$/, ['DELETE']],
  [/^\/api\/version$/, ['GET']],
  [/^\/api\/session$/, ['GET', 'POST', 'DELETE']],
  [/^\/api\/check$/, ['POST']],
  [/^\/api\/copies$/, ['GET']],
  [/^\/api\/copies\/[^/]+$/, ['GET']],
  [/^\/api\/copies\/[^/]+\/folios$/, ['POST']],
  [/^\/api\/handed\/[^/]+$/, ['GET', 'PUT', 'DELETE']],
  [/^\/api\/folios\/[^/]+$/, ['GET', 'DELETE']],
  [/^\/api\/folios\/[^/]+\/(bin|thumbnail)$/, ['PUT']],
  [/^\/api\/folios\/[^/]+\/(duplicate|operations)$/, ['POST']],
  [/^\/api\/folios\/[^/]+\/(journal|missed|rescue)$/, ['GET']],
  [/^\/api\/folios\/[^/]+\/blocks\/[^/]+$/, ['GET', 'PUT']],
  [/^\/api\/folios\/[^/]+\/blocks\/[^/]+\/received$/, ['GET']],
  [/^\/api\/folios\/[^/]+\/states\/[^/]+$/, ['GET', 'PUT']],
]

/** What may be done at an address; `null` where there is nothing at it. */
export function methodsAt(path: string): readonly string[] | null {
  const bare = (path.split('?')[0] ?? '').replace(/\/$/, '')
  const methods = ROUTES.find(([route]) => route.test(bare))?.[1]
  return methods ? [...methods, ...(methods.includes('GET') ? ['HEAD'] : [])] : null
}
