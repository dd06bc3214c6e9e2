import { kindWords } from './kindWords'
import type { SentencesOf } from './sentencesOf'

/** Of ranges and sweeps. */
export const sweeps = {
  'range-form': (d) => `${d.word} belongs to a range: first to last, with step s, count n or per decade n behind it.`,
  'per-decade': () => 'Points per decade are written per decade n.',
  'range-in-list': (d) => `A range between square brackets could mean two things: vector(${d.text}) is a vector.`,
  'range-end': (d) =>
    `A range runs between real numbers or angles, not ${d.kind === 'number' ? 'a complex number' : kindWords(d.kind)}.`,
  'range-finite': () => 'The ends of a range must be finite.',
  'range-kinds': () => 'A range runs from a number to a number, or from an angle to an angle.',
  'step-kind': () => 'The step of a range is of the same kind as its ends.',
  'count-whole': () => 'The count of a range is a whole number from 2 up.',
  'decade-count': () => 'There must be more than 0 points per decade.',
  'decade-ends': () => 'A range per decade needs both ends above 0.',
  'too-many-points': (d) =>
    `This makes ${d.count} points; at most ${d.limit} are possible. Take a larger step or a smaller count.`,
  'sweeps-differ': (d) =>
    `Two sweeps of unequal length meet here: ${d.left} points along ${d.first}, ${d.right} along ${d.second}.`,
  'sweeps-unrelated': (d) =>
    `Two sweeps of ${d.count} points along different ranges (${d.first}, ${d.second}) meet here point by point.`,
  'point-range': (d) => `Points are counted from 1 to ${d.count} here.`,
  'along-outside': (d) => `${d.points} of the points lie outside of what was measured, where nothing is known.`,
} satisfies SentencesOf
