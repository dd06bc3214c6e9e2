import * as fc from 'fast-check'
import { sameData } from '../measured/data'
import type { DataMatrix } from '../measured/data'
import { readMatrixMarket, writeMatrixMarket } from './matrixMarket'
import { SCIPY_FILES } from './matrixMarket.expected'
import { faultSentence, remarkSentence } from './told'
import { asking } from '../oracles.testing'
import { python } from './python.testing'

const flat = (values: Float64Array | null): number[] | null => values && Array.from(values, (x) => x + 0)

function matrix(text: string): DataMatrix {
  const read = readMatrixMarket(text)
  if (read.kind === 'fault') throw new Error(faultSentence(read))
  return read.data
}

function refused(text: string): string {
  const read = readMatrixMarket(text)
  return read.kind === 'fault' ? faultSentence(read) : 'read'
}

/** Random matrices, with every sort of double in them. */
const matrices = fc
  .record({
    rows: fc.integer({ min: 1, max: 6 }),
    cols: fc.integer({ min: 1, max: 6 }),
    complex: fc.boolean(),
    seed: fc.array(fc.double(), { minLength: 72, maxLength: 72 }),
  })
  .map(({ rows, cols, complex, seed }): DataMatrix => {
    const part = (from: number): Float64Array => Float64Array.from(seed.slice(from, from + rows * cols))
    return { kind: 'matrix', rows, cols, re: part(0), im: complex ? part(36) : null }
  })

test.each(SCIPY_FILES.map((file) => [file.text.split('\n')[0], file] as const))(
  '%s',
  (_, { text, rows, cols, re, im }) => {
    const found = matrix(text)
    expect([found.rows, found.cols]).toEqual([rows, cols])
    expect(flat(found.re)).toEqual(re)
    expect(flat(found.im)).toEqual(im)
  },
)

test('any matrix written and read is the same, bit for bit', () => {
  fc.assert(
    fc.property(matrices, (m) => {
      expect(sameData(matrix(writeMatrixMarket(m, 'a remark\nof two lines')), m)).toBe(true)
    }),
    { numRuns: 500 },
  )
})

asking(['SciPy'], 'scipy', () => {
  test('reads what is written, to the last bit', () => {
    // scipy puts a complex number together as a + 1j*b, which does not keep ∞, undefined and the sign of zero.
    const finite = (part: Float64Array): Float64Array => part.map((x) => (Number.isFinite(x) ? x + 0 : 1))
    const samples = fc.sample(matrices, 60).map((m) => ({ ...m, re: finite(m.re), im: m.im && finite(m.im) }))
    const found = python(
      `from scipy.io import mmread
import numpy as np
def hexes(a): return [float(x).hex() for x in np.asarray(a).ravel()]
print(json.dumps([[list(a.shape), hexes(a.real), hexes(a.imag) if np.iscomplexobj(a) else None] for a in map(mmread, files)]))`,
      samples.map((m) => writeMatrixMarket(m, 'written here')),
    ) as [number[], string[], string[] | null][]
    const same = (hexes: string[], values: Float64Array): boolean =>
      hexes.length === values.length && hexes.every((text, k) => Object.is(fromHex(text), values[k]))
    samples.forEach((m, k) => {
      const [shape, re, im] = found[k] ?? [[], [], null]
      expect(shape).toEqual([m.rows, m.cols])
      expect(same(re, m.re)).toBe(true)
      expect(im === null).toBe(m.im === null)
      if (im && m.im) expect(same(im, m.im)).toBe(true)
    })
  })
})

/** Python's float.hex. */
function fromHex(text: string): number {
  if (text === 'nan') return NaN
  if (text === 'inf' || text === '-inf') return text === 'inf' ? Infinity : -Infinity
  const [, sign = '', whole = '', fraction = '', power = ''] =
    /^(-?)0x(\d)(?:\.([0-9a-f]+))?p([+-]\d+)$/.exec(text) ?? []
  const size = (parseInt(whole, 16) + parseInt(fraction || '0', 16) / 16 ** fraction.length) * 2 ** Math.max(-1000, Number(power)) // prettier-ignore
  const scaled = Number(power) < -1000 ? size * 2 ** (Number(power) + 1000) : size
  return sign === '-' ? -scaled : scaled
}

test('the banner in any case, comments and blank lines anywhere, any kind of line break', () => {
  const text =
    '%%MATRIXMARKET Matrix Array REAL General\r\n% a remark\r\n\r\n2 1\r\n% another\r\n1.5\r\n\r\n-2D1\r\n\r\n'
  expect(flat(matrix(text).re)).toEqual([1.5, -20])
})

test('indices count from 1; what is not given is 0; what is given twice is added up and said', () => {
  const read = readMatrixMarket('%%MatrixMarket matrix coordinate real general\n2 2 3\n1 2 5\n2 1 7\n1 2 -5\n')
  if (read.kind === 'fault') throw new Error(faultSentence(read))
  expect(flat(read.data.re)).toEqual([0, 0, 7, 0])
  expect(read.told.map(remarkSentence)).toEqual(['1 entry was given more than once; they were added up.'])
})

test('a pattern has ones', () => {
  expect(flat(matrix('%%MatrixMarket matrix coordinate pattern symmetric\n2 2 1\n2 1\n').re)).toEqual([0, 1, 1, 0])
})

test.each([
  [
    '%%MatrixMarket matrix array real general\n1000000 1000000\n',
    'Line 2: The matrix would have 1000000000000 entries',
  ],
  ['%%MatrixMarket matrix coordinate real general\n99999999 99999999 1\n1 1 1\n', 'Line 2: The matrix would have'],
  [
    '%%MatrixMarket matrix array real general\n2 2\n1\n2\n3\n',
    'The file ends after 3 entries; it says that there are 4.',
  ],
  ['%%MatrixMarket matrix array real general\n1 2\n1\n2\n3\n', 'Line 5: There are more entries than the 2'],
  [
    '%%MatrixMarket matrix coordinate real general\n2 2 2\n1 1 5\n',
    'The file ends after 1 entry; it says that there are 2.',
  ],
  [
    '%%MatrixMarket matrix coordinate real general\n2 2 1\n0 1 5\n',
    'Line 3: Row 0, column 1 lies outside the 2 × 2 matrix.',
  ],
  [
    '%%MatrixMarket matrix coordinate real symmetric\n2 2 1\n1 2 5\n',
    'Line 3: Of a symmetric matrix only the lower triangle',
  ],
  ['%%MatrixMarket matrix coordinate real skew-symmetric\n2 2 1\n1 1 5\n', 'without the diagonal'],
  [
    '%%MatrixMarket matrix coordinate complex hermitian\n1 1 1\n1 1 5 2\n',
    'The diagonal of a hermitian matrix is real',
  ],
  ['%%MatrixMarket matrix array real symmetric\n2 3\n', 'A symmetric matrix is square; this one is said to be 2 × 3.'],
  ['%%MatrixMarket matrix array pattern general\n2 2\n', 'by coordinates only'],
  ['%%MatrixMarket vector array real general\n2 2\n', 'Line 1: The first line should say'],
  ['%%MatrixMarket matrix array quaternion general\n2 2\n', '“quaternion” is not one of these'],
  ['%%MatrixMarket matrix array real hermitian\n2 2\n', '“hermitian”'],
  ['%%MatrixMarket matrix array real general\n2 two\n', 'whole numbers of rows and columns, not “2 two”'],
  ['%%MatrixMarket matrix array real general\n2 -2\n', 'whole numbers'],
  ['%%MatrixMarket matrix array real general\n1 1\n1e999\n', 'Line 3, column 1: “1e999” is too large'],
  ['%%MatrixMarket matrix array real general\n1 1\nfive\n', 'Line 3, column 1: “five” is not a number.'],
  [
    '%%MatrixMarket matrix array complex general\n1 1\n5\n',
    'Line 3: An entry should have 2 numbers here; this line has 1.',
  ],
  ['%%MatrixMarket matrix array real general\n', 'There are no numbers in the file.'],
])('%j is refused, and says why', (text, sentence) => {
  expect(refused(text)).toContain(sentence)
})
