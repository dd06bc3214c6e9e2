import 'fake-indexeddb/auto'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { closeServed, openServed } from '~/stores/pageForTests'
import { useResultsStore } from '~/stores/results'
import { useLineActions } from './lineActions'

const SOURCES = ['V = 230∠30°', 'V/2', 'A = [[2, 1], [1, 3]]', 'B = [[1, 2, 3]]', '# a remark', 'x_1 = 3', 'arg(V) ~~ 30', 'sin(30)', '1/'] // prettier-ignore
const id = (n: number): string => `line-000${n}`

let folio: ReturnType<typeof useFolioStore>
let desk: ReturnType<typeof useDeskStore>
let actions: ReturnType<typeof useLineActions>
const copied: string[] = []

beforeEach(async () => {
  copied.length = 0
  const clipboard = { writeText: async (text: string) => void copied.push(text) }
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { clipboard } })
  await openServed(SOURCES)
  folio = useFolioStore()
  desk = useDeskStore()
  actions = useLineActions()
})
afterEach(closeServed)

const labels = (line: string): string[] => actions.actionsFor(line).map((a) => a.label)
async function run(line: string, label: string): Promise<void> {
  const found = actions.actionsFor(line).find((a) => a.label === label)
  if (!found) throw new Error(`no ${label} among ${labels(line).join(', ')}`)
  found.run()
  await new Promise((done) => setTimeout(done, 30))
}
const sources = (): string[] => folio.lines.map((l) => l.source)
const currentSource = (): string => folio.lineOf(folio.current ?? '')?.source ?? ''

test('each line offers what can be done to it, and only that', () => {
  expect(labels(id(1))).toEqual(expect.arrayContaining(['Rename V everywhere', 'Copy polar', 'Copy as LaTeX', 'Mark as an answer'])) // prettier-ignore
  expect(labels(id(2))).toContain('Name the result')
  expect(labels(id(3))).toEqual(expect.arrayContaining(['Fill in a grid', 'Reduce row by row', 'Inverse, with check', 'Eigenpairs, side by side'])) // prettier-ignore
  expect(labels(id(4))).toEqual(expect.arrayContaining(['Reduced form and rank']))
  expect(labels(id(4))).not.toContain('Inverse, with check')
  expect(labels(id(5))).not.toContain('Hide the result')
  expect(labels(id(7))).not.toContain('Name the result')
  expect(labels(id(8))).toContain('Write the unit in')
  expect(labels(id(9)).some((label) => label.startsWith('Copy'))).toBe(false)
  expect(labels('gone')).toEqual([])
  for (let n = 1; n <= SOURCES.length; n += 1) expect(new Set(labels(id(n))).size).toBe(labels(id(n)).length)
})

test('of several selected lines only what can be done to all', () => {
  folio.selectTo(id(1))
  folio.makeCurrent(id(1))
  folio.selectTo(id(3))
  expect(labels(id(2))).toEqual(expect.arrayContaining(['Duplicate 3 lines', 'Delete 3 lines', 'Hide the result']))
  expect(labels(id(2)).some((label) => /Copy|Name|Line above|grid/.test(label))).toBe(false)
  expect(labels(id(5))).toContain('Delete line')
})

test('a result gets a name that is free, to be typed over; the step undoes', async () => {
  await run(id(2), 'Name the result')
  const named = folio.lineOf(id(2))?.source ?? ''
  expect(named).toMatch(/^\w+ = V\/2$/)
  expect(folio.editing?.caret).toEqual({ from: 0, to: named.indexOf(' ') })
  folio.undo()
  expect(folio.lineOf(id(2))?.source).toBe('V/2')
  await run(id(1), 'Rename V everywhere')
  expect(desk.renaming).toBe('V')
})

test('notes, remarks and checks have no result to name', () => {
  folio.turn(id(2))
  for (const n of [2, 5, 7]) actions.name(id(n))
  expect(sources()).toEqual(SOURCES)
})

test('a value is copied in each form, and what was copied is told', async () => {
  await run(id(1), 'Copy rectangular')
  await run(id(1), 'Copy polar')
  await run(id(1), 'Copy the equation as LaTeX')
  await run(id(3), 'Copy as CSV')
  expect(copied[0]).toBe('199.19 + 115j')
  expect(copied[1]).toBe('230 ∠ 30°')
  expect(copied[2]).toBe('{V} = {230} \\mathbin{{\\angle}} {30}^{\\circ} = 199.19 + 115\\mathrm{j}')
  expect(copied[2]).not.toContain('htmlData')
  expect(copied[3]?.trim().split(/\r?\n/)).toEqual(['2,1', '1,3'])
  expect(folio.notice).toContain('Copied')
})

test('solving takes the right-hand side that stands next to the matrix, the one below first', async () => {
  folio.insertBelow(['s = [9, 9]', 'w = [1, 2, 3]'])
  folio.rewrite(id(4), 'r = [4, 7]', 'edit')
  folio.rewrite(id(2), 'q = [1, 1]', 'edit')
  await new Promise((done) => setTimeout(done, 60))
  await run(id(3), 'Solve, with residual')
  expect(sources().slice(3, 6)).toEqual(['r = [4, 7]', 'x = solve(A, r)', 'norm(A*x - r)  # residual'])
  folio.undo()
  folio.rewrite(id(4), 'B = [[1, 2, 3]]', 'edit')
  await new Promise((done) => setTimeout(done, 60))
  await run(id(3), 'Solve, with residual')
  expect(sources()).toContain('x = solve(A, q)')
})

test('a line that was begun with a name opens its grid in place', async () => {
  folio.rewrite(id(9), 'M = ', 'edit')
  await run(id(9), 'Fill in a grid')
  expect([desk.leaf, desk.gridLine]).toEqual(['grid', id(9)])
  expect(sources()).toHaveLength(SOURCES.length)
})

test('the grid of a literal is its own; of a computed value it is that of a new line below', async () => {
  await run(id(3), 'Fill in a grid')
  expect([desk.panel, desk.gridLine]).toEqual(['grid', id(3)])
  folio.rewrite(id(4), 'B = A*A', 'edit')
  await new Promise((done) => setTimeout(done, 60))
  await run(id(4), 'Fill in a grid')
  expect(currentSource()).toBe('[[5, 5], [5, 10]]')
  expect(desk.gridLine).toBe(folio.current)
  expect(folio.lines[4]?.id).toBe(folio.current)
})

test('a matrix is inverted and solved by lines that show that it is so', async () => {
  await run(id(3), 'Inverse, with check')
  expect(sources().slice(3, 5)).toEqual(['A_inv = A^-1', 'A*A_inv ~~ identity(2)'])
  await new Promise((done) => setTimeout(done, 60))
  const views = folio.lines.slice(3, 5).map((l) => useResultsStore().views.get(l.id))
  expect(views.map((v) => v?.problem)).toEqual([null, null])
  // Names that are taken are not taken again.
  await run(id(3), 'Inverse, with check')
  expect(sources()[3]).toMatch(/^A_inv\w+ = A\^-1$/)
  await run(id(3), 'Solve, with residual')
  expect(sources().slice(3, 6)).toEqual(['b = [1, 0]', 'x = solve(A, b)', 'norm(A*x - b)  # residual'])
})

test('a bare number gets its unit written in', async () => {
  await run(id(8), 'Write the unit in')
  expect(folio.lineOf(id(8))?.source).toBe('sin(30°)')
})

test('lines are moved, folded, hidden, turned, duplicated and deleted from the menu, each as one step', async () => {
  await run(id(1), 'Move down')
  expect(sources().slice(0, 2)).toEqual(['V/2', 'V = 230∠30°'])
  await run(id(1), 'Fold')
  await run(id(1), 'Hide the result')
  expect(folio.lineOf(id(1))).toMatchObject({ folded: true, hidden: true })
  expect(labels(id(1))).toEqual(expect.arrayContaining(['Unfold', 'Show the result']))
  await run(id(6), 'Turn into a note')
  expect(folio.lineOf(id(6))?.note).toBe(true)
  await run(id(6), 'Duplicate line')
  expect(sources().filter((s) => s === 'x_1 = 3')).toHaveLength(2)
  await run(id(5), 'Delete line')
  expect(folio.lineOf(id(5))).toBeNull()
  for (let k = 0; k < 6; k += 1) folio.undo()
  expect(sources()).toEqual(SOURCES)
})
