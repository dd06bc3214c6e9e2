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
