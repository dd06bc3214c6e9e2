import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, extname, join, relative } from 'node:path'
import { keepDurations, knownDurations } from './durations.mjs'
import { bin, CACHE, ensurePackages, ROOT, runAndKeep, say } from './lib.mjs'

/**
 * `npm run quick [COMMIT]`: within a minute of an edit, what most likely finds out that it was wrong: the types of what
 * changed (since COMMIT, else since the last one), its lint, and the tests that reach it, the nearest first, for as long as there
 * is time. It says what it left out: only npm test is the whole.
 */
const TIME_FOR_TESTS = 40_000
/** What a file of tests takes that was never timed, in milliseconds. */
const UNKNOWN = 2_500

ensurePackages()
const started = Date.now()
const git = (...args) =>
  String(execFileSync('git', args, { cwd: ROOT }))
    .split('\n')
    .filter((line) => line !== '')
const since = process.argv[2] ?? 'HEAD'
const changed = [...new Set([...git('diff', '--name-only', '--diff-filter=d', since), ...git('ls-files', '-o', '--exclude-standard')])].filter((file) => existsSync(join(ROOT, file))) // prettier-ignore
if (changed.length === 0) {
  say('Nothing has changed.')
  process.exit(0)
}
const code = changed.filter((file) => ['.ts', '.vue', '.mjs'].includes(extname(file)))

mkdirSync(CACHE, { recursive: true })
const durations = knownDurations()

/** Runs a check; gives back what is wrong, or nothing. */
async function check(command, args, sentence, env = {}) {
  const began = Date.now()
  const { status } = await runAndKeep(process.execPath, [command, ...args], { env })
  say(`${status === 0 ? 'ok' : 'NOT OK'}  ${sentence} (${((Date.now() - began) / 1000).toFixed(1)} s)`)
  return status === 0 ? [] : [sentence]
}

const inCore = code.some((file) => !file.startsWith('app/') && !file.endsWith('.vue'))
const inApp = code.some((file) => file.startsWith('app/') || file.startsWith('server/'))

async function types() {
  const incremental = ['--noEmit', '--incremental', '--tsBuildInfoFile']
  return [
    ...(inCore ? await check(bin('tsc'), ['-p', 'tsconfig.core.json', ...incremental, join(CACHE, 'core.tsbuildinfo')], 'types of the core') : []),
    ...(inApp && existsSync(join(ROOT, '.nuxt/tsconfig.app.json')) ? await check(bin('vue-tsc'), ['-p', '.nuxt/tsconfig.app.json', ...incremental, join(CACHE, 'app.tsbuildinfo')], 'types of the page') : []),
  ] // prettier-ignore
}

async function lint() {
  return [
    ...(code.length > 0 ? await check(bin('eslint'), [...code, '--max-warnings', '0', '--no-warn-ignored'], 'lint') : []),
    ...(await check(bin('prettier'), ['--check', '--log-level', 'warn', '--ignore-unknown', ...changed], 'formatting')),
  ] // prettier-ignore
}

/** How many folders lie between two files. */
function distance(a, b) {
  const way = relative(dirname(join(ROOT, a)), dirname(join(ROOT, b)))
  return way === '' ? 0 : way.split('/').length
}

/** The tests that reach what changed: those that changed first, then the nearest. */
function reaching() {
  const listed = execFileSync(process.execPath, [bin('jest'), '--listTests', '--findRelatedTests', ...code], { cwd: ROOT })
  const nearness = (file) => (changed.includes(file) ? -1 : Math.min(...code.map((other) => distance(file, other))))
  return String(listed)
    .split('\n')
    .filter((line) => line.endsWith('.test.ts'))
    .map((line) => relative(ROOT, line))
    .map((file) => ({ file, near: nearness(file), takes: durations[file] ?? UNKNOWN }))
    .sort((a, b) => a.near - b.near || a.takes - b.takes)
} // prettier-ignore

async function tests() {
  if (code.length === 0) return []
  const all = reaching()
  // Two at once, beside types and lint at first.
  let room = 1.4 * TIME_FOR_TESTS
  const chosen = all.filter(({ takes }) => takes <= room && (room -= takes) >= 0)
  if (chosen.length === 0) return []
  const report = join(tmpdir(), `ornate-phasor-quick-${process.pid}.json`)
  const args = ['--silent', '--json', `--outputFile=${report}`]
  const faults = await check(bin('jest'), [...args, ...chosen.map(({ file }) => file)], `${chosen.length} of ${all.length} files of tests that reach it`, { ORNATE_PHASOR_DRAWS: process.env.ORNATE_PHASOR_DRAWS ?? '0.1' }) // prettier-ignore
  keepDurations(JSON.parse(readFileSync(report, 'utf8')))
  const left = all.length - chosen.length
  if (left > 0)
    say(`    left out, for want of time: ${left} files, the nearest ${all.find((one) => !chosen.includes(one)).file}`)
  return faults
}

say(`${changed.length} files changed since ${since}`)
const faults = (await Promise.all([types(), lint(), tests()])).flat()
say(
  `\n${Math.round((Date.now() - started) / 1000)} s: ${faults.length === 0 ? 'nothing was found; npm test is the whole' : `wrong: ${faults.join(', ')}`}`,
)
process.exit(faults.length === 0 ? 0 : 1)
