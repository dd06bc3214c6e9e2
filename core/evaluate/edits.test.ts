import { dataOf } from '../values/problemData'
import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { lineView } from '../views/lineView'
import { FolioEvaluator } from './folio'

/** What stands in a line depends on the folio as it is, not on how it came to be: values, hints, suggestions alike. */

const settings = { ...DEFAULT_CONVENTIONS, timeLimit: 5_000 }

interface Line {
  readonly id: string
  readonly source: string
}

function seen(evaluator: FolioEvaluator, lines: readonly Line[]): string[] {
  return lines.map(({ id }) => {
    const result = evaluator.result(id)
    return result ? JSON.stringify(lineView(result, settings)) : 'nothing'
  })
}

function afresh(lines: readonly Line[]): string[] {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(settings)
  evaluator.setLines(lines)
  evaluator.update()
  return seen(evaluator, lines)
}

const NAMES = ['lamp', 'lamps', 'Lamp', 'damp', 'n', 'k', 'u', 's', 'f', 'alpha', 'alhpa', 'Z1', 'Z2', 'e2', 'j', 'sin']
const name = fc.constantFrom(...NAMES)
const source = fc.oneof(
  fc.tuple(name, fc.integer({ min: 0, max: 9 })).map(([x, n]) => `${x} = ${n}`),
  fc.tuple(name, name).map(([x, y]) => `${x} = ${y} + 1`),
  fc.tuple(name, name).map(([x, y]) => `${x}(t) = t*${y}`),
  fc.tuple(name, name).map(([x, y]) => `${x}(2) + ${y}`),
  fc.tuple(name, name).map(([x, y]) => `${x}${y}`),
  name.map((x) => `33${x}`),
  name.map((x) => `unknown ${x}`),
  name.map((x) => `sin(${x})`),
  fc.tuple(name, name).map(([x, y]) => `${x} = [${y}, 2]`),
  fc.constantFrom('prev + 1', '1/0', '# remark', '', '2 +', 'a = a + 1', '4i', '1 ~~ 1', '0/0'),
)
const edit = fc.oneof(
  fc.tuple(fc.constant('change' as const), fc.nat(), source),
  fc.tuple(fc.constant('insert' as const), fc.nat(), source),
  fc.tuple(fc.constant('remove' as const), fc.nat(), source),
  fc.tuple(fc.constant('move' as const), fc.nat(), source),
)

function edited(lines: readonly Line[], [what, where, text]: readonly [string, number, string], next: string): Line[] {
  const at = lines.length === 0 ? 0 : where % lines.length
  const found = lines[at]
  if (what === 'insert' || !found) return lines.toSpliced(at, 0, { id: next, source: text })
  if (what === 'remove') return lines.toSpliced(at, 1)
  if (what === 'change') return lines.with(at, { id: found.id, source: text })
  return [...lines.toSpliced(at, 1), found]
}

function follow(begun: readonly string[], edits: readonly (readonly [string, number, string])[], every: number): void {
  let lines: Line[] = begun.map((text, k) => ({ id: `b${k}`, source: text }))
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(settings)
  evaluator.setLines(lines)
  evaluator.update()
  const shown = new Map(lines.map(({ id }, k) => [id, seen(evaluator, lines)[k]]))
  edits.forEach((change, k) => {
    lines = edited(lines, change, `e${k}`)
    evaluator.setLines(lines)
    // The interface draws again what is said to have changed, and nothing else.
    const changed = new Set(evaluator.update())
    const now = seen(evaluator, lines)
    lines.forEach(({ id }, n) => {
      if (changed.has(id) || !shown.has(id)) shown.set(id, now[n])
    })
    if (k % every !== 0 && k < edits.length - 1) return
    const fresh = afresh(lines)
    expect(now).toEqual(fresh)
    expect(lines.map(({ id }) => shown.get(id))).toEqual(fresh)
  })
}

test('a folio that was edited shows what a new one of the same lines does', () => {
  fc.assert(
    fc.property(fc.array(source, { maxLength: 8 }), fc.array(edit, { minLength: 1, maxLength: 25 }), (begun, edits) =>
      follow(begun, edits, 1),
    ),
    { numRuns: 600 },
  )
})

test('so does one of so many names that they are not all compared', () => {
  const many = Array.from({ length: 310 }, (_, k) => `lamp${k} = ${k}`)
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 20 }), (edits) =>
      follow([...many, 'lmap12', 'lamp3x + 1', 'Lamp7'], edits, 10),
    ),
    { numRuns: 4 },
  )
})

test('in a long folio the near names are found', () => {
  const lines = Array.from({ length: 4000 }, (_, k) => ({
    id: String(k),
    source: k % 2 === 0 ? `value${k} = ${k}` : `valeu${k - 1} + 1`,
  }))
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(settings)
  evaluator.setLines(lines)
  evaluator.update()
  for (const k of [1, 1001, 3999]) {
    const { problem } = evaluator.result(String(k))?.evaluated ?? {}
    expect(problem).toMatchObject({ code: 'unknown-name' })
    expect((problem && dataOf(problem, 'unknown-name'))?.near.split(', ')).toContain(`value${k - 1}`)
  }
})
