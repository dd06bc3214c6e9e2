import { table } from '../table'

/** Words of the notation: they cannot be kept as names. */
export const RESERVED: ReadonlySet<string> = new Set([
  'deg', 'rad', 'mod', 'and', 'or', 'not', 'where', 'within', 'unknown', 'sought', 'determine', 'prev', 'for',
]) // prettier-ignore

/** Constants of the notation: they can be read but not kept. */
export const CONSTANTS = table<'pi' | 'e' | 'inf' | 'eps'>({
  pi: 'pi',
  π: 'pi',
  e: 'e',
  inf: 'inf',
  eps: 'eps',
})

/** True for what no line can keep: a word or a constant of the notation. */
export function isReserved(name: string): boolean {
  return RESERVED.has(name) || CONSTANTS.get(name) !== undefined
}

/** SI prefixes (BIPM, The International System of Units, table 7), as powers of ten. */
export const PREFIXES = table<number>({
  T: 12,
  G: 9,
  M: 6,
  k: 3,
  m: -3,
  u: -6,
  µ: -6,
  μ: -6,
  n: -9,
  p: -12,
  f: -15,
})

/** Letters that stand for the decimal mark in IEC 60062 codes, as powers of ten. */
export const CODE_LETTERS = table<number>({
  R: 0,
  K: 3,
  k: 3,
  M: 6,
  G: 9,
  T: 12,
  m: -3,
  u: -6,
  µ: -6,
  μ: -6,
  n: -9,
  p: -12,
})

/** What a word between two operands is called under: nothing that a line could keep. */
export function infixCall(word: string): string {
  return `between ${word}`
}

const GREEK = [
  'alpha', 'beta', 'gamma', 'delta', 'epsilon', 'zeta', 'eta', 'theta', 'iota', 'kappa', 'lambda', 'mu', 'nu', 'xi',
  'rho', 'sigma', 'tau', 'upsilon', 'phi', 'chi', 'psi', 'omega',
  'Gamma', 'Delta', 'Theta', 'Lambda', 'Xi', 'Sigma', 'Phi', 'Psi', 'Omega',
] // prettier-ignore

/** Greek letters by name, as LaTeX writes them. */
export const GREEK_NAMES: ReadonlySet<string> = new Set(GREEK)

const GREEK_LETTERS = table<string>({
  α: 'alpha', β: 'beta', γ: 'gamma', δ: 'delta', ε: 'epsilon', ζ: 'zeta', η: 'eta', θ: 'theta', ι: 'iota',
  κ: 'kappa', λ: 'lambda', μ: 'mu', µ: 'mu', ν: 'nu', ξ: 'xi', ρ: 'rho', σ: 'sigma', τ: 'tau', υ: 'upsilon',
  φ: 'phi', χ: 'chi', ψ: 'psi', ω: 'omega', Γ: 'Gamma', Δ: 'Delta', Θ: 'Theta', Λ: 'Lambda', Ξ: 'Xi', Σ: 'Sigma',
  Φ: 'Phi', Ψ: 'Psi', Ω: 'Omega',
}) // prettier-ignore

/** The LaTeX name of a Greek letter, from the letter or its name; `null` for other names. */
export function greek(name: string): string | null {
  return GREEK_LETTERS.get(name) ?? (GREEK_NAMES.has(name) ? name : null)
}
