import { table } from '../table'
import { FULL_NAMES, plainSpelling, PREFIXES, STEMS, takes, unitSymbol } from './symbols'
import type { Prefix, Stem } from './symbols'

/** Why a word is no unit. */
export type SlipWhy = 'case' | 'plural' | 'revolutions' | 'decibel' | 'prefix' | 'short' | 'product' | 'seconds'

/** Spellings that are not units here, with the symbol that is meant and why it is not written so. */
export interface Slip {
  /** The likeliest; empty where there is none. */
  readonly meant: string
  readonly why: SlipWhy
  /** Others that it can as well have been. */
  readonly also?: readonly string[]
}

const SLIPS = table<Slip>({
  rpm: { meant: 'r/min', why: 'revolutions' },
  RPM: { meant: 'r/min', why: 'revolutions' },
  rps: { meant: 'r/s', why: 'revolutions' },
  U: { meant: 'r/min', why: 'revolutions' },
  dB: { meant: '', why: 'decibel' },
  sec: { meant: 's', why: 'short' },
  secs: { meant: 's', why: 'short' },
  hr: { meant: 'h', why: 'short' },
  hrs: { meant: 'h', why: 'short' },
  mins: { meant: 'min', why: 'short' },
  amp: { meant: 'A', why: 'short' },
  amps: { meant: 'A', why: 'short' },
  Amp: { meant: 'A', why: 'short' },
  Amps: { meant: 'A', why: 'short' },
  meter: { meant: 'm', why: 'short' },
  meters: { meant: 'm', why: 'short' },
  mho: { meant: 'S', why: 'short' },
  L: { meant: 'l', why: 'case' },
  VAr: { meant: 'var', why: 'case' },
  VAR: { meant: 'var', why: 'case' },
  kVAr: { meant: 'kvar', why: 'case' },
  kVAR: { meant: 'kvar', why: 'case' },
  cyc: { meant: 'Hz', why: 'short' },
  rev: { meant: 'r', why: 'revolutions' },
})

/** What a word behind a number was probably meant for; `null` where nothing is near. */
export function unitSlip(text: string): Slip | null {
  const known = SLIPS.get(text)
  if (known) return known
  const plain = plainSpelling(text)
  if (PREFIXES.some(({ symbol, typed }) => symbol === plain || typed === plain)) return { meant: '', why: 'prefix' }
  const lower = plain.toLowerCase()
  const single = lower.endsWith('s') ? lower.slice(0, -1) : null
  if (single !== null && FULL_NAMES.has(single)) return { meant: unitSymbol(single)?.symbol ?? '', why: 'plural' }
  if (FULL_NAMES.has(lower)) return { meant: unitSymbol(lower)?.symbol ?? '', why: 'case' }
  return ohms(plain) ?? product(plain) ?? seconds(plain) ?? spelledPrefix(plain) ?? otherCase(plain)
}

/** `kohms`: symbols have no plural. */
function ohms(text: string): Slip | null {
  const one = /ohms$/i.test(text) ? unitSymbol(text.slice(0, -4) + 'ohm') : null
  return one && { meant: one.symbol, why: 'plural' }
}

/** `microF`, `milliH`: a prefix that is written out. */
function spelledPrefix(text: string): Slip | null {
  const prefix = PREFIXES.find(({ name }) => text.toLowerCase().startsWith(name))
  const unit = prefix && unitSymbol(`${prefix.symbol}${text.slice(prefix.name.length)}`)
  return unit ? { meant: unit.symbol, why: 'short' } : null
}

/** `Nm`, `kVs`: two units that lack the sign between them. */
function product(text: string): Slip | null {
  for (let k = 1; k < text.length; k += 1) {
    const [one, other] = [unitSymbol(text.slice(0, k)), unitSymbol(text.slice(k))]
    if (one && other && FACTORS.has(one.stem) && FACTORS.has(other.stem) && other.prefix === 0)
      return { meant: `${one.typed}*${other.typed}`, why: 'product' }
  }
  return null
}

/** Units that stand in products of the trade: N·m, V·s, A·s, W·s, Ω·m. */
const FACTORS: ReadonlySet<string> = new Set(['N', 'V', 'A', 'W', 'VA', 'Ω', 'm', 's'])

/** `ks`, `Ms`: a second has no prefix above 1, and is not a siemens. */
function seconds(text: string): Slip | null {
  const prefix = /^[kKMGT]s$/.test(text) ? text.charAt(0).replace('K', 'k') : null
  return prefix === null ? null : { meant: `${prefix} s`, why: 'seconds' }
}

/**
 * The same letters in another case. A prefix stays the one that was typed, wherever it is one: mv is mV, and never a
 * thousand million times as much.
 */
function otherCase(text: string): Slip | null {
  const found: { readonly symbol: string; readonly rank: number }[] = []
  for (const stem of STEMS) {
    const rank = likeness(text, stem)
    if (rank !== null) found.push({ symbol: stem.symbol, rank: rank + 1 })
    for (const prefix of PREFIXES) {
      const before = startsWith(text, prefix)
      const inner = before === null ? null : likeness(text.slice(prefix.typed.length), stem)
      if (before !== null && inner !== null && takes(stem, prefix))
        found.push({ symbol: `${prefix.symbol}${stem.symbol}`, rank: 2 * inner + before })
    }
  }
  const [best, ...others] = found.sort((a, b) => a.rank - b.rank).map(({ symbol }) => symbol)
  return best === undefined ? null : { meant: best, why: 'case', also: [...new Set(others)].filter((o) => o !== best) }
}

/** 0 where a text is the symbol, 1 where it is it in other letters, `null` of others. */
function likeness(text: string, { symbol, typed = symbol }: Stem): 0 | 1 | null {
  if (text === symbol || text === typed) return 0
  return text.toLowerCase() === symbol.toLowerCase() || text.toLowerCase() === typed.toLowerCase() ? 1 : null
}

/** 0 where a text begins with the prefix, 1 where it does in the other case and that is no prefix itself. */
function startsWith(text: string, { symbol, typed }: Prefix): 0 | 1 | null {
  const start = text.slice(0, typed.length)
  if (start === symbol || start === typed) return 0
  if (start.toLowerCase() !== typed.toLowerCase()) return null
  return PREFIXES.some((other) => other.symbol === start || other.typed === start) ? null : 1
}
