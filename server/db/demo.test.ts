import { FolioEvaluator } from '../../core/evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../../core/format/conventions'
import { reckon } from '../../core/testing'
import { workingOf } from '../../core/working/working'
import { folioFileSchema } from '../../shared/folio'
import { readFileSync } from 'node:fs'
import { openFile } from '../../core/exchange/open'
import { dataFrom } from '../../shared/enclosure'
import type { FolioFile } from '../../shared/folio'
import { DEMO_FOLIOS } from './demo'
import { SHORE_CABLE, shoreCable } from './shoreCable'

/** The data that a folio encloses. */
const enclosedOf = (file: FolioFile) =>
  (file.enclosures ?? []).map((enclosure) => ({
    name: enclosure.name,
    data: dataFrom(enclosure, shoreCable().numbers)!,
  }))

describe.each(DEMO_FOLIOS.map((file) => [file.title, file] as const))('%s', (_, file) => {
  const results = reckon(
    file.lines.map((line) => (line.note ? '' : line.source)),
    { ...file.conventions, timeLimit: 20_000 },
    enclosedOf(file),
  )
  test('no line is in error, and every check passes', () => {
    results.forEach((result, k) => {
      expect([k + 1, result.error?.message]).toEqual([k + 1, undefined])
      if (result.value?.kind === 'check') expect(result.value.pass).toBe(true)
    })
  })
  test('its plates are valid and show values that it keeps', () => {
    expect(folioFileSchema.safeParse(file).success).toBe(true)
    const ids = new Set(file.lines.flatMap((line) => line.id ?? []))
    expect(file.plates!.length).toBeGreaterThan(0)
    for (const plate of file.plates!) {
      expect(plate.on.length).toBeGreaterThan(0)
      for (const line of plate.on) expect([plate.caption, line, ids.has(line)]).toEqual([plate.caption, line, true])
    }
  })
})

test('the shelf starts with seven folios, in the order of the story', () =>
  expect(DEMO_FOLIOS.map((f) => f.title)).toEqual([
    'Lamp circuit',
    'Mast stays',
    'Cable meshes',
    'Beacon drive',
    'Fog horn',
    'Shore cable measured',
    'Bell buoy',
  ]))

test('the samples that can be opened hold the cable of the demonstration, as network data and as a table', () => {
  const sample = (name: string) => new Uint8Array(readFileSync(`public/samples/${name}`))
  expect(new TextDecoder().decode(sample('shore-cable.s1p'))).toBe(SHORE_CABLE)
  const network = openFile(sample('shore-cable.s1p'), 'shore-cable.s1p')
  const table = openFile(sample('shore-cable.csv'), 'shore-cable.csv')
  if (network.kind !== 'data' || table.kind !== 'data' || network.data.kind !== 'table' || table.data.kind !== 'table')
    throw new Error('both are tables')
  expect(table.data.columns.map((c) => [c.name, c.unit])).toEqual([['Frequency', 'Hz'], ['Z', 'Ω']]) // prettier-ignore
  expect(table.data.columns.map((c) => [c.re, c.im])).toEqual(network.data.columns.map((c) => [c.re, c.im]))
})

test.each(DEMO_FOLIOS.map((file) => [file.title, file] as const))(
  '%s: every line with a value has its working',
  (_, file) => {
    const conventions = { ...DEFAULT_CONVENTIONS, ...file.conventions }
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ ...conventions, timeLimit: 20_000 })
    evaluator.setLines(file.lines.map((line, k) => ({ id: String(k), source: line.note ? '' : line.source })))
    for (const { name, data } of enclosedOf(file)) evaluator.enclosures.put(name, name, data)
    evaluator.update()
    file.lines.forEach((line, k) => {
      const value = evaluator.result(String(k))?.evaluated.value
      if (!value || value.kind === 'function' || line.note) return
      const working = workingOf(evaluator, String(k), { conventions })
      if (typeof working === 'string') {
        expect([line.source, working]).toEqual([
          line.source,
          line.source.startsWith('determine') ? 'search' : 'unknown',
        ])
        return
      }
      expect([line.source, working.result === null]).toEqual([line.source, false])
      expect(working.steps.map((step) => step.rule)).not.toContain('stops-here')
    })
  },
)
