import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { ensurePackages, ROOT, run } from './lib.mjs'

/** Bundles the bench as the application is bundled, and runs it; `--json` is passed on. */
ensurePackages()
const outfile = join(ROOT, 'node_modules/.cache/ornate-phasor/bench.mjs')
mkdirSync(join(ROOT, 'node_modules/.cache/ornate-phasor'), { recursive: true })
await build({
  entryPoints: [join(ROOT, 'bench/bench.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  alias: { '#core': join(ROOT, 'core') },
  logLevel: 'warning',
})
process.exit(run(process.execPath, [outfile, ...process.argv.slice(2)]))
