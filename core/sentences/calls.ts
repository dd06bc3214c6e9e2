import { kindWords, neededWords } from './kindWords'
import type { ProblemData } from '../values/problemData'
import type { SentencesOf } from './sentencesOf'

/** Of functions, operators and kinds. */
export const calls = {
  'argument-count': (d) =>
    `It is called as ${d.signature}, but ${d.given === 0 ? 'no argument is' : d.given === 1 ? 'one argument is' : `${d.given} arguments are`} given.`,
  'argument-kind': (d) => `In ${d.signature}, ${d.name} must be ${neededWords(d.needs)}, not ${given(d)}.`,
  'log-base': () => 'The base of log is not said. Write ln for base e, lg for base 10, or log(x, base).',
  'inverse-unclear': (d) => `${d.name}^-1 could mean the inverse function or one over ${d.name}. Choose one.`,
  'wrong-kinds': (d) => `${kindWords(d.left)} ${d.sign} ${kindWords(d.right)} has no meaning.`.replace(/^a/, 'A'),
  'wrong-kind': (d) => `${d.what} cannot be applied to ${kindWords(d.kind)}.`,
  'real-needed': (d) => `${d.operator} needs real numbers.`,
  'angle-with-complex': (d) =>
    `An angle ${d.sign} a complex number has no meaning. Write 1∠θ for a number of that direction.`,
  'magnitude-real': (d) => `The magnitude on the left of ∠ must be a real number, not ${kindWords(d.kind)}.`,
  'angle-real': (d) =>
    `An angle must be real; this is ${kindWords(d.kind)}${d.kind === 'number' ? ' with an imaginary part' : ''}.`,
  'angle-twice': () => 'This already is an angle with a unit.',
  'minutes-range': () => 'Minutes and seconds of an angle are less than 60.',
  'transpose-number': (d) => `${d.sign} is a kept name, so ^${d.sign} could be a power or the transpose. Choose one.`,
  'truth-needed': (d) => `A comparison is needed here, not ${kindWords(d.kind)}.`,
  'not-comparable': (d) => `${kindWords(d.left)} and ${kindWords(d.right)} cannot be compared.`.replace(/^a/, 'A'),
  'no-order': () => 'Complex numbers have no order: compare their magnitudes, real or imaginary parts.',
  domain: (d) => `${d.name} needs ${d.needs}.`,
  tolerance: () => 'Behind within stands a real number or an angle that is not negative, or a percentage.',
  'tolerance-angle': () =>
    'An angle bounds the difference of angles; these are numbers. Give the tolerance as a number or a percentage.',
  'too-large': () => 'The result is too large for a number of this application (over 1.8e308).',
  stopped: () => 'This line was stopped. Edit it, or run it again.',
  'too-long': () => 'This line takes too many steps and was stopped.',
  postponed: () => 'This line takes long: it is reckoned when the quicker ones are done.',
  'no-room': (d) =>
    `This would hold ${d.has} million numbers; the lines of a folio hold at most ${d.most} million together. Take fewer points, here or in another line.`,
  'too-deep-calls': () => 'Functions call each other too deeply here.',
  'not-at-points': (d) => `A sweep cannot have ${kindWords(d.kind)} at its points.`,
} satisfies SentencesOf

function given({ kind, needs }: Readonly<ProblemData['argument-kind']>): string {
  const complexForReal = kind === 'number' && (needs === 'real' || needs === 'real or angle')
  if (complexForReal) return 'a complex number'
  return kind === 'number' && needs === 'whole' ? 'a number with a fraction' : kindWords(kind)
}
