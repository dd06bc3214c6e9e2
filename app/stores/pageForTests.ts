import { createPinia, setActivePinia } from 'pinia'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { NO_HEAD } from '#shared/folio'
import type { Folio, Line } from '#shared/folio'
import { changeStore, recordsUnder } from '~/keeping/browserStore'
import { EvaluatorService } from '~/workers/evaluator'
import { RunsService } from '~/workers/runs'
import { endWorkers, workersOf } from '~/workers/workerForTests'
import { useFolioStore } from './folio'
import { usePlatesStore } from './plates'
import { useResultsStore } from './results'

/** What stores of the page meet in tests: a folio that is served, a server that takes every save, an empty browser. */

export function servedFolio(lines: readonly Line[]): Folio {
  return {
    id: 'folio-01', title: 'Test', revision: 0, createdAt: '', changedAt: '2026-01-01T00:00:00Z', binnedAt: null,
    plates: [], enclosures: [], head: NO_HEAD, sets: [], conventions: DEFAULT_CONVENTIONS, lines: [...lines],
  } // prettier-ignore
}

/** `answer` is what is served at an address. */
export async function freshPage(answer: (path: string) => object): Promise<void> {
  await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
  const kept = new Map<string, string>()
  Object.assign(globalThis, {
    localStorage: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    },
    fetch: async (path: string, init?: { body?: string }) => {
      const found = init?.body ? { revision: 1, changedAt: '2026-01-01T00:00:01Z' } : structuredClone(answer(path))
      return Response.json(found)
    },
  })
}

/** A page that serves a folio of these entries and has it open, with the evaluator at work; `line-0001` is the first. */
export async function openServed(sources: readonly string[]): Promise<void> {
  await freshPage(() =>
    servedFolio(sources.map((source, k) => ({ id: `line-${String(k + 1).padStart(4, '0')}`, source }))),
  )
  setActivePinia(createPinia())
  workersOf((post, script) =>
    script.includes('runs')
      ? new RunsService()
      : new EvaluatorService(
          (done, total) => post({ progress: done / total }),
          (line) => post({ line }),
        ),
  )
  // What is on plates is told to the worker from the start.
  usePlatesStore()
  await useFolioStore().open('folio-01')
}

export async function closeServed(): Promise<void> {
  useFolioStore().close()
  // What watches the folio has had its say before the worker goes.
  await new Promise((done) => setTimeout(done, 20))
  useResultsStore().close()
  endWorkers()
}
