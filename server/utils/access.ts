import { randomBytes } from 'node:crypto'
import { networkInterfaces } from 'node:os'
import { Gate } from './gate'
import { useProxies } from './visitor'

/**
 * Who may come in. On this machine alone (loopback) everyone who uses it; from
 * the network only who knows the passphrase and has a session for it.
 */

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

/** Words of a passphrase that is made at start: easy to read out and to type, 60 bits. */
const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789'
function madePassphrase(): string {
  const letters = Array.from(randomBytes(12), (b) => LETTERS.charAt(b & 31)).join('')
  return letters.replace(/(.{4})(?=.)/g, '$1-')
}

export interface Door {
  readonly gate: Gate
  readonly passphrase: string
}

let door: Door | null | undefined

/**
 * The door of this server; `null` where there is none: whoever uses this machine
 * is let in. A passphrase that is given always makes one, on this machine, too:
 * what stands in front of it (a proxy) may let others in. So does a proxy that
 * is told of.
 */
export function useDoor(): Door | null {
  if (door !== undefined) return door
  const given = process.env.ORNATE_PHASOR_PASSPHRASE ?? ''
  if (given === '' && isLoopback(listenHost()) && useProxies().count === 0) return (door = null)
  const passphrase = given === '' ? madePassphrase() : given
  process.stdout.write(
    given === ''
      ? `Others on the network can reach this server: they need the passphrase ${passphrase} (set one of your own with ORNATE_PHASOR_PASSPHRASE=…).\n`
      : 'Whoever comes needs the passphrase of ORNATE_PHASOR_PASSPHRASE.\n',
  )
  return (door = { passphrase, gate: new Gate(passphrase) })
}

export const SESSION_COOKIE = 'ornate-phasor-session'
/** By this the sessions of one browser are known for its own; it lets nobody in. */
export const BROWSER_COOKIE = 'ornate-phasor-browser'
