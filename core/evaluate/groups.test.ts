import * as fc from 'fast-check'
import { renameEverywhere } from '../notation/rename'
import { reckon } from '../testing'
import { lineView } from '../views/lineView'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { FolioEvaluator } from './folio'

/** What each line of a folio comes to, in one word each. */
function read(lines: readonly string[]): readonly string[] {
  return reckon(lines).map(({ view, error, text }) => (error ? `error ${error.code}` : view.kind === 'equation' ? `equation ${view.place?.role === 'equation' ? view.place.number : ''}` : view.kind === 'sought' ? 'sought' : text)) // prettier-ignore
}

describe('how a line with an equals sign is read', () => {
  test('only inside a group, and only with a sought name in it, is it an equation', () => {
    expect(read(['R = 4', 'I = 3', 'sought I', 'U = R*2', 'R*I = 12', 'determine', 'I', 'I = 5', 'I'])).toEqual([
      '4', '3', 'sought', '8', 'equation 1', 'I = 3', '3', '5', '5',
    ]) // prettier-ignore
  })
  test('a sought name alone on the left is an equation, another single name a definition, also twice', () => {
    expect(read(['sought x, y', 'x = 3 - y', 'd = x - y', 'd = d + 1', 'd = 2', 'determine'])).toEqual([
      'sought', 'equation 1', '-2y + 3', '-2y + 4', '2', 'x = -y + 3, y = y',
    ]) // prettier-ignore
  })
  test('lines that depend on what is sought are part of the equations that use them', () => {
    expect(read(['sought I', 'U = 6*I', 'U + 4*I = 20', 'P = U*I', 'prev/2', 'determine', 'P'])).toEqual([
      'sought', '12', 'equation 1', '24', '12', 'I = 2', '24',
    ]) // prettier-ignore
    expect(read(['sought I', 'U = 6*I', 're(U) = 3', 'determine'])).toEqual(['sought', '3', 'equation 1', 'I = 0.5'])
    expect(read(['f(x) = x^2', 'sought x', 'g(t) = t*x', 'f(x) + g(1) = 6', 'determine near x = 1', 'g(2)'])).toEqual([
      'f(x)', 'sought', 'g(t)', 'equation 1', 'x = 2', '4',
    ]) // prettier-ignore
  })
  test('each equation uses the names as they are above it', () => {
    expect(read(['R = 1', 'sought x, y', 'R*x = 10', 'R = 5', 'R*y = 10', 'determine'])).toEqual([
      '1', 'sought', 'equation 1', '5', 'equation 2', 'x = 10, y = 2',
    ]) // prettier-ignore
  })
  test('what cannot be defined is an error outside of groups, with the sides to be compared', () => {
    const [line] = reckon(['2*3 = 6'])
    expect([line!.error?.code, line!.error?.fixes[0]?.label]).toEqual(['not-definable', '2*3 == 6'])
    expect(read(['sought x', '2*3 = 6', 'x = 1', 'determine'])).toEqual(['sought', 'error nothing-sought', 'equation 1', 'x = 1']) // prettier-ignore
  })
  test('a second sought adds to the group; determine without one is an error', () => {
    expect(read(['sought x', 'sought y', 'x + y = 3', 'x - y = 1', 'determine'])).toEqual(['sought', 'sought', 'equation 1', 'equation 2', 'x = 2, y = 1']) // prettier-ignore
    expect(read(['determine'])).toEqual(['error determine-without-sought'])
  })
  test('near and from, and what they are not', () => {
    expect(read(['sought x', 'x^2 = 4', 'determine near x = 1'])).toEqual(['sought', 'equation 1', 'x = 2'])
    expect(read(['sought x', 'x^2 = 4', 'determine from x = -5 to 0'])).toEqual(['sought', 'equation 1', 'x = -2'])
    for (const line of [
      'determine near',
      'determine near 3',
      'determine from x = 5',
      'determine from x = 0 to 5 step 1',
    ])
      expect([line, read(['sought x', 'x^2 = 4', line])[2]]).toEqual([line, 'error determine-form'])
    expect(read(['sought x', 'x = 4', 'determine x'])[2]).toMatch(/^error /)
    expect(read(['sought x', 'x = 4', 'determine near y = 3'])[2]).toBe('error not-sought')
    expect(read(['sought x', 'x = 4', 'determine near x = "four"'])[2]).toMatch(/^error |^x = 4/)
  })
  test('the words cannot be kept as names', () => {
    expect(read(['sought = 3', 'determine = 3'])).toEqual(['error reserved-word', 'error reserved-word'])
  })
})

describe('what goes wrong is said', () => {
  test('by the line that it is about', () => {
    expect(read(['sought x, y', 'x + q = 3', 'y = 1', 'determine', 'x + 1'])).toEqual([
      'sought', 'error unknown-name', 'equation 2', 'error equations-wait', 'error waits-for',
    ]) // prettier-ignore
    expect(read(['sought x', 'x + 1 = x + 2', 'determine'])).toEqual(['sought', 'error equation-false', 'error equations-wait']) // prettier-ignore
    expect(read(['sought x, y', 'x = 1', 'determine'])[2]).toBe('error sought-unused')
    expect(read(['sought x', 'determine'])[1]).toBe('error no-equations')
    expect(read(['sought x', 'x = [1, 2] + 1', 'determine'])[1]).toMatch(/^error /)
    expect(read(['sought x', '[x, 1] = 3', 'determine'])[1]).toBe('error equation-sides')
  })
  test('coefficients without a value, sides of no kind that can be solved for, products from the wrong side', () => {
    expect(read(['sought x', 'x/0 = 3', 'determine'])[2]).toBe('error equation-infinite')
    expect(read(['sought x', 'inf*x = 3', 'determine'])[2]).toBe('error equation-infinite')
    expect(read(['sought x', 'x = "word"', 'determine'])[1]).toBe('error equation-value')
    expect(read(['M = [[1, 2], [3, 4]]', 'sought X', 'M*X - X*M = M', 'determine'])[3]).toBe('error not-smooth')
    expect(read(['sought x', 'x*[1, 2] = [3, 6]', 'determine'])[2]).toBe('x = 3')
  })
  test('contradicting equations by the smallest set of their lines', () => {
    const { error } = reckon(['sought x, y', 'x + y = 1', 'x - y = 4', '2x = 5', 'x = 7', 'determine']).at(-1)!
    expect(error?.message).toContain('lines 4 and 5')
  })
  test('typing one reading where another was meant gives a hint', () => {
    const asks = reckon(['sought x', '2*x == 6', '2*x = 6', 'determine'])[1]!
    expect(asks.hints.map((h) => [h.code, h.fixes.map((f) => f.label)])).toEqual([['equation-asks', ['2*x = 6']]])
    const again = reckon(['sought x', '2*x = 6', 'determine', 'x = 4'])[3]!
    expect(again.hints.map((h) => h.code)).toEqual(['sought-redefined'])
    const always = reckon(['sought x', 'x + 1 = x + 1', 'x = 3', 'determine'])
    expect([always[1]!.hints.map((h) => h.code), always[3]!.text]).toEqual([['equation-always'], 'x = 3'])
  })
  test('what is not determined says so quietly', () => {
    const [, , line] = reckon(['sought x', '2*x = 6', 'y = x + 1'])
    expect([line!.error?.code, line!.error?.unfinished, line!.view.reading]).toEqual(['not-determined', true, expect.stringContaining('y')]) // prettier-ignore
  })
})

test('spans: renaming goes through sought, equations, near and what follows', () => {
  const lines = ['sought I1, I2', 'I1 + 2I2 = 7 V/(1 ohm)', 'I2 = 2 A', 'determine near I1 = 3 A', 'I1*I2']
  const { changes, problem } = renameEverywhere(lines, 'I2', 'I_b', 'j', () => false)
  expect(problem).toBeNull()
  expect(changes.map(({ source }) => source)).toEqual([
    'sought I1, I_b',
    'I1 + 2I_b = 7 V/(1 ohm)',
    'I_b = 2 A',
    'I1*I_b',
  ])
  const after = lines.map((line, k) => changes.find((c) => c.index === k)?.source ?? line)
  expect(reckon(after).at(-1)!.text).toBe(reckon(lines).at(-1)!.text)
})

test('the answers of a line are shown as lines of their own are', () => {
  const view = reckon(['R = 4', 'sought x, y', 'R*x + y = 1 + 2j', 'x - y = 3', 'determine']).at(-1)!.view
  expect(view.readout).toEqual({ shape: 'words', text: '2 equations, 2 sought, one solution' })
  expect(view.answers.map(({ id, name, readout, reading }) => [id, name, readout.shape, reading])).toEqual([
    ['4-1', 'x', 'twin', 'x'],
    ['4-2', 'y', 'twin', 'y'],
  ])
  expect(view.answers[0]!.drawn).not.toBeNull()
  expect(view.uses).toEqual(['R'])
})

// What is evaluated line by line as it is edited is what would come of it all at once.

const LINES = [
  'R = 4', 'R = 5', 'S = R + 1', 'sought x', 'sought x, y', 'x = 2', 'R*x = 12', 'x + y = 3', 'y - R*x = 1', 'x^2 = 4', 'd = x*2',
  'd + y = 4', 'e(t) = t*x', 'e(2)', 'prev + 1', 'determine', 'determine near x = 1', 'x', 'x + y', 'x == 3', 'unknown s', 'y = s',
  '# a note', '', 'x ~~ 2', '1 = 2', 'sum(x*k for k = 1 to 3)', 'z = x', 'k = 0 to 3', 'x + k = 3',
] // prettier-ignore

test('after any edits a folio is what a fresh one would be', () => {
  const line = fc.constantFrom(...LINES)
  const edit = fc.record({ at: fc.nat(30), source: line, how: fc.constantFrom('change', 'insert', 'remove', 'move') })
  fc.assert(
    fc.property(fc.array(line, { minLength: 3, maxLength: 12 }), fc.array(edit, { maxLength: 8 }), (start, edits) => {
      const settings = { ...DEFAULT_CONVENTIONS, timeLimit: 2_000 }
      const evaluator = new FolioEvaluator()
      evaluator.setSettings(settings)
      let lines = start.map((source, k) => ({ id: `a${k}`, source }))
      evaluator.setLines(lines)
      evaluator.update()
      const shown = new Map(lines.map(({ id }) => [id, JSON.stringify(lineView(evaluator.result(id)!, settings))]))
      for (const [n, { at, source, how }] of edits.entries()) {
        const k = at % lines.length
        if (how === 'change') lines = lines.with(k, { id: lines[k]!.id, source })
        else if (how === 'insert') lines = lines.toSpliced(k, 0, { id: `b${n}`, source })
        else if (how === 'remove' && lines.length > 1) lines = lines.toSpliced(k, 1)
        else lines = [...lines.slice(k), ...lines.slice(0, k)]
        evaluator.setLines(lines)
        for (const id of evaluator.update()) shown.set(id, JSON.stringify(lineView(evaluator.result(id)!, settings)))
        const fresh = new FolioEvaluator()
        fresh.setSettings(settings)
        fresh.setLines(lines)
        fresh.update()
        for (const { id } of lines) {
          const [one, other] = [evaluator.result(id)!, fresh.result(id)!]
          expect([id, one.evaluated.problem?.code, one.place]).toEqual([id, other.evaluated.problem?.code, other.place])
          // And whoever only hears of changes has not missed any.
          expect(shown.get(id)).toBe(JSON.stringify(lineView(one, settings)))
          expect(JSON.stringify(lineView(one, settings))).toBe(JSON.stringify(lineView(other, settings)))
        }
      }
    }),
    { numRuns: 250 },
  )
})
