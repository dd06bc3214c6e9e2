/** What the head of a column says: its name, its unit, and which part of a complex value it holds. */

export type Role = 're' | 'im' | 'magnitude' | 'dB' | 'angle' | null

export interface Head {
  readonly name: string
  readonly unit: string
  readonly role: Role
  /** The name without the words that say which part it is. */
  readonly stem: string
}

const BASE =
  'Hz|V|A|VA|var|Ω|[oO]hms?|S|F|H|W|s|sec|min|h|m|g|N|Nm|K|T|J|Pa|bar|rad|rad/s|rpm|m/s|m/s²|C|Np|dB[a-zA-Z]{0,3}|sr|lx|lm|cd|Wb|L|l|mol|Bd|bit'
const UNIT = new RegExp(
  `^(?:[fpnumkMGTµμdc]?(?:${BASE})|°[CF]?|deg(?:rees?)?|%|‰|1|-|counts?|cycles?|${BASE.toLowerCase()})(?:[/·*](?:√?${BASE}))?(?:\\^?-?[123²³])?$`,
)

/** True for what is written as the unit of a column. */
export function isImaginary(text: string): boolean {
  return UNIT.test(text.trim())
}

/** Units in one spelling: Ω for ohm, ° for degrees, µ for a typed u. */
export function unitOf(text: string): string {
  const unit = text
    .trim()
    .replace(/\u2126/g, 'Ω')
    .replace(/μ/g, 'µ')
  if (/^deg(?:rees?)?$/i.test(unit)) return '°'
  if (/^[-1]$/.test(unit)) return ''
  const ohm = /^([fpnumkMGTµ]?)ohms?$/i.exec(unit)
  const spelt = ohm ? `${ohm[1] ?? ''}Ω` : unit
  return /^u(?=[A-ZΩ])/.test(spelt) ? `µ${spelt.slice(1)}` : spelt
}

/** Brackets round a unit, where a whole cell is one. */
export function bareUnit(text: string): string {
  return text
    .trim()
    .replace(/^[[(<{]\s*/, '')
    .replace(/\s*[\])>}]$/, '')
}

const ROLES: readonly (readonly [RegExp, Role])[] = [
  [/^(?:re|real)$/i, 're'],
  [/^(?:im|imag|imaginary)$/i, 'im'],
  [/^(?:mag|magnitude|abs|absolute|modulus|amplitude|ampl|amp)$/i, 'magnitude'],
  [/^(?:db)$/i, 'dB'],
  [/^(?:arg|argument|angle|ang|phase|phi|φ|ϕ|theta|θ)$/i, 'angle'],
]

/** Words that add nothing to a name beside its role. */
const FILLING = /^(?:part|of|the|value|deg|degrees|rad)$/i

export function headOf(text: string, unitBelow = ''): Head {
  const bare = text.replace(/^[\s#%!'";]+/, '').trim()
  const { name, unit } = nameAndUnit(bare)
  const own = unitOf(unitBelow === '' ? unit : bareUnit(unitBelow))
  const bars = /^\|(.+)\|$/.exec(name)
  if (bars) return { name, unit: own, role: own === 'dB' ? 'dB' : 'magnitude', stem: (bars[1] ?? '').trim() }
  const words = name.split(/[^\p{L}\p{N}']+/u).filter((word) => word !== '')
  let role: Role = null
  const rest: string[] = []
  for (const word of words) {
    const found: Role = role === null ? (ROLES.find(([form]) => form.test(word))?.[1] ?? null) : null
    if (found) role = found
    else if (!FILLING.test(word)) rest.push(word)
  }
  // Z' and Z'' are the parts of an impedance; ∠Z is its angle.
  const primes = /^(.*?)('{1,2})$/.exec(name)
  if (role === null && primes) role = primes[2] === "''" ? 'im' : 're'
  if (name.startsWith('∠')) role = 'angle'
  if (/^dB/.test(own) && (role === null || role === 'magnitude')) role = 'dB'
  if (role === null && (own === '°' || own === 'rad') && words.length > 0) role = 'angle'
  const stem = primes && rest.length <= 1 ? (primes[1] ?? '').trim() : stemIn(name, rest)
  return { name, unit: own, role, stem }
}

/** The name as it is written, but for the words that were taken out: `M[1]` stays so in `re(M[1])`. */
function stemIn(name: string, rest: readonly string[]): string {
  const inner = /^\p{L}+\s*[({[]\s*(.+?)\s*[)}\]]$/u.exec(name)
  const role = ROLES.some(([form]) => form.test(name.split(/[^\p{L}]/u)[0] ?? ''))
  return inner && role ? (inner[1] ?? '') : rest.join('_')
}

function nameAndUnit(text: string): { name: string; unit: string } {
  const bracket = /^(.*?)\s*(?:\(([^()]*)\)|\[([^[\]]*)\]|<([^<>]*)>)$/.exec(text)
  if (bracket) {
    const unit = bracket[2] ?? bracket[3] ?? bracket[4] ?? ''
    if ((bracket[1] ?? '') !== '' && !/^\d/.test(unit) && (isImaginary(unit) || unit === ''))
      return { name: (bracket[1] ?? '').trim(), unit }
  }
  const slash = /^(.*\S)\s*\/\s*(\S+(?:\/\S+)?)$/.exec(text)
  if (slash && (isImaginary(slash[2] ?? '') || / \/ /.test(text)))
    return { name: (slash[1] ?? '').trim(), unit: slash[2] ?? '' }
  const other = /^(.*\S)\s*(?:,| in )\s*(\S+)$/.exec(text)
  if (other && isImaginary(other[2] ?? '')) return { name: (other[1] ?? '').trim(), unit: other[2] ?? '' }
  return { name: text, unit: '' }
}

/** True where two columns side by side are one complex value. */
export function belongTogether(a: Head, b: Head): 'RI' | 'MA' | 'DB' | null {
  const stems = [a.stem, b.stem].map((stem) => stem.toLowerCase())
  const [first, second] = stems
  const alike = first === second || first === '' || second === '' || (a.role === 'dB' && b.role === 'angle')
  if (!alike) return null
  if (a.role === 're' && b.role === 'im') return 'RI'
  if (b.role !== 'angle') return null
  return a.role === 'magnitude' ? 'MA' : a.role === 'dB' ? 'DB' : null
}

const BY_UNIT: readonly (readonly [RegExp, string])[] = [
  [/Ω$/, 'Z'],
  [/V$/, 'V'],
  [/A$/, 'I'],
  [/S$/, 'Y'],
  [/^dB/, 'H'],
]

/** A name for a value of two columns. */
export function joinedName(a: Head, b: Head): string {
  const stem = a.stem !== '' ? a.stem : b.stem
  return stem !== '' ? stem : (BY_UNIT.find(([unit]) => unit.test(a.unit))?.[1] ?? 'z')
}
