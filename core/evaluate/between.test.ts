import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { valueText } from '../kinds/kinds'
import { pointAt } from '../values/sweeps'
import { PlaceReader } from './between'
import { FolioEvaluator } from './folio'

const settings = { ...DEFAULT_CONVENTIONS, timeLimit: 700 }

/** What the lines of a folio are worth where `name` is `entry`, as text; `null` where they cannot be read there. */
function readAt(sources: readonly string[], name: string, entry: string, reader?: PlaceReader) {
  const folio = new FolioEvaluator()
  const lines = sources.map((source, k) => ({ id: String(k), source }))
  folio.setSettings(settings)
  folio.setLines(lines)
  folio.update()
  const found = (reader ?? new PlaceReader(folio.enclosures)).read(lines, settings, name, entry, (id) =>
    folio.result(id),
  )
  if (found.kind === 'none') return found.why
  const texts = Object.fromEntries([...found.values].map(([id, v]) => [id, v && valueText(v, settings)]))
  return { ...texts, x: found.x, index: found.index }
}

const LOW_PASS = ['f = 10 to 1000 per decade 3', 'w = 2pi*f', 'H = 1/(1 + j*w*1m)', 'abs(H)', 'k = 7']

test('between two points everything is reckoned where it is asked for', () => {
  // By Python: 1/(1 + 2j*pi*50*1e-3) = 0.91017… - 0.28593…j, of magnitude 0.95403….
  expect(readAt(LOW_PASS, 'f', '50')).toEqual({
    0: '50', 1: '314.16', 2: '0.91017 - 0.28594j', 3: '0.95403', x: 50, index: 2,
  }) // prettier-ignore
  expect(readAt(LOW_PASS, 'f', '2*25')).toMatchObject({ x: 50 })
  // Beyond the range, too: the formula holds there as well.
  expect(readAt(LOW_PASS, 'f', '0')).toMatchObject({ 2: '1 + 0j', index: 0 })
})

test('a line that needs the whole sweep is not read between its points, and neither is what uses it', () => {
  const lines = ['f = 1 to 9 step 2', 'H = 1/(1 + j*f)', 'n = H/max(abs(H))', 'g = 2n', 'd = abs(H)^2', 'count(f)*f']
  expect(readAt(lines, 'f', '2')).toMatchObject({ 1: '0.2 - 0.4j', 2: null, 3: null, 4: '0.2', 5: null })
})

test('angles, vectors, matrices and texts along the range are read as well', () => {
  const lines = ['a = 0° to 90° step 30°', 'sin(a)', '[cos(a), sin(a)]', '2a', '[[cos(a), 0], [0, 1]]', '"at " + a']
  expect(readAt(lines, 'a', '40°')).toMatchObject({
    0: '40°', 1: '0.64279', 2: '[0.76604, 0.64279]', 3: '80°', 4: '[[0.76604, 0], [0, 1]]', index: 1,
  }) // prettier-ignore
  expect(readAt(lines, 'a', '45')).toBe('An angle is needed here.')
})

test('where nothing can be read it is said why', () => {
  expect(readAt(LOW_PASS, 'f', '5 +')).toMatch(/missing/)
  expect(readAt(LOW_PASS, 'f', '3j')).toBe('A real number is needed here.')
  expect(readAt(LOW_PASS, 'f', '10 to 20')).toBe('A real number is needed here.')
  expect(readAt(LOW_PASS, 'w', '50')).toMatch(/^w is no range/)
})

test('where a line is not defined it has no value, and the others have', () => {
  const lines = ['f = 1 to 4 step 1', '1/(f - 2.5)', 'f^2']
  expect(readAt(lines, 'f', '2.5')).toMatchObject({ 2: '6.25' })
  expect(readAt(lines, 'f', '2.5')).not.toMatchObject({ 1: expect.stringMatching(/^\d/) })
})

/** At the points themselves the reading is the sweep: whatever the formula. */
test.each([
  'f^3 - 2f',
  'exp(j*f)/f',
  '(1 + 2j)*f || 3',
  'arg(f - 3 + j)',
  'ln(f)',
  '[f, f^2]*2',
  'sum(1/(n + f) for n = 1 to 4)',
])(
  // prettier-ignore
  '%s at the points of its range is what its sweep has there',
  (formula) => {
    for (const point of [1, 2, 5]) {
      const folio = new FolioEvaluator()
      folio.setSettings(settings)
      folio.setLines(['f = 1 to 5 step 1', formula].map((source, k) => ({ id: String(k), source })))
      folio.update()
      const sweep = folio.result('1')?.evaluated.value
      const value = sweep?.kind === 'sweep' ? pointAt(sweep, point - 1) : null
      expect(readAt(['f = 1 to 5 step 1', formula], 'f', String(point))).toMatchObject({ 1: value && valueText(value, settings) }) // prettier-ignore
    }
  },
)
