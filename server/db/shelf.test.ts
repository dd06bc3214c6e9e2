import { DEMO_FOLIOS, seedShelf } from './demo'
import { SHELF_PAGE, SHELF_SORTS } from '../../shared/folio'
import { sortKey } from './shelf'
import { openBench } from './testing'
import type { Bench } from './testing'

jest.setTimeout(60_000)
let bench: Bench
beforeEach(async () => (bench = await openBench()))
afterEach(() => bench.end())

const make = (title: string, ...sources: string[]) =>
  bench.folios.create({ title, conventions: {}, lines: sources.map((source) => ({ source })) })
const titles = async (asked: Parameters<typeof bench.shelf.page>[0]): Promise<string[]> =>
  (await bench.shelf.page(asked)).folios.map((f) => f.title)
const spoil = (column: string, value: string, id: string) =>
  bench.database.run(`UPDATE folios SET ${column} = ? WHERE id = ?`, [value, id])

test('of the demonstration the folio to begin with stands first', async () => {
  await seedShelf(bench.folios)
  expect((await titles({}))[0]).toBe('Lamp circuit')
  expect(await titles({})).toHaveLength(DEMO_FOLIOS.length)
})

test('comes in pages that go on without a gap or a double, in every order', async () => {
  for (let k = 1; k <= 110; k += 1) await make(`Sheet ${k}`, ...Array.from({ length: k % 7 }, () => 'x'))
  for (const sort of SHELF_SORTS) {
    const seen: string[] = []
    for (let from = 0; from < 110; from += SHELF_PAGE) {
      const page = await bench.shelf.page({ sort, from })
      expect([page.count, page.binned]).toEqual([110, 0])
      seen.push(...page.folios.map((f) => f.title))
    }
    expect(new Set(seen).size).toBe(110)
    if (sort === 'title') expect(seen.slice(0, 3)).toEqual(['Sheet 1', 'Sheet 2', 'Sheet 3'])
    if (sort === 'changed' || sort === 'created') expect(seen[0]).toBe('Sheet 110')
    if (sort === 'length') expect(seen.slice(0, 15)).toEqual(expect.arrayContaining(['Sheet 6', 'Sheet 104']))
  }
})

test('titles stand as in a register', () => {
  const order = ['Ärger', 'apple 2', 'Apple 10', 'apple 010 b', 'zebra'].sort((a, b) =>
    sortKey(a) < sortKey(b) ? -1 : 1,
  )
  expect(order).toEqual(['apple 2', 'Apple 10', 'apple 010 b', 'Ärger', 'zebra'])
})

describe('the search', () => {
  test('finds what stands anywhere in a line or title, whatever its signs, as it is now', async () => {
    const { id, lines } = await make('Lamp', 'Z_lamp = 3 + 4j', 'bearing = 36°52\'12"', '100%_of "it"')
    await make('Horn', 'f = 10 to 100k')
    const cases: [string, string[]][] = [
      ['z_LAMP', ['Lamp']],
      ['"', ['Lamp']],
      ['of "it', ['Lamp']],
      ['%_', ['Lamp']],
      ['°5', ['Lamp']],
      ['OR', ['Horn']],
      ['j', ['Lamp']],
      ['10', ['Horn', 'Lamp']],
      ['AND NOT', []],
      ['*', []],
      ["'; DROP TABLE lines; --", []],
      ['\\', []],
    ]
    for (const [text, expected] of cases)
      expect([text, (await titles({ find: text })).sort()]).toEqual([text, expected])
    await bench.folios.save(id, {
      revision: 0,
      operations: [
        { type: 'edit', id: lines[0]!.id, source: 'Y_lamp = 1', was: '' },
        { type: 'remove', id: lines[1]!.id },
        { type: 'insert', at: 0, line: { id: 'line-new1', source: 'quite new' } },
      ],
    })
    expect(await titles({ find: 'z_lamp' })).toEqual([])
    expect(await titles({ find: 'bearing' })).toEqual([])
    expect(await titles({ find: 'ite ne' })).toEqual(['Lamp'])
    await bench.folios.bin(id, true)
    expect(await bench.shelf.page({ find: 'y_lamp' })).toMatchObject({ folios: [], count: 0, binned: 1 })
    expect(await titles({ find: 'y_lamp', bin: true })).toEqual(['Lamp'])
    await bench.folios.remove(id)
    const [left] = await bench.database.rows<{ n: number }>('SELECT count(*) AS n FROM search WHERE search MATCH ?', [
      '"lamp"',
    ])
    expect(left).toEqual({ n: 0 })
  })

  test('shows of a long note the place itself', async () => {
    await make('Long', `${'x'.repeat(5_000)} needle ${'y'.repeat(5_000)}`)
    const [card] = (await bench.shelf.page({ find: 'needle' })).folios
    expect(card!.match).toContain('needle')
    expect(card!.match!.length).toBeLessThan(200)
  })
})

test('a picture is kept for the revision it was reckoned for, and no other', async () => {
  const { id } = await make('Lamp', 'z = 1 + 2j')
  const picture = { marks: [{ re: 1, im: 2 }] }
  await bench.shelf.keepPicture(id, 0, picture)
  expect((await bench.shelf.page()).folios[0]).toMatchObject({ thumbnail: picture, preview: [] })
  await bench.shelf.keepPicture(id, 7, { marks: [] })
  expect((await bench.shelf.page()).folios[0]).toMatchObject({ thumbnail: picture })
  await bench.folios.save(id, { revision: 0, operations: [{ type: 'rename', title: 'Lamps' }] })
  expect((await bench.shelf.page()).folios[0]).toMatchObject({ thumbnail: null, preview: ['z = 1 + 2j'] })
})

describe('a damaged folio', () => {
  test.each([
    ['conventions', '{"angle": "gon"}', 'its conventions'],
    ['conventions', 'not JSON', 'its conventions'],
    ['line_order', '{"a": 1', 'the order of its lines'],
    ['line_order', '{}', 'the order of its lines'],
    ['plates', '[{"kind": "pie"}]', 'its plates'],
    ['title', '', 'title'],
  ])('with %s as %s says so on its card, and the others stand', async (column, value, part) => {
    const { id } = await make('Broken', 'a = 1', 'b = 2')
    await make('Whole', 'c = 3')
    await spoil(column, value, id)
    for (const sort of SHELF_SORTS) {
      const { folios } = await bench.shelf.page({ sort })
      expect(folios.map((f) => [f.id === id, f.damaged !== null])).toContainEqual([true, true])
      expect(folios.filter((f) => f.damaged === null).map((f) => f.title)).toEqual(['Whole'])
      expect(folios.find((f) => f.damaged)!.damaged).toContain(part)
    }
    expect((await bench.shelf.page({ find: 'b = 2' })).folios).toHaveLength(1)
    await expect(bench.folios.open(id)).rejects.toThrow(/cannot be read/)
    // What is whole of it can be saved as a file.
    const file = await bench.folios.rescue(id)
    expect(file!.lines.map((l) => l.source).sort()).toEqual(['a = 1', 'b = 2'])
    expect(file!.title).toBe(column === 'title' ? 'Untitled folio' : 'Broken')
    expect((await bench.folios.create(file!)).lines).toHaveLength(2)
  })

  test('with a line that is no text gives the other lines', async () => {
    const { id, lines } = await make('Broken', 'a = 1', 'b = 2', 'c = 3')
    await bench.database.run("UPDATE lines SET id = 'x' WHERE folio_id = ? AND id = ?", [id, lines[1]!.id])
    expect((await bench.folios.rescue(id))!.lines.map((l) => l.source)).toEqual(['a = 1', 'c = 3'])
    expect(await bench.folios.rescue('no-such-folio')).toBeNull()
  })
})
