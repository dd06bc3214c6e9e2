/** The ticket under which something was handed over, in the address of a page: small, since every page looks for one. */

const MARK = 'handed='

export function withTicket(path: string, ticket: string): string {
  return `${path}#${MARK}${ticket}`
}

/** The ticket in the address of this page; `null` where there is none. */
export function ticketIn(hash: string): string | null {
  return new RegExp(`^#${MARK}([A-Za-z0-9_-]{20,64})$`).exec(hash)?.[1] ?? null
}
