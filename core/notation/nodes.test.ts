import * as fc from 'fast-check'
import { inverseOf, standardName } from '../functions/registry'
import { integer } from '../values/make'
import { bindStatement } from './bind'
import type { Kept, Names } from './names'
import * as N from './nodes'
import { numeralOf } from './numerals'
import { parseLine } from './parser'
import { childrenOf } from './references'
import { bracketOf } from './tree'
import type { Node } from './tree'

const KEPT = new Map<string, Kept>(
  ['x', 'A', 'V'].map((name, line) => [name, { line, kind: 'value', value: integer(line) }]),
)
const names: Names = {
  letter: 'j',
  above: (name) => KEPT.get(name) ?? null,
  below: () => null,
  anywhere: (name) => KEPT.has(name),
  builtIn: standardName,
  inverseOf,
  near: () => [],
}

/** A line for every kind of node. */
const LINES = [
  '2*(3 + 4)/5 - 1.5^2',
  '2x + 3(4+1)',
  '5∠-30° || -2j',
  '36°52\'12" + 1 rad',
  'A[2, all]^T*A[last]',
  'lu(A).lower^*',
  '|x| + ||V||',
  '√2 + 3!',
  '"a word" + "b"',
  'sin^2(x) + f(x, 2x)',
  '[k^2 for k = 1 to 9 step 2]',
  'V[2 to 4 step 2]',
  '1 < x <= 3 and not x == 2',
  'x where x = 2, V = 3',
  '10 to 100k per decade 50',
  '0 to 1 count 11',
  'pi*e + ∞ + eps + j4.5 + 4k7',
  '2 +',
]

function allNodes(node: Node): readonly Node[] {
  return [node, ...childrenOf(node).flatMap(allNodes)]
}

function trees(line: string): readonly Node[] {
  const { statement, source } = parseLine(line)
  const raw = statement.type === 'expression' || statement.type === 'define' ? [statement.body] : []
  const { body, right } = bindStatement(source, statement, names)
  return [...raw, ...(body ? [body] : []), ...(right ? [right] : [])]
}

test('every kind of node is met in these lines', () => {
  const kinds = new Set(
    LINES.flatMap(trees)
      .flatMap(allNodes)
      .map((node) => node.type),
  )
  const expected = [
    'all', 'apply', 'bars', 'call', 'chain', 'compare', 'constant', 'dms', 'entry', 'group', 'hole', 'last', 'lettered', 'list', 'literal', 'logic', 'mark', 'name', 'parallel', 'part', 'polar', 'postfix', 'power', 'product', 'range', 'root', 'series', 'sign', 'slice', 'sum', 'text', 'where',
  ] // prettier-ignore
  expect([...kinds].sort()).toEqual(expected)
})

test.each(LINES)('all nodes of %s have one shape, before and after binding', (line) => {
  const shape = Object.keys(trees('1')[0] ?? {})
  for (const node of trees(line).flatMap(allNodes)) expect(Object.keys(node)).toEqual(shape)
})

test('a node of a line that can be read spans what stands below it', () => {
  const pieces = [
    '1', '2.5', 'x', 'A', '(', ')', '+', '-', '*', '/', '^', '||', '∠', '°', '!', ' ', '2x', '5j', '^T', 'sqrt(',
    '[', ']', ',', '|', ' to ', ' and ', '==', '[1, 2]', '.lower', '[last]', ' for k = 1 to 3',
  ] // prettier-ignore
  const line = fc.array(fc.constantFrom(...pieces), { maxLength: 14 }).map((texts) => texts.join(''))
  fc.assert(
    fc.property(line, (source) => {
      fc.pre(parseLine(source).problem === null)
      for (const tree of trees(source))
        for (const node of allNodes(tree)) {
          expect(node.from).toBeGreaterThanOrEqual(0)
          expect(node.to).toBeLessThanOrEqual(source.length)
          for (const child of childrenOf(node)) {
            expect(child.from).toBeGreaterThanOrEqual(node.from)
            expect(child.to).toBeLessThanOrEqual(node.to)
          }
        }
    }),
    { numRuns: 1500 },
  )
})

test('the bracket of a call is where it is written', () => {
  const calls = ['f(x, 1)', 'sin^2(x)', 'sin^-1(x)', '2f(x)', ' g ( 1 )'].map((line) => {
    const found = trees(line)
      .flatMap(allNodes)
      .find((node) => node.type === 'call')
    return found ? line.slice(bracketOf(found).from, bracketOf(found).to) : null
  })
  expect(calls).toEqual(['(x, 1)', '(x)', '(x)', '(x)', null])
})

test('a node keeps what it is made of under the names of its kind', () => {
  const [p, q, r] = [N.name('p', 0, 1), N.name('q', 2, 3), N.name('r', 4, 5)]
  const [value, numeral, rest] = [integer(2), numeralOf('2'), [{ sign: '*', node: q } as const]]
  const slice = N.slice(p, q, r, 0, 5)
  expect(slice).toMatchObject({ type: 'slice', first: p, last: q, step: r, from: 0, to: 5 })
  expect(N.literal(value, '2', 'k', 'after', 0, 3)).toMatchObject({ value, digits: '2', prefix: 'k', letter: 'after' })
  expect(N.constant('pi', value, 0, 2)).toMatchObject({ name: 'pi', value })
  expect(N.lettered(numeral, 'n', 0, 2)).toMatchObject({ digits: '2', run: 'n', numeral, runFrom: 1 })
  expect(N.group(p, true, 0, 3)).toMatchObject({ inner: p, free: true })
  expect(N.sum('-', p, q, 0, 3)).toMatchObject({ sign: '-', left: p, right: q })
  expect(N.product('/', p, q, 0, 3)).toMatchObject({ sign: '/', left: p, right: q })
  expect(N.parallel(p, q, 0, 3)).toMatchObject({ sign: '||', left: p, right: q })
  expect(N.chain(p, rest, 0, 3)).toMatchObject({ first: p, rest })
  expect(N.sign('-', p, 0, 2)).toMatchObject({ sign: '-', operand: p })
  expect(N.power(p, q, 0, 3)).toMatchObject({ base: p, exponent: q })
  expect(N.polar(p, q, 0, 3)).toMatchObject({ magnitude: p, angle: q })
  expect(N.postfix('deg', p, 0, 2)).toMatchObject({ sign: 'deg', operand: p })
  expect(N.mark('T', p, true, 0, 3)).toMatchObject({ sign: 'T', operand: p, kept: true })
  expect(N.call(p, q, [r], true, 9)).toMatchObject({ callee: p, raised: q, args: [r], free: true, from: 0, to: 9 })
  expect(N.apply('sin', true, q, [r], 0, 9)).toMatchObject({ name: 'sin', builtIn: true, raised: q, args: [r] })
  expect(N.bars(p, true, 0, 3)).toMatchObject({ inner: p, double: true })
  expect(N.root(p, 0, 2)).toMatchObject({ operand: p })
  expect(N.text('word', 0, 6)).toMatchObject({ text: 'word' })
  expect(N.dms(['1', '2', '3'], 0, 6)).toMatchObject({ degrees: '1', minutes: '2', seconds: '3' })
  const compared = [{ sign: '<', node: q } as const]
  expect(N.compare(p, compared, 0, 3)).toMatchObject({ first: p, rest: compared })
  expect(N.logic('and', [p, q], 0, 5)).toMatchObject({ sign: 'and', operands: [p, q] })
  expect(N.list([p, q], 0, 5)).toMatchObject({ entries: [p, q] })
  expect(N.series(p, q, slice, 0, 9)).toMatchObject({ body: p, counter: q, over: slice })
  expect(N.entry(p, q, r, 0, 6)).toMatchObject({ operand: p, index: q, column: r })
  expect(N.range(p, q, 'count', r, 0, 6)).toMatchObject({ first: p, last: q, by: 'count', amount: r })
  expect(N.range(p, q, null, null, 0, 6)).toMatchObject({ by: null, amount: null })
  const given = [{ name: q, value: r }]
  expect(N.where(p, given, 0, 9)).toMatchObject({ body: p, given })
  expect(N.part(p, 'lower', 0, 7)).toMatchObject({ operand: p, name: 'lower' })
})
