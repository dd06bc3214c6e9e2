import * as fc from 'fast-check'
import { angleOf, angleOfTurns, exactReal, integer, real, text, truth, vector } from '../values/make'
import * as Q from '../numbers/rational'
import { add, divide, multiply, parallel, power, subtract } from '../values/arithmetic'
import { complexNumber } from '../values/make'
import type { NumberValue, Value } from '../values/types'
import { binary, compare } from './rules'
import { negate } from './unary'
import type { BinarySign, OperatorContext } from './rules'

const plain: OperatorContext = { angleUnit: 'deg', exponent: false, bareSide: () => undefined }
const SIGNS: readonly BinarySign[] = ['+', '-', '*', '/', 'mod', '^', '||']

const SAMPLES: readonly Value[] = [
  integer(3),
  real(0.5),
  complexNumber({ re: 1, im: 2 }),
  angleOf(0.3),
  angleOfTurns({ n: 1, d: 12 }),
  text('a'),
  truth(true),
  vector([integer(1), integer(2)]),
]

test('every sign with every pair of kinds gives a value or an error with a code, never an exception', () => {
  for (const sign of SIGNS) {
    for (const a of SAMPLES) {
      for (const b of SAMPLES) {
        const result = binary(sign, a, b, plain)
        if (result.kind === 'failure') expect(result.code).toMatch(/^[a-z-]+$/)
      }
    }
  }
})

const number = (value: unknown): NumberValue => {
  const v = value as Value
  if (v.kind !== 'number') throw new Error(`a number is expected, not ${v.kind}`)
  return v
}

describe('laws of arithmetic on exact numbers', () => {
  const part = fc
    .tuple(fc.integer({ min: -99, max: 99 }), fc.integer({ min: 1, max: 99 }))
    .map(([n, d]) => Q.rational(n, d)!)
  const exact = part.map(exactReal)
  test('sums, products and parallel combinations stay exact and agree', () => {
    fc.assert(
      fc.property(exact, exact, (a, b) => {
        expect(number(subtract(number(add(a, b)), b)).exact).toEqual(a.exact)
        fc.pre(a.re !== 0 && b.re !== 0 && a.re + b.re !== 0)
        expect(number(divide(number(multiply(a, b)), b)).exact).toEqual(a.exact)
        const sum = number(add(a, b))
        expect(number(parallel(a, b)).exact).toEqual(number(divide(number(multiply(a, b)), sum)).exact)
      }),
    )
  })
  test('a power of a negative exponent is one over the power', () => {
    fc.assert(
      fc.property(exact, fc.integer({ min: 1, max: 12 }), (a, n) => {
        fc.pre(a.re !== 0)
        const up = number(power(a, integer(n)))
        expect(number(multiply(up, number(power(a, integer(-n))))).exact).toEqual(integer(1).exact)
      }),
    )
  })
})

describe('multiples of π', () => {
  const pi = { ...real(Math.PI), pi: { re: Q.ONE, im: Q.ZERO } }
  test('are kept through sums and exact factors, and cancel exactly', () => {
    const double = number(multiply(pi, integer(2)))
    expect(double.pi).toEqual({ re: { n: 2, d: 1 }, im: Q.ZERO })
    expect(number(divide(double, pi)).exact).toEqual(integer(2).exact)
    expect(number(subtract(double, double)).exact).toEqual(integer(0).exact)
    expect(number(add(pi, integer(1))).pi).toBeNull()
  })
})

describe('angles', () => {
  test('are told apart from numbers, and say which side was bare', () => {
    const bare: string[] = []
    const context = { ...plain, bareSide: (side: string) => bare.push(side) }
    expect(binary('+', angleOfTurns({ n: 1, d: 12 }), integer(15), context)).toMatchObject({ turns: { n: 1, d: 8 } })
    expect(binary('-', integer(90), angleOfTurns({ n: 1, d: 12 }), context)).toMatchObject({ turns: { n: 1, d: 6 } })
    expect(bare).toEqual(['right', 'left'])
  })
  test('in an exponent they count as their radians', () => {
    const result = binary('*', complexNumber({ re: 0, im: 1 }), angleOf(0.25), { ...plain, exponent: true })
    expect(result).toMatchObject({ kind: 'number', re: 0, im: 0.25 })
  })
  test('are negated exactly', () => {
    expect(negate(angleOfTurns({ n: 1, d: 12 }))).toMatchObject({ turns: { n: -1, d: 12 } })
  })
})

describe('comparisons', () => {
  const unit = (): 'deg' => 'deg'
  test.each([
    ['<', integer(1), real(1.5), true],
    ['>=', exactReal({ n: 1, d: 3 }), exactReal({ n: 1, d: 3 }), true],
    ['==', text('a'), text('a'), true],
    ['!=', truth(true), truth(false), true],
    ['<', text('a'), text('b'), true],
    ['<', angleOfTurns({ n: 1, d: 12 }), integer(45), true],
    ['==', integer(30), angleOfTurns({ n: 1, d: 12 }), true],
    ['<', real(NaN), integer(1), false],
    ['==', real(NaN), real(NaN), false],
  ] as const)('%s', (sign, a, b, expected) => expect(compare(sign, a, b, unit)).toMatchObject({ truth: expected }))
  test('what has no order, or is of different kinds', () => {
    expect(compare('<', complexNumber({ re: 0, im: 1 }), integer(1), unit)).toMatchObject({ code: 'no-order' })
    expect(compare('==', text('1'), integer(1), unit)).toMatchObject({ code: 'not-comparable' })
  })
})
