import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { useFolioStore } from './folio'
import { freshPage, servedFolio } from './pageForTests'
import { useRecallStore } from './recall'

jest.mock('./results', () => ({
  useResultsStore: () => ({
    views: new Map(), load: async () => undefined, apply: async () => undefined, type: async () => undefined,
    settle: async () => undefined, close: () => undefined,
  }),
})) // prettier-ignore

const served = servedFolio([
  { id: 'line-0001', source: 'V = 230∠0°' },
  { id: 'line-0002', source: 'Z = 12 + 5j' },
  { id: 'line-0003', source: 'a note', note: true },
  { id: 'line-0004', source: '' },
])

/** What the journal has of earlier sessions, newest first. */
const journal = {
  entries: [
    { revision: 2, savedAt: '2026-01-01T00:00:00Z', operations: [{ type: 'edit', id: 'line-0002', source: 'Z = 10 + 5j', was: '' }] },
    { revision: 1, savedAt: '2026-01-01T00:00:00Z', operations: [{ type: 'insert', line: { id: 'line-0009', source: 'VV = V^2' }, at: 0 }] },
  ],
  more: false,
} // prettier-ignore
let journalAsked = 0
let reachable = true

let folio: ReturnType<typeof useFolioStore>
let recall: ReturnType<typeof useRecallStore>

beforeEach(async () => {
  journalAsked = 0
  reachable = true
  await freshPage((path) => {
    if (!path.includes('/journal')) return served
    journalAsked += 1
    if (!reachable) throw new TypeError('offline')
    return journal
  })
  setActivePinia(createPinia())
  folio = useFolioStore()
  recall = useRecallStore()
  await folio.open('folio-01')
})
afterEach(() => folio.close())

/** Goes back in an empty last line until nothing earlier comes. */
function allRecalled(): string[] {
  const found: string[] = []
  for (let k = 0; k < 20; k += 1) {
    recall.go(-1)
    if (found.at(-1) === folio.text) break
    found.push(folio.text)
  }
  return found
}

test('earlier entries come back newest first, notes and empty lines left out', () => {
  folio.edit('line-0004')
  folio.type('first')
  folio.keep()
  folio.edit('line-0001')
  folio.type('V = 110∠0°')
  folio.keep()
  folio.edit('line-0004')
  folio.type('')
  expect(allRecalled().slice(0, 3)).toEqual(['V = 110∠0°', 'first', 'Z = 12 + 5j'])
})

test('what begins as one has typed comes first, then what has it somewhere', () => {
  folio.edit('line-0004')
  folio.type('Z')
  recall.go(-1)
  expect(folio.text).toBe('Z = 12 + 5j')
  folio.type('5j')
  recall.end()
  recall.go(-1)
  expect(folio.text).toBe('Z = 12 + 5j')
})

test('going forward again ends at what had been typed', () => {
  folio.edit('line-0004')
  folio.type('V')
  expect(recall.go(1)).toBe(false)
  recall.go(-1)
  expect([folio.text, recall.active]).toEqual(['V = 230∠0°', true])
  expect(recall.go(1)).toBe(true)
  expect([folio.text, recall.active]).toEqual(['V', false])
})

test('typing into what was recalled ends recalling', () => {
  folio.edit('line-0004')
  recall.go(-1)
  folio.type(`${folio.text} + 1`)
  expect(recall.active).toBe(false)
})

test('the journal is read once, and its texts come after those of this session', async () => {
  await recall.fetchEarlier()
  await recall.fetchEarlier()
  expect(journalAsked).toBe(1)
  folio.edit('line-0004')
  folio.type('V')
  recall.go(-1)
  // VV = V^2 is in the journal only; the newest of the lines comes after it.
  expect(recall.matches.slice(0, 2)).toEqual(['VV = V^2', 'V = 230∠0°'])
})

test('without the server there is still what stands in the folio', async () => {
  reachable = false
  await recall.fetchEarlier()
  folio.edit('line-0004')
  recall.go(-1)
  expect(folio.text).toBe('Z = 12 + 5j')
})
