import { readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Checks } from '../db/check'
import { Copies } from '../db/copies'
import { NoRoom } from '../db/copyFiles'
import { Facts } from '../db/facts'
import { openBench } from '../db/testing'
import type { Bench } from '../db/testing'
import { Housekeeping } from './housekeeping'

jest.setTimeout(60_000)
let bench: Bench
let house: Housekeeping
let copies: Copies
const said: string[] = []
beforeEach(async () => {
  bench = await openBench()
  said.length = 0
  for (const stream of [process.stdout, process.stderr])
    jest.spyOn(stream, 'write').mockImplementation((text) => said.push(String(text)) > 0)
  copies = new Copies(bench.database)
  const checks = new Checks(bench.database, bench.folios, new Facts(bench.database))
  // Rounds are asked for here; by themselves they come by the hour.
  house = new Housekeeping(bench.database, copies, checks, 3_600_000, 10)
})
afterEach(async () => {
  house.end()
  jest.restoreAllMocks()
  await bench.end()
})

test('a round makes the copy of the day and looks through the file; the next one finds nothing to do', async () => {
  await bench.folios.create({ title: 'T', conventions: {}, lines: [{ source: 'a = 1' }] })
  await house.round()
  const folder = join(dirname(bench.file), 'backups')
  expect(readdirSync(folder)).toHaveLength(1)
  expect(said.join('')).toContain('A copy of the data file was made')
  expect(await new Checks(bench.database, bench.folios, new Facts(bench.database)).last()).toMatchObject({
    whole: true,
  })
  said.length = 0
  await house.round()
  expect(readdirSync(folder)).toHaveLength(1)
  expect(said).toEqual([])
  expect(house.trouble).toBeNull()
})

test('what keeps a copy from being made is told, until one is; everything else goes on', async () => {
  await bench.folios.create({ title: 'T', conventions: {}, lines: [] })
  const make = jest.spyOn(copies, 'makeDaily').mockRejectedValueOnce(new NoRoom('no room'))
  await house.round()
  expect(house.trouble).toContain('There is no room on the disk')
  expect(await new Facts(bench.database).get('check')).not.toBeNull()
  make.mockRejectedValueOnce(new Error('something else'))
  await house.round()
  expect(house.trouble).toContain('could not be made')
  make.mockRestore()
  await house.round()
  expect(house.trouble).toBeNull()
})
