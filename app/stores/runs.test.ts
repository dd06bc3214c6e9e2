import { afterEach, expect, test } from '@jest/globals'
import { nextTick } from 'vue'
import { readoutText } from '#core/format/readout'
import { closeServed, openServed } from './pageForTests'
import { useDeskStore } from './desk'
import { useFolioStore } from './folio'
import { useRunsStore } from './runs'

/** The runs of a folio with the real evaluator at the other end. */

const LINES = ['V = 230', 'R = 12 # of the lamp', 'I = V / R', 'P = V * I', '# a remark']
const id = (n: number): string => `line-${String(n).padStart(4, '0')}`

afterEach(closeServed)

async function opened(): Promise<{ runs: ReturnType<typeof useRunsStore>; folio: ReturnType<typeof useFolioStore> }> {
  await openServed(LINES)
  const [runs, folio] = [useRunsStore(), useFolioStore()]
  useDeskStore().show('runs')
  runs.mark(id(2), 'varied')
  runs.mark(id(3), 'watched')
  return { runs, folio }
}

async function settled(runs: ReturnType<typeof useRunsStore>): Promise<void> {
  await nextTick()
  for (let k = 0; k < 400 && (runs.reckoning || runs.account === null); k += 1)
    await new Promise((r) => setTimeout(r, 5))
}

const row = (runs: ReturnType<typeof useRunsStore>): string[] =>
  (runs.account?.watched[0]?.cells ?? []).map((cell) => cell.problem ?? readoutText(cell.readout))

test('sets of values: added, filled, undone, and made the folio’s own', async () => {
  const { runs, folio } = await opened()
  runs.add()
  runs.add('folio')
  expect(runs.sets.map((set) => [set.name, Object.values(set.values)])).toEqual([
    ['Set A', []],
    ['Set B', ['12']],
  ])
  runs.enter(runs.varied[0]!, runs.sets[0]!, '10')
  await settled(runs)
  expect(row(runs)).toEqual(['19.167', '23', '19.167'])

  folio.undo()
  await settled(runs)
  expect(row(runs)).toEqual(['19.167', '19.167', '19.167'])
  folio.redo()

  runs.take(runs.sets[0]!)
  expect(folio.lineOf(id(2))?.source).toBe('R = 10 # of the lamp')
  await settled(runs)
  expect(row(runs)).toEqual(['23', '23', '19.167'])
  folio.undo()
  expect(folio.lineOf(id(2))?.source).toBe('R = 12 # of the lamp')
  runs.take(runs.sets[1]!)
  expect(folio.notice).toContain('already')
})

test('a block fills sets and folio as one step; an empty cell gives the folio’s value back', async () => {
  const { runs, folio } = await opened()
  runs.add()
  runs.mark(id(1), 'varied')
  const [volts, ohms] = runs.varied
  const [set] = runs.sets
  runs.enterMany([
    { line: volts!, set: null, entry: '115' },
    { line: volts!, set: set!, entry: '100' },
    { line: ohms!, set: null, entry: '' },
    { line: ohms!, set: set!, entry: ' R = 50 # typed with its name' },
  ])
  expect(folio.lines.slice(0, 2).map((l) => l.source)).toEqual(['V = 115', 'R = 12 # of the lamp'])
  await settled(runs)
  expect(row(runs)).toEqual(['9.5833', '2'])
  runs.enter(ohms!, runs.sets[0]!, '')
  await settled(runs)
  expect(row(runs)[1]).toBe('8.3333')
  folio.undo()
  folio.undo()
  await settled(runs)
  expect(row(runs)).toEqual(['19.167', '19.167'])
})

test('a line that is being typed is kept before its value is changed from the account', async () => {
  const { runs, folio } = await opened()
  folio.edit(id(2))
  folio.type('R_lamp = 12 # renamed meanwhile')
  runs.enter(runs.varied[0]!, null, '15')
  expect(folio.lineOf(id(2))?.source).toBe('R_lamp = 15 # renamed meanwhile')
  expect(folio.editing).toBeNull()
})

test('what is marked once is not the other; at most eight sets and twenty varied lines; notes and empty lines are neither', async () => {
  const { runs, folio } = await opened()
  runs.mark(id(3), 'varied')
  expect([runs.varied.length, runs.watched.length]).toEqual([2, 0])
  runs.mark(id(3), null)
  expect(runs.varied.map((l) => l.id)).toEqual([id(2)])
  for (let k = 0; k < 10; k += 1) runs.add()
  expect(runs.sets).toHaveLength(8)
  expect(runs.room).toBe(false)
  expect(folio.notice).toContain('eight sets')
  runs.rename(runs.sets[2]!, '  wet cable ')
  await settled(runs)
  runs.remove(runs.sets[0]!)
  // Until it is reckoned anew the account is of before, and says so: no result stands under another set.
  expect(runs.columnNames.slice(0, 3)).toEqual(['Folio', 'a set that is gone', 'Set B'])
  expect(runs.sets.slice(0, 2).map((s) => s.name)).toEqual(['Set B', 'wet cable'])
  runs.add()
  expect(runs.sets.at(-1)?.name).toBe('Set A')

  for (let k = 0; k < 24; k += 1) folio.insertAt(0, `x_${k} = ${k}`)
  folio.keep()
  for (const line of folio.lines) runs.mark(line.id, 'varied')
  expect(runs.varied).toHaveLength(20)
  expect(folio.notice).toContain('At most 20')
  folio.turn(runs.varied[0]!.id)
  expect(runs.varied).toHaveLength(19)
})

test('the account follows the folio while somebody looks, and only then', async () => {
  const { runs, folio } = await opened()
  await settled(runs)
  expect(row(runs)).toEqual(['19.167'])
  folio.rewrite(id(1), 'V = 24', 'value')
  folio.convene({ digits: 3 })
  await settled(runs)
  expect(row(runs)).toEqual(['2'])
  useDeskStore().hide('runs')
  folio.rewrite(id(1), 'V = 48', 'value')
  await settled(runs)
  expect(row(runs)).toEqual(['2'])
  useDeskStore().show('runs')
  await settled(runs)
  expect(row(runs)).toEqual(['4'])
})
