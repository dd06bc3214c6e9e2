import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bin, ensureBuild, ensureChromium, ensurePackages, fail, ROOT, runAndKeep, say } from './lib.mjs'

/** Types, lint, unit tests, build, interface tests; ends with one line that adds up the runners. */
ensurePackages()
ensureChromium()

const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-test-'))
process.on('exit', () => rmSync(folder, { recursive: true, force: true }))

const started = Date.now()
function section(name) {
  say(`\n── ${name} (${Math.round((Date.now() - started) / 1000)} s)`)
}

/** Runs commands one after the other; gives back the first sentence that one of them calls for. */
async function inTurn(steps) {
  for (const [command, args, sentence] of steps) {
    const { status } = await runAndKeep(process.execPath, [command, ...args], { env: { NUXT_TELEMETRY_DISABLED: '1' } })
    if (status !== 0) return sentence
  }
  return null
}

// Two at a time, as there are two cores: each of them keeps one busy.
section('types and lint')
const faults = await Promise.all([
  inTurn([
    [bin('nuxt'), ['typecheck'], 'The types of the application do not fit.'],
    [bin('tsc'), ['-p', 'tsconfig.core.json'], 'The types of the core do not fit.'],
  ]),
  inTurn([
    [bin('eslint'), ['.', '--max-warnings', '0'], 'The lint rules are not kept.'],
    [bin('prettier'), ['--check', '--log-level', 'warn', '.'], 'Some files are not formatted: npm run format.'],
    [
      join(ROOT, 'scripts/kernels.mjs'),
      ['--check'],
      'The compiled loops are not those of their source: npm run kernels.',
    ],
  ]),
])
const fault = faults.find((found) => found !== null)
if (fault) fail(fault)

section('unit tests')
const unitReport = join(folder, 'unit.json')
const unit = await runAndKeep(process.execPath, [bin('jest'), '--silent', '--json', `--outputFile=${unitReport}`])
const units = JSON.parse(readFileSync(unitReport, 'utf8'))

section('build')
ensureBuild()

section('interface tests')
const faceReport = join(folder, 'interface.json')
const face = await runAndKeep(process.execPath, [bin('playwright'), 'test', '--reporter=list,json'], {
  env: { PLAYWRIGHT_JSON_OUTPUT_NAME: faceReport },
})
const faces = JSON.parse(readFileSync(faceReport, 'utf8')).stats

// A suite that could not even be loaded counts as a failure, too.
const failed = units.numFailedTests + units.numRuntimeErrorTestSuites + faces.unexpected
const passed = units.numPassedTests + faces.expected + faces.flaky
const skipped = units.numPendingTests + faces.skipped
const broken = (unit.status !== 0 || face.status !== 0) && failed === 0 ? 1 : 0
section('done')
if (faces.flaky > 0) say(`Interface tests that passed only at the second try: ${faces.flaky} (named above as flaky)`)
say(`${passed} passed, ${failed + broken} failed${skipped > 0 ? `, ${skipped} skipped` : ''}`)
process.exit(failed + broken > 0 ? 1 : 0)
