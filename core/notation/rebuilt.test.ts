import { termToLatex, withoutMarks } from './latex'
import { bindStatement } from './bind'
import { parseLine } from './parser'
import { withChildren, withNames } from './rebuilt'
import { childrenOf } from './references'
import * as N from './nodes'
import type { Node } from './tree'

const NAMES = { letter: 'j' as const, above: (name: string) => (name === 'x' ? { line: 0, kind: 'value' as const, value: null } : null), below: () => null, anywhere: () => false, builtIn: (name: string) => (['sin', 'sum', 'each', 'max'].includes(name) ? name : null), inverseOf: () => null, near: () => [] } // prettier-ignore
function term(text: string): Node {
  const { body } = bindStatement(text, parseLine(text).statement, NAMES)
  if (!body) throw new Error(`${text} is a term`)
  return body
}
const latex = (node: Node): string => withoutMarks(termToLatex(node, { letter: 'j', bare: new Set(), angleUnit: 'deg', grouping: false, typesetting: () => undefined })) // prettier-ignore

const TERMS = ['a + b', 'a - b', 'a*b', 'a/b', '2x', 'a || b', '-a', 'a^b', 'a^T', 'a^*', '3∠a', 'a!', 'a°', '(a + b)', '|a|', 'sin(a)', 'sin^2(a)', 'max(a, b, c)', '[a, b]', '[[a, b], [c, d]]', 'a < b', 'a < b <= c', 'not a', 'a and b', 'a[b]', 'a[b, c]', 'a to b', 'a to b step c', 'sum(a for k = b to c)', 'a where x = b', '√a', '3 V'] // prettier-ignore

test.each(TERMS)('%s with its own children is itself', (text) => {
  const node = term(text)
  expect(withChildren(node, childrenOf(node))).toBe(node)
})

test.each(TERMS)('%s with a child replaced has it in its place, and everything else as it was', (text) => {
  const node = term(text)
  const children = childrenOf(node)
  children.forEach((child, k) => {
    if (child.type === 'slice' || (node.type === 'where' && k % 2 === 1)) return
    const other = N.name('zz', 0, 0)
    const made = withChildren(node, children.map((c, at) => (at === k ? other : c))) // prettier-ignore
    expect(made.type).toBe(node.type)
    expect(childrenOf(made).map((c, at) => (at === k ? c === other : c === children[at]))).toEqual(children.map(() => true)) // prettier-ignore
    expect(latex(made)).toContain('zz')
  })
})

const given = (text: string): string => latex(withNames(term(text), new Map([['a', N.name('q', 0, 0)], ['k', N.name('q', 0, 0)], ['x', N.name('q', 0, 0)]]))) // prettier-ignore

test('names are replaced everywhere, but counters and unknowns keep what they are', () => {
  expect(given('a + sin(a)')).not.toContain('{a}')
  expect(given('sum(a*k for k = 1 to a)').match(/q/g)).toHaveLength(2)
  expect(given('a where x = a').match(/q/g)).toHaveLength(2)
})
