import * as fc from 'fast-check'
import { FolioEvaluator } from './folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { valueText } from '../kinds/kinds'
import { reckon } from '../testing'

/** A text joined with a value, which then stands as the conventions show it. */

const said = (line: string, conventions: Partial<Conventions> = {}, before: readonly string[] = []): string => {
  const { text, error } = reckon([...before, line], conventions).at(-1)!
  expect(error).toBeNull()
  return text
}

test.each<[string, Partial<Conventions>, string]>([
  ['"the current is " + I', {}, 'the current is 3 + 4j'],
  ['"I = " + I + " A"', { letter: 'i', place: 'before' }, 'I = 3 + i4 A'],
  ['"x = " + 1/3', {}, 'x = 0.33333'],
  ['"x = " + 1/3', { digits: 3 }, 'x = 0.333'],
  ['"x = " + 1/3', { exact: 'fraction' }, 'x = 1/3'],
  ['"angle " + 30°', {}, 'angle 30°'],
  ['"angle " + 30°', { angle: 'rad' }, 'angle 0.5236 rad'],
  ['[1, 2] + " is a vector"', {}, '[1, 2] is a vector'],
  ['"it is " + (2 > 1)', {}, 'it is true'],
  ['"M = " + [[1, 2], [3, 4]]', {}, 'M = [[1, 2], [3, 4]]'],
])('%s under %j', (line, conventions, text) =>
  expect(said(line, conventions, [conventions.letter === 'i' ? 'I = 3 + 4i' : 'I = 3 + 4j'])).toBe(text),
)

test('only + joins, and what has no text to be written is refused', () => {
  const codes = ['"a" * 2', '"a" - 2', '2 / "a"', '"a" + f'].map((line) => reckon(['f(x) = x', line])[1]!.error?.code)
  expect(codes).toEqual(['wrong-kinds', 'wrong-kinds', 'wrong-kinds', 'function-needs-bracket'])
})

test('with a sweep there is a text for each of its points', () => {
  const [, result] = reckon(['w = 1 to 3', '"at " + w'])
  expect(result!.error).toBeNull()
  expect(result!.value).toMatchObject({ kind: 'sweep' })
})

test('in every convention the value in it is what the line of that value shows', () => {
  const conventions = fc.record({
    digits: fc.integer({ min: 2, max: 12 }),
    place: fc.constantFrom('before' as const, 'after' as const),
    exact: fc.constantFrom('decimal' as const, 'fraction' as const),
    angle: fc.constantFrom('deg' as const, 'rad' as const),
  })
  const entry = fc.constantFrom('1/3', '2 - 5j/7', '[1/3, 2j]', '17°', '5∠1°', '1e9/7')
  fc.assert(
    fc.property(entry, conventions, (source, chosen) => {
      const [value, joined] = reckon([`v = ${source}`, '"v is " + v'], chosen)
      expect(joined!.text).toBe(`v is ${valueText(value!.value!, { ...DEFAULT_CONVENTIONS, ...chosen })}`)
    }),
  )
})

test('it follows a change of the conventions, and so do the lines that read it; others are not reckoned again', () => {
  const evaluator = new FolioEvaluator()
  const show = (chosen: Partial<Conventions>): string[] => {
    evaluator.setSettings({ ...DEFAULT_CONVENTIONS, ...chosen })
    evaluator.update()
    return ['1', '2', '3'].map((id) => {
      const value = evaluator.result(id)!.evaluated.value!
      return valueText(value, { ...DEFAULT_CONVENTIONS, ...chosen })
    })
  }
  evaluator.setLines(['x = 1/7', 't = "x: " + x', 't + "!"'].map((source, k) => ({ id: String(k + 1), source })))
  expect(show({})).toEqual(['0.14286', 'x: 0.14286', 'x: 0.14286!'])
  const before = evaluator.result('1')
  expect(show({ digits: 3 })).toEqual(['0.143', 'x: 0.143', 'x: 0.143!'])
  expect(evaluator.result('1')).toBe(before)
})
