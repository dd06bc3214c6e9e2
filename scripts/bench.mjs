import { mkdirSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { build } from 'vite'
import { spawnSync } from 'node:child_process'
import { CACHE, ensureBuild, ensureChromium, ensurePackages, ROOT } from './lib.mjs'

/**
 * Bundles the bench of the core as the application is bundled, and runs it; then measures the page in Chromium.
 * `--json` prints data; `--core` leaves the page out; `--keeping` measures what saving costs the server, alone and with
 * two hundred pages that type; `--against COMMIT` compares plain evaluation with that of an older commit.
 */
ensurePackages()
if (process.argv.includes('--against')) {
  const { against } = await import('../bench/against.mjs')
  await against(process.argv[process.argv.indexOf('--against') + 1] ?? '', (line) => console.log(line))
  process.exit(0)
}
if (process.argv.includes('--keeping')) {
  ensureBuild()
  const { keeping } = await import('../bench/keeping.mjs')
  await keeping((line) => console.log(line))
  process.exit(0)
}
const outfile = join(CACHE, 'bench.mjs')
mkdirSync(CACHE, { recursive: true })
await build({
  configFile: false,
  root: ROOT,
  logLevel: 'warn',
  resolve: { alias: { '#core': join(ROOT, 'core') } },
  // Read without the tsconfig files that Nuxt writes: they may not be there yet.
  esbuild: { tsconfigRaw: '{}' },
  build: {
    ssr: join(ROOT, 'bench/bench.ts'),
    outDir: dirname(outfile),
    emptyOutDir: false,
    minify: 'esbuild',
    target: 'esnext',
    rollupOptions: { output: { entryFileNames: basename(outfile) } },
  },
})
const json = process.argv.includes('--json')
// Compiled linear algebra is measured where the machine has it, the distribution's reference library before any
// other; the bench does without.
const compiled = ['/usr/bin/python3', 'python3']
  .map((python) => spawnSync(python, [join(ROOT, 'bench/lapack.py')], { encoding: 'utf8' }))
  .find(({ status }) => status === 0)
const core = spawnSync(process.execPath, [outfile, '--json'], {
  cwd: ROOT,
  env: { ...process.env, BENCH_COMPILED: compiled?.stdout ?? '{}' },
  encoding: 'utf8',
  stdio: ['ignore', 'pipe', 'inherit'],
})
if (core.status !== 0) process.exit(core.status ?? 1)
const measured = JSON.parse(core.stdout)
if (!process.argv.includes('--core')) {
  ensureChromium()
  ensureBuild()
  const { benchPage } = await import('../bench/page.mjs')
  measured.push(...(await benchPage()))
}
if (json) console.log(JSON.stringify(measured))
else {
  for (const { name, value, unit, peer, ratio } of measured) {
    const beside =
      ratio === null
        ? ''
        : ratio < 1
          ? `   ${(1 / ratio).toFixed(1)} times faster than ${peer}`
          : `   ${ratio.toFixed(1)} times the time of ${peer}`
    console.log(`${value.toPrecision(3).padStart(8)} ${unit}  ${name}${beside}`)
  }
}
process.exit(0)
