import * as fc from 'fast-check'
import type { FolioState, Operation } from '../../shared/operations'
import { openBench } from './testing'
import type { Bench } from './testing'
import { Ages, bucketOf, Tidy } from './tidy'

jest.setTimeout(120_000)
const NOW = Date.parse('2026-11-26T12:00:00Z')
const MINUTE = 60_000
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR

let bench: Bench
let time = 0
beforeEach(async () => {
  time = NOW
  bench = await openBench(() => new Date(time).toISOString())
})
afterEach(() => bench.end())

/** Somebody works on the shelf every fifth day: so the file knows how time passes, whatever the clock says. */
async function workedOn(days = 130): Promise<void> {
  const { id } = await bench.folios.create({ title: 'Other', conventions: {}, lines: [] })
  await bench.database.models.revisions.bulkCreate(
    Array.from({ length: days / 5 + 1 }, (_, k) => ({
      folioId: id,
      revision: k + 1,
      operations: '[]',
      savedAt: new Date(NOW - (days - 5 * k) * DAY).toISOString(),
      name: 'kept',
    })),
  )
}

/** A folio with an edit at each of these ages, oldest first. */
async function aged(ages: readonly number[]): Promise<string> {
  time = NOW - (ages[0] ?? 0) - MINUTE
  const { id, lines } = await bench.folios.create({ title: 'T', conventions: {}, lines: [{ source: 'a = 0' }] })
  for (const [k, age] of ages.entries()) {
    time = NOW - age
    const operation: Operation = { type: 'edit', id: lines[0]!.id, source: `a = ${k + 1}`, was: `a = ${k}` }
    expect(await bench.folios.save(id, { revision: k, key: `save-key-${k}`, operations: [operation] })).toMatchObject({
      status: 'saved',
    })
  }
  return id
}

async function kept(id: string): Promise<number[]> {
  const rows = await bench.database.rows<{ revision: number }>(
    'SELECT revision FROM revisions WHERE folio_id = ? ORDER BY revision',
    [id],
  )
  return rows.map((r) => r.revision)
}
const sourceAt = (state: FolioState | null): string | undefined => state?.lines[0]?.source
const tidy = async () => {
  await workedOn()
  return new Tidy(bench.database).run()
}

test('what is younger than thirty days is whole, older is one an hour, still older one a day', () => {
  const at = (age: number): string | null => bucketOf(new Date(NOW - age).toISOString(), age)
  expect(at(29 * DAY)).toBeNull()
  expect(at(31 * DAY)).toMatch(/^hour/)
  expect(at(91 * DAY)).toMatch(/^day/)
  expect(at(40 * DAY)).toBe(at(40 * DAY - 20 * MINUTE))
  expect(at(40 * DAY)).not.toBe(at(40 * DAY - HOUR))
  expect(bucketOf('not a time', 100 * DAY)).toBeNull()
})

describe('how old states are', () => {
  const day = (age: number): string => new Date(NOW - age * DAY).toISOString().slice(0, 10)
  test('goes by the days on which something was saved; a long pause counts as a week', () => {
    const ages = new Ages([0, 3, 6, 66, 70].map(day))
    expect([0, 3, 6, 66, 70].map((age) => ages.of(`${day(age)}T10:00:00Z`) / DAY)).toEqual([0, 3, 6, 13, 17])
    expect(ages.cutoff).toBe('')
    expect(new Ages([]).of('2026-01-01')).toBe(0)
  })
  test('a clock that jumps by years, for an hour or for good, ages nothing by more than a week', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 25 }), { minLength: 1, maxLength: 12 }),
        fc.array(fc.integer({ min: -30_000, max: -400 }), { minLength: 1, maxLength: 1 }),
        (true_, jumped) => {
          const ages = new Ages([...true_, ...jumped].map(day))
          for (const age of true_) expect(ages.of(day(age)) / DAY).toBeLessThanOrEqual(25 + 7)
          expect(new Ages(true_.map(day)).cutoff).toBe('')
        },
      ),
    )
  })
})

test('nothing is thinned because the clock is wrong: only what was saved later makes a state old', async () => {
  const id = await aged([4 * MINUTE, 3 * MINUTE, 2 * MINUTE, MINUTE])
  jest.useFakeTimers({ now: NOW + 4_000 * DAY, doNotFake: ['setTimeout', 'setImmediate', 'nextTick'] })
  try {
    expect(await new Tidy(bench.database).run()).toBe(0)
    // A save under the wrong clock, too.
    time = NOW + 4_000 * DAY
    expect(await bench.folios.save(id, { revision: 4, operations: [{ type: 'rename', title: 'Then' }] })).toMatchObject(
      { status: 'saved' },
    )
    expect(await new Tidy(bench.database).run()).toBe(0)
    expect(await kept(id)).toEqual([1, 2, 3, 4, 5])
  } finally {
    jest.useRealTimers()
  }
})

test('numbers that no folio takes up are removed after a week, those of folios never', async () => {
  const { id } = await bench.folios.create({ title: 'T', conventions: {}, lines: [] })
  const put = (table: string, block: string, age: number, more = ''): Promise<void> =>
    bench.database.run(
      `INSERT INTO ${table} (folio_id, id, numbers, saved_at${more === '' ? '' : `, ${more.split('=')[0]}`})
        VALUES (?, ?, zeroblob(80), ?${more === '' ? '' : `, ${more.split('=')[1]}`})`,
      [id, block, new Date(NOW - age).toISOString()],
    )
  await put('blocks', 'enclosed-1', 20 * DAY, 'enclosed=1')
  await put('blocks', 'stray-0001', 20 * DAY, 'enclosed=0')
  await put('blocks', 'stray-0002', DAY, 'enclosed=0')
  await put('block_parts', 'part-00001', 20 * DAY, 'start=0')
  await put('block_parts', 'part-00002', DAY, 'start=0')
  expect(await new Tidy(bench.database).strayNumbers(NOW)).toBe(160)
  expect((await bench.database.rows<{ id: string }>('SELECT id FROM blocks ORDER BY id')).map((r) => r.id)).toEqual([
    'enclosed-1',
    'stray-0002',
  ])
  expect(await bench.database.rows('SELECT id FROM block_parts')).toEqual([{ id: 'part-00002' }])
})

test('old states are thinned out; every state that is left is as it was', async () => {
  // Four in one hour, two in the next, three in one old day, two young ones.
  const id = await aged([
    100 * DAY + 3 * HOUR,
    100 * DAY + 2 * HOUR,
    100 * DAY,
    40 * DAY,
    40 * DAY - 10 * MINUTE,
    40 * DAY - 20 * MINUTE,
    40 * DAY - 30 * MINUTE,
    40 * DAY - HOUR,
    40 * DAY - 61 * MINUTE,
    DAY,
    HOUR,
  ])
  expect(await tidy()).toBe(6)
  expect(await kept(id)).toEqual([3, 7, 9, 10, 11])
  for (const revision of [0, 3, 7, 9, 10, 11])
    expect(sourceAt(await bench.journal.stateAt(id, revision))).toBe(`a = ${revision}`)
  for (const revision of [1, 2, 4, 8]) expect(await bench.journal.stateAt(id, revision)).toBeNull()
  // A second round finds nothing more to do.
  expect(await tidy()).toBe(0)
})

test('named states and the newest one stay, however old', async () => {
  const id = await aged([
    100 * DAY + 4 * MINUTE,
    100 * DAY + 3 * MINUTE,
    100 * DAY + 2 * MINUTE,
    100 * DAY + MINUTE,
    100 * DAY,
  ])
  expect(await bench.journal.nameState(id, 2, 'handed in')).toBe(true)
  await tidy()
  expect(await kept(id)).toEqual([2, 4, 5])
  expect(sourceAt(await bench.journal.stateAt(id, 2))).toBe('a = 2')
  expect((await bench.journal.page(id)).entries.find((e) => e.revision === 2)).toMatchObject({ name: 'handed in' })
  expect(await bench.journal.nameState(id, 99, 'x')).toBe(false)
  await bench.journal.nameState(id, 2, '')
  expect((await bench.journal.page(id)).entries.find((e) => e.revision === 2)).toMatchObject({ name: null })
})

test('whoever builds on a state that is gone gets the whole folio, not wrong operations', async () => {
  const id = await aged([100 * DAY + 2 * MINUTE, 100 * DAY + MINUTE, 100 * DAY, HOUR])
  await tidy()
  expect(await kept(id)).toEqual([3, 4])
  expect((await bench.folios.missed(id, 1))!.saves).toBeNull()
  expect((await bench.folios.missed(id, 0))!.saves).toHaveLength(2)
  expect((await bench.folios.missed(id, 3))!.saves).toMatchObject([{ revision: 4, key: 'save-key-3' }])
})

test('long journals are gone through in steps, and states in between have their checkpoints', async () => {
  // A save every twenty minutes for 600 saves, all older than thirty days.
  const id = await aged(Array.from({ length: 600 }, (_, k) => 40 * DAY + (600 - k) * 20 * MINUTE))
  await workedOn()
  const work = new Tidy(bench.database)
  let first = await work.step()
  while (first.more && first.removed === 0) first = await work.step()
  expect(first.removed).toBeGreaterThan(200)
  // In between others save.
  expect(
    await bench.folios.save(id, { revision: 600, operations: [{ type: 'rename', title: 'Later' }] }),
  ).toMatchObject({ status: 'saved' })
  await work.run()
  const left = await kept(id)
  expect(left.length).toBeLessThan(210)
  for (const revision of left.filter((_, k) => k % 17 === 0))
    expect(sourceAt(await bench.journal.stateAt(id, revision))).toBe(`a = ${revision}`)
  const checkpoints = await bench.database.models.checkpoints.count({ where: { folioId: id } })
  expect(checkpoints).toBeGreaterThanOrEqual(3)
})

test('whatever the ages, what is left can be opened and is right', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 0, max: 120 * 24 * 6 }), { minLength: 2, maxLength: 40 }),
      async (tens) => {
        const ages = tens.map((t) => t * 10 * MINUTE).sort((a, b) => b - a)
        const id = await aged(ages)
        await tidy()
        const left = await kept(id)
        expect(left.at(-1)).toBe(ages.length)
        for (const [k, age] of ages.entries()) if (age <= 30 * DAY) expect(left).toContain(k + 1)
        for (const revision of left) expect(sourceAt(await bench.journal.stateAt(id, revision))).toBe(`a = ${revision}`)
      },
    ),
    { numRuns: 15 },
  )
})

test('a revision that can no longer be read stops nothing and is not made worse', async () => {
  const id = await aged([100 * DAY + 3 * MINUTE, 100 * DAY + 2 * MINUTE, 100 * DAY + MINUTE, 100 * DAY, HOUR])
  await bench.database.run("UPDATE revisions SET operations = 'broken' WHERE folio_id = ? AND revision = 2", [id])
  expect(await tidy()).toBe(0)
  expect(await kept(id)).toEqual([1, 2, 3, 4, 5])
  expect(sourceAt(await bench.journal.stateAt(id, 1))).toBe('a = 1')
  expect(await bench.journal.stateAt(id, 4)).toBeNull()
  expect((await bench.journal.page(id)).entries.find((e) => e.revision === 2)).toMatchObject({ damaged: true })
})

test('space is given back where a good part of the file is free', async () => {
  const work = new Tidy(bench.database)
  expect(await work.vacuumWhereItPays()).toBe(false)
  const big = await bench.folios.create({
    title: 'Big',
    conventions: {},
    lines: Array.from({ length: 90 }, (_, k) => ({ source: `${k} ${'x y z '.repeat(20_000)}` })),
  })
  await bench.folios.bin(big.id, true)
  await bench.folios.remove(big.id)
  expect(await work.vacuumWhereItPays()).toBe(true)
  expect(await work.vacuumWhereItPays()).toBe(false)
})
