import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { createPinia, setActivePinia } from 'pinia'
import { encode } from '#core/exchange/encoding'
import { ExchangeService } from '~/workers/exchange'
import { useExchangeStore } from './exchange'
import { endWorkers, workersOf } from '../workers/workerForTests'

let exchange: ReturnType<typeof useExchangeStore>
let started: ReturnType<typeof workersOf>
beforeEach(() => {
  setActivePinia(createPinia())
  started = workersOf((post) => new ExchangeService((done, total) => post({ progress: done / total })))
  exchange = useExchangeStore()
})

afterEach(endWorkers)

const TABLE = 'a;b;c\n1;1,5;90\n2;2,5;0\n3;3,5;0\n'

test('a table is read as it was guessed, with what was guessed beside it; another choice is followed', async () => {
  await exchange.open('run.csv', encode(TABLE), null)
  expect(exchange.data).toMatchObject({ kind: 'table', rows: 3, parameter: 0 })
  const reading = exchange.guess!.reading
  expect(reading).toMatchObject({ dialect: { separator: ';', mark: ',' }, header: 0, as: 'table' })
  await exchange.choose({ as: 'matrix' })
  expect(exchange.data).toMatchObject({ kind: 'matrix', rows: 3, cols: 3 })
  await exchange.speak({ separator: ';', mark: '.' })
  // With a point for decimals 1,5 is no number.
  expect(exchange.guess?.reading.sources.map((s) => s.skip)).toEqual([false, true, false])
  await exchange.speak({ separator: '|', mark: '.' })
  expect(exchange.problem).toBe('No table of numbers was found in the file.')
})

test('what cannot be read leaves a sentence and nothing else; the next file begins anew', async () => {
  await exchange.open('x.mtx', encode('%%MatrixMarket matrix array real general\n2 2\n1\n'), null)
  expect([exchange.problem, exchange.opened]).toEqual(['The file ends after 1 entry; it says that there are 4.', null])
  await exchange.open('run.csv', encode(TABLE), 'line-0001')
  expect([exchange.problem, exchange.below, exchange.reading]).toEqual(['', 'line-0001', false])
  exchange.clear()
  expect([exchange.data, exchange.guess, exchange.name]).toEqual([null, null, ''])
})

test('reading that is stopped takes nothing in, and another file can be read', async () => {
  const rows = Array.from({ length: 60_000 }, (_, k) => `${k},${k / 7},${k * 3}`).join('\n')
  const reading = exchange.open('big.csv', encode(`t,u,v\n${rows}\n`), null)
  exchange.stop()
  expect([exchange.reading, exchange.problem]).toEqual([false, 'Reading was stopped; nothing was taken in.'])
  void reading
  await exchange.open('run.csv', encode(TABLE), null)
  expect(exchange.data).toMatchObject({ rows: 3 })
  expect(started.map((worker) => worker.ended)).toEqual([true, false])
})

test('what is carried from the shelf is opened once', async () => {
  exchange.carry('run.csv', encode(TABLE))
  expect(exchange.unload()).toBe(true)
  expect(exchange.unload()).toBe(false)
})
