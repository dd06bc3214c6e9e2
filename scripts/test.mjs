import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { keepDurations, tellSlowest } from './durations.mjs'
import { bin, ensureChromium, ensurePackages, fail, ROOT, runAndKeep, say } from './lib.mjs'
import { seedOfCommit } from './seed.mjs'
import { tellUnasked } from './unasked.mjs'

/** Types, lint, build, unit tests, interface tests; ends with one line that adds up the runners. */
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
section('types, lint and build')
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
    [join(ROOT, 'scripts/build.mjs'), [], 'The application could not be built.'],
  ]),
])
const fault = faults.find((found) => found !== null)
if (fault) fail(fault)

// A tenth of the draws of random tests, with the seed of the commit: all of them in npm run prove.
const draws = process.env.ORNATE_PHASOR_DRAWS ?? '0.1'
const seed = process.env.ORNATE_PHASOR_SEED ?? String(seedOfCommit())
section('unit tests')
say(`Random inputs: seed ${seed} (ORNATE_PHASOR_SEED), ${100 * Number(draws)} % of the draws (ORNATE_PHASOR_DRAWS)`)
const unitReport = join(folder, 'unit.json')
const unit = await runAndKeep(process.execPath, [bin('jest'), '--silent', '--json', `--outputFile=${unitReport}`], {
  env: { ORNATE_PHASOR_DRAWS: draws, ORNATE_PHASOR_SEED: seed },
})
const units = JSON.parse(readFileSync(unitReport, 'utf8'))
tellSlowest('files of unit tests', keepDurations(units))

section('interface tests')
const faceReport = join(folder, 'interface.json')
const face = await runAndKeep(process.execPath, [bin('playwright'), 'test', '--reporter=list,json'], {
  env: { PLAYWRIGHT_JSON_OUTPUT_NAME: faceReport },
})
const { stats: faces, suites } = JSON.parse(readFileSync(faceReport, 'utf8'))
const specsIn = (suite) => [...(suite.suites ?? []).flatMap(specsIn), ...(suite.specs ?? [])]
tellSlowest(
  'interface tests',
  suites.flatMap(specsIn).map(({ file, title, tests }) => ({
    name: `${file}: ${title}`,
    seconds: tests.flatMap((test) => test.results).reduce((sum, { duration }) => sum + duration, 0) / 1000,
  })),
)

// A suite that could not even be loaded counts as a failure, too.
const failed = units.numFailedTests + units.numRuntimeErrorTestSuites + faces.unexpected
const passed = units.numPassedTests + faces.expected + faces.flaky
const skipped = units.numPendingTests + faces.skipped
const broken = (unit.status !== 0 || face.status !== 0) && failed === 0 ? 1 : 0
section('done')
tellUnasked(units, suites.flatMap(specsIn))
if (faces.flaky > 0) say(`Interface tests that passed only at the second try: ${faces.flaky} (named above as flaky)`)
say(`${passed} passed, ${failed + broken} failed${skipped > 0 ? `, ${skipped} skipped` : ''}`)
process.exit(failed + broken > 0 ? 1 : 0)
