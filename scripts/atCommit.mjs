import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, symlinkSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { CACHE, fail, ROOT } from './lib.mjs'

/** Programs of this project bundled with the parts of another commit: for whoever compares the two. */

const git = (...args) => String(execFileSync('git', args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] })).trim()

/** The files of a commit in a folder of their own; kept, since a commit never changes. */
export function treeOf(commit) {
  let full
  try {
    full = git('rev-parse', '--verify', `${commit}^{commit}`)
  } catch {
    fail(`There is no commit ${commit}.`)
  }
  const tree = join(CACHE, 'commits', full)
  if (!existsSync(join(tree, 'package.json'))) {
    mkdirSync(tree, { recursive: true })
    const archive = execFileSync('git', ['archive', full], { cwd: ROOT, maxBuffer: 1 << 30 })
    execFileSync('tar', ['-x', '-C', tree], { input: archive })
    symlinkSync(join(ROOT, 'node_modules'), join(tree, 'node_modules'))
  }
  return tree
}

/** One of our programs, bundled with the core and the shared files of a tree. */
export async function bundled(entry, tree, name) {
  const outfile = join(CACHE, `${name}.mjs`)
  try {
    await build({
      entryPoints: [join(ROOT, entry)],
      outfile,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      logLevel: 'error',
      alias: { '#core': join(tree, 'core'), '#shared': join(tree, 'shared') },
      tsconfigRaw: '{}',
      minify: true,
    })
  } catch {
    fail(`${entry} cannot be built with the core of ${tree}: what it names is not there.`)
  }
  return outfile
}

/** What a commit is called in what is printed. */
export const nameOf = (commit) => git('log', '-1', '--format=%h (%s)', commit)
