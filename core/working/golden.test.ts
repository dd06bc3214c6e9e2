import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { compact } from './compact.testing'
import { workingView } from './view'
import { workingOf } from './working'
import { stepsAt } from './write'

/**
 * Workings as they stand in textbooks' methods, step by step, at the depth of a hand calculation: the rule, what
 * stands then, and what is said besides. Each was worked by hand on paper first; the arithmetic is that of school.
 */
interface Golden {
  readonly line: string
  readonly above?: readonly string[]
  readonly steps: readonly (readonly [rule: string, stands: string, says?: string])[]
}

const GOLDEN: readonly Golden[] = [
  {
    line: '1 + 2*3^2 - 8/4',
    steps: [
      ['repeated-product', '= 1 + 2 · (3 · 3) - 8/4'],
      ['products-worked-out', '= 1 + 2 · 9 - 8/4'],
      ['multiply', '= 1 + 18 - 8/4'],
      ['add', '= 19 - 8/4'],
      ['divide', '= 19 - 2'],
      ['subtract', '= 17'],
    ],
  },
  {
    line: '7 - 2*(3 + 1)^2/4 mod 5',
    steps: [
      ['add', '= 7 - (2 · 4^2)/4 \\bmod 5'],
      ['repeated-product', '= 7 - (2 · (4 · 4))/4 \\bmod 5'],
      ['products-worked-out', '= 7 - (2 · 16)/4 \\bmod 5'],
      ['multiply', '= 7 - 32/4 \\bmod 5'],
      ['divide', '= 7 - 8 \\bmod 5'],
      ['modulo', '= 7 - 3', '8 = 1 · 5 + 3'],
      ['subtract', '= 4'],
    ],
  },
  {
    line: '-2^2',
    steps: [
      ['repeated-product', '= -2 · 2'],
      ['products-worked-out', '= -4'],
      ['power-before-sign', '= -4'],
    ],
  },
  {
    line: '(-2)^2',
    steps: [
      ['repeated-product', '= (-2) · (-2)'],
      ['products-worked-out', '= 4'],
    ],
  },
  {
    line: '1/2x',
    above: ['x = 3'],
    steps: [
      ['put-in', '= 1/2 · 3'],
      ['multiply', '= 1.5'],
    ],
  },
  {
    line: '(3 + 4j)*(1 - 2j)',
    steps: [
      ['product-rectangular', '= (3 · 1 - 4 · (-2)) + j (3 · (-2) + 4 · 1)'],
      ['products-worked-out', '= (3 - (-8)) + j (-6 + 4)'],
      ['parts-worked-out', '= 11 - 2j'],
      [
        'polar-form',
        '= √(11^2 + (-2)^2) ∠ (arctan((-2)/11))',
        'Fourth quadrant (a > 0, b < 0): the arc tangent is the argument, it is negative.',
      ],
      ['parts-worked-out', '≈ 11.18 ∠ - 10.305°'],
    ],
  },
  {
    line: '(10∠30°)*(2∠-15°)',
    steps: [
      ['product-polar', '= (10 · 2) ∠ (30° + (-15°))'],
      ['product-polar', '= 20 ∠ 15°'],
      ['rectangular-form', '= 20 · cos(15°) + j (20 · sin(15°))'],
      ['parts-worked-out', '≈ 19.319 + 5.1764j'],
    ],
  },
  {
    line: '(3 + 4j)/(1 - 2j)',
    steps: [
      ['conjugate-of-divisor', '= ((3 + 4j) · (1 + 2j))/((1 - 2j) · (1 + 2j))'],
      ['numerator-and-denominator', '= ((3 · 1 - 4 · 2) + j (3 · 2 + 4 · 1))/(1^2 + (-2)^2)'],
      ['products-worked-out', '= (-5 + 10j)/5'],
      ['divide-parts', '= (-5)/5 + j 10/5'],
      ['parts-worked-out', '= -1 + 2j'],
      [
        'polar-form',
        '= √((-1)^2 + 2^2) ∠ (arctan(2/(-1)) + 180°)',
        'Second quadrant (a < 0, b > 0): the arc tangent gives the opposite direction, so 180° is added.',
      ],
      ['parts-worked-out', '≈ 2.2361 ∠ 116.57°'],
    ],
  },
  {
    line: '10∠30° / 2∠-15°',
    steps: [
      ['quotient-polar', '= (10/2) ∠ (30° - (-15°))'],
      ['quotient-polar', '= 5 ∠ 45°'],
      ['rectangular-form', '= 5 · cos(45°) + j (5 · sin(45°))'],
      ['parts-worked-out', '≈ 3.5355 + 3.5355j'],
    ],
  },
  {
    line: '5∠30° + 2',
    steps: [
      ['polar-to-rectangular', '= 5 · cos(30°) + j (5 · sin(30°)) + 2'],
      ['parts-worked-out', '≈ 4.3301 + 2.5j + 2'],
      ['add-parts', '≈ (4.3301 + 2) + j 2.5'],
      ['parts-worked-out', '≈ 6.3301 + 2.5j'],
      [
        'polar-form',
        '≈ √(6.3301^2 + 2.5^2) ∠ (arctan(2.5/6.3301))',
        'First quadrant (a > 0, b > 0): the arc tangent is the argument.',
      ],
      ['parts-worked-out', '≈ 6.8059 ∠ 21.551°'],
    ],
  },
  {
    line: 'arg(3 + 4j)',
    steps: [
      ['argument', '= arctan(4/3)', 'First quadrant (a > 0, b > 0): the arc tangent is the argument.'],
      ['argument', '≈ 53.13°'],
    ],
  },
  {
    line: 'arg(-3 + 4j)',
    steps: [
      [
        'argument',
        '= arctan(4/(-3)) + 180°',
        'Second quadrant (a < 0, b > 0): the arc tangent gives the opposite direction, so 180° is added.',
      ],
      ['inverse-tangent', '≈ -53.13° + 180°'],
      ['argument', '≈ 126.87°'],
    ],
  },
  {
    line: 'arg(-3 - 4j)',
    steps: [
      [
        'argument',
        '= arctan((-4)/(-3)) - 180°',
        'Third quadrant (a < 0, b < 0): the arc tangent gives the opposite direction, so 180° is taken away.',
      ],
      ['inverse-tangent', '≈ 53.13° - 180°'],
      ['argument', '≈ -126.87°'],
    ],
  },
  {
    line: 'arg(3 - 4j)',
    steps: [
      [
        'argument',
        '= arctan((-4)/3)',
        'Fourth quadrant (a > 0, b < 0): the arc tangent is the argument, it is negative.',
      ],
      ['argument', '≈ -53.13°'],
    ],
  },
  {
    line: 'abs(3 + 4j)',
    steps: [
      ['magnitude', '= √(3^2 + 4^2)'],
      ['squares-worked-out', '= √(9 + 16)'],
      ['square-root', '= 5'],
    ],
  },
  {
    line: '(1 + 1j)^4',
    steps: [
      ['to-polar-for-power', '≈ (1.4142 ∠ 45°)^4'],
      ['de-moivre', '≈ (1.4142^4) ∠ (4 · 45°)'],
      ['de-moivre', '= 4 ∠ 180°'],
      ['rectangular-form', '= -4'],
      ['polar-form', '= 4 ∠ 180°', 'The point lies on the negative real axis: 180°.'],
    ],
  },
  {
    line: '(2∠20°)^3',
    steps: [
      ['de-moivre', '= (2^3) ∠ (3 · 20°)'],
      ['de-moivre', '= 8 ∠ 60°'],
      ['rectangular-form', '= 8 · cos(60°) + j (8 · sin(60°))'],
      ['parts-worked-out', '≈ 4 + 6.9282j'],
    ],
  },
  {
    line: 'everyroot(8j, 3)',
    steps: [
      ['to-polar-for-power', '= everyroot(8 ∠ 90°, 3)'],
      ['all-roots', '= [3√(8) ∠ ((90°)/3); 3√(8) ∠ ((90° + 360°)/3); 3√(8) ∠ ((90° + 720°)/3)]'],
      ['all-roots', '= [2 ∠ 30°; 2 ∠ 150°; 2 ∠ - 90°]'],
    ],
  },
  {
    line: 'sqrt(-9)',
    steps: [
      ['root-of-negative', '= j √(9)'],
      ['square-root', '= 3j'],
      ['polar-form', '= 3 ∠ 90°', 'The point lies on the positive imaginary axis: 90°.'],
    ],
  },
  {
    line: '100 || 220 || 330',
    steps: [
      ['parallel-of-many', '= 1/(1/100 + 1/220 + 1/330)'],
      ['divide', '= 1/(0.01 + 1/220 + 1/330)'],
      ['divide', '≈ 1/(0.01 + 0.0045455 + 1/330)'],
      ['add', '≈ 1/(0.014545 + 1/330)'],
      ['divide', '≈ 1/(0.014545 + 0.0030303)'],
      ['add', '≈ 1/0.017576'],
      ['divide', '≈ 56.897'],
    ],
  },
  {
    line: '6 || 3',
    steps: [
      ['parallel-of-two', '= (6 · 3)/(6 + 3)'],
      ['multiply', '= 18/(6 + 3)'],
      ['add', '= 18/9'],
      ['divide', '= 2'],
    ],
  },
  {
    line: 'dot([1, 2, 3], [4, 5, 6])',
    steps: [
      ['dot-product', '= 1 · 4 + 2 · 5 + 3 · 6'],
      ['products-worked-out', '= 4 + 10 + 18'],
      ['add', '= 32'],
    ],
  },
  {
    line: 'cross([1, 2, 3], [4, 5, 6])',
    steps: [
      ['cross-product', '= [2 · 6 - 3 · 5; 3 · 4 - 1 · 6; 1 · 5 - 2 · 4]'],
      ['products-worked-out', '= [12 - 15; 12 - 6; 5 - 8]'],
      ['subtract', '= [-3; 6; -3]'],
    ],
  },
  {
    line: 'proj([1, 2], [3, 4])',
    steps: [
      ['projection', '= ((dot([3; 4], [1; 2]))/(dot([3; 4], [3; 4]))) · [3; 4]'],
      ['dot-product', '= (3 · 1 + 4 · 2)/(dot([3; 4], [3; 4])) · [3; 4]'],
      ['products-worked-out', '= (3 + 8)/(dot([3; 4], [3; 4])) · [3; 4]'],
      ['add', '= 11/(dot([3; 4], [3; 4])) · [3; 4]'],
      ['dot-product', '= 11/(3 · 3 + 4 · 4) · [3; 4]'],
      ['products-worked-out', '= 11/(9 + 16) · [3; 4]'],
      ['add', '= 11/25 · [3; 4]'],
      ['divide', '= 0.44 · [3; 4]'],
      ['scaled-components', '= [0.44 · 3; 0.44 · 4]'],
      ['scaled-components', '= [1.32; 1.76]'],
    ],
  },
  {
    line: 'angle([1, 0], [1, 1])',
    steps: [
      ['angle-between', '= arccos((dot([1; 0], [1; 1]))/(norm([1; 0]) · norm([1; 1])))'],
      ['dot-product', '= arccos((1 · 1 + 0 · 1)/(norm([1; 0]) · norm([1; 1])))'],
      ['products-worked-out', '= arccos((1 + 0)/(norm([1; 0]) · norm([1; 1])))'],
      ['add', '= arccos(1/(norm([1; 0]) · norm([1; 1])))'],
      ['length', '= arccos(1/(√(1^2) · norm([1; 1])))'],
      ['squares-worked-out', '= arccos(1/(√(1) · norm([1; 1])))'],
      ['square-root', '= arccos(1/(1 · norm([1; 1])))'],
      ['length', '= arccos(1/(1 · √(1^2 + 1^2)))'],
      ['squares-worked-out', '= arccos(1/(1 · √(1 + 1)))'],
      ['square-root', '≈ arccos(1/(1 · 1.4142))'],
      ['multiply', '≈ arccos(1/1.4142)'],
      ['divide', '≈ arccos(0.70711)'],
      ['inverse-cosine', '= 45°'],
    ],
  },
  {
    line: '[[1, 2], [3, 4]]*[5, 6]',
    steps: [['row-by-column', '= [17; 39]', '2 × 2 times 2 × 1 is 2 × 1.']],
  },
  {
    line: 'det([[1, 2, 3], [0, 4, 5], [1, 0, 6]])',
    steps: [
      ['determinant-expansion', '= 4 · det([1, 3; 1, 6]) - 5 · det([1, 2; 1, 0])', 'Along row 2, which has 1 zero.'],
      ['determinant-two', '= 4 · (1 · 6 - 3 · 1) - 5 · det([1, 2; 1, 0])'],
      ['multiply', '= 4 · (6 - 3 · 1) - 5 · det([1, 2; 1, 0])'],
      ['multiply', '= 4 · (6 - 3) - 5 · det([1, 2; 1, 0])'],
      ['subtract', '= 4 · 3 - 5 · det([1, 2; 1, 0])'],
      ['multiply', '= 12 - 5 · det([1, 2; 1, 0])'],
      ['determinant-two', '= 12 - 5 · (1 · 0 - 2 · 1)'],
      ['multiply', '= 12 - 5 · (0 - 2 · 1)'],
      ['multiply', '= 12 - 5 · (0 - 2)'],
      ['subtract', '= 12 - 5 · (-2)'],
      ['multiply', '= 12 - (-10)'],
      ['subtract', '= 22'],
    ],
  },
  {
    line: 'inv([[1, 2], [3, 4]])',
    steps: [
      ['inverse-two', '= (1/(1 · 4 - 2 · 3)) · [4, -2; -3, 1]'],
      ['products-worked-out', '= (1/(-2)) · [4, -2; -3, 1]'],
      ['matrix-scaled', '= [-2, 1; 1.5, -0.5]'],
    ],
  },
  {
    line: 'inv([[1, 0, 1], [0, 1, 0], [1, 0, 2]])',
    steps: [
      ['inverse-augmented', '~ ([1, 0, 1, 1, 0, 0; 0, 1, 0, 0, 1, 0; 1, 0, 2, 0, 0, 1])'],
      ['row-added', '~ ([1, 0, 1, 1, 0, 0; 0, 1, 0, 0, 1, 0; 0, 0, 1, -1, 0, 1])', '(3) → (3) − (1)'],
      ['row-added', '~ ([1, 0, 0, 2, 0, -1; 0, 1, 0, 0, 1, 0; 0, 0, 1, -1, 0, 1])', '(1) → (1) − (3)'],
      ['inverse-read-off', '= [2, 0, -1; 0, 1, 0; -1, 0, 1]'],
    ],
  },
  {
    line: 'solve([[1, 2], [3, 4]], [5, 6])',
    steps: [
      ['solve-augmented', '~ ([1, 2, 5; 3, 4, 6])'],
      ['row-added', '~ ([1, 2, 5; 0, -2, -9])', '(2) → (2) − 3·(1)'],
      ['row-scaled', '~ ([1, 2, 5; 0, 1, 9/2])', '(2) → −1/2·(2)'],
      ['row-added', '~ ([1, 0, -4; 0, 1, 9/2])', '(1) → (1) − 2·(2)'],
      ['solution-read-off', '= [-4; 4.5]'],
    ],
  },
  {
    line: 'solve([[1, 2], [2, 4]], [1, 2])',
    steps: [
      ['solve-augmented', '~ ([1, 2, 1; 2, 4, 2])'],
      ['row-added', '~ ([1, 2, 1; 0, 0, 0])', '(2) → (2) − 2·(1)'],
      ['singular', '~ ([1, 2, 1; 0, 0, 0])', 'A row says 0 = 0: there are infinitely many solutions.'],
      ['stops-here', '= solve([1, 2; 2, 4], [1; 2])', 'This matrix is singular: it has no unique solution.'],
    ],
  },
  {
    line: 'eigenvalues([[2, 1], [1, 2]])',
    steps: [
      ['characteristic-matrix', '⇔ | [-λ + 2, 1; 1, -λ + 2] | = 0'],
      ['characteristic-polynomial', '⇔ λ^2 - 4 λ + 3 = 0'],
      ['discriminant', '= D = (-4)^2 - 4 · 1 · 3'],
      ['discriminant', '= D = 4'],
      ['quadratic-formula', '⇔ λ = [(-(-4) + √(4))/(2 · 1); (-(-4) - √(4))/(2 · 1)]'],
      ['eigenvalues-are-roots', '= [1; 3]'],
    ],
  },
  {
    line: 'eigenvectors([[2, 0], [0, 2]])',
    steps: [
      ['characteristic-matrix', '⇔ | [-λ + 2, 0; 0, -λ + 2] | = 0'],
      ['characteristic-polynomial', '⇔ λ^2 - 4 λ + 4 = 0'],
      ['discriminant', '= D = (-4)^2 - 4 · 1 · 4'],
      ['discriminant', '= D = 0', 'It is 0: the root is double.'],
      ['quadratic-formula', '⇔ λ = [(-(-4) + √(0))/(2 · 1); (-(-4) - √(0))/(2 · 1)]'],
      ['eigenvector-of', '~ [0, 0; 0, 0]', 'λ = 2'],
      ['nullspace', '~ [0, 0; 0, 0]', 'Free: component 1, 2.'],
      ['eigenvectors-scaled', '= [1, 0; 0, 1]'],
    ],
  },
  {
    line: 'eigenvalues([[2, 1, 0], [0, 2, 0], [0, 0, 3]])',
    steps: [
      ['characteristic-matrix', '⇔ | [-λ + 2, 1, 0; 0, -λ + 2, 0; 0, 0, -λ + 3] | = 0'],
      ['characteristic-polynomial', '⇔ -λ^3 + 7 λ^2 - 16 λ + 12 = 0'],
      ['equation-set', '⇔ λ^3 - 7 λ^2 + 16 λ - 12 = 0'],
      ['rational-root', '⇔ (λ - 2) · (λ^2 - 5 λ + 6) = 0', '2 is a root.'],
      ['discriminant', '= D = (-5)^2 - 4 · 1 · 6'],
      ['discriminant', '= D = 1'],
      ['quadratic-formula', '⇔ λ = [(-(-5) + √(1))/(2 · 1); (-(-5) - √(1))/(2 · 1)]'],
      ['eigenvalues-are-roots', '= [2; 2; 3]'],
    ],
  },
  {
    line: '2x + 3 + 4x - 1',
    above: ['unknown x'],
    steps: [
      ['like-terms', '= (2 + 4) · x + 3 - 1'],
      ['parts-worked-out', '= 6 x + 3 - 1'],
      ['like-terms', '= 6 · x + (3 - 1)'],
      ['parts-worked-out', '= 6 x + 2'],
    ],
  },
  {
    line: '(x^3 - 1)/(x - 1)',
    above: ['unknown x'],
    steps: [
      ['long-division', '= x^2 + (x^2 - 1)/(x - 1)'],
      ['long-division', '= x^2 + x + (x - 1)/(x - 1)'],
      ['long-division', '= x^2 + x + 1'],
    ],
  },
  {
    line: 'roots(x^2 + 2x + 5)',
    above: ['unknown x'],
    steps: [
      ['equation-set', '⇔ x^2 + 2 x + 5 = 0'],
      ['discriminant', '= D = 2^2 - 4 · 1 · 5'],
      ['discriminant', '= D = -16', 'It is negative: the roots are a conjugate pair.'],
      ['quadratic-formula', '⇔ x = [(-2 + √(-16))/(2 · 1); (-2 - √(-16))/(2 · 1)]'],
      ['read-off', '= [-1 - 2j; -1 + 2j]'],
    ],
  },
  {
    line: 'f(3) + 1',
    above: ['f(t) = t^2 + 1'],
    steps: [
      ['user-function', '= (3^2 + 1) + 1', 'f(t) is known from its line.'],
      ['repeated-product', '= 3 · 3 + 1 + 1'],
      ['products-worked-out', '= 9 + 1 + 1'],
      ['add', '= 10 + 1'],
      ['add', '= 11'],
    ],
  },
  {
    line: '10/(R + w)',
    above: ['w = 1 to 3 step 1', 'R = 2'],
    steps: [
      ['put-in-point', '= 10/(2 + 1)'],
      ['add', '= 10/3'],
      ['divide', '≈ 3.3333'],
    ],
  },
  {
    line: '12 V / 4 ohm',
    steps: [['divide', '= 3 A', 'V/Ω = A']],
  },
  {
    line: 'R*I',
    above: ['R = 4.7 kohm', 'I = 2 mA'],
    steps: [
      ['put-in', '= 4.7 kΩ · 2 mA'],
      ['multiply', '= 9.4 V', 'Ω·A = V'],
    ],
  },
  {
    line: '1/3 + 1/6',
    steps: [
      ['common-denominator', '= (1 · 2 + 1)/6', 'The common denominator is 6.'],
      ['add', '= 3/6'],
      ['reduce-fraction', '= 1/2', 'Both are divided by 3.'],
      ['as-decimal', '= 0.5'],
    ],
  },
  {
    line: 'cos(60°)',
    steps: [['unit-circle', '= 0.5']],
  },
  {
    line: 'sin(37°)',
    steps: [['sine', '≈ 0.60182', 'A calculator has to be set to degrees.']],
  },
  {
    line: 'e^(j*60°)',
    steps: [
      ['euler', '= cos(60°) + j sin(60°)'],
      ['parts-worked-out', '≈ 0.5 + 0.86603j'],
      [
        'polar-form',
        '≈ √(0.5^2 + 0.86603^2) ∠ (arctan(0.86603/0.5))',
        'First quadrant (a > 0, b > 0): the arc tangent is the argument.',
      ],
      ['parts-worked-out', '= 1 ∠ 60°'],
    ],
  },
]

test.each(GOLDEN.map((g) => [g.line, g] as const))('the working of %s', (_, { line, above = [], steps }) => {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines([...above, line].map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  const working = workingOf(evaluator, String(above.length), { conventions: DEFAULT_CONVENTIONS })
  if (typeof working === 'string') throw new Error(working)
  const found = stepsAt(workingView(working, DEFAULT_CONVENTIONS), 'hand')
  expect(found.map((s) => [s.rule, `${s.relation} ${compact(s.then)}`, ...(s.says === null ? [] : [s.says])])).toEqual(
    steps.map((step) => [...step]),
  )
})
