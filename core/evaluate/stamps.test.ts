import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { FolioEvaluator } from './folio'
import { valueText } from '../kinds/kinds'

type Unit = 'deg' | 'rad'

function folio(lines: readonly string[], angle: Unit): FolioEvaluator {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ ...DEFAULT_CONVENTIONS, angle })
  evaluator.setLines(lines.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return evaluator
}

function stamp(lines: readonly string[], now: Unit, written: Unit): (string | null | undefined)[] {
  const found = folio(lines, now).stamped(new Map(lines.map((_, k) => [String(k), written])))
  return lines.map((_, k) => found.get(String(k)))
}

const shown = (lines: readonly string[], angle: Unit): string[] => {
  const evaluator = folio(lines, angle)
  return lines.map((_, k) => {
    const { value, problem } = evaluator.result(String(k))!.evaluated
    return problem ? problem.code : value ? valueText(value, { ...DEFAULT_CONVENTIONS, digits: 12, angle: 'deg' }) : ''
  })
}

test.each<[string[], string | null]>([
  [['sin(30)'], 'sin(30°)'],
  [['5∠30 + 2∠a', 'x'], null],
  [['cos([30, 60])'], 'cos([30°, 60°])'],
  [['v = [30, 60]', 'cos(v)'], 'cos(v°)'],
  [['v = [30, 60]', 'cos(2*v)'], 'cos((2*v)°)'],
  [['x = 0 to 360 step 30', 'sin(x)'], 'sin(x°)'],
  [['30° + 5'], '30° + 5°'],
  [['A = [[30, 60], [90, 120]]', 'cos(A)'], null],
  [['sin(30) + sin(sin(45))'], 'sin(30°) + sin(sin(45°)°)'],
])('%j', (lines, expected) => {
  const found = stamp(lines, 'deg', 'deg').at(-1)
  if (expected === null) expect(found ?? null).toBeNull()
  else expect(found?.replaceAll(' ', '')).toBe(expected.replaceAll(' ', ''))
})

test('after a switch it is the unit under which a line was written', () => {
  expect(stamp(['sin(30)', 'x = 60', 'cos(x)'], 'rad', 'deg')).toEqual(['sin(30°)', null, 'cos(x°)'])
  expect(stamp(['sin(pi/6)'], 'deg', 'rad')).toEqual(['sin((pi/6) rad)'])
})

test('writing the unit in never changes a value, whatever the line and the unit', () => {
  const angle = fc.constantFrom(
    '30',
    '45',
    'x',
    '2x',
    'x + 15',
    '-20',
    'v',
    '2*v',
    '[10, 20]',
    'f',
    'pi/6',
    'g(x)',
    '(x)',
    'v[1]',
    'sin(x)',
    '1e-3',
  )
  const line = fc.oneof(
    fc
      .tuple(fc.constantFrom('sin', 'cos', 'tan', 'sec', 'cis', 'degrees', 'radians'), angle)
      .map(([f, a]) => `${f}(${a})`),
    angle.map((a) => `5∠${/^[\w.]+$/.test(a) ? a : `(${a})`}`),
    angle.map((a) => `30° + ${a}`),
    angle.map((a) => `2*cos(${a}) + wave(3∠20, 2, 1)`),
    fc.tuple(angle, angle).map(([a, b]) => `sin(${a})*cos(${b})`),
    angle.map((a) => `h(t) = t*sin(${a})`),
    angle.map((a) => `sin(${a}) ~~ 0.5`),
    angle.map((a) => `sin^2(${a})`),
  )
  const units = fc.constantFrom<Unit>('deg', 'rad')
  let [drawn, written] = [0, 0]
  fc.assert(
    fc.property(line, units, units, (entry, now, then) => {
      drawn += 1
      const lines = ['x = 60', 'v = [30, 60]', 'f = 0 to 90 step 30', 'g(t) = 2t', entry]
      const text = stamp(lines, now, then).at(-1)
      if (!text) return
      written += 1
      const meant = shown(lines, then).at(-1)
      for (const unit of ['deg', 'rad'] as const)
        expect([text, shown([...lines.slice(0, -1), text], unit).at(-1)]).toEqual([text, meant])
    }),
    { numRuns: 800 },
  )
  expect(written).toBeGreaterThan(0.35 * drawn)
})
