import * as fc from 'fast-check'
import * as Q from '../numbers/rational'
import { imaginaryLiteral, realLiteral } from './literals'
import { parseLine } from './parser'
import { childrenOf } from './references'
import type { Literal, Node } from './tree'

/** The value of a plain numeral, by integers without limit. */
function expected(text: string): Q.Rational | null {
  const [whole = '', part = ''] = text.split('.')
  return Q.fromBig(BigInt(whole + part), 10n ** BigInt(part.length))
}

const NOTHING = { digits: '', value: null, from: -1, to: -1 }

/** The numbers of a line in their order, as its tree has them. */
function literals(line: string): readonly Literal[] {
  const { statement } = parseLine(line)
  if (statement.type !== 'expression') throw new Error(`${line} is a term`)
  const below = (node: Node): readonly Literal[] => (node.type === 'literal' ? [node] : childrenOf(node).flatMap(below))
  return below(statement.body)
}

const digits = fc.stringMatching(/^\d{1,9}$/)
const numeral = fc.oneof(
  digits,
  fc.tuple(digits, digits).map(([whole, part]) => `${whole}.${part}`),
  digits.map((part) => `.${part}`),
  digits.map((whole) => `${whole}.`),
  fc.stringMatching(/^0{1,3}\d{1,3}$/),
)

test('a numeral has its own value whatever was read before it', () => {
  fc.assert(
    fc.property(fc.array(numeral, { minLength: 40, maxLength: 120 }), (texts) => {
      for (const text of texts) {
        expect(realLiteral(text).exact?.re).toEqual(expected(text))
        expect(imaginaryLiteral(text).exact?.im).toEqual(expected(text))
      }
    }),
  )
})

test('it keeps its digits as they are written', () => {
  fc.assert(
    fc.property(fc.array(numeral, { minLength: 2, maxLength: 30 }), (texts) => {
      const line = texts.join('+')
      let at = 0
      const found = literals(line)
      expect(found).toHaveLength(texts.length)
      texts.forEach((text, k) => {
        const { digits, value, from, to } = found[k] ?? NOTHING
        expect([digits, from, to]).toEqual([text, at, at + text.length])
        expect(value).toEqual(realLiteral(text))
        at += text.length + 1
      })
    }),
  )
})

test('numerals of the same digits are told apart by their point and their zeros', () => {
  const texts = ['15', '1.5', '.15', '0.15', '15.', '015', '0015', '1.50', '15.0', '150']
  for (const text of [...texts, ...texts]) {
    const [node] = literals(text)
    expect(node?.digits).toBe(text)
    expect(node?.value).toMatchObject({ kind: 'number', re: Number(text), im: 0 })
  }
})

test('beyond fifteen digits, and with an exponent, it is still exact', () => {
  expect(realLiteral('12345678901234567').exact?.re.n).toBe(12345678901234567n)
  expect(realLiteral('0.1234567890123456789').exact?.re).toEqual(Q.fromBig(1234567890123456789n, 10000000000000000000n))
  expect(realLiteral('1.2e-3').exact?.re).toEqual({ n: 3, d: 2500 })
  expect(realLiteral('47', 3).re).toBe(47_000)
})

test('numbers are equal whether or not their exact parts were asked for', () => {
  for (const text of ['.74', '0.5', '88.25']) {
    const asked = realLiteral(text)
    expect(asked.exact).not.toBeNull()
    // Others in its place, so that the numeral is read anew.
    for (let k = 0; k < 20_000; k++) realLiteral(`1${k}`)
    const anew = realLiteral(text)
    expect(anew).not.toBe(asked)
    expect(anew).toEqual(asked)
  }
  expect(realLiteral('0.5')).not.toEqual(realLiteral('0.25'))
})
