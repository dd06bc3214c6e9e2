import * as fc from 'fast-check'

/** For tests: lines of every kind, over names that a folio above them keeps. */

/** What stands above each random line. */
export const ABOVE: readonly string[] = [
  'R = 47',
  'C = 1.5',
  'z = 3 - 4j',
  'y = -2.5 + 1.25j',
  'V = 230∠30°',
  'I = 4∠-15°',
  'φ = 37°',
  'u = [1, -2, 3]',
  'v = [4, 0, -1.5]',
  'A = [[2, -1, 0], [1, 3, 4], [0, 5, 6]]',
  'B = [[1, 2], [3, 5]]',
  'P = [[1.2, 0.7], [-0.4, 3.3]]',
  'K = [[1 + 2j, -1], [2, 4j]]',
  't = 1 to 5 step 1',
  'g(a, b) = a^2 - 3b',
  'h(a) = R*a/(a + 1)',
  'E = 12 V',
  'Z = (30 + 40j) ohm',
  'q = 1/3',
  'n = 5',
  'unknown x',
  'p = x^2 - 3x + 2',
]

const pick = (...texts: readonly string[]): fc.Arbitrary<string> => fc.constantFrom(...texts)
const whole = fc.integer({ min: -20, max: 20 }).map((n) => (n < 0 ? `(${n})` : String(n)))
const decimal = fc.tuple(fc.integer({ min: -999, max: 999 }), fc.integer({ min: 0, max: 3 })).map(([n, d]) => (n < 0 ? `(${n / 10 ** d})` : String(n / 10 ** d))) // prettier-ignore
const positive = fc.integer({ min: 1, max: 60 }).map((n) => String(n / 4))
const real = fc.oneof(whole, decimal, pick('R', 'C', 'q', 'n', 'pi', '4.7k', '33m', 't', '1/7', '0'))
const turn = fc.oneof(pick('30°', '45°', '-90°', '120°', 'φ', '0.5 rad', 'pi/4 rad'), fc.integer({ min: -180, max: 180 }).map((n) => `(${n}°)`)) // prettier-ignore
const complex = fc.oneof(
  fc
    .tuple(
      whole,
      fc.integer({ min: -9, max: 9 }).filter((b) => b !== 0),
    )
    .map(([a, b]) => `(${a} + ${b < 0 ? `(${b})` : b}*j)`),
  fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })).map(([a, b]) => `(${a} - ${b}j)`),
  fc.tuple(positive, fc.integer({ min: -170, max: 170 })).map(([r, a]) => `(${r}∠${a < 0 ? a : `${a}°`})`),
  pick('z', 'y', 'V', 'I', 'j', '5j', '(2∠90°)', 'Z/ohm'),
)
const vector = fc.oneof(pick('u', 'v', '[1, 2, 2]', '[z, 1, 0]'), fc.tuple(whole, whole, decimal).map((e) => `[${e.join(', ')}]`)) // prettier-ignore
const two = fc.oneof(pick('B', 'P', 'K', '[[2, 0], [0, 2]]', '[[1, 2], [2, 4]]'), fc.tuple(whole, whole, whole, decimal).map(([a, b, c, d]) => `[[${a}, ${b}], [${c}, ${d}]]`)) // prettier-ignore
const three = fc.oneof(pick('A'), fc.array(whole, { minLength: 9, maxLength: 9 }).map((e) => `[[${e.slice(0, 3).join(', ')}], [${e.slice(3, 6).join(', ')}], [${e.slice(6).join(', ')}]]`)) // prettier-ignore
const square = fc.oneof(two, three)
const polynomial = fc.oneof(pick('p', '(x - 1)', '(x^2 + 2x + 5)', '(x^3 - 6x^2 + 11x - 6)', 'x'), fc.tuple(whole, whole).map(([a, b]) => `(${a}*x + ${b})`)) // prettier-ignore
const united = pick('E', 'Z', '5 mA', '(2 - 1j) ohm', '4.7 kohm', '(3∠20°) A', '20 ms', '50 Hz')

/** Terms with one or more operators between what each gives. */
function between(operand: fc.Arbitrary<string>, ...signs: readonly string[]): fc.Arbitrary<string> {
  return fc.tuple(operand, pick(...signs), operand).map(([a, sign, b]) => `${a} ${sign} ${b}`)
}

const called = (names: readonly string[], ...args: readonly fc.Arbitrary<string>[]): fc.Arbitrary<string> =>
  fc.tuple(pick(...names), fc.tuple(...args)).map(([name, values]) => `${name}(${values.join(', ')})`)

const scalar: fc.Arbitrary<string> = fc.letrec<{ term: string; leaf: string }>((tie) => ({
  leaf: fc.oneof(real, complex),
  term: fc.oneof(
    { maxDepth: 3, withCrossShrink: false },
    tie('leaf'),
    between(tie('term'), '+', '-', '*', '/', '||').map((t) => `(${t})`),
    between(tie('term'), '+', '-', '*', '/', '||'),
    fc.tuple(tie('leaf'), pick('2', '3', '-1', '-2', '0', '1', '1/2', '5')).map(([a, n]) => `(${a})^(${n})`),
    tie('term').map((t) => `-(${t})`),
    called(['abs', 'arg', 'conj', 're', 'im', 'sqrt', 'exp', 'ln', 'sin', 'cos', 'tan', 'dB', 'rms', 'peak', 'cosh', 'cbrt', 'lg', 'arctan', 'h'], tie('leaf')), // prettier-ignore
    called(['g', 'par', 'arctan2', 'log', 'max', 'mean'], tie('leaf'), tie('leaf')),
  ),
})).term

/** One line. */
export const line: fc.Arbitrary<string> = fc.oneof(
  { weight: 8, arbitrary: scalar },
  { weight: 3, arbitrary: between(fc.oneof(real, complex), '+', '-', '*', '/', '||', '^') },
  { weight: 1, arbitrary: fc.tuple(complex, complex, complex).map(([a, b, c]) => `${a} || ${b} || ${c}`) },
  { weight: 1, arbitrary: called(['sin', 'cos', 'tan', 'cot', 'cis', 'degrees', 'radians'], turn) },
  { weight: 1, arbitrary: between(turn, '+', '-', '/') },
  { weight: 1, arbitrary: fc.tuple(real, turn).map(([k, a]) => `${k}*${a}`) },
  { weight: 1, arbitrary: fc.tuple(positive, turn).map(([r, a]) => `e^(j*${a})*${r}`) },
  { weight: 1, arbitrary: called(['everyroot', 'root'], complex, pick('2', '3', '4', '5')) },
  { weight: 1, arbitrary: called(['wave'], complex, positive, positive) },
  { weight: 1, arbitrary: called(['gcd', 'lcm', 'binom', 'mod', 'quotient'], fc.integer({ min: 1, max: 90 }).map(String), fc.integer({ min: 1, max: 60 }).map(String)) }, // prettier-ignore
  { weight: 2, arbitrary: between(vector, '+', '-') },
  { weight: 2, arbitrary: called(['dot', 'cross', 'angle', 'dist', 'proj'], vector, vector) },
  { weight: 1, arbitrary: called(['norm', 'unit', 'abs', 'sum', 'product', 'mean', 'sort', 'conj'], vector) },
  { weight: 1, arbitrary: fc.tuple(real, vector).map(([k, w]) => `${k}*${w}`) },
  {
    weight: 1,
    arbitrary: fc.tuple(pick('A', 'B^T', 'A^T', 'K^H'), fc.oneof(vector, square)).map(([a, b]) => `${a}*${b}`),
  },
  { weight: 2, arbitrary: fc.oneof(between(two, '+', '-', '*'), between(three, '+', '-', '*')) },
  { weight: 2, arbitrary: called(['det', 'inv', 'tr', 'rank', 'rref', 'ref', 'nullspace', 'charpoly'], square) },
  { weight: 1, arbitrary: fc.tuple(square, pick('2', '3', '-1')).map(([a, n]) => `(${a})^(${n})`) },
  { weight: 1, arbitrary: called(['solve'], three, vector) },
  { weight: 1, arbitrary: called(['eigenvalues', 'eigenvectors'], square) },
  { weight: 1, arbitrary: fc.tuple(pick('[[1, 1], [1, 2], [1, 3]]', '[[1, 0], [2, 1], [0, 4]]'), vector).map(([a, b]) => `lsq(${a}, ${b})`) }, // prettier-ignore
  { weight: 2, arbitrary: between(polynomial, '+', '-', '*', '/') },
  { weight: 1, arbitrary: called(['roots', 'coefficients', 'degree'], polynomial) },
  { weight: 1, arbitrary: fc.tuple(polynomial, fc.oneof(real, complex)).map(([a, b]) => `${a} where x = ${b}`) },
  { weight: 2, arbitrary: between(united, '+', '-', '*', '/', '||') },
  { weight: 1, arbitrary: called(['abs', 'arg', 'conj', 're', 'sqrt'], united) },
  { weight: 1, arbitrary: fc.tuple(real, real, real).map(([a, b, c]) => `if(${a} > ${b}, ${c} + 1, ${a} * 2)`) },
  { weight: 1, arbitrary: between(real, '<', '>=', '==', '!=') },
  {
    weight: 1,
    arbitrary: fc.tuple(vector, pick('*', '/', '^', '+'), vector).map(([a, s, b]) => `each(${a} ${s} ${b})`),
  },
  { weight: 1, arbitrary: fc.tuple(pick('k^2', 'k*C', '(k + z)', 'q/k'), fc.integer({ min: 1, max: 6 })).map(([t, n]) => `sum(${t} for k = 1 to ${n})`) }, // prettier-ignore
  { weight: 1, arbitrary: scalar.map((t) => `abs(${t}) ~~ 5.0`) },
  { weight: 1, arbitrary: fc.tuple(vector, pick('1', '2', 'last')).map(([a, k]) => `(${a})[${k}]`) },
)
