import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { FamilyReckoner } from './families'
import type { FamilyAsked } from './families'

/** What a plate shows for several values of a number, reckoned beside the folio as it stands. */

const LINES = ['unknown s', 'zeta = 0.2', 'G = 4/(s^2 + 4*zeta*s + 4)', 't = 0 to 4 step 0.5', 'y = step_response(G, t)', 'p = poles(G)'] // prettier-ignore
const lines = LINES.map((source, k) => ({ id: `line-${k}`, source }))
const asked = (values: readonly string[], ids = ['line-4', 'line-5'], plate = 'plate-one'): FamilyAsked => ({
  plate,
  line: 'line-1',
  sources: values.map((value) => `zeta = ${value}`),
  ids,
})
const nothing = (): void => undefined
const reckon = (reckoner: FamilyReckoner, all: readonly FamilyAsked[], from = lines) =>
  reckoner.reckon(all, from, DEFAULT_CONVENTIONS, nothing)

/** 1 − e^(−ζωt)(cos + ζ/√(1−ζ²) sin) of ω = 2. */
function known(zeta: number, t: number): number {
  const root = Math.sqrt(1 - zeta * zeta)
  return 1 - Math.exp(-2 * zeta * t) * (Math.cos(2 * root * t) + (zeta / root) * Math.sin(2 * root * t))
}

test('a member has the curves and the marks of its own value', () => {
  const [family] = reckon(new FamilyReckoner(), [asked(['0.1', '0.5'])])
  expect(family?.members).toHaveLength(2)
  for (const [k, zeta] of [0.1, 0.5].entries()) {
    const { sweeps, drawn } = family!.members[k]!
    const curve = sweeps.get('line-4')!
    curve.x.forEach((t, n) => expect(curve.re[n]).toBeCloseTo(known(zeta, t), 9))
    const [pole] = drawn.get('line-5')!.entries
    expect(pole!.re).toBeCloseTo(-2 * zeta, 9)
    expect(Math.abs(pole!.im)).toBeCloseTo(2 * Math.sqrt(1 - zeta * zeta), 9)
  }
})

test('the lines as they stand are not touched', () => {
  const before = lines.map(({ source }) => source)
  reckon(new FamilyReckoner(), [asked(['0.9'])])
  expect(lines.map(({ source }) => source)).toEqual(before)
})

test('a value that is none leaves its member empty, and the others as they are', () => {
  const [family] = reckon(new FamilyReckoner(), [asked(['0.1', 'oops +', '0.5'])])
  expect(family!.members.map(({ sweeps }) => sweeps.size)).toEqual([1, 0, 1])
})

test('what is not asked for is not told', () => {
  const [family] = reckon(new FamilyReckoner(), [asked(['0.1'], ['line-5'])])
  expect([...family!.members[0]!.sweeps.keys()]).toEqual([])
  expect([...family!.members[0]!.drawn.keys()]).toEqual(['line-5'])
})

test('one after another comes to what a fresh one comes to: values, lines and plates come and go', () => {
  const reckoner = new FamilyReckoner()
  const faster = lines.map((line) => (line.id === 'line-2' ? { ...line, source: 'G = 9/(s^2 + 6*zeta*s + 9)' } : line))
  const steps: [readonly FamilyAsked[], typeof lines][] = [
    [[asked(['0.1', '0.5'])], lines],
    [[asked(['0.5'])], lines],
    [[asked(['0.5', '0.7', '0.9'])], faster],
    [[asked(['0.5']), asked(['0.3'], ['line-5'], 'plate-two')], faster],
    [[asked(['0.3'], ['line-5'], 'plate-two')], lines],
    [[], lines],
  ]
  for (const [all, from] of steps) expect(reckon(reckoner, all, from)).toEqual(reckon(new FamilyReckoner(), all, from))
})
