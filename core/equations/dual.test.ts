import * as fc from 'fast-check'
import { FUNCTIONS, findFunction } from '../functions/registry'
import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'
import { reckon } from '../testing'
import { dimension, NONE } from '../units/dimension'
import { measure, PLAIN } from '../units/measure'
import type { Measure } from '../units/measure'
import { integer, real } from '../values/make'
import { HOLOMORPHIC, holomorphic } from './derivatives'
import { compileEquation } from './dual'
import type { Compiled } from './dual'
import { probed } from './probe'
import { Unifier } from './unify'

const x = N.name('x', 0, 1)
const valued = (n: number): Node => N.valued(real(n), 'plain', 0, 0)
const call = (name: string, ...args: readonly Node[]): Node => N.apply(name, true, null, args, 0, 0)

/** A term in x as a function of its real and its imaginary part. */
function compiled(term: Node): Compiled {
  const found = compileEquation(term, N.valued(integer(0), 'plain', 0, 0), {
    variables: new Map([['x', { re: 0, im: 1 }]]),
    count: 2,
    value: (node) => (node.type === 'valued' || node.type === 'constant' ? node.value : null),
    radiansPerUnit: () => 1,
  })
  if (typeof found !== 'function') throw new Error(`no derivative: ${found.type}`)
  return found
}

const part = fc.double({ min: 0.15, max: 0.85, noNaN: true })

/** Terms with every operator and function that has a derivative. */
const TERMS: readonly (readonly [string, Node])[] = [
  ...HOLOMORPHIC.map((name) => [name, call(name, x)] as const),
  ...['abs', 're', 'im', 'conj', 'arg', 'dB'].map((name) => [name, call(name, x)] as const),
  ['+', N.sum('+', x, valued(2), 0, 0)],
  ['−', N.sum('-', valued(2), x, 0, 0)],
  ['·', N.product('*', x, N.sum('+', x, valued(1), 0, 0), 0, 0)],
  ['÷', N.product('/', valued(3), N.sum('+', x, valued(1), 0, 0), 0, 0)],
  ['∥', N.parallel(x, valued(2), 0, 0)],
  ['^3', N.power(x, valued(3), 0, 0)],
  ['^−2', N.power(x, valued(-2), 0, 0)],
  ['^0.4', N.power(x, valued(0.4), 0, 0)],
  ['2^x', N.power(valued(2), x, 0, 0)],
  ['x^x', N.power(x, x, 0, 0)],
  ['e^x', N.power(N.constant('e', real(Math.E), 0, 0), x, 0, 0)],
  ['√', N.root(x, 0, 0)],
  ['| |', N.bars(x, false, 0, 0)],
  ['conj', N.mark('*', x, false, 0, 0)],
  ['sign', N.sign('-', x, 0, 0)],
  ['∠', N.polar(valued(3), call('abs', x), 0, 0)],
  ['log', call('log', x, valued(3))],
  ['root', call('root', x, valued(3))],
  ['wave', call('wave', x, valued(2), valued(0.3))],
  ['par', call('par', x, valued(1), valued(2))],
  ['raised', N.apply('sin', true, valued(2), [x], 0, 0)],
]

test.each(TERMS)('%s: its derivatives are the slopes of its values', (_, term) => {
  const f = compiled(term)
  const h = 1e-6
  fc.assert(
    fc.property(part, part, (re, im) => {
      const here = f(Float64Array.of(re, im))
      for (const k of [0, 1]) {
        const moved = (by: number): ReturnType<Compiled> => f(Float64Array.of(re + (k === 0 ? by : 0), im + (k === 1 ? by : 0))) // prettier-ignore
        const [up, down] = [moved(h), moved(-h)]
        const scale = Math.max(1, Math.abs(here.dRe[k]!), Math.abs(here.dIm[k]!))
        expect(Math.abs((up.re - down.re) / (2 * h) - here.dRe[k]!)).toBeLessThan(1e-6 * scale)
        expect(Math.abs((up.im - down.im) / (2 * h) - here.dIm[k]!)).toBeLessThan(1e-6 * scale)
      }
      expect(here.size).toBeGreaterThanOrEqual(Math.hypot(here.re, here.im) * (1 - 1e-12))
    }),
    { numRuns: 60 },
  )
})

test('the functions give what the registry gives', () => {
  for (const name of HOLOMORPHIC) {
    const definition = findFunction(name)
    expect([name, definition !== null]).toEqual([name, true])
    const turn = holomorphic(name)!.angle === 'in' ? ' rad' : ''
    const [result] = reckon([`${name}(0.4${turn})`])
    const value = result!.value
    const own = compiled(call(name, x))(Float64Array.of(0.4, 0))
    if (value?.kind === 'number')
      expect([name, own.re, own.im]).toEqual([name, expect.closeTo(value.re, 12), expect.closeTo(value.im, 12)]) // prettier-ignore
    else if (value?.kind === 'angle') expect([name, own.re]).toEqual([name, expect.closeTo(value.radians, 12)])
    else throw new Error(`${name} gives ${value?.kind}`)
  }
})

test('what has no derivative is found, wherever it stands', () => {
  for (const name of ['floor', 'round', 'sign', 'factorial']) {
    const term = N.sum('+', x, call(name, x), 0, 0)
    const found = compileEquation(term, valued(1), { variables: new Map([['x', { re: 0, im: null }]]), count: 1, value: () => real(1), radiansPerUnit: () => 1 }) // prettier-ignore
    expect([name, typeof found === 'function' ? '' : found.type === 'apply' ? found.name : found.type]).toEqual([name, name]) // prettier-ignore
  }
})

test('the rules of units are found by asking the functions', () => {
  const told = (name: string, count = 1) => {
    const rule = probed(name, count)
    return rule && [rule.needs, rule.power && Q.toText(rule.power), rule.angle]
  }
  expect(told('abs')).toEqual(['alike', '1', false])
  expect(told('conj')).toEqual(['alike', '1', false])
  expect(told('sqrt')).toEqual(['alike', '1/2', false])
  expect(told('cbrt')).toEqual(['alike', '1/3', false])
  expect(told('arg')).toEqual(['alike', null, true])
  expect(told('sin')).toEqual(['angle', null, false])
  expect(told('arctan')).toEqual(['plain', null, true])
  expect(told('ln')).toEqual(['plain', null, false])
  expect(told('par', 2)).toEqual(['alike', '1', false])
  for (const { name, parameters, lazy } of FUNCTIONS)
    if (!lazy) expect(() => probed(name, parameters.length)).not.toThrow()
})

describe('what is sought measures what its equations ask', () => {
  const group = {
    one: PLAIN,
    times: (a: Measure, b: Measure) => a.times(b),
    power: (a: Measure, e: Q.Rational) => a.to(e),
    isOne: (a: Measure) => a.dimension === NONE,
  }
  const base = ['m', 's', 'kg', 'A'] as const
  test('names that are tied by random products come out as they were made, contradictions are seen', () => {
    const exponents = fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 4, maxLength: 4 })
    fc.assert(
      fc.property(
        fc.array(exponents, { minLength: 2, maxLength: 5 }),
        fc.integer({ min: 1, max: 3 }),
        (truth, power) => {
          const of = (e: readonly number[]): Measure => measure(dimension(Object.fromEntries(base.map((b, k) => [b, e[k]!])))) // prettier-ignore
          const measures = truth.map(of)
          const unifier = new Unifier<Measure>(group)
          const name = (k: number) => unifier.named(`x${k}`)
          // x0^power is known, and each next one by its ratio to the one before it.
          const ties = measures.map((_, k) => (k === 0 ? unifier.power(name(0), Q.whole(power)) : unifier.over(name(k), name(k - 1)))) // prettier-ignore
          const worth = measures.map((m, k) => (k === 0 ? m.to(Q.whole(power)) : m.over(measures[k - 1]!)))
          for (const k of [...ties.keys()].reverse())
            expect(unifier.equate(ties[k]!, unifier.known(worth[k]!))).toBe(true)
          measures.forEach((m, k) => expect(unifier.measureOf(`x${k}`).dimension).toBe(m.dimension))
          const other = measures[0]!.times(measure(dimension({ cd: 1 })))
          expect(unifier.equate(name(0), unifier.known(other))).toBe(false)
        },
      ),
    )
  })
})
