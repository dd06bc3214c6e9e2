import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

const ROOT = resolve(__dirname, '..')

function reckon(input: string, ...args: string[]) {
  const result = spawnSync(process.execPath, ['--import', 'tsx', 'cli/reckon.ts', ...args], {
    cwd: ROOT,
    input,
    encoding: 'utf8',
  })
  return { status: result.status, out: result.stdout, err: result.stderr }
}

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

test('a damaged folio file is said to be one', () => {
  expect(reckon('{"title": ').err).toContain('damaged')
  expect(reckon('{"title": "x", "lines": 3}')).toMatchObject({ status: 2 })
})
