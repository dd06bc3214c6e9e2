import type { Slip } from '../units/slips'
import type { SentencesOf } from './sentencesOf'

/** Of units. */
export const units = {
  'unit-expected': () => 'A unit is missing behind in, as in: in kW.',
  'unit-bracketing': (d) => `${d.text} can be read in two ways. Choose one with brackets.`,
  'unit-or-product': (d) => `In ${d.text}, ${d.name} is a name as well as a unit. Choose what is meant.`,
  'unit-brackets': (d) => `${d.text} has more than one thing below the slash: put them in brackets.`,
  'unit-needs-space': (d) => `${d.text} is not known. A unit stands behind a space: ${d.unit}.`,
  'unit-slip': (d) => SLIPS[d.why](d.name, d.meant),
  'unit-celsius': () =>
    'Degrees of temperature count from another zero and are no unit to reckon with. Write it in K: 20 °C are 293.15 K.',
  'unit-effective': (d) =>
    `A unit says nothing of ${d.word}: keep it in the name, as in V_${d.word}, and write the unit alone.`,
  'unit-twice': (d) => `This has a unit already; ${d.unit} cannot be put behind it.`,
  'unit-on': (d) => `A unit belongs to a number, not to ${kindText(d.kind)}.`,
  'unit-missing': (d) => `A number without a unit and ${d.quantity} cannot be ${d.joining}. Write its unit: ${d.unit}?`,
  'unit-unknown': (d) =>
    `${d.name} has no unit, and so these do not go together. Declare it with one: unknown ${d.name} in ${d.unit}?`,
  'units-differ': (d) =>
    `${d.left && d.right ? `${d.left} and ${d.right}` : 'These'} cannot be ${d.joining}: one is ${d.one}, the other ${bareOf(d.one, d.other)}.`,
  'rate-and-cycles': (d) =>
    `An angle rate and a frequency cannot be ${d.joining}: they differ by the factor 2π. Multiply the frequency by 2π, or divide the rate by it.`,
  'per-second-and-cycles': (d) =>
    `A value in s⁻¹ and a frequency cannot be ${d.joining}: one over R·C counts radians, which are 2π times as many; one over a period counts turns.`,
  'unit-entry': (d) => `The entries in row ${d.row}, column ${d.col} do not go together: ${d.one} and ${d.other}.`,
  'unit-fit': (d) =>
    `The unit of the entry in row ${d.row}, column ${d.col} does not fit those of its row and its column.`,
  'unit-product': (d) =>
    `The units do not fit: column ${d.col} on the left and row ${d.col} on the right do not go together as the others do.`,
  'unit-square': (d) => `The units of rows and columns differ, so that ${d.what} of this matrix has none.`,
  'unit-exponent': (d) => `An exponent is a plain number; this is ${d.quantity}.`,
  'unit-power': (d) =>
    `A value in ${d.unit || 'units'} takes a whole or broken number as its exponent, so that the unit of the result is known.`,
  'unit-plain': (d) => `${d.name} needs a plain number; this is ${d.quantity}.`,
  'unit-angle': (d) => `${d.name} needs an angle or a plain number; this is ${d.quantity}.`,
  'unit-alike': (d) => `${d.name} needs values of one unit: one is ${d.one}, the other ${bareOf(d.one, d.other)}.`,
  'unit-asked': (d) => `This cannot be shown in ${d.unit}, which is for ${d.asked}: it is ${d.is}.`,
  'unit-per-second': (d) =>
    `This is a value in s⁻¹ of which it is not known whether it counts radians or turns: it cannot be shown in ${d.unit}.`,
  'unit-whole': (d) =>
    `${d.name} of a value in ${d.unit} depends on the unit. Say to what it is rounded, as in round(x, 0.1 ${d.unit}).`,
  'unit-range': (d) =>
    `A range runs between values of one unit: one end is ${d.one}, the other ${bareOf(d.one, d.other)}.`,
  'radians-mixed': () =>
    'A number without a unit stands beside radians here. Write ° or rad behind it, so that it is clear which angle it is.',
  'unit-hides-name': (d) => `${d.text} is read with the unit ${d.name}, though ${d.name} is a kept name.`,
  'name-without-unit': (d) =>
    `${d.name} is the plain number ${d.value} beside ${d.quantity}: write ${d.value} ${d.unit}?`,
  'power-by-cycles': (d) =>
    `${d.text} counts turns: power by it is the energy of one turn. A torque is power by the angle rate 2π·${d.text}.`,
  'watts-and-vars': () => 'Active and reactive power are not added as numbers: S = P + j·Q, and |S| = sqrt(P^2 + Q^2).',
  'near-pi': (d) =>
    `${d.text} is not ${d.turns === 'pi' ? 'π' : '2π'}: as a number it turns no frequency into an angle rate, nor back. Write ${d.turns}.`,
  'cycles-for-rate': (d) => `${d.text} is a frequency; the angle rate is 2π·${d.text}. Multiply by 2π?`,
  'decibel-of-powers': () => 'dB takes 20·lg, for amplitudes. Of a quotient of powers it is 10·lg.',
} satisfies SentencesOf

const SLIPS = {
  case: (name, meant) => `${name} is not a unit: large and small letters differ. Did you mean ${meant}?`,
  product: (name, meant) => `${name} is not a unit: a product is written ${meant}.`,
  seconds: (name, meant) =>
    `${name} is not a unit: a second takes no prefix above 1. Write it at the digits, as in 2${meant}.`,
  plural: (name, meant) => `${name} is not a unit: names of units stay in the singular. Did you mean ${meant}?`,
  short: (name, meant) => `${name} is not the symbol of a unit. Did you mean ${meant}?`,
  revolutions: (name, meant) => `${name} is written ${meant} here.`,
  decibel: () => 'dB is no unit here: a level is a plain number. from_dB(…) gives the ratio.',
  prefix: (name) => `${name} is a prefix: it stands at the digits, as in 4.7${name}, or before a unit.`,
} satisfies Readonly<Record<Slip['why'], (name: string, meant: string) => string>>

/** `a voltage`, and beside it `a current`; `a voltage`, and beside it `the same` where both are called alike. */
function bareOf(one: string, other: string): string {
  return one === other ? `${other} of another sort` : other
}

function kindText(kind: string): string {
  return kind === 'text' || kind === 'truth' ? `a ${kind}` : `what this is (${kind})`
}
