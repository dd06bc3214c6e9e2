import type { SentencesOf } from './sentencesOf'

/** Of reading a line. */
export const reading = {
  'line-too-long': (d) => `This line is longer than ${d.limit} characters. Split it into several lines.`,
  'missing-operator': (d) => `An operator is missing between ${d.left} and ${d.right}.`,
  unfinished: (d) => (d.after ? `Something is still missing after ${d.after}.` : 'Something is still missing here.'),
  unclosed: (d) =>
    `The bracket ${d.bracket} opened at character ${d.open} is not closed: ${d.missing} is missing here.`,
  unbalanced: (d) => `This ${d.bracket} closes nothing: no bracket is open here.`,
  'operand-expected': (d) => `A value is missing before ${d.found}.`,
  'odd-character': (d) =>
    d.character === ';'
      ? 'Every entry has a line of its own: nothing is parted by ; here.'
      : `The sign ${d.character} has no meaning here.`,
  'text-too-long': (d) => `This text would have more than ${d.limit} characters.`,
  'text-not-closed': () => 'This text has no closing quotation mark.',
  'not-definable': (d) => `${d.left} cannot be given a value: on the left of = stands one name, as in x = …`,
  'nothing-defined': () => 'A name is missing on the left of =.',
  'second-equals': () => 'A line defines one name with one =. To compare two values write ==.',
  'check-inside': () => 'A check ≈ stands once in a line, between its two sides.',
  'names-comma': (d) => `A comma stands between names, as between ${d.left} and ${d.right}.`,
  'stray-comma': () => 'A comma only separates the arguments of a function. The decimal mark is a point.',
  'too-many-terms': (d) => `This line has more than ${d.limit} terms. Keep parts of it under names of their own.`,
  'too-deep': (d) => `This is nested more than ${d.limit} deep. Keep parts of it under names of their own.`,
  'angle-bracketing': (d) => `${d.text} can be read in two ways. Choose one with brackets.`,
  'power-bracketing': (d) => `It is not clear how much of ${d.text} is the exponent. Choose one.`,
  'second-angle': () => 'A value has one angle only: a second ∠ cannot follow.',
  'bars-unclear': () =>
    'Inside bars || is unclear. Write a space on both sides for a parallel combination, or * for a product.',
} satisfies SentencesOf
