import { bindStatement } from '../notation/bind'
import { parseLine } from '../notation/parser'
import { evaluateTerm } from '../evaluate/line'
import type { Surroundings } from '../evaluate/line'
import type { Node } from '../notation/tree'
import { decimalsIn, figuresOf, roomOf } from './figures'

const NOWHERE: Surroundings = { letter: 'j', angleUnit: 'deg', timeLimit: 1000, above: () => null, below: () => null, anywhere: () => false, builtIn: (name) => name, inverseOf: () => null, near: () => [] } // prettier-ignore

function term(text: string): Node {
  const { statement } = parseLine(text)
  const { body } = bindStatement(text, statement, NOWHERE)
  if (!body) throw new Error('a term')
  return body
}
const evaluate = (node: Node) => evaluateTerm(node, NOWHERE, null).value
const room = (text: string, given: readonly string[] = [], wholes = false) => roomOf(term(text), evaluate, new Set(given), wholes) // prettier-ignore
const near = (x: number) => expect.closeTo(x, 6) as number

test.each([
  ['0.333', [0.0005]],
  ['12', []],
  ['2.50', [0.005]],
  ['1.5e3', [50]],
  ['4.7k', [50]],
  ['3.14*2 + 0.1', [0.005, 0.05]],
  ['2.24∠116.6°', [0.005, 0.05]],
])('the decimals of %s stand for so much on either side', (text, halves) =>
  expect(decimalsIn(term(text)).map((d) => d.half)).toEqual(halves.map((h) => expect.closeTo(h, 12))),
)

test('whole numbers stand for themselves, unless they are rounded, too', () => {
  expect(decimalsIn(term('143'))).toEqual([])
  expect(decimalsIn(term('143'), true).map((d) => d.half)).toEqual([0.5])
})

test.each([
  // By hand: d(ab) = a·δb + b·δa, and so on.
  ['2*0.5', [{ re: 0.1, im: 0 }]],
  ['0.5 + 0.5', [{ re: 0.1, im: 0 }]],
  ['10*(1.0 + 2.0j)', [{ re: 0.5, im: 0.5 }]],
  ['5', [{ re: 0, im: 0 }]],
  ['[1.0, 3]', [{ re: 0.05, im: 0 }, { re: 0, im: 0 }]], // prettier-ignore
])('%s has room for what its decimals stand for', (text, rooms) =>
  expect(room(text)).toEqual(rooms.map(({ re, im }) => ({ re: near(re), im: near(im) }))),
)

test('the angle of a polar literal moves the value along its ring', () => {
  // 10∠0°: half a tenth of a degree turns it by 10·π/180·0.05.
  const [found] = room('10∠0.0°')
  expect(found).toEqual({ re: expect.closeTo(3.8e-6, 6), im: near((10 * Math.PI * 0.05) / 180) })
})

test('what was given stands for itself', () => {
  expect(room('4.7*2', ['4.7'])).toEqual([{ re: 0, im: 0 }])
  expect(room('4.7*2.0', ['4.7'])).toEqual([{ re: near(0.235), im: 0 }])
})

test('the numbers of a value, in their order', () => {
  expect(figuresOf(evaluate(term('3 + 4j')))).toMatchObject([{ re: 3, im: 4 }])
  expect(figuresOf(evaluate(term('[[1, 2], [3, 4]]')))?.map((z) => z.re)).toEqual([1, 2, 3, 4])
  expect(figuresOf(evaluate(term('180°')))).toEqual([{ re: Math.PI, im: 0 }])
  expect(figuresOf(evaluate(term('"text"')))).toBeNull()
  expect(figuresOf({ kind: 'failure', code: 'unfinished', data: { after: '' } })).toBeNull()
})
