import { Facts } from './facts'
import { SESSION_LASTS, Sessions } from './sessions'
import { openBench } from './testing'
import type { Bench } from './testing'

jest.setTimeout(60_000)
let bench: Bench
let now = 1_700_000_000_000
beforeEach(async () => (bench = await openBench()))
afterEach(() => bench.end())
const begin = (passphrase = 'a lamp in the fog'): Sessions =>
  new Sessions(bench.database, new Facts(bench.database), passphrase, () => now)

test('a session outlives a restart, is kept as a hash only, and ends after thirty days', async () => {
  const first = begin()
  const token = await first.open('browser-one', undefined)
  expect(await first.knows(token)).toBe(true)
  expect([await first.knows('forged'), await first.knows(undefined), await first.knows('')]).toEqual([false, false, false]) // prettier-ignore
  const kept = JSON.stringify(await bench.database.rows('SELECT * FROM sessions'))
  expect(kept).not.toContain(token)
  expect(kept).not.toContain('browser-one')
  const facts = JSON.stringify(await bench.database.rows('SELECT * FROM facts'))
  expect(facts).not.toContain('lamp')
  expect(await begin().knows(token)).toBe(true)
  now += SESSION_LASTS - 1_000
  expect(await begin().knows(token)).toBe(true)
  now += 2_000
  expect(await begin().knows(token)).toBe(false)
  expect(await bench.database.rows('SELECT * FROM sessions')).toEqual([])
})

test('with another passphrase all sessions are over, and stay so', async () => {
  const token = await begin().open('b', undefined)
  expect(await begin('another one').knows(token)).toBe(false)
  expect(await begin().knows(token)).toBe(false)
})

test('who signs in again has one session, not two; others are told by number and time', async () => {
  const sessions = begin()
  const first = await sessions.open('one', undefined)
  const again = await sessions.open('one', first)
  expect([await sessions.knows(first), await sessions.knows(again)]).toEqual([false, true])
  const beside = await sessions.open('one', undefined)
  const other = await sessions.open('two', undefined)
  expect(await sessions.told(again, 'one')).toEqual({
    here: [
      { since: now, seen: now },
      { since: now, seen: now },
    ],
    others: [{ since: now, seen: now }],
  })
  await sessions.signOut(again, 'one', 'others')
  expect([await sessions.knows(again), await sessions.knows(beside), await sessions.knows(other)]).toEqual([true, true, false]) // prettier-ignore
  await sessions.signOut(again, 'one', 'browser')
  expect([await sessions.knows(again), await sessions.knows(beside)]).toEqual([false, false])
  expect(await begin().knows(beside)).toBe(false)
})

test('signing out ends one session alone', async () => {
  const sessions = begin()
  const [a, b] = [await sessions.open('one', undefined), await sessions.open('one', undefined)]
  await sessions.signOut(a, 'one', 'this')
  expect([await sessions.knows(a), await sessions.knows(b)]).toEqual([false, true])
})

test('a disk that takes nothing keeps nobody out who knows the passphrase', async () => {
  const sessions = begin()
  await sessions.knows('x')
  jest.spyOn(bench.database, 'writePlain').mockRejectedValue(new Error('SQLITE_FULL'))
  const token = await sessions.open('one', 'a former one')
  expect(await sessions.knows(token)).toBe(true)
  jest.restoreAllMocks()
})
