import 'fake-indexeddb/auto'
import { effectScope, nextTick } from 'vue'
import type { EffectScope } from 'vue'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { closeServed, openServed } from '~/stores/pageForTests'
import { useWorking } from './working'

const id = (n: number): string => `line-000${n}`
let scope: EffectScope
let desk: ReturnType<typeof useDeskStore>
let working: ReturnType<typeof useWorking>

beforeEach(async () => {
  await openServed(['R = 12', 'Z = (R + 5j)/(1 - 2j)', 'abs(3 + 4j)', '# a remark'])
  desk = useDeskStore()
  scope = effectScope()
  working = scope.run(() => useWorking())!
})
afterEach(async () => {
  scope.stop()
  await closeServed()
})

/** Once what was asked of the worker is answered and shown. */
async function settled(): Promise<void> {
  for (let k = 0; k < 12; k += 1) {
    await new Promise((next) => setTimeout(next, 5))
    await nextTick()
  }
}
const rules = (): readonly string[] => working.list.value.map(({ step }) => step.rule)

test('nothing is open at first; then it is the working of the line that is asked for', async () => {
  await settled()
  expect(working.view.value).toBeNull()
  desk.openWorking(id(2))
  await settled()
  expect(desk.panel).toBe('working')
  expect(rules().slice(0, 2)).toEqual(['put-in', 'conjugate-of-divisor'])
  expect(working.list.value.slice(0, 3).map((s) => [s.number, s.first])).toEqual([[1, true], [2, true], [3, false]]) // prettier-ignore
  desk.openWorking(id(4))
  await settled()
  expect(working.view.value).toBeNull()
  expect(working.missing.value).toMatch(/nothing to work out/)
})

test('a chosen way is kept for its line, and forgotten with it', async () => {
  desk.openWorking(id(2))
  await settled()
  working.choose(working.view.value?.choices[0]?.operation ?? -1, 'polar')
  await settled()
  expect(rules()).toContain('quotient-polar')
  desk.openWorking(id(3))
  await settled()
  expect(working.ways.value.size).toBe(0)
  expect(rules()).toEqual(['magnitude', 'squares-worked-out', 'square-root'])
})

test('by hand some intermediates are folded away; a step is opened on its own, or all are', async () => {
  desk.openWorking(id(3))
  await settled()
  expect(working.list.value[0]).toMatchObject({ first: true, folded: true })
  working.open(0)
  await nextTick()
  expect(rules()).toContain('sum-under-root')
  expect(working.list.value[0]?.folded).toBe(false)
  desk.openWorking(id(2))
  await settled()
  desk.workingDepth = 'all'
  await nextTick()
  expect(working.list.value.length).toBe(working.view.value?.steps.length)
  desk.workingDepth = 'hand'
})

test('steps are uncovered one by one, and begin anew with another line', async () => {
  desk.openWorking(id(3))
  await settled()
  working.uncovered.value = 1
  expect(rules()).toEqual(['magnitude'])
  working.uncovered.value = 2
  expect(rules()).toHaveLength(2)
  desk.openWorking(id(2))
  await settled()
  expect(rules()).toHaveLength(1)
})

test('it follows its line and the conventions', async () => {
  desk.openWorking(id(2))
  await settled()
  const folio = useFolioStore()
  folio.rewrite(id(1), 'R = 20', 'another')
  await settled()
  expect(working.list.value[0]?.step.then).toContain('20')
  folio.convene({ digits: 3 })
  await settled()
  expect(working.list.value.at(-1)?.step.then).not.toMatch(/\d\.\d{4}/)
})

test('an example and a selection of lines are opened as well, and the bench takes a matrix', async () => {
  desk.openWorking({ entry: '2*3', gives: '6' })
  await settled()
  expect(working.line.value).toBeNull()
  expect(rules()).toEqual(['multiply'])
  desk.openChain(id(2), 'a\nb')
  expect([desk.workingChecks, desk.chainText]).toEqual([true, 'a\nb'])
  desk.putOnBench({ matrix: { rows: 1, cols: 1, entries: [] }, right: 0 })
  expect([desk.panel, desk.benchLine, desk.benchMatrix?.right]).toEqual(['bench', null, 0])
  desk.openBench(id(1))
  expect(desk.benchMatrix).toBeNull()
})
