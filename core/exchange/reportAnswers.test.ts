import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { lineView } from '../views/lineView'
import { makeReport } from './report'

const HEAD = { title: 'Meshes', course: '', sheet: '', date: '', names: [] }

/** A report of these lines, with a plate that shows an answer. */
function reportOf(lines: readonly string[], shown: readonly string[]) {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  const sources = lines.map((source, k) => ({ id: `line-${k}x`, source }))
  evaluator.setLines(sources)
  evaluator.update()
  const viewOf = (id: string) => {
    const result = evaluator.result(id)
    return result && lineView(result, DEFAULT_CONVENTIONS)
  }
  const plates = [{ id: 'plate', number: 1, caption: 'Currents', lines: shown }]
  return makeReport(HEAD, DEFAULT_CONVENTIONS, sources, viewOf, plates)
}

test('on the sheet the answers stand below the line that found them, and a plate of them after it', () => {
  const report = reportOf(['sought x, y', 'x + y = 1 + 2j', 'x - y = 3', 'determine', 'x*y'], ['line-3x-2'])
  expect(report.blocks.map((block) => (block.kind === 'entry' ? [block.number, block.reading.length > 0] : block.kind))).toEqual([
    [1, true],
    [2, true],
    [3, true],
    [4, true],
    [4, true],
    [4, true],
    'figure',
    [5, true],
  ]) // prettier-ignore
  const [, , , words, x, y] = report.blocks
  expect(words).toMatchObject({ result: { kind: 'words', text: '2 equations, 2 sought, one solution' } })
  expect(x).toMatchObject({ source: 'x', result: { kind: 'value', forms: [{ text: '2 + 1j' }, { text: expect.stringContaining('∠') }] } }) // prettier-ignore
  expect(y).toMatchObject({ source: 'y', reading: 'y', result: { kind: 'value' } })
})

test('a group in error keeps its sentence, and has no answers', () => {
  const report = reportOf(['sought x', 'x = 1', 'x = 2', 'determine'], [])
  const entries = report.blocks.filter((block) => block.kind === 'entry')
  expect(entries).toHaveLength(4)
  expect(entries.at(-1)).toMatchObject({ result: { kind: 'none' }, problem: expect.stringContaining('lines 2 and 3') })
})
