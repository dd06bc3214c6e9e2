import { reckon } from '../testing'
import type { Value } from '../values/types'

const last = (...lines: string[]) => reckon(lines).at(-1)!
const value = (...lines: string[]): string => last(...lines).error?.code ?? last(...lines).text

const A = 'A = [[1, 2], [3, 4]]'
const B = 'B = [[0, 1], [1j, 2]]'
const V = 'v = [5, 6]'

describe('written out', () => {
  test.each([
    ['[[1, 2], [3, 4]]', '[[1, 2], [3, 4]]'],
    ['[[1], [2]]', '[[1], [2]]'],
    ['[[5]]', '[[5]]'],
    ['[[1/(r + c - 1) for c = 1 to 2] for r = 1 to 2]', '[[1, 0.5], [0.5, 0.33333]]'],
    ['[[k^2 for k = 1 to 3], [7, 8, 9]]', '[[1, 4, 9], [7, 8, 9]]'],
    ['[[1, 2], [3]]', 'rows-differ'],
    ['[[1, "a"]]', 'entries-are-numbers'],
    ['[1 -2]', 'comma-missing'],
    ['identity(3)', '[[1, 0, 0], [0, 1, 0], [0, 0, 1]]'],
  ])('%s', (line, expected) => expect(value(line)).toBe(expected))

  test('blocks as in a textbook', () => {
    expect(value(A, V, '[[A, v], [v^T, 0]]')).toBe('[[1, 2, 5], [3, 4, 6], [5, 6, 0]]')
    expect(value(A, V, '[[A, v], [v, 0]]')).toBe('blocks-differ')
    expect(value(V, 'w = [7, 8]', '[v, w]')).toBe('vectors-in-list')
    expect(value(V, 'beside(v, [7, 8])')).toBe('[[5, 7], [6, 8]]')
    expect(value(A, 'beneath(A, [[9, 9]])')).toBe('[[1, 2], [3, 4], [9, 9]]')
    expect(value(A, V, 'beside(A, [1, 2, 3])')).toBe('blocks-differ')
  })
})

describe('a matrix written as one stays one', () => {
  const column = 'B = [[0], [1]]'
  test.each([
    [['M = [[5]]', 'M^-1'], '[[0.2]]'],
    [['M = [[5]]', 'M*M + 2M - M/5'], '[[34]]'],
    [['M = [[5]]', 'M^T'], '[[5]]'],
    [['M = [[5]]', 'M*[3]'], '[15]'],
    [['M = [[5]]', 'inv(M)'], '[[0.2]]'],
    [['|[[-5]]|'], '-5'],
    [['expm([[0]])'], '[[1]]'],
    [['identity(1)'], '[[1]]'],
    [['unknown s', '[[s]]*[[s]]'], '[[s^2]]'],
    [['f = 2 to 3', '[[f]]^2'], '2 points, [[4]] … [[9]]'],
    [[A, column, 'A*B'], '[[2], [4]]'],
    [[A, column, 'solve(A, B)'], '[[1], [-0.5]]'],
    [[A, 'solve(A, [0, 1])'], '[1, -0.5]'],
    [[column, 'B^T'], '[[0, 1]]'],
    [[column, 'B + [1, 1]'], '[1, 2]'],
    [[column, 'B == [0, 1]'], 'true'],
    [[column, 'B[2]'], '1'],
    [[column, 'B[2, 1]'], '1'],
    [[column, 'each(B^2)'], '[[0], [1]]'],
    // A row times a column is a number, whatever they were written as.
    [[A, column, '[[1, 0]]*A*B'], '2'],
    [[A, 'v = [1, 0]', 'v^T*A*v'], '1'],
    // Where a vector is due a column will do.
    [['cross([[1], [0], [0]], [0, 1, 0])'], '[0, 0, 1]'],
    [['A = [[1, 2], [3, 4]]', 'A[all, 1]'], '[1, 3]'],
    [['[1, 2]^T^T'], '[1, 2]'],
  ])('%j', (lines, expected) => expect(value(...lines)).toBe(expected))
})

describe('what cannot be known is undefined', () => {
  const ALL = [
    'rank', 'cond', 'inv', 'ref', 'rref', 'nullspace', 'qr', 'svd', 'lu', 'cholesky', 'eigenvalues', 'eigenvectors',
    'eigenpairs', 'charpoly', 'expm',
  ] // prettier-ignore
  /** Every number that a value holds. */
  const numbers = (v: Value | null): number[] => {
    if (v?.kind === 'number') return [v.re]
    if (v?.kind === 'vector') return v.items.flatMap(numbers)
    if (v?.kind === 'matrix') return [...v.dense.re]
    return v?.kind === 'parts' ? [...v.parts.values()].flatMap(numbers) : []
  }
  test.each(ALL.flatMap((name) => [`${name}([[inf, 1], [1, 2]])`, `${name}([[1, 0/0], [0/0, 2]])`]))('%s', (line) => {
    const found = numbers(last(line).value)
    expect(found.length).toBeGreaterThan(0)
    expect(found.every(Number.isNaN)).toBe(true)
  })

  test.each([
    ['solve([[inf, 1], [1, 2]], [1, 2])', '[undefined, undefined]'],
    ['lsq([[inf], [1]], [1, 2])', '[undefined]'],
    ['[[inf, 1], [1, 2]]^-1', '[[undefined, undefined], [undefined, undefined]]'],
    ['norm([[inf, 1], [1, 2]])', '∞'],
    ['norm([[0/0, inf]])', 'undefined'],
    ['sort([2, 0/0, 1])', '[undefined, undefined, undefined]'],
  ])('%s', (line, expected) => expect(value(line)).toBe(expected))

  test.each(['s + 0/0', '0/0*s', 's/inf', 's*inf', 'inf*s - inf*s', 's || (0/0)'])('%s', (line) => {
    expect(value('unknown s', line)).toBe('undefined')
  })

  test.each([
    ['inf*j', Infinity, 0],
    ['-inf*j', -Infinity, 0],
    ['j*inf', Infinity, 0],
  ])('%s goes along the imaginary axis', (line, im, re) => {
    expect(last(line).value).toMatchObject({ kind: 'number', re, im })
  })
  test('of 0 times ∞ nothing is known', () => {
    for (const line of ['0*inf', 'inf*(0 + 0j)', '(inf*j)*0']) expect(value(line)).toMatch(/^undefined/)
  })
})

describe('operators', () => {
  test.each([
    ['A + A', '[[2, 4], [6, 8]]'],
    ['A - A/2', '[[0.5, 1], [1.5, 2]]'],
    ['2A', '[[2, 4], [6, 8]]'],
    ['-A', '[[-1, -2], [-3, -4]]'],
    ['A*A', '[[7, 10], [15, 22]]'],
    ['A*B', '[[0 + 2j, 5 + 0j], [0 + 4j, 11 + 0j]]'],
    ['A*v', '[17, 39]'],
    ['v^T*v', '61'],
    ['v^T*A', '[[23, 34]]'],
    ['v*v^T', '[[25, 30], [30, 36]]'],
    ['A^3', '[[37, 54], [81, 118]]'],
    ['A^0', '[[1, 0], [0, 1]]'],
    ['A^-1', '[[-2, 1], [1.5, -0.5]]'],
    ['A^-1^T', '[[-2, 1.5], [1, -0.5]]'],
    ['B^H', '[[0 + 0j, 0 - 1j], [1 + 0j, 2 + 0j]]'],
    ['B^*', '[[0 + 0j, 1 + 0j], [0 - 1j, 2 + 0j]]'],
    ['|A|', '-2'],
    ['A == A', 'true'],
    ['A == 2A', 'false'],
    ['A + [1, 2]', 'shapes-differ'],
    ['A*[1, 2, 3]', 'shapes-product'],
    ['A + 1', 'vector-plus-number'],
    ['A/A', 'matrix-division'],
    ['v*v', 'vector-product'],
    ['A^0.5', 'matrix-exponent'],
    ['e^A', 'matrix-function'],
    ['exp(A)', 'matrix-function'],
    ['sin(0*A)', '[[0, 0], [0, 0]]'],
    ['each(A^2)', '[[1, 4], [9, 16]]'],
    ['each(A*A)', '[[1, 4], [9, 16]]'],
    ['each(1/v)', '[0.2, 0.16667]'],
    ['each(v + 1)', '[6, 7]'],
    ['each(v^2)', '[25, 36]'],
    ['each(exp(0*A))', '[[1, 1], [1, 1]]'],
    ['each(A*v)', 'shapes-differ'],
  ])('%s', (line, expected) => expect(value(A, B, V, line)).toBe(expected))

  test('errors name both shapes and what had to be equal', () => {
    expect(last('[[1, 2, 3]]*[[1, 2, 3]]').error!.message).toBe(
      '1 × 3 times 1 × 3 does not fit: the 3 columns on the left must be as many as the 1 rows on the right.',
    )
    expect(last(A, 'inv([[1, 2], [2, 4]])').error!.message).toContain('singular')
    expect(last('det([[1, 2, 3]])').error!.message).toBe('det needs a square matrix; this one is 1 × 3.')
  })
})

describe('entries', () => {
  test.each([
    ['M[2, 3]', '6'],
    ['M[2, all]', '[[4, 5, 6]]'],
    ['M[all, 1]', '[1, 4, 7]'],
    ['M[2]', '[[4, 5, 6]]'],
    ['M[last, last]', '9'],
    ['M[1 to 2, 2 to 3]', '[[2, 3], [5, 6]]'],
    ['M[1 to last step 2, 1]', '[1, 7]'],
    ['M[last to 1, 1]', '[7, 4, 1]'],
    ['M[4, 1]', 'index-row-range'],
    ['M[1, 0]', 'index-column-range'],
    ['M[1, 1.5]', 'index-column-range'],
    ['w[last]', '40'],
    ['w[2 to 3]', '[20, 30]'],
    ['w[last - 1]', '30'],
    ['w[1, 2]', 'too-many-indices'],
    ['w[1 to 4 step -1]', 'step-direction'],
    ['"phasor"[2 to 4]', 'has'],
    ['lu(M).upper[1, 1]', '7'],
    ['lu(M).middle', 'no-such-part'],
    ['last', 'unknown-name'],
  ])('%s', (line, expected) =>
    expect(value('M = [[1, 2, 3], [4, 5, 6], [7, 8, 9]]', 'w = [10, 20, 30, 40]', line)).toBe(expected),
  )
})

describe('functions of matrices', () => {
  test.each([
    ['rank([[1, 2, 3], [4, 5, 6], [7, 8, 9]])', '2'],
    ['det([[1, 2, 3], [4, 5, 6], [7, 8, 9]])', '0'],
    ['det([[1j, 2], [3, 4]])', '-6 + 4j'],
    ['solve([[2, 1], [1, 3]], [[1, 0], [0, 1]])', '[[0.6, -0.2], [-0.2, 0.4]]'],
    ['solve([[1, 2], [2, 4]], [1, 2])', 'singular'],
    ['eigenvalues([[0, 1], [-1, 0]])', '[0 + 1j, 0 - 1j]'],
    ['eigenvalues([[2, 1], [0, 3]])', '[2, 3]'],
    ['nullspace([[1, 0], [0, 1]])', '[0, 0]'],
    ['charpoly([[0, 1], [-2, -3]])', '[1, 3, 2]'],
    ['cholesky([[1, 2], [2, 1]])', 'not-positive'],
    ['sum([[1, 2], [3, 4]])', '10'],
    ['max([[1, 2], [3, 4]])', '4'],
    ['cond([[1, 2], [2, 4]]) > 10^15', 'true'],
    ['angle([1, 0], [0, 1])', '90°'],
    ['angle(1j)', '90°'],
    ['proj([1, 2], [0, 0])', 'domain'],
    ['dot([1, 2], [1, 2, 3])', 'lengths-differ'],
    ['cross([1, 2], [3, 4])', 'domain'],
    ['phasor([1, 2, 3])', 'domain'],
    ['vec(22∠60°)', '[11, 19.053]'],
    ['phasor(vec(22∠60°) + vec(10∠-30°))', '19.66 + 14.053j'],
    ['norm([[3, 0], [0, 4]])', '4'],
    ['zero_matrix(100000, 100000)', 'matrix-too-large'],
  ])('%s', (line, expected) => expect(value(line)).toBe(expected))

  test('exact where it can be', () => {
    const { value: x } = last('inv([[1/3, 1/2], [1/5, 1/7]])')
    expect(x).toMatchObject({ kind: 'matrix' })
    expect(last('inv([[1/3, 1/2], [1/5, 1/7]])*[[1/3, 1/2], [1/5, 1/7]] == identity(2)').text).toBe('true')
    expect(last('det([[1/(r + c - 1) for c = 1 to 5] for r = 1 to 5]) == 1/266716800000').text).toBe('true')
  })

  test('a nearly singular matrix is solved, and said', () => {
    const line = last('a = sqrt(2)', 'solve([[a, 1], [2, a + 1e-13]], [1, 2])')
    expect(line.error).toBeNull()
    expect(line.hints.map((h) => h.code)).toContain('ill-conditioned')
  })

  test('a result beyond the range of numbers is an error', () =>
    expect(value('x = sqrt(2)*1e200', '[[x, x], [x, x]]*[[x, x], [x, x]]')).toBe('too-large'))
})

describe('eigenvectors as people want them', () => {
  test.each([
    ['eigenvectors([[2, 1], [1, 2]])', '[[-0.70711, 0.70711], [0.70711, 0.70711]]'],
    ['eigenvectors([[2, 1], [1, 2]], "largest")', '[[1, 1], [-1, 1]]'],
    ['eigenvectors([[0, 1], [-2, -3]], "smallest")', '[[1, 1], [-2, -1]]'],
    ['eigenvectors([[0, 1], [-2, -3]], "tall")', 'domain'],
    ['eigenvalues([[1/2, 0], [7, 1/3]])', '[0.33333, 0.5]'],
    ['eigenvalues([[0, -1], [1, 0]])', '[0 + 1j, 0 - 1j]'],
    ['eigenpairs([[3, 0], [0, 1]], "largest").vectors', '[[0, 1], [1, 0]]'],
  ])('%s', (line, expected) => expect(value(line)).toBe(expected))

  test('exact where the eigenvalues are rational', () => {
    expect(value('eigenvalues([[1/2, 0], [7, 1/3]])[1] == 1/3')).toBe('true')
    expect(
      value(
        'A = [[4, 1, 0], [2, 3, 0], [1, 1, 7/2]]',
        'W = eigenvectors(A, "largest")',
        'A*W == W*diag(eigenvalues(A))',
      ),
    ).toBe('true')
    expect(value('A = [[0, -1], [1, 0]]', 'W = eigenvectors(A, "largest")', 'A*W == W*diag(eigenvalues(A))')).toBe(
      'true',
    )
    expect(last('eigenvalues([[2, 1], [1, 1]])').value).toMatchObject({ items: [{ exact: null }, { exact: null }] })
  })

  test('a defective matrix says so', () => {
    expect(last('eigenvectors([[1, 1], [0, 1]])').hints.map((h) => h.code)).toContain('defective')
    expect(last('eigenvectors([[1, 1], [0, 2]])').hints).toEqual([])
    expect(value('eigenvalues([[1, 1], [0, 1]])')).toBe('[1, 1]')
  })
})

describe('fixes of what does not fit', () => {
  const fixes = (line: string): string[] =>
    last('A = [[1, 2], [3, 4]]', 'B = [[1, 2, 3], [4, 5, 6]]', 'u = [1, 2]', line).error!.fixes.map(
      (f) => f.replacement,
    )
  test.each([
    // Of two entries each there is no vector product.
    ['u*u', ['dot(u, u)', 'each(u*u)']],
    ['u^u', ['each(u^u)']],
    ['A/A', ['A^-1*A', 'A*A^-1', 'each(A/A)']],
    ['u*A', ['u^T*A']],
    ['B*B', ['B^T*B', 'B*B^T', 'each(B*B)']],
    ['B*u', ['B^T*u']],
    ['u + 1', ['each(u + 1)']],
    ['exp(A)', ['expm(A)', 'each(exp(A))']],
    ['sqrt(A)', ['each(sqrt(A))']],
  ])('%s', (line, expected) => {
    expect(fixes(line)).toEqual(expected)
    // Every fix can at least be read and reckoned, save where sizes forbid a cross product.
    for (const fix of expected.filter((f) => !f.startsWith('cross')))
      expect(value('A = [[1, 2], [3, 4]]', 'B = [[1, 2, 3], [4, 5, 6]]', 'u = [1, 2]', fix)).not.toMatch(
        /^(shapes|vector|matrix|argument)/,
      )
  })
})
