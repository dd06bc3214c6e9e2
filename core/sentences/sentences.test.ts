import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { CODES, sentence } from './sentences'

/** The text of every file of the core that is not a test. */
function sources(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) return sources(path)
    return entry.name.endsWith('.ts') && !entry.name.endsWith('.test.ts') ? [readFileSync(path, 'utf8')] : []
  })
}

const TOLD = /\b(?:failure|fail|problem|hint|at)\(\s*'([a-z]+(?:-[a-z]+)*)'/g

test('every error and hint of the core has a sentence', () => {
  const told = new Set(
    sources(join(__dirname, '..')).flatMap((text) => [...text.matchAll(TOLD)].map(([, code]) => code ?? '')),
  )
  expect(told.size).toBeGreaterThan(100)
  // What fails inside a function is said in the words of its own code.
  expect([...told].filter((code) => !CODES.includes(code))).toEqual(['inside-function'])
})

test('a sentence ends as one, and shows nothing that is missing', () => {
  const anything = new Proxy({}, { get: (_, key) => (typeof key === 'string' ? '7' : undefined) })
  for (const code of CODES) {
    const text = sentence({ code, data: anything })
    expect([code, text]).toEqual([code, expect.stringMatching(/[.?!…]$/)])
    expect(text).not.toMatch(/undefined|null|NaN|\[object/)
  }
})
