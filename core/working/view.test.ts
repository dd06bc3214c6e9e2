import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { compact } from './compact.testing'
import { ALL_RULES, ruleWords } from './rules'
import { noWorkingSaid, workingView } from './view'
import type { WorkingView } from './view'
import { workingAt, workingOf } from './working'
import type { Ways } from './work'
import { stepsAt, workingLatex, workingNote, writtenSteps } from './write'
import { STEPS_MOST } from './work'

function folio(lines: readonly string[], conventions: Conventions): FolioEvaluator {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ ...conventions, timeLimit: 2000 })
  evaluator.setLines(lines.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return evaluator
}

function view(
  lines: readonly string[],
  own: Partial<Conventions> = {},
  ways: Ways = new Map(),
  point = 0,
): WorkingView {
  // prettier-ignore
  const conventions = { ...DEFAULT_CONVENTIONS, ...own }
  const found = workingOf(folio(lines, conventions), String(lines.length - 1), { conventions, ways, point })
  if (typeof found === 'string') throw new Error(found)
  return workingView(found, conventions)
}
const rules = (v: WorkingView): readonly string[] => stepsAt(v, 'hand').map((s) => s.rule)
const stands = (v: WorkingView): readonly string[] => stepsAt(v, 'hand').map((s) => compact(s.then))

test('no rule says that something is simply evaluated, and each has words', () => {
  for (const rule of ALL_RULES) {
    const { text } = ruleWords(rule)
    expect(text).toMatch(/^[A-Z(].*[.:]$/s)
    expect(text).not.toMatch(/evaluat|comput|calculat(?!or)/i)
  }
})

test.each([
  ['# a remark', 'There is nothing to work out in this line.'],
  ['f(x) = x', /worked where it is called/],
  ['unknown x', /an unknown/],
  ['2 +', /cannot be read yet/],
])('%s has no working, and says why', (line, said) => {
  const found = workingOf(folio([line], DEFAULT_CONVENTIONS), '0', { conventions: DEFAULT_CONVENTIONS })
  expect(typeof found === 'string' ? noWorkingSaid(found) : found).toMatch(said)
})

test('what is written as a number has no steps, but its other form', () => {
  expect(view(['3']).steps).toEqual([])
  expect(rules(view(['3 + 4j']))).toEqual(['polar-form', 'parts-worked-out'])
  expect(rules(view(['5∠36.87°']))).toEqual(['rectangular-form', 'parts-worked-out'])
})

test('three depths: in one line, by hand, and with every intermediate', () => {
  const v = view(['R = 3', 'abs(R + 4j)'])
  expect(writtenSteps(v, 'short').map((s) => [s.rule, s.relation, compact(s.latex)])).toEqual([
    ['put-in', '=', '| 3 + 4j |'],
    ['rules-in-order', '=', '5'],
  ])
  expect(rules(v)).toEqual(['put-in', 'magnitude', 'squares-worked-out', 'square-root'])
  expect(writtenSteps(v, 'all').map((s) => s.rule)).toContain('sum-under-root')
})

test('kept polar values go on in polar form through products and quotients, and sums go in rectangular form', () => {
  const product = view(['V = 230∠0°', 'Z = 46∠30°', 'I = V/Z'])
  expect(stands(product).slice(0, 3)).toEqual(['(230 ∠ 0°)/(46 ∠ 30°)', '(230/46) ∠ (0° - 30°)', '5 ∠ - 30°'])
  expect(rules(view(['V = 230∠0°', 'V + 3j']))).toContain('polar-to-rectangular')
})

test('a student may ask for the other form of a product, for Sarrus, for Cramer, for elimination', () => {
  const other = view(['(3 + 4j)*(1 - 2j)'], {}, new Map([[0, 'polar']]))
  expect(rules(other).slice(0, 3)).toEqual(['rectangular-to-polar', 'rectangular-to-polar', 'product-polar'])
  expect(other.choices[0]).toEqual({ operation: 0, ways: ['rectangular', 'polar'], way: 'polar' })
  const det = ['det([[1, 2, 3], [0, 4, 5], [1, 0, 6]])']
  expect(rules(view(det, {}, new Map([[0, 'Sarrus']])))).toEqual(['determinant-sarrus', 'products-worked-out', 'add'])
  expect(rules(view(det, {}, new Map([[0, 'elimination']])))).toContain('row-added')
  const solve = ['solve([[2, 0, 0], [0, 3, 1], [0, 1, 1]], [2, 4, 2])']
  expect(rules(view(solve, {}, new Map([[0, 'Cramer']])))[0]).toBe('cramer')
  expect(rules(view(['inv([[1, 2], [3, 4]])'], {}, new Map([[0, 'elimination']])))[0]).toBe('inverse-augmented')
})

test('a sweep is worked at the point that is read along', () => {
  const lines = ['w = 1 to 4 step 1', '10/(1 + w)']
  expect(stands(view(lines))).toEqual(['10/(1 + 1)', '10/2', '5'])
  expect(stands(view(lines, {}, new Map(), 3))).toEqual(['10/(1 + 4)', '10/5', '2'])
  expect(view(lines, {}, new Map(), 3).point).toBe(4)
  // What takes a sweep as a whole is said to.
  expect(rules(view(['w = 1 to 4 step 1', 'max(w)']))).toEqual(['put-in', 'along-sweep'])
})

test('the rounding trap: what the figures on show would give, where the last digit differs', () => {
  // By hand: 0.014545 + 0.0030303 = 0.0175753, rounded 0.017575; with all figures 0.017576.
  const trapped = view(['100 || 220 || 330']).steps.flatMap((s) => (s.trap === null ? [] : [compact(s.trap)]))
  expect(trapped).toContain('0.017575')
  expect(view(['2*3 + 4']).steps.every((s) => s.trap === null)).toBe(true)
})

test('what cancels is shown with a figure more', () => {
  // 1/3 and 0.33332 agree to four figures: their difference needs a sixth.
  const v = view(['a = 1/3*1.0', 'a - 0.33332'], { digits: 5 })
  expect(compact(v.steps[0]!.then)).toBe('0.333333 - 0.33332')
})

test('an angle that was read in the unit of the conventions is one in the working, and the calculator’s unit is said', () => {
  expect(view(['sin(37)']).steps[0]!.says).toMatch(/set to degrees/)
  expect(view(['sin(0.5)'], { angle: 'rad' }).steps[0]!.says).toMatch(/set to radians/)
})

test('an entry of a product can be chosen, each with its row and column', () => {
  const last = view(['[[1, 2], [3, 4]]*[[5, 6], [7, 8]]']).steps.at(-1)!
  expect(last.entries.map((e) => [e.row, e.col, compact(e.latex)])).toEqual([
    [1, 1, '1 · 5 + 2 · 7 = 19'],
    [1, 2, '1 · 6 + 2 · 8 = 22'],
    [2, 1, '3 · 5 + 4 · 7 = 43'],
    [2, 2, '3 · 6 + 4 · 8 = 50'],
  ])
})

test('an exact elimination can be taken to the bench', () => {
  const bench = view(['solve([[1, 2], [3, 4]], [5, 6])']).steps[0]!.bench
  expect(bench).toMatchObject({ right: 1, matrix: { rows: 2, cols: 3 } })
  expect(view(['solve([[1.5, 2], [3, sqrt(2)]], [5, 6])']).steps[0]!.bench).toBeNull()
})

test('the exact settings, the letter and the place are those of the folio', () => {
  expect(stands(view(['1/3 + 1/6'], { exact: 'fraction' })).at(-1)).toBe('1/2')
  expect(stands(view(['(1 + 2i)*3'], { letter: 'i' }))[1]).toBe('3 + 6i')
  expect(stands(view(['(1 + 2j)*3'], { place: 'before' }))[1]).toBe('3 + j6')
})

test('a long working is cut, and says so', () => {
  const calls = Array.from({ length: 120 }, (_, k) => `f(${k + 1})`)
  const v = view(['f(t) = 2t^2 + 3t - 1', `[${calls.join(', ')}]`])
  expect(v.cut).toBe(true)
  expect(v.steps.length).toBe(STEPS_MOST)
  expect(v.steps.at(-1)).toMatchObject({ rule: 'left-out' })
})

test('a line in error is worked as far as it goes, and the message of the line is said', () => {
  const last = view(['(2 + 3)*ln("a")']).steps.at(-1)!
  expect(last.rule).toBe('stops-here')
  expect(last.says).toMatch(/ln/)
})

test('a series is written out, its counter and the names in it replaced; without names nothing is put in', () => {
  expect(rules(view(['sum(k^2 for k = 1 to 2)']))[0]).toBe('sum-written-out')
  expect(stands(view(['a = 3', 'sum(a*k for k = 1 to 3)'])).slice(0, 2)).toEqual(['∑_k=1^3 3 · k', '3 · 1 + 3 · 2 + 3 · 3']) // prettier-ignore
  expect(stands(view(['[[r + c for c = 1 to 2] for r = 1 to 2]'])).at(-1)).toBe('[2, 3; 3, 4]')
})

test('a working of a text in the place of a line sees what stands above it', () => {
  const evaluator = folio(['R = 4', 'R'], DEFAULT_CONVENTIONS)
  const found = workingAt(evaluator, '1', 'R*2', { conventions: DEFAULT_CONVENTIONS })
  if (found === null || typeof found === 'string') throw new Error('it has one')
  expect(workingView(found, DEFAULT_CONVENTIONS).steps.map((s) => compact(s.then))).toEqual(['4 · 2', '8'])
})

test('as LaTeX it is one chain with the rules beside it, as a note a numbered list', () => {
  const v = view(['R = 3', 'Z = R*(1 + 2j)'])
  const latex = workingLatex(v, 'hand', 'Z')
  expect(latex).toMatch(/^\\begin\{aligned\}\nZ = /)
  expect(latex.match(/&=/g)).toHaveLength(4)
  expect(latex).not.toMatch(/html(Data|Class)/)
  const note = workingNote(v, 'hand', 'Z')
  expect(note.split('\n')[0]).toBe('Working of $Z$:')
  expect(note).toMatch(/\n1\. The values are put in the places of the names\. \$= /)
})
