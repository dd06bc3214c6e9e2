import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'

/** Wrong passphrases of one address before the next ones have to wait. */
const FREE = 5
const WAIT_FIRST = 1_000
/** As long as an attempt may be held before it is looked at. */
const WAIT_MOST = 20_000
/** Attempts of one address that wait together; more are asked to come again. */
const HELD_MOST = 12
/** After so long without a wrong one an address begins anew. */
const FORGOTTEN_AFTER = 3_600_000
const ADDRESSES_MOST = 10_000

interface Attempts {
  wrong: number
  until: number
  held: number
  last: number
}

export type Verdict =
  | { readonly status: 'right' }
  /** Wrong, and how long the next one from there is held. */
  | { readonly status: 'wrong'; readonly seconds: number }
  /** Not looked at: too many from there wait already. */
  | { readonly status: 'wait'; readonly seconds: number }

/**
 * Looks at passphrases. Only wrong ones count, each address for itself: after
 * some of them the next attempts from there are held, longer and longer, and
 * looked at then. So the right one is let in, if late, whoever guesses beside
 * it, and who guesses from one address holds up no other.
 */
export class Gate {
  /** Both sides are hashed with a key of this process: comparing tells nothing of the passphrase. */
  private readonly key = randomBytes(32)
  private readonly right: Buffer
  private readonly attempts = new Map<string, Attempts>()

  constructor(
    passphrase: string,
    private readonly now: () => number = Date.now,
    private readonly rest: (time: number) => Promise<void> = (time) => new Promise((done) => setTimeout(done, time)),
  ) {
    this.right = this.hash(passphrase)
  }

  private hash(text: string): Buffer {
    return createHmac('sha256', this.key).update(text).digest()
  }

  async look(passphrase: string, address: string): Promise<Verdict> {
    const place = placeOf(address)
    const before = this.attempts.get(place)
    const wait = (before?.until ?? 0) - this.now()
    if (before && wait > 0) {
      if (before.held >= HELD_MOST) return { status: 'wait', seconds: Math.ceil(wait / 1000) }
      before.held += 1
      await this.rest(wait)
      before.held -= 1
    }
    if (timingSafeEqual(this.hash(passphrase), this.right)) return { status: 'right' }
    return { status: 'wrong', seconds: Math.ceil(this.count(place) / 1000) }
  }

  /** Counts a wrong one; gives back how long the next one is held. */
  private count(place: string): number {
    const now = this.now()
    const known = this.attempts.get(place)
    const fresh = { wrong: 0, until: 0, held: known?.held ?? 0, last: now }
    const attempts = known && (now - known.last < FORGOTTEN_AFTER || known.held > 0) ? known : fresh
    attempts.wrong += 1
    attempts.last = now
    const beyond = attempts.wrong - FREE
    const wait = beyond < 0 ? 0 : Math.min(WAIT_MOST, WAIT_FIRST * 2 ** Math.min(beyond, 10))
    attempts.until = Math.max(attempts.until, now + wait)
    this.attempts.delete(place)
    this.attempts.set(place, attempts)
    if (this.attempts.size > ADDRESSES_MOST) this.attempts.delete(this.attempts.keys().next().value ?? '')
    return wait
  }
}

/** Of the newer addresses the network: whoever has one has 2^64 of them (RFC 4291). */
function placeOf(address: string): string {
  if (!address.includes(':')) return address
  const [head = '', tail] = address.split('%')[0]?.split('::') ?? []
  const front = head.split(':').filter((part) => part !== '')
  const back = (tail ?? '').split(':').filter((part) => part !== '')
  const middle = Array.from({ length: Math.max(0, 8 - front.length - back.length) }, () => '0')
  return [...front, ...middle, ...back].slice(0, 4).join(':')
}
