import { reckon } from '../../core/testing'
import { folioFileSchema } from '../../shared/folio'
import { DEMO_FOLIOS } from './demo'

describe.each(DEMO_FOLIOS.map((file) => [file.title, file] as const))('%s', (_, file) => {
  const results = reckon(
    file.lines.map((line) => (line.note ? '' : line.source)),
    { ...file.conventions, timeLimit: 20_000 },
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

test('the shelf starts with five folios, in the order of the story', () =>
  expect(DEMO_FOLIOS.map((f) => f.title)).toEqual([
    'Lamp circuit',
    'Mast stays',
    'Cable meshes',
    'Beacon drive',
    'Fog horn',
  ]))
