import { spawnSync } from 'node:child_process'

/**
 * Programs that nobody here wrote, which tests ask where the machine has them. A test that cannot ask is skipped, and
 * its name says whom it would have asked: `npm test` names them in one line at its end.
 */
const ORACLES = {
  Python: ['python3', '-c', 'import csv'],
  SciPy: ['python3', '-c', 'import scipy'],
  LaTeX: ['pdflatex', '--version'],
  pdftotext: ['pdftotext', '-v'],
} as const

export type Oracle = keyof typeof ORACLES

function has(oracle: Oracle): boolean {
  const [command, ...args] = ORACLES[oracle]
  return spawnSync(command, args).status === 0
}

/** Tests that ask these programs: a describe of its own, skipped where one of them is missing. */
export function asking(oracles: readonly Oracle[], title: string, tests: () => void): void {
  const missing = oracles.filter((oracle) => !has(oracle))
  if (missing.length === 0) describe(title, tests)
  else describe.skip(`${title} (asks ${missing.join(' and ')})`, tests)
}
