import { Promised } from './promised'

/** The judge of the storm: it must find out what it is there for, and nothing else. */

const NONE: ReadonlyMap<string, string> = new Map()
const line = (id: string, source: string) => ({ id, source })
let promised: Promised
beforeEach(() => {
  promised = new Promised()
  promised.entered('a', 'line-1', '')
  promised.keep('a', 'saved')
})

test('a text that is promised must stand in a line', () => {
  expect(promised.missing([line('line-1', 'a')], NONE)).toEqual([])
  expect(promised.missing([line('line-1', 'b')], NONE)).toEqual(['a (saved)'])
  expect(promised.size).toBe(1)
})
test('a text of which nothing was promised may be gone', () => {
  promised.entered('b', 'line-2', '')
  expect(promised.missing([line('line-1', 'a')], NONE)).toEqual([])
})
test('typed over by one who saw it, it is judged by what was typed', () => {
  promised.entered('b', 'line-1', 'a')
  expect(promised.missing([line('line-1', 'b')], NONE)).toEqual([])
  // Not kept, the one before must still be there.
  expect(promised.missing([line('line-1', '')], NONE)).toEqual(['a (saved)'])
  promised.keep('b', 'saved')
  promised.entered('c', 'line-1', 'b')
  expect(promised.missing([line('line-1', 'c')], NONE)).toEqual([])
  expect(promised.missing([line('line-1', 'x')], NONE)).toEqual(['a (saved)', 'b (saved)'])
})
test('of two who typed over the same both texts must be there, the second in a line that came to be for it', () => {
  promised.entered('b', 'line-1', 'a')
  promised.entered('c', 'line-1', 'a')
  promised.keep('b', 'saved')
  promised.keep('c', 'kept in the browser')
  expect(promised.missing([line('line-1', 'b'), line('copy-1', 'c')], NONE)).toEqual([])
  expect(promised.missing([line('line-1', 'b')], NONE)).toEqual(['c (kept in the browser)'])
})
test('in the line of another text it is not where it belongs', () => {
  promised.entered('d', 'line-4', '')
  expect(promised.missing([line('line-4', 'a')], NONE)).toEqual(['a (saved) stands in the line of another'])
})
test('taken away by one who saw it, it may be gone; taken back, it must be there', () => {
  promised.release('a')
  expect(promised.missing([], NONE)).toEqual([])
  promised.bringBack('a')
  expect(promised.missing([], NONE)).toEqual(['a (saved)'])
})
test('numbers must be the same', () => {
  promised.keepNumbers('x.csv', 'digest')
  expect(promised.missing([line('line-1', 'a')], new Map([['x.csv', 'digest']]))).toEqual([])
  expect(promised.missing([line('line-1', 'a')], new Map([['x.csv', 'other']]))).toEqual(['the numbers of x.csv'])
})
test('numbers that were taken away by one who saw them may be gone; but not be others', () => {
  promised.keepNumbers('x.csv', 'digest')
  promised.releaseNumbers('x.csv')
  const then = promised.snapshot(() => true)
  expect(then.missing([line('line-1', 'a')], NONE)).toEqual([])
  expect(then.missing([line('line-1', 'a')], new Map([['x.csv', 'other']]))).toEqual(['the numbers of x.csv'])
  promised.bringNumbersBack('x.csv')
  expect(promised.missing([line('line-1', 'a')], NONE)).toEqual(['the numbers of x.csv'])
})
test('of an earlier copy only what had been promised then is asked', () => {
  const then = promised.snapshot((why) => why === 'saved')
  promised.entered('b', 'line-2', '')
  promised.keep('b', 'saved')
  expect(then.missing([line('line-1', 'a')], NONE)).toEqual([])
  expect(then.missing([], NONE)).toEqual(['a (saved)'])
})
