import { FUNCTIONS } from '../functions/registry'
import { reckon } from '../testing'
import { TOPICS, TOUR } from './topics'

test.each(TOPICS.flatMap((t) => t.examples.map((e) => [t.title, e.entry, e.gives, e.before ?? []] as const)))(
  '%s: %s gives %s',
  (_, entry, gives, before) => {
    const result = reckon([...before, entry]).at(-1)
    expect(result!.error).toBeNull()
    expect(result!.text).toBe(gives)
  },
)

/** Values of the tour: mpmath (quotient, argument, linear system). */
test('the tour runs from its first line to its last in one folio', () => {
  const lines = TOUR.flatMap((step) => step.lines)
  const results = reckon(lines.map((line) => line.entry))
  for (const [k, line] of lines.entries()) {
    expect(results[k]!.error).toBeNull()
    if (line.gives !== '') expect(results[k]!.text).toBe(line.gives)
  }
})

test('topics are told apart by their ids, also from functions', () => {
  const ids = [...TOPICS.map((t) => t.id), ...FUNCTIONS.map((f) => f.name)]
  expect(new Set(ids).size).toBe(ids.length)
})
