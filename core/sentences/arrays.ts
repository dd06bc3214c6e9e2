import { kindWords } from './kindWords'
import type { SentencesOf } from './sentencesOf'

/** Of vectors, matrices and rows of values. */
export const arrays = {
  'vectors-in-list': () =>
    'Vectors cannot be entries of a list. Write beside(u, v) for columns next to one another, beneath(u, v) for one below the other.',
  'rows-differ': (d) => `Row ${d.row} has ${d.found}, but the row above it has ${d.expected}.`,
  'blocks-differ': (d) =>
    `The blocks of row ${d.row} have ${d.left} and ${d.right} rows; they must have the same number.`,
  'entries-are-numbers': (d) => `The entries of a matrix are numbers, not ${kindWords(d.kind)}.`,
  'shapes-differ': (d) =>
    `${d.left} ${d.sign} ${d.right}: both sides must have the same number of rows and of columns.`,
  'shapes-product': (d) =>
    `${d.left} times ${d.right} does not fit: the ${d.cols} columns on the left must be as many as the ${d.rows} rows on the right.`,
  'not-square': (d) => `${d.name} needs a square matrix; this one is ${d.shape}.`,
  singular: (d) => `This matrix is singular: it has no ${d.what}.`,
  'matrix-division': () =>
    'A matrix is not divided by a matrix. Write A^-1 * B or solve(A, B), B * A^-1, or each(A/B).',
  'matrix-function': (d) =>
    `${d.name} of a matrix could mean two things. Write ${d.whole} for the matrix function, or each(${d.name}(…)) entry by entry.`,
  'matrix-exponent': () => 'A matrix is raised to whole numbers only. Entry by entry it is each(A^x).',
  'not-converged': () => 'The iteration for this did not come to an end.',
  'not-positive': () => 'A Cholesky decomposition needs a Hermitian matrix that is positive definite; this one is not.',
  'no-such-part': (d) =>
    `There is no part ${d.name} here. ${d.known ? `The parts are ${d.known}.` : 'Only results such as lu(A) have parts.'}`,
  'too-many-indices': () => 'A vector has one index. Two are for a matrix: the row and the column.',
  'index-row-range': (d) => `The rows are counted from 1 to ${d.count} here.`,
  'index-column-range': (d) => `The columns are counted from 1 to ${d.count} here.`,
  'matrix-too-large': (d) => `A matrix of ${d.count} entries is too large; at most ${d.limit} are possible.`,
  defective: () =>
    'This matrix is defective: its eigenvectors do not span the space, and some columns are nearly alike.',
  'nearly-defective': () =>
    'Some eigenvectors are nearly alike: this matrix is close to a defective one, and its eigenvalues may have lost half their digits.',
  'ill-conditioned': (d) =>
    `This matrix is nearly singular (condition number ${d.value}): about ${d.digits} digits are lost.`,
  'comma-missing': (d) =>
    `Between square brackets it is not clear whether this ${d.sign} begins a new entry: a comma may be missing.`,
  'empty-list': () => 'There is nothing between these brackets.',
  'series-form': () => 'A row of values is written as f(k) for k = 1 to n, with step s behind it if the step is not 1.',
  'series-place': () => 'f(k) for k = … stands in square brackets, or in sum( ) or product( ).',
  'series-bound': (d) =>
    `The ends and the step of a row must be real numbers, not ${d.kind === 'number' ? 'a complex number' : kindWords(d.kind)}.`,
  'step-real': () => 'The step must be a real number.',
  'step-whole': () => 'The step of an index must be a whole number.',
  'step-zero': () => 'The step cannot be 0.',
  'step-direction': (d) => `With the step ${d.step} the row never gets from its first to its last value.`,
  'too-many-entries': (d) => `This makes ${d.count} entries; at most ${d.limit} are possible.`,
  'no-entries': (d) => `${kindWords(d.kind)} has no entries to take one from.`.replace(/^a/, 'A'),
  'entry-range': (d) => `Entries are counted from 1 to ${d.count} here.`,
  'lengths-differ': (d) => `The vectors have ${d.left} and ${d.right} entries; they must have the same number.`,
  'vector-plus-number': (d) =>
    `${d.kind === 'matrix' ? 'A matrix' : 'A vector'} ${d.sign} a number has no meaning. Entry by entry it is each(…).`,
  'vector-argument': () =>
    'A vector has an angle only with another one. Its own direction is the argument of the complex number phasor(v).',
  'vector-product': (d) =>
    `A vector ${d.sign} a vector has no meaning without saying which is meant: dot(u, v), cross(u, v), or each(u${d.sign}v) entry by entry.`,
} satisfies SentencesOf
