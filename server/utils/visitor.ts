import { BlockList, isIP } from 'node:net'
import type { H3Event } from 'h3'
import { getHeader } from 'h3'

/**
 * Who asks, and how. A proxy in front of the server tells it in headers that
 * anybody can write: they are believed only where they come from an address
 * that is listed as a proxy (`ORNATE_PHASOR_PROXY`).
 */
export interface Visitor {
  /** The address that asks: by this wrong passphrases are counted. */
  readonly address: string
  /** Whether it crosses the network encrypted. */
  readonly secure: boolean
  /** The hosts under which the page may have been asked for: the server's, and the proxy's. */
  readonly hosts: readonly string[]
}

export interface Proxies {
  readonly list: BlockList
  readonly count: number
  /** Entries that are no addresses. */
  readonly wrong: readonly string[]
}

/** Addresses and subnets of proxies: `10.0.0.2, 10.1.0.0/16, fd00::7`. */
export function proxiesIn(text: string): Proxies {
  const list = new BlockList()
  const wrong: string[] = []
  const entries = text.split(/[\s,]+/).filter((entry) => entry !== '')
  for (const entry of entries) {
    const [, address = '', bits] = /^(?:\[)?([0-9a-fA-F:.]+)(?:\])?(?:\/(\d{1,3}))?$/.exec(entry) ?? []
    const family = isIP(address)
    const most = family === 6 ? 128 : 32
    if (family === 0 || (bits !== undefined && Number(bits) > most)) wrong.push(entry)
    else list.addSubnet(address, bits === undefined ? most : Number(bits), family === 6 ? 'ipv6' : 'ipv4')
  }
  return { list, count: entries.length, wrong }
}

let proxies: Proxies | null = null

/** The proxies that this server was told of. */
export function useProxies(): Proxies {
  return (proxies ??= proxiesIn(process.env.ORNATE_PHASOR_PROXY ?? ''))
}

/** An address as it is, whatever the form in which it came. */
export function plainAddress(address: string): string {
  const bare = address.trim().replace(/^\[(.*)\](:\d+)?$/, '$1')
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(bare)?.[1]
  const withPort = /^(\d+\.\d+\.\d+\.\d+):\d+$/.exec(bare)?.[1]
  return mapped ?? withPort ?? bare
}

function isProxy(address: string, { list }: Proxies): boolean {
  const family = isIP(address)
  return family !== 0 && list.check(address, family === 6 ? 'ipv6' : 'ipv4')
}

export interface Told {
  readonly socket: string
  readonly encrypted: boolean
  readonly host: string
  readonly forwardedFor: string
  readonly forwardedProto: string
  readonly forwardedHost: string
}

/** Who asks, from what the connection says, and, behind a proxy, from what that says. */
export function visitorFrom(told: Told, trusted: Proxies): Visitor {
  const own = plainAddress(told.socket)
  if (!isProxy(own, trusted)) return { address: own, secure: told.encrypted, hosts: [told.host] }
  // From the last one back: what stands before the first stranger was written by the stranger.
  const way = told.forwardedFor
    .split(',')
    .map(plainAddress)
    .filter((address) => isIP(address) !== 0)
  const stranger = way.findLast((address) => !isProxy(address, trusted))
  const last = (text: string): string => (text.split(',').at(-1) ?? '').trim().toLowerCase()
  const forwarded = last(told.forwardedHost)
  return {
    address: stranger ?? way[0] ?? own,
    secure: told.encrypted || last(told.forwardedProto) === 'https',
    hosts: forwarded === '' ? [told.host] : [told.host, forwarded],
  }
}

export function visitorOf(event: H3Event): Visitor {
  const { socket } = event.node.req
  return visitorFrom(
    {
      socket: socket.remoteAddress ?? '',
      encrypted: 'encrypted' in socket,
      host: getHeader(event, 'host') ?? '',
      forwardedFor: getHeader(event, 'x-forwarded-for') ?? '',
      forwardedProto: getHeader(event, 'x-forwarded-proto') ?? '',
      forwardedHost: getHeader(event, 'x-forwarded-host') ?? '',
    },
    useProxies(),
  )
}
