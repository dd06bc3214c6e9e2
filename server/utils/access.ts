import { randomBytes, scrypt, timingSafeEqual, createHash } from 'node:crypto'
import { networkInterfaces } from 'node:os'
import { promisify } from 'node:util'

/**
 * Who may come in. On this machine alone (loopback) everyone who uses it; from
 * the network only who knows the passphrase and has a session for it.
 */

const hashOf = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt)
/** Slow on purpose (RFC 7914): about a tenth of a second an attempt. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }
const HASH_LENGTH = 32

/** How long a session lasts, in milliseconds. */
export const SESSION_LASTS = 30 * 24 * 3_600_000
const SESSIONS_MOST = 500
/** Wrong attempts of one address before it has to wait, and of all addresses in a minute. */
const FREE_ATTEMPTS = 5
const ALL_ATTEMPTS = 60
const WAIT_FIRST = 2_000
const WAIT_MOST = 15 * 60_000
const MINUTE = 60_000

/** The address the server listens on. */
export function listenHost(env: NodeJS.ProcessEnv = process.env): string {
  const host = (env.NITRO_HOST ?? env.HOST ?? '').trim()
  return host === '' ? '127.0.0.1' : host.replace(/^\[(.*)\]$/, '$1')
}

export function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || /^127(\.\d{1,3}){3}$/.test(host)
}

/** Names and addresses under which the server may be asked, without their port. */
export function servedHosts(env: NodeJS.ProcessEnv = process.env): ReadonlySet<string> {
  const listen = listenHost(env)
  const told = (env.ORNATE_PHASOR_ADDRESSES ?? '').split(',').map((name) => hostName(name.trim()))
  const own = ['127.0.0.1', 'localhost', '[::1]']
  const everywhere = listen === '0.0.0.0' || listen === '::'
  const machine = everywhere
    ? Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => bracketed(i.address)))
    : [bracketed(listen)]
  return new Set([...own, ...machine, ...told].filter((name) => name !== '').map((name) => name.toLowerCase()))
}

function bracketed(address: string): string {
  return address.includes(':') ? `[${address}]` : address
}

/** The host of `host:port`, whatever its form. */
export function hostName(host: string): string {
  const bare = host.replace(/^[a-z]+:\/\//i, '').replace(/\/.*$/, '')
  return bare.replace(/:\d+$/, '').toLowerCase()
}

interface Attempts {
  readonly failed: number
  readonly until: number
}

export type SignIn =
  | { readonly status: 'in'; readonly token: string }
  | { readonly status: 'wrong' }
  | { readonly status: 'wait'; readonly seconds: number }

/** The passphrase, kept as a slow hash only, and the sessions that were opened with it. */
export class Gate {
  private readonly salt = randomBytes(16)
  private readonly hash: Promise<Buffer>
  /** Hashes of the tokens that were given out, and when they end. */
  private readonly sessions = new Map<string, number>()
  private readonly attempts = new Map<string, Attempts>()
  private recent: number[] = []

  constructor(
    passphrase: string,
    private readonly now: () => number = Date.now,
  ) {
    this.hash = hashOf(passphrase, this.salt, HASH_LENGTH, COST)
  }

  async signIn(passphrase: string, address: string): Promise<SignIn> {
    const now = this.now()
    const before = this.attempts.get(address)
    this.recent = this.recent.filter((time) => now - time < MINUTE)
    const wait = Math.max((before?.until ?? 0) - now, this.recent.length >= ALL_ATTEMPTS ? MINUTE : 0)
    if (wait > 0) return { status: 'wait', seconds: Math.ceil(wait / 1000) }
    // Counted before it is known to be wrong: attempts at the same time do not slip through.
    const failed = (before?.failed ?? 0) + 1
    const delay = failed < FREE_ATTEMPTS ? 0 : Math.min(WAIT_MOST, WAIT_FIRST * 2 ** (failed - FREE_ATTEMPTS))
    this.remember(address, { failed, until: now + delay })
    this.recent.push(now)
    const given = await hashOf(passphrase, this.salt, HASH_LENGTH, COST)
    if (!timingSafeEqual(given, await this.hash)) return { status: 'wrong' }
    this.attempts.delete(address)
    return { status: 'in', token: this.open() }
  }

  private remember(address: string, attempts: Attempts): void {
    this.attempts.delete(address)
    this.attempts.set(address, attempts)
    if (this.attempts.size > 10_000) this.attempts.delete(this.attempts.keys().next().value ?? '')
  }

  private open(): string {
    const token = randomBytes(32).toString('base64url')
    this.sessions.set(digest(token), this.now() + SESSION_LASTS)
    if (this.sessions.size > SESSIONS_MOST) this.sessions.delete(this.sessions.keys().next().value ?? '')
    return token
  }

  knows(token: string | undefined): boolean {
    if (token === undefined) return false
    const key = digest(token)
    const ends = this.sessions.get(key)
    if (ends === undefined) return false
    if (ends > this.now()) return true
    this.sessions.delete(key)
    return false
  }

  signOut(token: string | undefined): void {
    if (token !== undefined) this.sessions.delete(digest(token))
  }
}

function digest(token: string): string {
  return createHash('sha256').update(token).digest('base64')
}

/** Words of a passphrase that is made at start: easy to read out and to type, 60 bits. */
const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789'
function madePassphrase(): string {
  const letters = Array.from(randomBytes(12), (b) => LETTERS.charAt(b & 31)).join('')
  return letters.replace(/(.{4})(?=.)/g, '$1-')
}

let gate: Gate | null | undefined

/** The gate of this server; `null` where it only listens on this machine. */
export function useGate(): Gate | null {
  if (gate !== undefined) return gate
  if (isLoopback(listenHost())) return (gate = null)
  const given = process.env.ORNATE_PHASOR_PASSPHRASE ?? ''
  const passphrase = given === '' ? madePassphrase() : given
  process.stdout.write(
    given === ''
      ? `Others on the network can reach this server: they need the passphrase ${passphrase} (set one of your own with ORNATE_PHASOR_PASSPHRASE=…).\n`
      : 'Others on the network can reach this server: they need the passphrase of ORNATE_PHASOR_PASSPHRASE.\n',
  )
  return (gate = new Gate(passphrase))
}

export const SESSION_COOKIE = 'ornate-phasor-session'
