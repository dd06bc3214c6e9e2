import { table } from '../table'
import type { Problem } from '../notation/problem'

/** The one place where codes of errors and hints become sentences for a student. */

type Data = Readonly<Record<string, string | number>>
type Sentence = (data: Data) => string

const KIND: Readonly<Record<string, string>> = {
  number: 'a number',
  angle: 'an angle',
  text: 'a text',
  truth: 'a truth value',
  check: 'a check',
  function: 'a function',
  vector: 'a vector',
  matrix: 'a matrix',
  parts: 'a result with parts',
  array: 'a vector or a matrix',
  square: 'a square matrix',
  'complex number': 'a complex number',
  real: 'a real number',
  whole: 'a whole number',
  quantity: 'a real number or an angle',
  scalar: 'a number or an angle',
  sweep: 'a sweep',
  polynomial: 'a polynomial',
  'algebra-matrix': 'a matrix with unknowns',
  algebra: 'a polynomial',
  any: 'a value',
}

const kind = (word: string | number | undefined): string => KIND[String(word)] ?? String(word)

const SENTENCES = table<Sentence>({
  // Reading a line.
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
  'stray-comma': () => 'A comma only separates the arguments of a function. The decimal mark is a point.',
  'too-many-terms': (d) => `This line has more than ${d.limit} terms. Keep parts of it under names of their own.`,
  'too-deep': (d) => `This is nested more than ${d.limit} deep. Keep parts of it under names of their own.`,
  'angle-bracketing': (d) => `${d.text} can be read in two ways. Choose one with brackets.`,
  'power-bracketing': (d) => `It is not clear how much of ${d.text} is the exponent. Choose one.`,
  'second-angle': () => 'A value has one angle only: a second ∠ cannot follow.',
  'bars-unclear': () =>
    'Inside bars || is unclear. Write a space on both sides for a parallel combination, or * for a product.',
  'vectors-in-list': () =>
    'Vectors cannot be entries of a list. Write beside(u, v) for columns next to one another, beneath(u, v) for one below the other.',
  'rows-differ': (d) => `Row ${d.row} has ${d.found}, but the row above it has ${d.expected}.`,
  'blocks-differ': (d) =>
    `The blocks of row ${d.row} have ${d.left} and ${d.right} rows; they must have the same number.`,
  'entries-are-numbers': (d) => `The entries of a matrix are numbers, not ${kind(d.kind)}.`,
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
  'range-form': (d) => `${d.word} belongs to a range: first to last, with step s, count n or per decade n behind it.`,
  'per-decade': () => 'Points per decade are written per decade n.',
  'range-in-list': (d) => `A range between square brackets could mean two things: vector(${d.text}) is a vector.`,
  'range-end': (d) =>
    `A range runs between real numbers or angles, not ${d.kind === 'number' ? 'a complex number' : kind(d.kind)}.`,
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

  // Polynomials.
  'where-form': () => 'Values for unknowns are written as where s = 2j, with a comma before the next one.',
  'where-bracket': () => 'Inside a call or a list, where stands in brackets of its own: f((p where s = 2)).',
  'where-unknown': (d) => `${d.name} is not an unknown here. A line unknown ${d.name} above makes it one.`,
  'where-body': (d) => `where puts values into a polynomial, not into ${kind(d.kind)}.`,
  'where-matrix': () => 'A matrix can take the place of an unknown only where there is no other.',
  'where-matrix-sweep': () => 'Into a matrix with unknowns go numbers and polynomials.',
  'unknown-kept': (d) =>
    `${d.name} was an unknown from line ${d.line} on. What is made with it above stays algebraic; below, ${d.name} is this value.`,
  'polynomial-by-zero': () => 'A polynomial cannot be divided by zero.',
  'polynomial-exponent': () => 'A polynomial is raised to whole numbers only.',
  'polynomial-too-large': (d) => `This polynomial has more than ${d.limit} terms.`,
  'degree-too-high': (d) => `The degree goes beyond ${d.limit}.`,
  'ratio-unknowns': (d) =>
    `This quotient does not divide, and ratios are worked out in one unknown only; here are ${d.names}.`,
  'ratio-given': (d) => `${d.name} is of a polynomial; this is a ratio. Its parts are found by zeros(H) and poles(H).`,
  'one-unknown': (d) => `${d.name} needs a polynomial in one unknown; here are ${d.names}.`,
  'no-roots': (d) => `A constant has no ${d.name}.`,
  'roots-of-zero': () => 'Every number is a root of 0.',
  'roots-cluster': (d) =>
    `Some roots lie so near one another that they may be one of higher multiplicity; they may be off by ${d.off} of their size.`,
  'roots-off': (d) =>
    `The coefficients are rounded, and some roots depend on them strongly: they may be off by ${d.off} of their size.`,
  'no-unknowns': (d) => `${d.name} cannot be worked out with unknowns. Give them values first: … where s = 2.`,
  'algebra-order': (d) => `With unknowns, ${d.name} is worked out up to order ${d.limit}.`,
  'series-bound': (d) =>
    `The ends and the step of a row must be real numbers, not ${d.kind === 'number' ? 'a complex number' : kind(d.kind)}.`,
  'step-real': () => 'The step must be a real number.',
  'step-whole': () => 'The step of an index must be a whole number.',
  'step-zero': () => 'The step cannot be 0.',
  'step-direction': (d) => `With the step ${d.step} the row never gets from its first to its last value.`,
  'too-many-entries': (d) => `This makes ${d.count} entries; at most ${d.limit} are possible.`,
  'no-entries': (d) => `${kind(d.kind)} has no entries to take one from.`.replace(/^a/, 'A'),
  'entry-range': (d) => `Entries are counted from 1 to ${d.count} here.`,
  'lengths-differ': (d) => `The vectors have ${d.left} and ${d.right} entries; they must have the same number.`,
  'vector-plus-number': (d) =>
    `${d.kind === 'matrix' ? 'A matrix' : 'A vector'} ${d.sign} a number has no meaning. Entry by entry it is each(…).`,
  'vector-argument': () =>
    'A vector has an angle only with another one. Its own direction is the argument of the complex number phasor(v).',
  'vector-product': (d) =>
    `A vector ${d.sign} a vector has no meaning without saying which is meant: dot(u, v), cross(u, v), or each(u${d.sign}v) entry by entry.`,

  // Names.
  'unknown-name': (d) => `${d.name} is not known here.${d.near ? ` Did you mean ${orList(String(d.near))}?` : ''}`,
  'names-run-together': (d) => `${d.name} is not known. Did you mean the product ${d.parts}?`,
  'defined-below': (d) =>
    `${d.name} is defined further down, in line ${d.line}. Lines only see what stands above them.`,
  'self-reference': (d) => `${d.name} is not defined above this line, so it cannot be used to define itself.`,
  recursive: (d) => `${d.name} calls itself. A function can only use what stands above it.`,
  'reserved-word': (d) => `${d.name} is a word of the notation and cannot be a name.`,
  'constant-reserved': (d) => `${d.name} is a constant and cannot be given another value.`,
  'letter-reserved': (d) =>
    `${d.name} is the imaginary unit of this folio. Choose ${d.other} as the letter, or another name.`,
  'function-reserved': (d) => `${d.name} is a function and cannot be used as a name.`,
  'function-needs-bracket': (d) => `${d.name} is a function: it needs an argument in brackets.`,
  'not-a-function': (d) => `${d.name} is not a function. To multiply, write * between them.`,
  'no-line-above': () => 'No line above this one has a value that prev could take.',
  'no-enclosure': (d) =>
    d.known === ''
      ? `No file called “${d.name}” is kept with this folio. Open it with Exchange, or drop it here.`
      : `No file called “${d.name}” is kept with this folio. There are: ${d.known}.`,
  'enclosure-loading': (d) => `The numbers of “${d.name}” are on their way.`,
  'enclosure-lost': (d) => `The numbers of “${d.name}” are not there: open the file again.`,
  'along-outside': (d) => `${d.points} of the points lie outside of what was measured, where nothing is known.`,
  'waits-for': (d) => `This waits for line ${d.line}, which defines ${d.name} and is in error.`,

  'not-a-name': (d) =>
    d.name
      ? `${d.name} is not a name: a name begins with a letter and goes on with letters, digits and _.`
      : 'A name is missing.',
  'name-taken': (d) => `${d.name} is kept already, in line ${d.line}.`,
  'name-read-otherwise': (d) => `With ${d.name} as a name, line ${d.line} would be read differently.`,
  'name-caught': (d) => `In line ${d.line}, ${d.name} is a parameter or counter already and would hide the new name.`,

  // Functions and kinds.
  'argument-count': (d) =>
    `It is called as ${d.signature}, but ${d.given === 0 ? 'no argument is' : d.given === 1 ? 'one argument is' : `${d.given} arguments are`} given.`,
  'argument-kind': (d) => `In ${d.signature}, ${d.name} must be ${needs(d.needs)}, not ${given(d)}.`,
  'log-base': () => 'The base of log is not said. Write ln for base e, lg for base 10, or log(x, base).',
  'inverse-unclear': (d) => `${d.name}^-1 could mean the inverse function or one over ${d.name}. Choose one.`,
  'wrong-kinds': (d) => `${kind(d.left)} ${d.sign} ${kind(d.right)} has no meaning.`.replace(/^a/, 'A'),
  'wrong-kind': (d) => `${d.what} cannot be applied to ${kind(d.kind)}.`,
  'real-needed': (d) => `${d.operator} needs real numbers.`,
  'angle-with-complex': (d) =>
    `An angle ${d.sign} a complex number has no meaning. Write 1∠θ for a number of that direction.`,
  'magnitude-real': (d) => `The magnitude on the left of ∠ must be a real number, not ${kind(d.kind)}.`,
  'angle-real': (d) =>
    `An angle must be real; this is ${kind(d.kind)}${d.kind === 'number' ? ' with an imaginary part' : ''}.`,
  'angle-twice': () => 'This already is an angle with a unit.',
  'minutes-range': () => 'Minutes and seconds of an angle are less than 60.',
  'transpose-number': (d) => `${d.sign} is a kept name, so ^${d.sign} could be a power or the transpose. Choose one.`,
  'truth-needed': (d) => `A comparison is needed here, not ${kind(d.kind)}.`,
  'not-comparable': (d) => `${kind(d.left)} and ${kind(d.right)} cannot be compared.`.replace(/^a/, 'A'),
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

  // Spellings that are brought along.
  'brought-power': () => 'A power is written with one ^, as in 2^5.',
  'brought-transpose': () =>
    'The transpose is written A^T, the conjugate transpose A^H: the sign ’ means minutes of an angle.',
  'brought-quotient': () => 'The whole part of a quotient is quotient(7, 2), its rest 7 mod 2.',
  'brought-rest': () => 'The rest of a division is written with mod between the two, as in 7 mod 3.',
  'brought-percent': () => 'Per cent stands only behind within. Elsewhere it is a division by 100.',
  'brought-definition': () => 'A name is given its value by one =, with the name on the left.',
  'brought-change': () => 'A value is changed by writing the whole of it: x = x + 1. It holds from this line on.',
  'brought-equals': () => 'A line needs no = for its result: it answers by itself.',
  'brought-end': () => 'A line ends without a sign: the next one goes into a line of its own.',
  'brought-remark': () => 'A remark begins with #.',
  'brought-range': () => 'A range is written with words: 0 to 10, with step 2 or count 50 behind it.',
  'brought-entries': () => 'Entry by entry is written each( ): every operator inside it works on the entries.',
  'brought-rows': () => 'Entries are separated by commas, and each row has brackets of its own: [[1, 2], [3, 4]].',
  'brought-list': () => 'A vector stands in square brackets.',
  'brought-index': () => 'An entry is taken with square brackets: v[2], A[1, 2].',
  'brought-bracket': (d) => `The argument of ${d.name} stands in brackets.`,
  'brought-bracket-power': () => 'The argument of a function stands in brackets: sin^2(30) is the square of sin(30).',
  'brought-direction': () => 'Before ∠ stands a magnitude: 1∠30 is a direction alone.',
  'brought-parameter': () => 'A function is defined with its parameters in brackets.',
  'brought-word': (d) => `${d.name} is called ${d.ours} here.`,
  'brought-degrees': () => 'Degrees are written with the sign ° or with deg.',
  'brought-unit': () => 'An angle means the same in every unit: degrees( ) and radians( ) give it as a plain number.',
  'brought-comma': () => 'The decimal mark is a point.',
  'brought-pair': () => 'Two values in round brackets could be a complex number or a vector.',
  'brought-groups': () => 'Digits are written without anything between their groups.',
  'brought-prefix': () => 'A prefix is attached to its number, as in 4.7k.',
  'brought-where': (d) => `${d.name} is algebraic, not a function: a value is put in with where.`,
  'brought-logic': () => 'Conditions are joined by the words and, or, not.',
  'brought-compare': () => 'Comparisons are written == != < <= > >=.',
  'brought-if': () => 'A choice is written if(condition, a, b).',
  'brought-phasor': () => 'Magnitude and angle are joined by ∠, typed /_.',
  'brought-exponent': () => 'All of an exponent stands in brackets where it is a product.',
  'brought-solve': () => 'The solution of A·x = b is solve(A, b).',
  'brought-zeros': () => 'zeros( ) are those of a ratio. A matrix of zeros is zero_matrix(m, n).',
  'brought-cross': () => 'The vector product is cross(u, v), the scalar product dot(u, v).',
  'brought-dot': () => 'The scalar product is dot(u, v), the vector product cross(u, v).',
  'brought-unknowns': (d) =>
    `${d.names} ${String(d.names).includes(',') ? 'are' : 'is'} not known here. A line above can declare ${String(d.names).includes(',') ? 'them unknowns' : 'it an unknown'}.`,

  // Hints.
  'negative-power': (d) => `${d.text} is the negative of the power. For a power of −${d.base} write (−${d.base}).`,
  'implicit-after-quotient': (d) => `${d.text} is read from the left, as (${d.top}/${d.digits})·${d.tail}.`,
  'quotient-imaginary': (d) => `${d.bottom} counts as one number here: this divides by ${d.bottom}.`,
  'prefix-power': (d) => `The power takes the prefix with it: this is (${d.base}) to the power.`,
  'changes-reading': (d) =>
    `Because ${d.name} is a name now, ${d.lines} ${String(d.lines).includes('and') || String(d.lines).includes(',') ? 'read' : 'reads'} it as a factor behind digits.`,
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
})

function needs(word: string | number | undefined): string {
  return word === 'angle' ? 'an angle or a number' : kind(word)
}

function given(d: Data): string {
  const complexForReal = d.kind === 'number' && (d.needs === 'real' || d.needs === 'quantity')
  if (complexForReal) return 'a complex number'
  return d.kind === 'number' && d.needs === 'whole' ? 'a number with a fraction' : kind(d.kind)
}

function orList(names: string): string {
  const parts = names.split(', ')
  const last = parts.pop() ?? ''
  return parts.length === 0 ? last : `${parts.join(', ')} or ${last}`
}

/** The sentence for a problem. Of a spelling that was brought along it says how it is written here. */
export function sentence(p: Pick<Problem, 'code' | 'data'>): string {
  const broughtAlong = SENTENCES.get(String(p.data.brought))
  if (broughtAlong) return broughtAlong(p.data)
  if (p.code === 'inside-function') {
    return `In ${p.data.name}: ${sentence({ code: String(p.data.code), data: p.data })}`
  }
  return SENTENCES.get(p.code)?.(p.data) ?? `This line cannot be read (${p.code}).`
}

/** Codes that have a sentence, for tests and the handbook. */
export const CODES: readonly string[] = [...SENTENCES.keys()]

/** Problems of an entry that simply is not finished: quiet while typing. */
const WAITING: ReadonlySet<string> = new Set([
  'unfinished',
  'unclosed',
  'text-not-closed',
  'nothing-defined',
  'function-needs-bracket',
  'postponed',
  'enclosure-loading',
])

/** A line that has been read, and whose value is still to come: it is not in error. */
export function isPending(code: string): boolean {
  return code === 'postponed' || code === 'enclosure-loading'
}

export function isUnfinished(code: string): boolean {
  return WAITING.has(code)
}
