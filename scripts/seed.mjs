import { execFileSync } from 'node:child_process'
import { ROOT } from './lib.mjs'

/**
 * The seed of random tests: that of the commit, by what is in it and not by when, so that what decides whether a
 * change lands is the same each time and yet every change is looked at with inputs of its own.
 */
export function seedOfCommit() {
  try {
    const tree = execFileSync('git', ['rev-parse', 'HEAD^{tree}'], { cwd: ROOT, stdio: ['ignore', 'pipe', 'ignore'] })
    return Number.parseInt(String(tree).slice(0, 7), 16) || 1
  } catch {
    return 20261201
  }
}
