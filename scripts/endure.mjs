import { bin, ensureBuild, ensureChromium, ensurePackages, run, say } from './lib.mjs'

/**
 * The long form of the harness: half an hour of trouble, programs that are wrong on purpose, the largest numbers over a
 * slow line, then the upgrade that is killed on its way, many times.
 */
ensurePackages()
ensureChromium()
ensureBuild()

const minutes = process.env.ORNATE_PHASOR_ENDURE ?? '30'
say(`Trouble for ${minutes} minutes (ORNATE_PHASOR_ENDURE=…), then upgrades that are killed.`)
const storm = run(process.execPath, [bin('playwright'), 'test', 'endure', 'numbers', '--reporter=list'], {
  env: { ORNATE_PHASOR_ENDURE: minutes },
})
const upgrades = run(process.execPath, [bin('jest'), 'server/db/migrate'], {
  env: { ORNATE_PHASOR_KILLS: process.env.ORNATE_PHASOR_KILLS ?? '100' },
})
process.exit(storm || upgrades)
