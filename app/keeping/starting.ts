import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Folio } from '#shared/folio'
import { newId } from '#shared/id'
import { mergeSentence, rebase } from '#shared/merge'
import { stateOf } from '#shared/operations'
import type { FolioState, MissedSave, Operation } from '#shared/operations'
import { partsOf } from '#shared/parts'
import { api } from '~/keeping/api'
import type { Outbox, WaitingPart } from '~/keeping/outbox'
import type { Handed } from '~/keeping/tabs'
import { applied } from './saving'
import type { SaverStart } from './saving'

/** What there is to begin from: the server's folio, or what another tab had. */
export interface Sources {
  readonly folio: Folio | null
  readonly outbox: Outbox
  readonly handed: Handed | null
  /** The state as it was followed, where neither the server nor the other tab answers. */
  readonly followed: FolioState | null
}

export interface Start {
  readonly saver: SaverStart
  /** Parts in the browser that others have taken the place of. */
  readonly replaced: readonly WaitingPart[]
  readonly unfit: readonly Operation[]
  readonly said: string | null
}

/** With which state and which waiting parts a folio is begun. */
export async function startOf(folioId: string, sources: Sources): Promise<Start> {
  const { folio, outbox, handed, followed } = sources
  if (folio) return fromServer(folioId, folio, outbox)
  const nothing = { replaced: [], unfit: [], said: null }
  if (handed) {
    const { revision, base, parts } = handed.baggage
    return {
      saver: { folio: folioId, revision, base, head: handed.state, parts, changedAt: '' },
      ...nothing,
    }
  }
  const head = followed ?? { title: '', conventions: DEFAULT_CONVENTIONS, lines: [] }
  const { parts } = outbox
  return {
    saver: { folio: folioId, revision: outbox.revision ?? 0, base: null, head, parts, changedAt: '' },
    ...nothing,
    said: 'The server does not answer: this tab goes on with what it has followed.',
  }
}

/** What the server has, with what this browser has not sent yet on top. */
async function fromServer(folioId: string, folio: Folio, { revision, parts }: Outbox): Promise<Start> {
  const base = stateOf(folio)
  const start = { folio: folioId, revision: folio.revision, base, changedAt: folio.changedAt }
  if (parts.length === 0) return { saver: { ...start, head: base, parts }, replaced: [], unfit: [], said: null }
  if (revision === folio.revision) {
    const head = applied(base, operationsOf(parts))
    return { saver: { ...start, head, parts }, replaced: [], unfit: [], said: null }
  }
  // Others have saved meanwhile, or an answer to this browser was lost.
  const saves = revision === null ? null : await savesSince(folioId, revision, folio.revision)
  const keys = new Set(saves?.map((s) => s.key))
  const waiting = parts.filter((p) => !keys.has(p.key))
  const seen = revision === null ? null : await stateThen(folioId, revision, saves, parts, base)
  const merged = rebase(base, operationsOf(waiting), newId, seen)
  const others = partsOf(merged.operations).map((part, k) => ({ ...part, place: lastPlace(parts) + 1 + k }))
  return {
    saver: { ...start, head: merged.state, parts: others },
    replaced: parts,
    unfit: merged.unfit,
    said: mergeSentence(merged),
  }
}

function operationsOf(parts: readonly WaitingPart[]): Operation[] {
  return parts.flatMap((p) => p.operations)
}

function lastPlace(parts: readonly WaitingPart[]): number {
  return Math.max(0, ...parts.map((p) => p.place))
}

async function savesSince(folioId: string, since: number, until: number): Promise<readonly MissedSave[] | null> {
  try {
    const { saves } = await api.missed(folioId, since)
    return saves?.filter((s) => s.revision <= until) ?? null
  } catch {
    return null
  }
}

/** The state that the waiting operations were made on; `null` where that cannot be known any more. */
async function stateThen(
  folioId: string,
  revision: number,
  saves: readonly MissedSave[] | null,
  parts: readonly WaitingPart[],
  now: FolioState,
): Promise<FolioState | null> {
  const ours = parts.filter((p) => saves?.some((s) => s.key === p.key))
  if (saves && saves.length === ours.length) return now
  try {
    return applied(await api.stateAt(folioId, revision), operationsOf(ours))
  } catch {
    return null
  }
}
