// How much of chance the tests look at: the seed, and the share of the draws. Jest takes this in the place of the
// library, so that every property honours both. `ORNATE_PHASOR_SEED` names a seed, 0 takes a new one each time;
// `ORNATE_PHASOR_DRAWS` is the share of the draws that a test asks for (npm run prove takes all of them).
// By its file: its name would lead back here.
const real = require('../node_modules/fast-check/lib/cjs/fast-check.js')

const share = Number(process.env.ORNATE_PHASOR_DRAWS ?? 1)
const seed = Number(process.env.ORNATE_PHASOR_SEED ?? 0)
real.configureGlobal(seed === 0 ? {} : { seed })

/** What a test asks for if it does not say, and how many are drawn at least, where so many are asked for. */
const USUAL = 100
const LEAST = 20

function assert(property, options = {}) {
  const asked = options.numRuns ?? USUAL
  const numRuns = Math.max(1, Math.min(asked, LEAST), Math.round(asked * share))
  return real.assert(property, { ...options, numRuns })
}

module.exports = { ...real, assert, default: { ...real.default, assert } }
Object.defineProperty(module.exports, '__esModule', { value: true })
