import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bin, fail } from './lib.mjs'

/**
 * Compiles kernels/linear.ts into core/linear/kernelBytes.ts; with --check only tells whether what is there is what
 * comes out.
 */
const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-kernels-'))
process.on('exit', () => rmSync(folder, { recursive: true, force: true }))
const binary = join(folder, 'linear.wasm')
const options = ['-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '-o', binary]
execFileSync(process.execPath, [bin('asc'), 'kernels/linear.ts', ...options], { stdio: 'inherit' })

const place = 'core/linear/kernelBytes.ts'
const text = `/** kernels/linear.ts, compiled by \`npm run kernels\`. */
export const KERNEL_BYTES =
  '${readFileSync(binary).toString('base64')}'
`
if (!process.argv.includes('--check')) writeFileSync(place, text)
else if (readFileSync(place, 'utf8') !== text)
  fail(`${place} is not what kernels/linear.ts compiles to: npm run kernels.`)
