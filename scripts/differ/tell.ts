import { createInterface } from 'node:readline'
import { FolioEvaluator } from '#core/evaluate/folio'
import type { Conventions } from '#core/format/conventions'
import { copyText } from '#core/kinds/kinds'
import { lineView } from '#core/views/lineView'
import { workingOf } from '#core/working/working'
import { workingView } from '#core/working/view'

/**
 * Bundled with the core of one commit: reads folios, tells of each line all that is to be compared. What it names of the
 * core must be there under the same name in every commit that is compared.
 */
interface Asked {
  readonly lines: readonly string[]
  readonly conventions: Conventions
  /** Whether the steps of the last line are wanted, too. */
  readonly steps: boolean
}

/** Longest time for a line, in milliseconds. */
const LIMIT = 3_000
const STEPS_MOST = 40

function tell({ lines, conventions, steps }: Asked): readonly object[] {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ ...conventions, timeLimit: LIMIT })
  evaluator.setLines(lines.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return lines.map((_, k) => {
    const result = evaluator.result(String(k))
    if (!result) return { broken: 'no result' }
    const { value } = result.evaluated
    const last = k === lines.length - 1
    const working = steps && last ? workingOf(evaluator, result.id, { conventions, ways: new Map(), point: 0 }) : null
    return {
      view: lineView(result, conventions),
      full: value ? copyText(value, 'full', conventions) : null,
      steps: working && typeof working !== 'string' ? workingView(working, conventions, STEPS_MOST) : working,
    }
  })
}

/** What has no place in JSON is written out; what is kept under names is in an order of its own. */
const plain = (_key: string, value: unknown): unknown =>
  typeof value === 'number' && !Number.isFinite(value)
    ? String(value)
    : Object.is(value, -0)
      ? '-0'
      : typeof value === 'bigint'
        ? `${value}n`
        : value instanceof Map
          ? Object.fromEntries(value)
          : value instanceof Float64Array
            ? [...value]
            : value

for await (const line of createInterface({ input: process.stdin })) {
  let told: unknown
  try {
    told = tell(JSON.parse(line) as Asked)
  } catch (error) {
    told = [{ thrown: String(error) }]
  }
  process.stdout.write(`${JSON.stringify(told, plain)}\n`)
}
