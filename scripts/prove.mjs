import { execFileSync } from 'node:child_process'
import { bin, ensurePackages, ROOT, run, say } from './lib.mjs'
import { seedOfCommit } from './seed.mjs'

/**
 * Every random test with all of its draws: once, or for as many hours as ORNATE_PHASOR_HOURS says, each time with
 * other inputs. `npm run prove core/control` looks at one folder. What fails is told with the seed that repeats it.
 */
ensurePackages()
const hours = Number(process.env.ORNATE_PHASOR_HOURS ?? 0)
const paths = process.argv.slice(2)
const where = paths.length > 0 ? paths : ['core', 'shared', 'app', 'server', 'cli']
const files = String(execFileSync('git', ['grep', '-l', 'fast-check', '--', ...where.map((path) => `:(glob)${path}/**/*.test.ts`)], { cwd: ROOT })).trim().split('\n') // prettier-ignore

const began = Date.now()
const failed = []
for (let pass = 0; pass === 0 || Date.now() - began < hours * 3_600_000; pass += 1) {
  const seed = String(Number(process.env.ORNATE_PHASOR_SEED ?? seedOfCommit()) + pass)
  say(`${files.length} files with random inputs, all draws, seed ${seed}`)
  const env = { ORNATE_PHASOR_SEED: seed, ORNATE_PHASOR_DRAWS: process.env.ORNATE_PHASOR_DRAWS ?? '1' }
  if (run(process.execPath, [bin('jest'), '--silent', '--testTimeout=120000', ...files], { env }) !== 0)
    failed.push(seed)
}
say(failed.length === 0 ? 'Nothing was found.' : `Failed with the seed ${failed.join(', ')} (ORNATE_PHASOR_SEED=…).`)
process.exit(failed.length === 0 ? 0 : 1)
