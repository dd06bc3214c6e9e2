import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { FUNCTIONS } from '#core/functions/registry'
import { define } from '#core/signatures/definition'
import * as take from '#core/signatures/take'
import { exactReal } from '#core/values/make'

/** The page that says how the parts fit is true to the folders. */

const ROOT = join(__dirname, '..')
const read = (path: string): string => readFileSync(join(ROOT, path), 'utf8')
const foldersIn = (path: string): string[] =>
  readdirSync(join(ROOT, path)).filter((name) => statSync(join(ROOT, path, name)).isDirectory())

const architecture = read('docs/architecture.md')

/** The rooms of the core as the linter has them, from the ground up. */
const layers = [...(/const LAYERS = \[([^\]]*)\]/.exec(read('eslint.config.mjs'))?.[1] ?? '').matchAll(/'(\w+)'/g)].map(([, room]) => room!) // prettier-ignore

test('every room of the core has its place among the layers, and none is without a folder', () => {
  expect([...layers].sort()).toEqual(foldersIn('core').sort())
})

test('the page names the rooms in that order', () => {
  const [, list = ''] = /rooms of the core lie one above the other[^:]*:([^(]*)/.exec(architecture.replaceAll('\n', ' ')) ?? [] // prettier-ignore
  expect([...list.matchAll(/`(\w+)`/g)].map(([, room]) => room)).toEqual(layers)
})

test.each(['app', 'server'])('every folder of %s stands in the table', (part) => {
  const named = [...architecture.matchAll(/^\| `(\w+)\/(\w+)\/`/gm)].filter(([, of]) => of === part).map(([, , name]) => name!) // prettier-ignore
  expect(named.sort()).toEqual(foldersIn(part).sort())
})

test.each(['docs/architecture.md', 'docs/adding.md'])('every file that %s names by its path is there', (page) => {
  const named = [...read(page).matchAll(/`((?:core|app|server|shared|cli|scripts|kernels)\/[\w./-]+)`/g)].map(([, path]) => path!) // prettier-ignore
  expect(named.length).toBeGreaterThan(20)
  expect(named.filter((path) => !existsSync(join(ROOT, path)))).toEqual([])
})

test('the recipe for a function: an entry made by define has all that the registry asks for', () => {
  const twice = define({
    name: 'twice',
    group: 'numbers',
    parameters: [take.real('x'), take.optional(take.whole('n'))],
    summary: 'Two times x, n times over.',
    examples: [{ entry: 'twice(3)', gives: '6' }],
    // The types of its arguments follow from its parameters.
    apply: ([x, n]) => exactReal({ n: Math.round(x.re) * 2 ** (n?.re ?? 1), d: 1 }),
  })
  expect(twice.optional).toBe(1)
  expect(FUNCTIONS.every((f) => f.optional === f.parameters.filter((p) => p.optional).length)).toBe(true)
  // Only the last ones can be left out.
  for (const { name, parameters } of FUNCTIONS) {
    const first = parameters.findIndex((p) => p.optional)
    expect([name, first < 0 || parameters.slice(first).every((p) => p.optional)]).toEqual([name, true])
  }
})
