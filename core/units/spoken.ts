import * as Q from '../numbers/rational'
import { parsed, sidesOf } from './unit'
import type { UnitPart } from './unit'

/** A unit as it is said: `kiloohm`, `metre per second squared`. */
export function spokenUnit(text: string): string {
  const unit = parsed(text)
  if (!unit) return text
  const { above, below } = sidesOf(unit.parts)
  return [above.map(said).join(' '), below.length > 0 ? `per ${below.map(said).join(' ')}` : '']
    .filter((part) => part !== '')
    .join(' ')
}

function said({ unit, power }: UnitPart): string {
  const exponent = Q.toText(power)
  if (exponent === '1') return unit.name
  if (exponent === '2') return `${unit.name} squared`
  return exponent === '3' ? `${unit.name} cubed` : `${unit.name} to the power ${exponent}`
}
