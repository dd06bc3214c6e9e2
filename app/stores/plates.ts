import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { answerPlace } from '#core/views/answerIds'
import type { LineView } from '#core/views/lineView'
import type { ShownSweep, SweepData } from '#core/scene/curve'
import type { DragWay } from '#core/scene/drag'
import { inOnePiece } from '#core/scene/name'
import { assignSlots, inkOf, sameInk } from '#core/scene/scene'
import type { Ink } from '#core/scene/scene'
import type { Line } from '#shared/folio'
import { newId } from '#shared/id'
import { FIRST_PLATE, freshCurve, freshPlate, isOn, withValue } from '#shared/plate'
import type { Dress, Plate } from '#shared/plate'
import type { Operation } from '#shared/operations'
import type { Along } from '~/workers/evaluator'
import type { FamilyAsked, FamilyMember } from '~/workers/families'
import { useDeskStore } from './desk'
import { useFolioStore } from './folio'
import { useResultsStore } from './results'

/** A value that could stand on a plate: kept under a name, and drawn as something. */
export interface Candidate {
  readonly line: string
  readonly name: string
  readonly number: number
  readonly view: LineView
  readonly usual: boolean
  /** True for a sweep: only such values are on curve plates. */
  readonly sweep: boolean
}

/** Candidates that were made before: of a view that has not changed there is the same one, and no plate is drawn anew for it. */
const made = new WeakMap<LineView, Candidate>()

/** What of a line, or of an answer, could stand on a plate; `null` where nothing could. */
function candidateOf(view: LineView, number: number): Candidate | null {
  const before = made.get(view)
  if (before?.number === number) return before
  // A transfer function is one along the frequency.
  const sweep = (view.readout.shape === 'sweep' && view.readout.of !== 'other') || isTransferView(view)
  if (view.name === null || !(view.drawn || sweep)) return null
  const found = { line: view.id, name: view.name, number, view, usual: view.drawn?.usual ?? false, sweep }
  made.set(view, found)
  return found
}

/** The list as it was before, where it is the same: what depends on it stays. */
const asBefore = <T>(before: readonly T[] | undefined, now: readonly T[]): readonly T[] =>
  before?.length === now.length && now.every((one, k) => one === before[k]) ? before : now

/** The dashes of the members of a family, in their order: no two alike, and none solid. */
const FAMILY_DASHES: readonly (readonly number[])[] = [
  [9, 4],
  [2, 3],
  [9, 3, 2, 3],
  [14, 4],
  [5, 2],
  [14, 3, 2, 3, 2, 3],
  [1, 5],
  [5, 5],
]

/** Margins, figures and straight lines are those of the folio as it stands only. */
function withoutMarks(data: SweepData): SweepData {
  const found = bare.get(data) ?? { ...data, marks: [], straight: null }
  bare.set(data, found)
  return found
}
const bare = new WeakMap<SweepData, SweepData>()

/** True of a transfer function: its frequency response is drawn from it alone. */
export const isTransferView = (view: LineView): boolean =>
  view.readout.shape === 'algebra' && view.drawn?.locus === true

/** The figures of the folio: which is large, what is on each, and how each value is dressed. */
export const usePlatesStore = defineStore('plates', () => {
  const folio = useFolioStore()
  const results = useResultsStore()
  const desk = useDeskStore()

  const chosen = ref<string | null>(null)
  /** The large plate stays while other lines become current. */
  const pinned = ref(false)
  /** The settings of the large plate are open beside it. */
  const setting = ref(false)
  /** How a value moves when it is dragged. */
  const way = ref<DragWay>('free')

  const all = computed<readonly Plate[]>(() => (folio.plates.length > 0 ? folio.plates : [freshPlate(FIRST_PLATE)]))
  const plate = computed<Plate>(() => {
    const [first] = all.value
    return all.value.find((p) => p.id === chosen.value) ?? first ?? freshPlate(FIRST_PLATE)
  })
  const number = computed(() => all.value.indexOf(plate.value) + 1)

  const candidates = computed<readonly Candidate[]>(() => {
    const end = desk.stroll === null ? folio.lines.length : desk.stroll + 1
    return folio.lines.slice(0, end).flatMap((line: Line, k): Candidate[] => {
      const own = line.note ? undefined : results.views.get(line.id)
      return own ? [own, ...own.answers].flatMap((view) => candidateOf(view, k + 1) ?? []) : []
    })
  })

  /** What could be on a plate of its kind: curves are of sweeps, and a plane has no place for angles. */
  const candidatesFor = (of: Plate): readonly Candidate[] =>
    candidates.value.filter((c) => (of.kind === 'curve' ? c.sweep : c.view.drawn !== null))

  const members = computed<ReadonlyMap<string, readonly Candidate[]>>(
    (before) =>
      new Map(
        all.value.map((p) => {
          const on = candidatesFor(p).filter((c) => isOn(p, c.line, c.usual))
          return [p.id, asBefore(before?.get(p.id), on)]
        }),
      ),
  )
  const valuesOn = (of: Plate): readonly Candidate[] => members.value.get(of.id) ?? []

  /** What the student has set of each value's dress: one dress for the whole folio. */
  const dresses = computed<ReadonlyMap<string, Dress>>(() => {
    const found = new Map<string, Dress>()
    for (const { dress } of [...all.value].reverse())
      for (const [line, set] of Object.entries(dress)) found.set(line, { ...found.get(line), ...set })
    return found
  })

  let slots: Map<string, number> = new Map()
  /** The dress of every value that is on some plate; it is the same in ledger, index and plates. */
  const inks = computed<ReadonlyMap<string, Ink>>((before) => {
    const on = new Set(all.value.flatMap((p) => valuesOn(p).map((c) => c.line)))
    const shown = candidates.value.flatMap((c) => (on.has(c.line) ? [c.line] : []))
    slots = assignSlots(shown, slots)
    const now = shown.map((line) => [line, inkOf(slots.get(line) ?? 0, dresses.value.get(line))] as const)
    const same = before?.size === now.length && now.every(([line, ink]) => sameInk(before.get(line), ink))
    return same ? before : new Map(now)
  })

  /** The dress of a line's value. A getter: a call of an action for each of thousands of values costs more than the answer. */
  const inkOfLine = computed(() => {
    const known = inks.value
    return (line: string): Ink => known.get(line) ?? inkOf(0)
  })

  /** The sweeps on a plate whose points have come, each in its dress. */
  const sweepsOn = (of: Plate): readonly ShownSweep[] =>
    valuesOn(of).flatMap(({ line, name, view }): ShownSweep[] => {
      if (!view.sweep) return []
      const ink = inkOfLine.value(line)
      const members = membersOf(of).flatMap(({ label, member, dash }): ShownSweep[] => {
        const data = member.sweeps.get(line)
        return data
          ? [
              {
                line,
                name,
                ink: { ...ink, dash, width: Math.max(1.4, ink.width - 0.4) },
                data: withoutMarks(data),
                member: label,
                beside: true,
              },
            ]
          : []
      })
      const own = members.length > 0 ? { member: ownLabel(of) } : {}
      return [{ line, name, ink, data: view.sweep, ...own }, ...members]
    })

  /** The members of a family, each with what it is called and how it is dashed: one hue, told apart by dash and label. */
  function membersOf(
    of: Plate,
  ): readonly { readonly label: string; readonly member: FamilyMember; readonly dash: readonly number[] }[] {
    // prettier-ignore
    const found = results.families.get(of.id) ?? []
    const { family } = of
    if (!family) return []
    const name = inOnePiece(results.views.get(family.line)?.name ?? '')
    return found.flatMap((member, k) => {
      const value = family.values[k]
      return value === undefined ? [] : [{ label: `${name} = ${value}`, member, dash: FAMILY_DASHES[k % FAMILY_DASHES.length] ?? [] }] // prettier-ignore
    })
  }

  /** What the values as they stand are called beside the members. */
  function ownLabel(of: Plate): string {
    const view = of.family ? results.views.get(of.family.line) : undefined
    const source = of.family ? (folio.lineOf(of.family.line)?.source ?? '') : ''
    const [first] = view?.numbers ?? []
    return view && first ? `${inOnePiece(view.name ?? '')} = ${source.slice(first.digits.from, first.digits.to)}` : ''
  }

  /** What the caption says of a family: the values as they stand, then each of the others, with its dash. */
  function familyOn(of: Plate): readonly { readonly label: string; readonly dash: readonly number[] }[] {
    const members = membersOf(of)
    return members.length === 0 ? [] : [{ label: ownLabel(of), dash: [] }, ...members]
  }

  // The large plate follows the line unless it is pinned.
  watch(
    () => folio.current,
    (line) => {
      if (pinned.value || line === null) return
      const candidate = candidates.value.find((c) => c.line === line || answerPlace(c.line)?.line === line)
      if (!candidate || isOn(plate.value, candidate.line, candidate.usual)) return
      const other = all.value.find((p) => isOn(p, candidate.line, candidate.usual))
      if (other) chosen.value = other.id
    },
  )
  watch(
    () => folio.id,
    () => {
      slots = new Map()
      chosen.value = null
      pinned.value = false
      way.value = 'free'
      endReading()
    },
  )

  // The worker works out the terms of the sums that are laid tip to tail.
  const chained = computed(() =>
    [...new Set(all.value.flatMap((p) => (p.kind === 'plane' ? p.chains : [])))].sort().join(' '),
  )
  watch(
    () => (folio.status === 'ready' ? chained.value : ''),
    (ids) => results.watchAlso({ chains: ids === '' ? [] : ids.split(' ') }),
  )
  // And sends the points of the sweeps that are shown.
  const swept = computed(() => {
    const over = all.value.flatMap((p) => (p.kind === 'curve' && p.over ? [p.over] : []))
    const shown = all.value.flatMap((p) => valuesOn(p).flatMap((c) => (c.sweep ? [c.line] : [])))
    return [...new Set([...over, ...shown])].sort().join(' ')
  })
  watch(
    () => (folio.status === 'ready' ? swept.value : ''),
    (ids) => results.watchAlso({ sweeps: ids === '' ? [] : ids.split(' ') }),
  )

  // And what the plates of families show for each of their values.
  const familiesAsked = computed((): readonly FamilyAsked[] =>
    all.value.flatMap((p): FamilyAsked[] => {
      const { family } = p
      const source = family && folio.lineOf(family.line)?.source
      const [first] = (family && results.views.get(family.line)?.numbers) ?? []
      if (!family || source === undefined || source === null || !first) return []
      const { from, to } = first.digits
      const ids = valuesOn(p).map(({ line }) => line)
      return [{ plate: p.id, line: family.line, sources: family.values.map((v) => source.slice(0, from) + v + source.slice(to)), ids }] // prettier-ignore
    }),
  )
  watch(
    () => (folio.status === 'ready' && !results.unsettled ? JSON.stringify(familiesAsked.value) : null),
    (key) => {
      if (key !== null) void results.watchAlso({ families: familiesAsked.value })
    },
  )

  // Reading along: one point of whatever runs along a kept name, on all plates and in the ledger.

  const along = ref<Along | null>(null)
  function readAlong(name: string | null, index: number): void {
    if (name === null) return
    readWhere({ name, index, entry: null })
  }
  /** Reads along at a value of its own, between the points too; without one no more. */
  function readAt(name: string, entry: string): void {
    if (entry.trim() === '') endReading()
    else readWhere({ name, index: 0, entry: entry.trim() })
  }
  function readWhere(place: Along): void {
    along.value = place
    void results.watchAlso({ along: place })
  }
  function endReading(): void {
    if (along.value === null) return
    along.value = null
    void results.watchAlso({ along: null })
  }

  // Changes, each one step to undo.

  function replace(label: string, next: Plate): void {
    if (folio.editing) folio.keep()
    folio.perform(label, [{ type: 'plate', plate: next }])
  }

  function change<P extends Plate>(of: P, changes: Partial<P>): void {
    replace('plate', { ...of, ...changes })
  }

  function put(of: Plate, line: string, on: boolean): void {
    const candidate = candidates.value.find((c) => c.line === line)
    replace(on ? 'put on the plate' : 'take off the plate', withValue(of, line, candidate?.usual ?? false, on))
  }

  /** Dresses a value: one step, whichever plate holds what was set before. */
  function dressUp(line: string, changes: Dress): void {
    if (folio.editing) folio.keep()
    const dress: Dress = { ...dresses.value.get(line), ...changes }
    const operations = all.value.flatMap((p): Operation[] => {
      if (p.id === plate.value.id) return [{ type: 'plate', plate: { ...p, dress: { ...p.dress, [line]: dress } } }]
      if (!(line in p.dress)) return []
      const rest = Object.fromEntries(Object.entries(p.dress).filter(([other]) => other !== line))
      return [{ type: 'plate', plate: { ...p, dress: rest } }]
    })
    folio.perform('dress of a value', operations)
  }

  /** Adds a plate and shows it; the first one, which was there unsaid, is kept with it. */
  function add(fresh: Plate): void {
    if (folio.editing) folio.keep()
    const first: Operation[] =
      folio.plates.length > 0 ? [] : [{ type: 'plate', plate: all.value[0] ?? freshPlate(FIRST_PLATE) }]
    folio.perform('new plate', [...first, { type: 'plate', plate: fresh }])
    chosen.value = fresh.id
  }

  const addPlane = (): void => add(freshPlate(newId(), false))
  const addCurve = (): void => add(freshCurve(newId(), ['re'], [], 'Untitled'))

  /** The locus of a complex sweep on a plane plate of its own. */
  function showLocus(line: string): void {
    const name = candidates.value.find((c) => c.line === line)?.name ?? ''
    const about = candidates.value.some((c) => c.line === line && isTransferView(c.view)) ? ' about −1' : ''
    add({ ...freshPlate(newId(), false), caption: `Locus of ${name}${about}`, on: [line] })
  }

  /** A sweep as curves: of a complex one the magnitude in dB and the angle, one above the other. */
  function showCurves(line: string): void {
    const candidate = candidates.value.find((c) => c.line === line)
    const { readout } = candidate?.view ?? {}
    const complex = readout?.shape === 'algebra' || (readout?.shape === 'sweep' && readout.complex)
    const name = candidate?.name ?? ''
    add(
      freshCurve(
        newId(),
        complex ? ['dB', 'unwrapped'] : ['re'],
        [line],
        complex ? `Frequency response ${name}` : name,
      ),
    )
  }

  function remove(of: Plate): void {
    if (all.value.length < 2) return
    if (folio.editing) folio.keep()
    const at = all.value.indexOf(of)
    folio.perform('remove plate', [{ type: 'unplate', id: of.id }])
    chosen.value = all.value[Math.max(0, at - 1)]?.id ?? null
  }

  function choose(id: string): void {
    chosen.value = id
  }

  return {
    all, membersOf, familyOn, plate, number, pinned, setting, way, candidates, candidatesFor, valuesOn, sweepsOn, inkOfLine, along, readAlong, readAt, endReading, addCurve, showLocus, showCurves, dresses, inks,
    change, put, dressUp, add, addPlane, remove, choose, chosen,
  } // prettier-ignore
})
