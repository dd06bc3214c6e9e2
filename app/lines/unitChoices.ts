import type { Completion } from '@codemirror/autocomplete'
import { UNIT_SYMBOLS } from '#core/units/symbols'
import { parsed } from '#core/units/unit'

/** Units that fit where one is typed: after a number, a bracket or a blank behind them. */

/** What a name stands for in the trade, with the units it is given in (IEC 60027-1), the likeliest first. */
const BY_NAME: readonly (readonly [RegExp, readonly string[]])[] = [
  [/^[RXZ]/, ['ohm', 'kohm', 'Mohm']],
  [/^L/, ['mH', 'uH', 'H']],
  [/^C/, ['uF', 'nF', 'pF']],
  [/^[VUvu]/, ['V', 'mV', 'kV']],
  [/^[Ii]/, ['A', 'mA', 'uA']],
  [/^f/, ['Hz', 'kHz', 'MHz']],
  [/^(?:w|ω|omega)/, ['rad/s', 'r/min', '°/s']],
  [/^(?:t|T|tau|τ)(?:_|$)/, ['s', 'ms', 'us']],
  [/^P/, ['W', 'kW', 'mW']],
  [/^S/, ['VA', 'kVA', 'S']],
  [/^Q/, ['var', 'kvar', 'C']],
  [/^F/, ['N', 'kN']],
  [/^M/, ['N*m', 'kN*m']],
  [/^[GY]/, ['S', 'mS']],
  [/^[lsrhd]/, ['m', 'mm', 'km']],
  [/^m/, ['kg', 'g']],
]
const USUAL: readonly string[] = ['V', 'A', 'ohm', 'Hz', 's', 'W']

/** A number, or the end of a bracket, that a unit can follow. */
const READY = /(?:^|[^\p{L}\p{Nd}_.])(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?[fpnuµmkMGT]?[ij]?\s*$|[)\]|°]\s*$/u

/** The units of the same dimension as one that stands in the entry already. */
function likeThose(text: string): readonly string[] {
  const written = [...text.matchAll(/[\d)\]]\s+((?:[\p{L}Ω°µ]+)(?:[*/·](?:[\p{L}Ω°µ]+))*)/gu)].at(-1)?.[1]
  const unit = written === undefined ? null : parsed(written)
  if (!unit || written === undefined) return []
  const others = UNIT_SYMBOLS.filter(
    ({ measure, symbol, typed, prefix }) =>
      measure.dimension === unit.measure.dimension && symbol !== written && typed !== written && prefix % 3 === 0,
  )
  const usual = others.toSorted((a, b) => Math.abs(a.prefix) - Math.abs(b.prefix) || a.prefix - b.prefix)
  return [written, ...usual.map(({ typed }) => typed).slice(0, 2)]
}

/** Units for the key strip, as they are typed; none where no unit can follow. */
export function unitsFor(text: string): readonly string[] {
  if (text.includes('#') || !READY.test(text)) return []
  const like = likeThose(text)
  if (like.length > 0) return like
  const name = /^\s*([\p{L}_][\p{L}\p{Nd}_]*)\s*=/u.exec(text)?.[1]
  return BY_NAME.find(([pattern]) => name !== undefined && pattern.test(name))?.[1] ?? USUAL
}

/** As it is written: `kohm` is kΩ. */
export function unitSign(typed: string): string {
  return parsed(typed)?.text ?? typed
}

/** True where the word that begins at a place stands behind a number and a blank. */
export function isUnitPlace(before: string): boolean {
  return /\s$/.test(before) && READY.test(before)
}

/** All units, for completion: the electrical ones first, those without a prefix before the others. */
const order = [...new Set(UNIT_SYMBOLS.map(({ stem }) => stem))]
export const unitCompletions: readonly Completion[] = UNIT_SYMBOLS.filter(({ symbol }) => /^\p{L}/u.test(symbol)).map(
  ({ symbol, typed, name, prefix, stem }) => ({
    label: typed,
    detail: symbol === typed ? name : `${symbol} ${name}`,
    boost: 60 - order.indexOf(stem) - Math.abs(prefix) / 3,
  }),
)
