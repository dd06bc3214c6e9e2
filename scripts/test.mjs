import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bin, ensureBuild, ensureChromium, ensurePackages, run, runAndKeep, say, fail } from './lib.mjs'

/** Types, lint, unit tests, build, interface tests; ends with one line that adds up the runners. */
ensurePackages()
ensureChromium()

const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-test-'))
process.on('exit', () => rmSync(folder, { recursive: true, force: true }))

const started = Date.now()
function section(name) {
  say(`\n── ${name} (${Math.round((Date.now() - started) / 1000)} s)`)
}

section('types')
const env = { NUXT_TELEMETRY_DISABLED: '1' }
if (run(process.execPath, [bin('nuxt'), 'typecheck'], { env }) !== 0) fail('The types of the application do not fit.')
if (run(process.execPath, [bin('tsc'), '-p', 'tsconfig.core.json']) !== 0) fail('The types of the core do not fit.')

section('lint')
if (run(process.execPath, [bin('eslint'), '.', '--max-warnings', '0']) !== 0) fail('The lint rules are not kept.')
if (run(process.execPath, [bin('prettier'), '--check', '--log-level', 'warn', '.']) !== 0)
  fail('Some files are not formatted: npm run format.')

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
