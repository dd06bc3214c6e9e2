import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Other people's readers, for tests of what is written: Debian's Python with its packages, where it is installed. */

/** Runs a program on files of these contents, and gives what it printed as JSON. The files are in `files`. */
export function python(program: string, contents: readonly string[]): unknown {
  const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-exchange-'))
  try {
    contents.forEach((text, k) => writeFileSync(join(folder, String(k)), text))
    const head = `import json, sys\nfiles = [sys.argv[1] + "/" + str(k) for k in range(${contents.length})]\n`
    const { stdout, stderr, status } = spawnSync('python3', ['-c', head + program, folder], {
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    })
    if (status !== 0) throw new Error(stderr)
    const found: unknown = JSON.parse(stdout)
    return found
  } finally {
    rmSync(folder, { recursive: true })
  }
}
