import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { RunsReckoner } from '../views/runs'
import { SPREADSHEET } from './csvOut'
import { runsCsv, runsInPrint } from './runsOut'

function accountOf(sources: readonly string[], varied: number, values: readonly string[]) {
  const lines = sources.map((source, k) => ({ id: String(k), source }))
  const watched = lines.map((line) => line.id).filter((id) => id !== String(varied))
  const sets = values.map((value, k) => ({ id: `set ${k}`, values: { [varied]: value } }))
  return new RunsReckoner().reckon({ lines, varied: [String(varied)], watched, sets }, DEFAULT_CONVENTIONS)
}
const rows = (csv: string): string[][] => csv.trimEnd().split('\r\n').map((line) => line.split(',')) // prettier-ignore

test('numbers stand in full, complex ones by parts and in polar form, each with its change', () => {
  const csv = runsCsv(accountOf(['R = 3', 'Z = R + 4j', 'P = R/7'], 0, ['0']), ['Folio', 'Set A'])
  // The angle is 53.130102354155978…°: to a unit in the last place.
  expect(rows(csv)).toEqual([
    ['', 'Folio', 'Set A'],
    ['R', '3', '0'],
    ['re(Z)', '3', '0'],
    ['im(Z)', '4', '4'],
    ['abs(Z)', '5', '4'],
    ['arg(Z) / °', expect.stringMatching(/^53\.1301023541559[78]/), '90'],
    ['re(change of Z)', '', '-3'],
    ['im(change of Z)', '', '0'],
    ['abs(change of Z)', '', '3'],
    ['arg(change of Z) / °', '', '180'],
    ['P', '0.42857142857142855', '0'],
    ['change of P', '', '-0.42857142857142855'],
  ])
})

test('an angle says its unit, alone and among numbers', () => {
  const angles = accountOf(['a = 30°', 'b = 2a'], 0, ['45°'])
  expect(rows(runsCsv(angles, ['Folio', 'A']))).toContainEqual(['b / °', '60', '90'])
  const radians = { ...SPREADSHEET, separator: ',', mark: '.', angle: 'rad' } as const
  expect(rows(runsCsv(angles, ['Folio', 'A'], radians)).flat()).toContain('b / rad')
  expect(rows(runsCsv(accountOf(['a = 30°', 'b = 2a'], 0, ['4']), ['Folio', 'A']))).toContainEqual(['b', '60°', '8'])
})

test('errors and values that are no single number are texts; a name of a set that a spreadsheet would run is not', () => {
  const found = accountOf(['a = 1', 'v = [a, 2]', 'b = a + 1'], 0, ['(', '=3'])
  const csv = runsCsv(found, ['Folio', '=A', 'B'], { ...SPREADSHEET, separator: ';' })
  expect(csv).toContain(`;Folio;'=A;B\r\n`)
  const [, , vector, sum] = csv.split('\r\n')
  expect(vector).toMatch(/^v;\[1, 2\];.*line 1/)
  expect(sum).toMatch(/^b;2;.*line 1/)
})

test('in print four columns stand side by side, the others below, in both forms and with the changes', () => {
  const found = accountOf(['R = 3', 'Z = R + 4j'], 0, ['1', '2', '(', '5', '6', '7', '8', '9'])
  const names = ['Folio', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H']
  const tables = runsInPrint(found, names, 'j')
  expect(tables.map((t) => t.columns)).toEqual([names.slice(0, 4), names.slice(4, 8), ['H']])
  const [own, first, , broken] = tables[0]?.watched[0]?.cells ?? []
  expect(own).toMatchObject({ change: { kind: 'none' }, problem: null })
  const texts = (cell: typeof own): string[] => (cell?.result.kind === 'value' ? cell.result.forms.map((f) => f.text) : []) // prettier-ignore
  expect(texts(first)).toEqual(['1 + 4j', '4.1231 ∠ 75.964°'])
  expect(first?.change).toMatchObject({ kind: 'value', forms: [{ text: '-2 + 0j' }, { text: '2 ∠ 180°' }] })
  expect(broken?.result).toEqual({ kind: 'none' })
  expect(broken?.problem).not.toBeNull()
})
