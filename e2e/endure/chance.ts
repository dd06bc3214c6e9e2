/** Chance that can be repeated: the same seed gives the same run (A. Appleby's mixing, as in mulberry32). */
export class Chance {
  private state: number

  constructor(readonly seed: number) {
    this.state = seed >>> 0
  }

  /** At least 0, below 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0
    let x = this.state
    x = Math.imul(x ^ (x >>> 15), x | 1)
    x ^= x + Math.imul(x ^ (x >>> 7), x | 61)
    return ((x ^ (x >>> 14)) >>> 0) / 2 ** 32
  }

  below(count: number): number {
    return Math.floor(this.next() * count)
  }

  between(low: number, high: number): number {
    return low + this.next() * (high - low)
  }

  /** One of several, by their weights. */
  pick<T>(choices: readonly (readonly [weight: number, choice: T])[]): T {
    let at = this.next() * choices.reduce((sum, [weight]) => sum + weight, 0)
    for (const [weight, choice] of choices) {
      at -= weight
      if (at < 0) return choice
    }
    throw new Error('there is nothing to pick from')
  }
}

/** The seed of this run: given, or made and printed. */
export function seedOf(name: string): number {
  const given = process.env.ORNATE_PHASOR_SEED
  const seed = given === undefined ? Math.floor(Math.random() * 2 ** 31) : Number(given)
  process.stdout.write(`${name}: seed ${seed} (repeat with ORNATE_PHASOR_SEED=${seed})\n`)
  return seed
}

/** How long a scenario goes on, in seconds: short in `npm test`, long in `npm run endure`. */
export function seconds(short: number): number {
  const minutes = Number(process.env.ORNATE_PHASOR_ENDURE ?? 0)
  return minutes > 0 ? minutes * 60 : short
}
