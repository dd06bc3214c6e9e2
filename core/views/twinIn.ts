import type { Conventions } from '../format/conventions'
import type { Twin } from '../format/readout'
import { readout } from '../kinds/kinds'
import type { Complex } from '../numbers/complex'
import { parsed } from '../units/unit'
import { complexNumber } from '../values/make'
import { quantity } from '../values/quantity'

/** A place of a plane in both forms, with the unit that its coordinates are in and the prefix that fits; empty for none. */
export function twinIn(z: Complex, unit: string, conventions: Conventions): Twin {
  const measure = parsed(unit)?.measure
  const number = complexNumber(z)
  const shown = readout(measure ? quantity(number, measure) : number, conventions)
  if (shown.shape !== 'twin') return { rectangular: shown.shape === 'words' ? shown.text : '', polar: '' }
  const behind = shown.unit ? ` ${shown.unit}` : ''
  return { rectangular: `${shown.rectangular}${behind}`, polar: `${shown.polar}${behind}` }
}
