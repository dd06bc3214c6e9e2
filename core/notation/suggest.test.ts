import * as fc from 'fast-check'
import { editDistance, nearestNames, splitRun } from './suggest'

describe('the distance of two words', () => {
  test.each([
    ['kitten', 'sitting', 3],
    ['flaw', 'lawn', 2],
    ['ca', 'ac', 1],
    ['', 'abc', 3],
    ['same', 'same', 0],
  ])('%s – %s: %d', (a, b, distance) => expect(editDistance(a, b, 5)).toBe(distance))
  test('is symmetric, zero only for equals, and at most the longer length', () => {
    const word = fc.string({ minLength: 0, maxLength: 8 })
    fc.assert(
      fc.property(word, word, (a, b) => {
        const d = editDistance(a, b, 20)
        expect(d).toBe(editDistance(b, a, 20))
        expect(d === 0).toBe(a === b)
        expect(d).toBeLessThanOrEqual(Math.max(a.length, b.length))
      }),
    )
  })
  test('stops counting beyond its reach', () => expect(editDistance('abcdef', 'x', 2)).toBe(3))
})

describe('names that may have been meant', () => {
  test('another case comes first, then the nearest', () => {
    expect(nearestNames('zlamp', ['Zlamp', 'zlamps', 'lamp'])).toEqual(['Zlamp', 'lamp', 'zlamps'])
  })
  test('nothing far away is offered, nor one single letter for another', () => {
    expect(nearestNames('x', ['y', 'z', 'arg'])).toEqual([])
    expect(nearestNames('foo', ['cos', 'floor'])).toEqual([])
    expect(nearestNames('X', ['x'])).toEqual(['x'])
  })
  test('at most as many as asked for, never the word itself', () => {
    expect(nearestNames('current', ['current', 'currant', 'curent', 'currents', 'currentx'], 2)).toHaveLength(2)
  })
})

describe('names run together', () => {
  const known = (part: string): boolean => ['j', 'w', 'L', 'wL', 'R', 'lamp'].includes(part)
  test.each([
    ['jwL', ['j', 'wL']],
    ['Rlamp', ['R', 'lamp']],
    ['RR', ['R', 'R']],
  ])('%s', (run, parts) => expect(splitRun(run, known)).toEqual(parts))
  test('what is no row of names, or one name only', () => {
    expect(splitRun('jxL', known)).toBeNull()
    expect(splitRun('lamp', known)).toBeNull()
    expect(splitRun('R'.repeat(30), known)).toBeNull()
  })
})
