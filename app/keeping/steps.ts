import { get, set } from 'idb-keyval'
import { z } from '#shared/schema'
import { operationSchema } from '#shared/operations'

/** Undo and redo of a folio, kept in the browser so that they survive a reload. */

const stepSchema = z.object({
  label: z.string(),
  operations: z.array(operationSchema),
  inverse: z.array(operationSchema),
  /** The line to go to when the step is undone or redone. */
  line: z.nullable(z.string()),
  /** Steps of one group are undone and redone together. */
  group: z.optional(z.string()),
})
/** One undoable step: operations and what takes them back, in the order to apply. */
export type Step = z.infer<typeof stepSchema>

const stepsSchema = z.object({ undo: z.array(stepSchema), redo: z.array(stepSchema) })
export type Steps = z.infer<typeof stepsSchema>

/** Steps that are remembered. */
export const STEPS_MOST = 1_000

const key = (folio: string): string => `steps:${folio}`

export async function readSteps(folio: string): Promise<Steps> {
  try {
    const parsed = stepsSchema.safeParse(await get(key(folio)))
    return parsed.success ? parsed.data : { undo: [], redo: [] }
  } catch {
    return { undo: [], redo: [] }
  }
}

/** How long changes rest before the steps are written, in milliseconds. */
const REST = 250

/** Writes the steps of one folio, not more often than needed. */
export class StepKeeper {
  private timer: ReturnType<typeof setTimeout> | null = null
  private latest: Steps | null = null

  constructor(private readonly folio: string) {}

  keep(steps: Steps): void {
    this.latest = steps
    this.timer ??= setTimeout(() => void this.flush(), REST)
  }

  async flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    const steps = this.latest
    this.latest = null
    if (!steps) return
    try {
      await set(key(this.folio), JSON.parse(JSON.stringify(steps)))
    } catch {
      // A browser that keeps nothing still undoes within the open page.
    }
  }
}
