import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { createPinia, setActivePinia } from 'pinia'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { readoutText } from '#core/format/readout'
import { EvaluatorService } from '~/workers/evaluator'
import { useResultsStore } from './results'
import { endWorkers, workersOf } from '../workers/workerForTests'

jest.mock('~/keeping/browserStore', () => ({
  changeStore: jest.fn(async () => true),
  recordAt: jest.fn(async () => undefined),
}))

let results: ReturnType<typeof useResultsStore>
let started: ReturnType<typeof workersOf>

beforeEach(() => {
  setActivePinia(createPinia())
  started = workersOf((post) => new EvaluatorService((done, total) => post({ progress: done / total }), (line) => post({ line }))) // prettier-ignore
  results = useResultsStore()
})
afterEach(() => {
  results.close()
  endWorkers()
})

const ids = ['line-0001', 'line-0002', 'line-0003'] as const
const open = (...sources: string[]): Promise<void> =>
  results.load(
    sources.map((source, k) => ({ id: ids[k] ?? '', source })),
    DEFAULT_CONVENTIONS,
    'folio-01',
  )
const shown = (k: number): string => {
  const view = results.views.get(ids[k - 1] ?? '')
  return view ? (view.problem?.message ?? readoutText(view.readout)) : 'nothing'
}

test('lines are reckoned when the folio is opened, and after an edit all that depends on them', async () => {
  await open('a = 2', 'b = a + 3j', '|b|')
  expect([shown(1), shown(2)]).toEqual(['2', '2 + 3j'])
  await results.apply({ sources: [{ id: ids[0], source: 'a = 4' }] })
  expect([shown(2), shown(3)]).toEqual(['4 + 3j', '5'])
  await results.apply({ order: [ids[1], ids[2]] })
  expect(results.views.has(ids[0])).toBe(false)
  expect(shown(2)).toContain('a is not known here')
  await results.apply({ order: [...ids], sources: [{ id: ids[0], source: 'a = 0' }], conventions: { ...DEFAULT_CONVENTIONS, letter: 'i' } }) // prettier-ignore
  expect(shown(2)).toBe('0 + 3i')
})

describe('while an entry is typed', () => {
  test('what depends on it follows; what cannot be read leaves it, and is told as a draft; then the line is itself again', async () => {
    await open('a = 2', 'a^2')
    await results.type(ids[0], 'a = 3')
    expect([shown(2), results.unsettled]).toEqual(['9', true])
    await results.type(ids[0], 'a = 3 +')
    expect([shown(2), results.draft?.problem?.code]).toEqual(['9', 'unfinished'])
    await results.settle()
    expect([shown(2), results.unsettled]).toEqual(['4', false])
  })

  test('texts that follow one another quickly end with the last, on whatever line it was typed', async () => {
    await open('a = 1', 'b = 2', 'a + b')
    void results.type(ids[0], 'a = 1')
    void results.type(ids[0], 'a = 10')
    void results.settle()
    void results.apply({ sources: [{ id: ids[0], source: 'a = 10' }] })
    await results.type(ids[2], 'a + b + 100')
    expect(shown(3)).toBe('112')
  })
})

describe('a line that takes long', () => {
  test('is stopped: another worker begins where the page is, the line is held back until it is asked for', async () => {
    await open('a = 2', 'a + 1', 'a + 2')
    void results.type(ids[0], 'a = 5')
    await results.settle()
    await results.apply({ sources: [{ id: ids[1], source: 'a + 10' }] })
    results.stop()
    await results.apply({})
    expect(started.map((worker) => worker.ended)).toEqual([true, false])
    expect(results.held.get(ids[1])).toBe('a + 10')
    expect([shown(2), shown(3)]).toEqual(['This line was stopped. Edit it, or run it again.', '4'])
    await results.release(ids[1])
    expect([shown(2), results.held.size]).toEqual(['12', 0])
  })

  test('is held back by itself, and reckoned again once its text is another', async () => {
    await open('a = 2', 'a + 1')
    results.stopLine(ids[1])
    await results.apply({})
    expect(shown(2)).toContain('was stopped')
    await results.apply({ sources: [{ id: ids[1], source: 'a + 7' }] })
    expect(shown(2)).toBe('9')
  })
})

describe('measured data', () => {
  const data = { kind: 'matrix' as const, rows: 1, cols: 2, re: Float64Array.of(5, 7), im: null }
  const enclosure = { kind: 'matrix' as const, name: 'a.mtx', block: 'block-0001', rows: 1, cols: 2, complex: false }

  test('is waited for, comes, survives another worker, and goes', async () => {
    await results.load([{ id: ids[0], source: 'sum(enclosure("a.mtx"))' }], DEFAULT_CONVENTIONS, 'folio-01', [
      enclosure,
    ])
    expect(shown(1)).toBe('The numbers of “a.mtx” are on their way.')
    await results.enclose('a.mtx', 'block-0001', data)
    expect(shown(1)).toBe('12')
    // An announcement that comes late does not take the numbers away.
    await results.enclose('a.mtx', 'block-0001', null)
    expect(shown(1)).toBe('12')
    await results.apply({ sources: [{ id: ids[0], source: 'max(enclosure("a.mtx"))' }] })
    results.stop()
    await results.release(ids[0])
    expect(started).toHaveLength(2)
    expect(shown(1)).toBe('7')
    await results.enclose('a.mtx', 'block-0002', null, true)
    expect(shown(1)).toBe('The numbers of “a.mtx” are not there: open the file again.')
    await results.unenclose('a.mtx')
    expect(shown(1)).toContain('No file called “a.mtx”')
  })
})

test('values are given as text, as files, and points as rows, once everything before is reckoned', async () => {
  await open('f = 1 to 3', 'Z = f + 2j', 'k = 1/3')
  void results.apply({ sources: [{ id: ids[2], source: 'k = 2/3' }] })
  expect(await results.copyText(ids[2], 'full')).toBe('2/3')
  expect(await results.numberFile(ids[1], 'csv', { angle: 'deg' })).toMatchObject({ text: 'f,re(Z),im(Z)\r\n1,1,2\r\n2,2,2\r\n3,3,2\r\n' }) // prettier-ignore
  expect(await results.numberFile(null, 'csv', { angle: 'deg' })).toMatchObject({ ending: '.csv' })
  expect(await results.numberFile(ids[2], 'mtx', { angle: 'deg' })).toMatchObject({
    kind: 'fault',
    code: 'wrong-value',
  })
  expect((await results.sweepRows(ids[1], 1, 1))?.rows).toMatchObject([{ parameter: '2' }])
})
