import type { SentencesOf } from './sentencesOf'

/** Of what is right to read and was perhaps not meant so. */
export const hints = {
  'negative-power': (d) => `${d.text} is the negative of the power. For a power of −${d.base} write (−${d.base}).`,
  'implicit-after-quotient': (d) => `${d.text} is read from the left, as (${d.top}/${d.digits})·${d.tail}.`,
  'quotient-imaginary': (d) => `${d.bottom} counts as one number here: this divides by ${d.bottom}.`,
  'prefix-power': (d) => `The power takes the prefix with it: this is (${d.base}) to the power.`,
  'changes-reading': (d) =>
    `Because ${d.name} is a name now, ${d.lines} ${d.lines.includes('and') || d.lines.includes(',') ? 'read' : 'reads'} it as a factor behind digits.`,
  'unit-shadowed': (d) => `${d.name} is a kept name here, not the imaginary unit.`,
  'prefix-shadowed': (d) => `${d.name} is a kept name, so ${d.text} is ${d.digits} times ${d.name}.`,
  'parallel-quotient': (d) => `The quotient ${d.text} is formed first and then put in parallel.`,
  'angle-sign': (d) => `${d.text} is a comparison. For magnitude and angle write ∠.`,
  'angle-plus-number': () => 'The bare number beside an angle is read in the unit of the conventions.',
  'exponent-radians': (d) => `The exponent of e is in radians: this is ${d.value} rad. For degrees write ${d.value}°.`,
  'multiple-of-pi-in-degrees': () =>
    'This argument is a multiple of π but is read in degrees. Write rad behind it if radians are meant.',
  'round-degrees-in-radians': (d) => `${d.value} is read as radians. Write ${d.value}° if degrees are meant.`,
  'degrees-twice': () => 'An angle is already free of its unit: the factor 180/π is not needed.',
  'degrees-of-degrees': () =>
    'A bare number is read in degrees here already: degrees( ) gives it back as it is. Write rad behind it if radians are meant.',
  'radians-of-radians': () =>
    'A bare number is read in radians here already: radians( ) gives it back as it is. Write ° behind it if degrees are meant.',
  'equals-rounded': () =>
    'These values are rounded, so == can fail by the last digit. A check with ~~ says how far they agree.',
  redefined: (d) => `${d.name} is also defined in line ${d.line}; from here on this line counts.`,
  'infinite-result': () => 'A division by zero gives ∞.',
  'undefined-result': () => 'There is no value here: a division 0/0, or ∞ − ∞, has no result.',
} satisfies SentencesOf
