import * as fc from 'fast-check'
import { inverseOf, standardName } from '../functions/registry'
import { integer } from '../values/make'
import { bindStatement } from './bind'
import { usedNames } from './names'
import type { Kept, Names } from './names'
import { parseLine } from './parser'
import type { Node, Statement } from './tree'

const KEPT = new Map<string, Kept>(
  ['x', 'n', 'T', 'V'].map((name, line) => [name, { line, kind: 'value', value: integer(line) }]),
)
let asked: string[] = []
const names: Names = {
  letter: 'j',
  above: (name) => {
    asked.push(name)
    return KEPT.get(name) ?? null
  },
  below: () => null,
  anywhere: (name) => KEPT.has(name),
  builtIn: standardName,
  inverseOf,
  near: () => [],
}

/** The same tree with nothing said to be free: binding has to go through all of it. */
function unfree<T>(tree: T): T {
  if (Array.isArray(tree)) return tree.map(unfree) as T
  if (typeof tree !== 'object' || tree === null || 'kind' in tree) return tree
  const copy = Object.create(Object.getPrototypeOf(tree) as object) as T
  // What is free says so in a flag, among the nodes as in a statement.
  const flags = 'type' in tree && (tree.type === 'group' || tree.type === 'call') ? ['flag'] : ['free']
  for (const [key, value] of Object.entries(tree))
    Object.assign(copy as object, { [key]: flags.includes(key) ? false : unfree(value) })
  return copy
}

const withoutFree = (node: Node | null): unknown => unfree(node)

test('what is said to depend on nothing that is kept is left as it is by binding', () => {
  const pieces = [
    '1', '2.5', '3', '(', ')', '+', '-', '*', '/', '^', '||', '∠', '°', '!', ' ', 'mod', 'x', 'n', '2x', '5j',
    '^T', '^*', '<', 'sqrt(', '[', ']', ',', '|', ' to ',
  ] // prettier-ignore
  const line = fc.array(fc.constantFrom(...pieces), { maxLength: 12 }).map((tokens) => tokens.join(''))
  let free = 0
  fc.assert(
    fc.property(line, (source) => {
      const { statement } = parseLine(source)
      if (statement.type === 'expression' && statement.free) free += 1
      const quick = bindStatement(source, statement, names)
      const slow = bindStatement(source, unfree<Statement>(statement), names)
      expect(withoutFree(quick.body)).toEqual(withoutFree(slow.body))
      expect(quick.hints).toEqual(slow.hints)
      expect(quick.problem).toEqual(slow.problem)
      expect(usedNames(quick)).toEqual(usedNames(slow))
    }),
    { numRuns: 4000 },
  )
  expect(free).toBeGreaterThan(100)
})

test.each([
  ['2*(3 + 4)/5 - 1.5^2', true],
  ['sqrt(2)', false],
  ['-2^2', false],
  ['2 || 3', false],
  ['2(3)', false],
  ['V', false],
  ['1 to 3', false],
])('%s is free: %s', (source, free) => {
  const { statement } = parseLine(source)
  expect(statement.type === 'expression' && statement.free).toBe(free)
})

test('names that a line reads come once each, in the order of the text, with what they are', () => {
  const bound = bindStatement('n + x*n + V', parseLine('n + x*n + V').statement, names)
  expect(usedNames(bound)).toEqual(['n', 'x', 'V'])
  expect(bound.used).toMatchObject({ name: 'V', kept: KEPT.get('V') })
})

test('a name is asked for once wherever it stands', () => {
  asked = []
  bindStatement('V*x/V', parseLine('V*x/V').statement, names)
  expect(asked).toEqual(['V', 'x', 'V'])
})
