import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { buildSync } from 'esbuild'
import { pack } from '#core/exchange/archive'
import { encode } from '#core/exchange/encoding'

const ROOT = resolve(__dirname, '..')
/** The command in one file: it is started dozens of times here. */
const BUNDLE = join(mkdtempSync(join(ROOT, 'node_modules/.reckon-')), 'reckon.mjs')
beforeAll(() => {
  buildSync({
    entryPoints: [join(ROOT, 'cli/reckon.ts')],
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    outfile: BUNDLE,
  })
})
afterAll(() => rmSync(dirname(BUNDLE), { recursive: true, force: true }))

function run(command: readonly string[], input: string, args: readonly string[]) {
  const result = spawnSync(process.execPath, [...command, ...args], { cwd: ROOT, input, encoding: 'utf8' })
  return { status: result.status, out: result.stdout, err: result.stderr }
}
const reckon = (input: string, ...args: string[]) => run([BUNDLE], input, args)

test('the command as it is started from the sources', () => {
  const { status, out } = run(['--import', 'tsx', 'cli/reckon.ts'], 'Z = 3 + 4j\n', [])
  expect(out).toBe('3 + 4j = 5 ∠ 53.13°\n')
  expect(status).toBe(0)
})

test('plain lines give one result a line', () => {
  const { status, out } = reckon('Z = 3 + 4j\n|Z|\narg(Z)\n# remark\n\n')
  expect(out).toBe('3 + 4j = 5 ∠ 53.13°\n5\n53.13°\n# remark\n\n')
  expect(status).toBe(0)
})

test('the JSON contract', () => {
  const { status, out } = reckon(
    'Z = 3 + 4j\n1/0\n1/3\narg(1j)\n"a"\n1<2\n2 ~~ 2.0\nf(x) = x\n# r\nZ +\n-2^2\n',
    '--json',
  )
  expect(status).toBe(1)
  const lines = JSON.parse(out) as Record<string, unknown>[]
  expect(lines[0]).toEqual({
    line: 1, source: 'Z = 3 + 4j', name: 'Z', kind: 'number', exact: true, re: 3, im: 4,
    rectangular: '3 + 4j', polar: '5 ∠ 53.13°', fraction: '3 + 4j', hints: [], error: null,
  }) // prettier-ignore
  expect(lines[1]).toMatchObject({ re: 'Infinity', im: 0, exact: false })
  expect(lines[2]).toMatchObject({ fraction: '1/3', rectangular: '0.33333' })
  expect(lines[3]).toMatchObject({ kind: 'angle', radians: Math.PI / 2 })
  expect(lines[4]).toMatchObject({ kind: 'text', value: 'a' })
  expect(lines[5]).toMatchObject({ kind: 'truth', value: true })
  expect(lines[6]).toMatchObject({ kind: 'check', pass: true, left: { re: 2 }, right: { re: 2 } })
  expect(lines[7]).toMatchObject({ kind: 'function', name: 'f', error: null })
  expect(lines[8]).toMatchObject({ kind: 'remark', name: null })
  expect(lines[9]).toMatchObject({ kind: 'error', error: { code: 'unfinished', from: 3, to: 3, fixes: [] } })
  expect(lines[10]).toMatchObject({
    re: -4,
    hints: [{ code: 'negative-power', from: 0, to: 4, fixes: [{ label: '(-2)^2', replacement: '(-2)^2' }] }],
  })
})

test('equations have their names, and determine its answers as parts', () => {
  const { status, out } = reckon('sought x, y\nx + y = 3\nx - 2*y = j6\nd = x*y\ndetermine\nx^2\nsought z\nz^2 = 4\ndetermine\n', '--json') // prettier-ignore
  expect(status).toBe(0)
  const lines = JSON.parse(out) as Record<string, unknown>[]
  expect(lines[0]).toMatchObject({ kind: 'sought', name: null, error: null })
  expect(lines[1]).toMatchObject({ kind: 'equation', unknowns: ['x', 'y'], name: null, hints: [], error: null })
  expect(lines[3]).toMatchObject({ kind: 'number', name: 'd', fraction: '6 - 2j' })
  expect(lines[4]).toMatchObject({ kind: 'parts', solutions: 1, parts: { x: { kind: 'number', fraction: '2 + 2j', exact: true }, y: { re: 1, im: -2 } } }) // prettier-ignore
  expect(lines[8]).toMatchObject({
    kind: 'parts',
    solutions: 2,
    parts: { z: { kind: 'sweep', count: 2, re: [-2, 2] } },
  })
  expect(reckon('sought x\n2*x = 6\ndetermine\n').out).toBe('\n\n1 equation, 1 sought, one solution: x = 3\n')
})

test('conventions by option', () => {
  expect(reckon('sin(pi/2)\n3+4i', '--angle', 'rad', '--letter=i', '--digits', '3').out).toBe(
    '1\n3 + 4i = 5 ∠ 0.927 rad\n',
  )
})

test('a folio file brings its own conventions', () => {
  const file = join(mkdtempSync(join(tmpdir(), 'ornate-phasor-cli-')), 'folio.json')
  writeFileSync(file, JSON.stringify({ title: 'F', conventions: { digits: 3 }, lines: [{ source: '1/3' }] }))
  expect(reckon('', file)).toMatchObject({ status: 0, out: '0.333\n' })
})

test.each([
  [['--colour'], /unknown option/],
  [['--digits', '99'], /from 2 to 16/],
  [['--angle', 'grad'], /deg or rad/],
  [['--angle'], /needs a value/],
  [['/nowhere/at/all'], /cannot be read/],
])('a wrong call %o exits with 2 and says why', (args, message) => {
  const { status, err, out } = reckon('', ...args)
  expect(status).toBe(2)
  expect(err).toMatch(message)
  expect(out).toBe('')
})

describe('files of data', () => {
  const put = (name: string, content: string): string => {
    const file = join(mkdtempSync(join(tmpdir(), 'ornate-phasor-cli-')), name)
    writeFileSync(file, content)
    return file
  }
  const S1P = '# kHz Z RI R 1\n1 3 4\n2 6 8\n'

  test('each column, or the matrix, is a result under its name', () => {
    const network = JSON.parse(reckon('', '--json', put('lamp.s1p', S1P)).out) as object[]
    expect(network).toMatchObject([
      { line: 1, name: 'f', kind: 'sweep', count: 2, re: [1000, 2000], error: null },
      { line: 2, name: 'Z', kind: 'sweep', re: [3, 6], im: [4, 8] },
    ])
    const matrix = '%%MatrixMarket matrix array real general\n1 2\n5\n6\n'
    expect(JSON.parse(reckon('', '--json', put('any', matrix)).out)).toMatchObject([
      { name: 'M', kind: 'matrix', rows: 1, cols: 2, re: [[5, 6]] },
    ])
    const table = 'f / Hz;|H| / dB;arg H / °\n1;-20;90\n2;0;180\n3;20;0\n'
    const columns = JSON.parse(reckon('', '--json', put('run.txt', table)).out) as { name: string; re: number[] }[]
    expect(columns.map((c) => c.name)).toEqual(['f', 'H'])
    expect(columns[1]).toMatchObject({ re: [0, -1, 10], im: [expect.closeTo(0.1, 15), 0, 0] })
  })

  test('what a reader did is told on the error stream; a file that cannot be read exits with 2', () => {
    expect(reckon('', '--json', put('any', S1P))).toMatchObject({ status: 0, err: expect.stringContaining('by its numbers they are 1') }) // prettier-ignore
    const bad = reckon('', put('x.mtx', '%%MatrixMarket matrix array real general\n2 2\n1\n'))
    expect(bad).toMatchObject({ status: 2, out: '', err: 'The file ends after 1 entry; it says that there are 4.\n' })
  })

  test('lines go to every format, by name or the one that fits', () => {
    const lines = 'f = 1 to 3\nZ = f + 2j\nA = [[1, 2], [3, 4]]\nk = 5\n1 +\n'
    const to = (...args: string[]) => reckon(lines, '--to', ...args)
    expect(to('csv', '--name', 'Z')).toMatchObject({ status: 1, out: 'f,re(Z),im(Z)\r\n1,1,2\r\n2,2,2\r\n3,3,2\r\n' })
    expect(to('spreadsheet', '--name', 'k').out).toBe('\uFEFFname;re;im\r\nk;5;0\r\n')
    expect(to('mtx').out).toContain('array real general\n% A\n2 2\n1\n3\n2\n4\n')
    expect(to('touchstone').out).toBe('! Z\n# Hz Z RI R 1\n1 1 2\n2 2 2\n3 3 2\n')
    expect(to('markdown').out).toContain('**(5)** ` 1 + `\\\n**Error:**')
    expect(to('latex').out).toContain('\\begin{document}')
    expect(to('lines').out).toBe(lines)
    expect(JSON.parse(to('folio').out)).toMatchObject({ version: 3, lines: lines.trimEnd().split('\n').map((source) => ({ source })) }) // prettier-ignore
    expect(to('csv', '--name', 'none')).toMatchObject({ status: 2, err: 'No line keeps the name none, or it is in error.\n' }) // prettier-ignore
    expect(to('mtx', '--name', 'k')).toMatchObject({ status: 2, err: 'k cannot be written as mtx, which takes a matrix or a vector.\n' }) // prettier-ignore
  })

  test('a file of data goes to another format, bit for bit', () => {
    const written = reckon('', '--to', 'csv', put('a.s1p', S1P)).out
    expect(written).toBe('f / Hz,re(Z) / Ω,im(Z) / Ω\r\n1000,3,4\r\n2000,6,8\r\n')
    expect(reckon('', '--to', 'touchstone', put('a.csv', written)).out).toContain('1000 3 4\n2000 6 8\n')
  })

  test('an archive of a folio brings its numbers', () => {
    const block = new Uint8Array(new Float64Array([1.5, -2]).buffer)
    const folio = { title: 'T', lines: [{ source: 'sum(enclosure("a.mtx"))' }], enclosures: [{ kind: 'matrix', name: 'a.mtx', block: 'block-0001', rows: 1, cols: 2, complex: false }] } // prettier-ignore
    const archive = pack([
      { name: 'T.folio.json', bytes: encode(JSON.stringify(folio)) },
      { name: 'block-0001.f64', bytes: block },
    ])
    const file = join(mkdtempSync(join(tmpdir(), 'ornate-phasor-cli-')), 'T.folio.zip')
    writeFileSync(file, archive)
    expect(reckon('', file)).toMatchObject({ status: 0, out: '-0.5\n' })
  })
})

test('a damaged folio file is said to be one', () => {
  expect(reckon('{"title": ').err).toContain('damaged')
  expect(reckon('{"title": "x", "lines": 3}')).toMatchObject({ status: 2 })
})

test('--working adds the steps of each line, at the depth that is asked for', () => {
  const steps = (out: string): { rule: string; text: string; relation: string; latex: string }[][] =>
    (JSON.parse(out) as { steps: never[] }[]).map((line) => line.steps)
  const lines = 'R = 3\nZ = R*(1 + 2j)\n# a remark\n'
  const [given, product, remark] = steps(reckon(lines, '--json', '--working').out)
  expect(given).toEqual([])
  expect(product?.map((s) => [s.rule, s.relation])).toEqual([
    ['put-in', '='], ['scale-parts', '='], ['products-worked-out', '='], ['polar-form', '='], ['parts-worked-out', '≈'],
  ]) // prettier-ignore
  expect(product?.[2]).toMatchObject({ text: 'The products are worked out.', latex: '3 + 6\\mathrm{j}' })
  expect(remark).toEqual([])
  const [, short] = steps(reckon(lines, '--json', '--working', 'short').out)
  expect(short?.map((s) => s.rule)).toEqual(['put-in', 'rules-in-order'])
  expect(steps(reckon('abs(3 + 4j)\n', '--json', '--working=all').out)[0]).toHaveLength(4)
  expect(reckon(lines, '--working').status).toBe(2)
  expect(reckon(lines, '--json', '--working=deep').status).toBe(2)
})
