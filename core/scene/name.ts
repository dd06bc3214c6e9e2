import { greek } from '../notation/words'

/** A name in two pieces for a drawn label: `I_lamp` is I with lamp below, `omega` is ω. */
export interface DrawnName {
  readonly base: string
  readonly below: string
}

const LETTERS: Readonly<Record<string, string>> = {
  alpha: 'α', beta: 'β', gamma: 'γ', delta: 'δ', epsilon: 'ε', zeta: 'ζ', eta: 'η', theta: 'θ', iota: 'ι', kappa: 'κ',
  lambda: 'λ', mu: 'μ', nu: 'ν', xi: 'ξ', rho: 'ρ', sigma: 'σ', tau: 'τ', upsilon: 'υ', phi: 'φ', chi: 'χ', psi: 'ψ',
  omega: 'ω', Gamma: 'Γ', Delta: 'Δ', Theta: 'Θ', Lambda: 'Λ', Xi: 'Ξ', Sigma: 'Σ', Phi: 'Φ', Psi: 'Ψ', Omega: 'Ω',
} // prettier-ignore

/** An entry `p[2]` has its number below: p with 2. */
export function drawnName(label: string): DrawnName {
  const entry = /^(.*)\[(\d+)\]$/.exec(label)
  const name = entry?.[1] ?? label
  const [head = '', ...rest] = name.split('_')
  const digits = /^(.*?[^\d])(\d+)$/.exec(head)
  const stem = digits?.[1] ?? head
  const letter = greek(stem)
  const base = (letter && LETTERS[letter]) ?? stem
  return { base, below: [digits?.[2] ?? '', ...rest, entry?.[2] ?? ''].filter((part) => part !== '').join(',') }
}

/** A name in one piece, with its letter as it is drawn: `zeta` is ζ, `omega_n` is ω_n. */
export function inOnePiece(name: string): string {
  const stem = /^[A-Za-z]+/.exec(name)?.[0] ?? ''
  const letter = greek(stem)
  return `${(letter && LETTERS[letter]) ?? stem}${name.slice(stem.length)}`
}
