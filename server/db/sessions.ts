import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { promisify } from 'node:util'
import type { Database } from './database'
import type { Facts } from './facts'

/** How long a session lasts, in milliseconds. */
export const SESSION_LASTS = 30 * 24 * 3_600_000
const SESSIONS_MOST = 2_000
/** How exactly it is known when a session was used last. */
const SEEN_EVERY = 3_600_000
const FACT = 'door'

const hashOf = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt)
/** Slow on purpose (RFC 7914): the passphrase cannot be guessed from what the data file has of it. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }
const HASH_LENGTH = 32

interface Session {
  readonly browser: string
  readonly since: number
  seen: number
}

/** What a browser may know of the sessions there are. */
export interface Told {
  readonly since: number
  readonly seen: number
}

/** Tokens and browsers are kept as their hashes only: who reads the data file cannot sign in with them. */
function digest(token: string): string {
  return createHash('sha256').update(token).digest('base64')
}

/**
 * Who is signed in: kept in the data file, so that a restart signs nobody out,
 * and here, so that no request waits for it. With another passphrase than
 * before all sessions are over.
 */
export class Sessions {
  private readonly all = new Map<string, Session>()
  private readonly ready: Promise<void>

  constructor(
    private readonly database: Database,
    facts: Facts,
    passphrase: string,
    private readonly now: () => number = Date.now,
  ) {
    this.ready = this.load(facts, passphrase)
    // Whoever asks for something is told; here it only must not end the program.
    this.ready.catch(() => undefined)
  }

  private async load(facts: Facts, passphrase: string): Promise<void> {
    if (!(await isSame(passphrase, await facts.get(FACT)))) return this.beginAnew(facts, passphrase)
    const rows = await this.database.rows<Session & { token: string }>('SELECT * FROM sessions')
    for (const { token, browser, since, seen } of rows) this.all.set(token, { browser, since, seen })
  }

  private async beginAnew(facts: Facts, passphrase: string): Promise<void> {
    const salt = randomBytes(16)
    const hash = await hashOf(passphrase, salt, HASH_LENGTH, COST)
    try {
      await this.database.writePlain((writer) => writer.change('DELETE FROM sessions'))
      await facts.set(FACT, `${salt.toString('base64')}:${hash.toString('base64')}`)
    } catch {
      // On a full disk it is done at the next start: until then none of them is known here.
    }
  }

  /** Opens a session for a browser; the one that it came with is over. */
  async open(browser: string, former: string | undefined): Promise<string> {
    await this.ready
    // Nothing keeps out who knows the passphrase, not even a full disk.
    if (former !== undefined) await this.end([digest(former)]).catch(() => undefined)
    const token = randomBytes(32).toString('base64url')
    const now = this.now()
    const session: Session = { browser: digest(browser), since: now, seen: now }
    this.all.set(digest(token), session)
    const old = this.all.size > SESSIONS_MOST ? [...this.all].sort((a, b) => a[1].seen - b[1].seen)[0]?.[0] : undefined
    if (old !== undefined) await this.end([old]).catch(() => undefined)
    // On a full disk it lasts until the server ends.
    await this.database
      .writePlain((writer) =>
        writer.change('INSERT INTO sessions VALUES (?, ?, ?, ?)', digest(token), session.browser, now, now),
      )
      .catch(() => undefined)
    return token
  }

  async knows(token: string | undefined): Promise<boolean> {
    if (token === undefined) return false
    await this.ready
    const key = digest(token)
    const session = this.all.get(key)
    if (!session) return false
    const now = this.now()
    if (now - session.since > SESSION_LASTS) {
      await this.end([key])
      return false
    }
    if (now - session.seen > SEEN_EVERY) {
      session.seen = now
      void this.database
        .writePlain((writer) => writer.change('UPDATE sessions SET seen = ? WHERE token = ?', now, key))
        .catch(() => undefined)
    }
    return true
  }

  /** The sessions of a browser, and those of all others. */
  async told(token: string, browser: string | undefined): Promise<{ readonly here: Told[]; readonly others: Told[] }> {
    const mine = new Set(this.keysOf(token, browser))
    const here: Told[] = []
    const others: Told[] = []
    for (const [key, { since, seen }] of this.all) {
      if (this.now() - since > SESSION_LASTS) continue
      ;(mine.has(key) ? here : others).push({ since, seen })
    }
    return { here, others }
  }

  /** Ends the session of a token alone, all of its browser, or all but those. */
  async signOut(token: string, browser: string | undefined, which: 'this' | 'browser' | 'others'): Promise<void> {
    await this.ready
    const mine = this.keysOf(token, browser)
    if (which === 'this') return this.end([digest(token)])
    if (which === 'browser') return this.end(mine)
    await this.end([...this.all.keys()].filter((key) => !mine.includes(key)))
  }

  private keysOf(token: string, browser: string | undefined): string[] {
    const name = this.all.get(digest(token))?.browser ?? (browser === undefined ? '' : digest(browser))
    return [...this.all].filter(([key, one]) => key === digest(token) || one.browser === name).map(([key]) => key)
  }

  /** Over at once here; the data file must take it, or a restart would bring them back. */
  private async end(keys: readonly string[]): Promise<void> {
    for (const key of keys) this.all.delete(key)
    await this.database.writePlain(async (writer) => {
      for (const key of keys) await writer.change('DELETE FROM sessions WHERE token = ?', key)
    })
  }
}

async function isSame(passphrase: string, kept: string | null): Promise<boolean> {
  const [salt, hash] = (kept ?? '').split(':').map((part) => Buffer.from(part, 'base64'))
  if (!salt || hash?.length !== HASH_LENGTH) return false
  return timingSafeEqual(await hashOf(passphrase, salt, HASH_LENGTH, COST), hash)
}
