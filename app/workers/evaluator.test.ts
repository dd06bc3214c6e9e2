import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { EvaluatorService } from './evaluator'
import type { Update } from './evaluator'

const LINES = [
  { id: 'v', source: 'V = 12' },
  { id: 'r', source: 'R = 3' },
  { id: 'i', source: 'I = V/R' },
]

function opened(): EvaluatorService {
  const service = new EvaluatorService()
  service.load(LINES, DEFAULT_CONVENTIONS)
  return service
}

/** `i:4` for each view that came back. */
function told(update: Update): string[] {
  return update.views.map(
    (v) => `${v.id}:${v.problem?.code ?? (v.readout.shape === 'single' ? v.readout.text : v.readout.shape)}`,
  )
}

test('a folio is loaded whole, and an edit brings back only what changed', () => {
  const service = new EvaluatorService()
  expect(told(service.load(LINES, DEFAULT_CONVENTIONS))).toEqual(['v:12', 'r:3', 'i:4'])
  expect(told(service.apply({ sources: [{ id: 'r', source: 'R = 6' }] }))).toEqual(['r:6', 'i:2'])
  expect(told(service.apply({ order: ['r', 'v', 'i'] }))).toEqual([])
  expect(told(service.apply({ order: ['r', 'i'] }))).toEqual(['i:unknown-name'])
  expect(told(service.apply({ conventions: { ...DEFAULT_CONVENTIONS, digits: 3 } }))).toEqual(['r:6', 'i:unknown-name'])
})

describe('while a line is typed', () => {
  test('what can be evaluated is followed at once', () => {
    const service = opened()
    expect(told(service.type('r', 'R = 4'))).toEqual(['r:4', 'i:3'])
    expect(told(service.settle())).toEqual(['r:3', 'i:4'])
  })
  test('what depends on it keeps its prefix under the hand; kept, it has the one that fits', () => {
    const service = new EvaluatorService()
    const lines = [
      { id: 'v', source: 'V = 900 V' },
      { id: 'u', source: 'U = V*1' },
      { id: 'w', source: 'x = V*1 kg' },
    ]
    service.load(lines, DEFAULT_CONVENTIONS)
    const shown = ({ views }: Update) => views.map(({ readout: r }) => ('unit' in r && 'text' in r ? `${r.text} ${r.unit}` : '')) // prettier-ignore
    expect(shown(service.type('v', 'V = 1100 V')).slice(0, 2)).toEqual(['1100 V', '1100 V'])
    // Another quantity in its place is shown in its own unit.
    expect(shown(service.type('v', 'V = 1100 A'))[1]).toBe('1.1 kA')
    expect(shown(service.type('v', 'V = 1e9 V'))[1]).toBe('1 GV')
    service.type('v', 'V = 1100 V')
    expect(shown(service.apply({ sources: [{ id: 'v', source: 'V = 1100 V' }] }))).toContain('1.1 kV')
  })
  test('what cannot be evaluated leaves the lines below as they were, and tells its problem', () => {
    const service = opened()
    service.type('r', 'R = 4')
    const update = service.type('r', 'R = 4 +')
    expect(update.draft?.problem?.code).toBe('unfinished')
    expect(told(update).filter((t) => t.startsWith('i'))).toEqual(['i:3'])
    expect(update.views.some((v) => v.id === 'r')).toBe(false)
    expect(told(service.type('r', 'R = 4 + 2'))).toEqual(expect.arrayContaining(['r:6', 'i:2']))
  })
  test('keeping a faulty line lets the others wait for it', () => {
    const service = opened()
    service.type('r', 'R = ')
    service.apply({ sources: [{ id: 'r', source: 'R = ' }] })
    expect(told(service.settle())).toEqual(expect.arrayContaining(['r:unfinished', 'i:waits-for']))
  })
  test('a line that is removed while it is typed is gone', () => {
    const service = opened()
    service.type('r', 'R = 4')
    expect(told(service.apply({ order: ['v', 'i'] }))).toEqual(['i:unknown-name'])
  })
})

describe('a line that was stopped', () => {
  const held = (): EvaluatorService => {
    const service = new EvaluatorService()
    service.load(LINES, DEFAULT_CONVENTIONS, [['r', 'R = 3']])
    return service
  }
  test('is held back, and the others go on without it', () => {
    const service = new EvaluatorService()
    expect(told(service.load(LINES, DEFAULT_CONVENTIONS, [['r', 'R = 3']]))).toEqual([
      'v:12',
      'r:stopped',
      'i:unknown-name',
    ])
  })
  test('is evaluated again when it is asked for, or has another text', () => {
    expect(told(held().release('r'))).toEqual(expect.arrayContaining(['r:3', 'i:4']))
    expect(told(held().apply({ sources: [{ id: 'r', source: 'R = 6' }] }))).toEqual(
      expect.arrayContaining(['r:6', 'i:2']),
    )
    expect(told(held().type('r', 'R = 2'))).toEqual(expect.arrayContaining(['r:2', 'i:6']))
  })
})

describe('the working of a line', () => {
  const rules = (found: ReturnType<EvaluatorService['working']>): readonly string[] => {
    if (typeof found === 'string') throw new Error(found)
    return found.steps.map((step) => step.rule)
  }

  test('is that of the folio as it is now, and a sentence where there is none', () => {
    const service = opened()
    expect(rules(service.working('i', { ways: [] }))).toEqual(['put-in', 'divide'])
    service.apply({ sources: [{ id: 'i', source: 'f(x) = V*x' }] })
    expect(service.working('i', { ways: [] })).toMatch(/worked where it is called/)
    expect(service.working('nowhere', { ways: [] })).toMatch(/nothing to work out/)
    expect(new EvaluatorService().working('i', { ways: [] })).toMatch(/nothing to work out/)
  })

  test('goes the way that is chosen, and tells the first steps alone where these are asked for', () => {
    const service = new EvaluatorService()
    service.load([{ id: 'a', source: '(3 + 4j)/(1 - 2j)' }], DEFAULT_CONVENTIONS)
    expect(rules(service.working('a', { ways: [[0, 'polar']] }))).toContain('quotient-polar')
    const first = service.working('a', { ways: [], most: 2 })
    expect(rules(first)).toHaveLength(2)
    expect(first).toMatchObject({ more: true })
    expect(service.working('a', { ways: [] })).toMatchObject({ more: false })
  })

  test('of a sweep is that of the point that is read along', () => {
    const service = new EvaluatorService()
    service.load([{ id: 'w', source: 'w = 1 to 4' }, { id: 'y', source: '10*w' }], DEFAULT_CONVENTIONS) // prettier-ignore
    expect(service.working('y', { ways: [] })).toMatchObject({ point: 1, result: '10' })
    service.apply({ along: { name: 'w', index: 2, entry: null } })
    expect(service.working('y', { ways: [] })).toMatchObject({ point: 3, result: '30' })
    expect(service.working('y', { ways: [], point: 3 })).toMatchObject({ point: 4, result: '40' })
  })

  test('of an example of the handbook stands by itself', () => {
    const service = opened()
    const found = service.workingOfExample({ before: ['V = 5'], entry: 'V*2', gives: '10' }, { ways: [] })
    expect(found).toMatchObject({ result: '10' })
    expect(told(service.apply({}))).toEqual([])
  })

  test('of the student is checked in the place of a line', () => {
    const service = opened()
    expect(service.checkChain('i', ['V/R', '= 4', '= 5'])).toMatchObject({ broken: 1, links: [{ state: 'exact' }, { state: 'breaks' }] }) // prettier-ignore
    expect(service.checkChain('v', ['R = 3']).links).toMatchObject([])
    expect(new EvaluatorService().checkChain('i', ['1 = 2'])).toEqual({ sides: [], links: [], broken: null })
  })
})
