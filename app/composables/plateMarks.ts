import type { ShownSweep, SweepData } from '#core/scene/curve'
import { NO_UNIT, scaledPoint, unitScales } from '#core/scene/unitScales'
import type { InUnit, UnitScale } from '#core/scene/unitScales'
import { computed } from 'vue'
import type { Ref } from 'vue'
import { KEPT_NUMBER } from './planeGrasp'
import { usePlateSweeps } from './plateSweeps'
import type { Ink, PlaneMark } from '#core/scene/scene'
import type { LineView } from '#core/views/lineView'
import type { ShownBranches } from '~/drawing/rootLocus'
import { chainMarks, marksOf } from '#core/scene/marks'
import type { Twin } from '#core/format/readout'
import { twinIn } from '#core/views/twinIn'
import type { Complex } from '#core/numbers/complex'
import type { PlanePlate } from '#shared/plate'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** The marks and the loci of a plane plate, from what the lines came to. */
export function usePlateMarks(plate: Ref<PlanePlate>): {
  readonly marks: Ref<readonly PlaneMark[]>
  readonly loci: Ref<readonly ShownSweep[]>
  /** Loci of roots, with the branches that their values are on. */
  readonly branches: Ref<readonly ShownBranches[]>
  /** The units that are on it, with their scales, and the one that has the grid. */
  readonly scales: Ref<readonly UnitScale[]>
  readonly front: Ref<string>
} {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const results = useResultsStore()

  /** Both forms of a place of the plane, counted in a unit. */
  const texts =
    (unit: InUnit, scale: number) =>
    (z: Complex): Twin =>
      twinIn(scaledPoint(z, 1 / scale), unit.text, folio.conventions)
  const values = computed(() => plates.valuesOn(plate.value))
  const sweeps = usePlateSweeps(() => plate.value)

  // While a value is under the hand the scales stay: what moves is the value.
  let held: ReadonlyMap<string, number> = new Map()
  const scales = computed<readonly UnitScale[]>(() => {
    const points = values.value.flatMap(({ view }) => view.drawn?.entries.map((at) => ({ unit: view.drawn?.unit ?? NO_UNIT, at })) ?? []) // prettier-ignore
    const ways = sweeps.value.flatMap(({ data }) => extremesOf(data).map((at) => ({ unit: data.in ?? NO_UNIT, at })))
    const found = unitScales([...points, ...ways], results.unsettled ? held : new Map(), plate.value.re)
    held = new Map(found.map(({ key, scale }) => [key, scale]))
    return found
  })
  const scaleOf = (unit: InUnit): number => scales.value.find(({ key }) => key === unit.key)?.scale ?? 1
  let chosen = ''
  const front = computed(() => {
    const current = values.value.find(({ line }) => line === folio.current)
    const key = current?.view.drawn?.unit?.key ?? current?.view.sweep?.in?.key
    if (key !== undefined) chosen = key
    return scales.value.some((scale) => scale.key === chosen) ? chosen : (scales.value[0]?.key ?? '')
  })

  const loci = computed(() =>
    sweeps.value.map((shown): ShownSweep => {
      const unit = shown.data.in ?? NO_UNIT
      const factor = unit.factor * scaleOf(unit)
      return factor === 1 ? shown : { ...shown, data: scaledData(shown.data, factor) }
    }),
  )
  const marks = computed<readonly PlaneMark[]>(() => {
    const editing = folio.editing?.id
    const { dresses, inks, inkOfLine } = plates
    const marks = marksOf(
      values.value.flatMap(({ line, name, view }) => {
        if (!view.drawn) return []
        const unit = view.drawn.unit ?? NO_UNIT
        const dress = dresses.get(line)
        return [
          {
            line,
            name,
            drawn: view.drawn,
            ink: inkOfLine(line),
            role: dress?.role,
            labelled: dress?.label ?? true,
            draggable: view.literal !== null && editing !== line && folio.writable,
            slides: view.drawn.branches && folio.writable ? gainLine(view, editing) : undefined,
            unit,
            scale: scaleOf(unit),
          },
        ]
      }),
    )
    // The point of a sweep that is read along is a value like any other.
    const read = values.value.flatMap(({ line, name, view }): PlaneMark[] => {
      const { at } = view
      if (!view.drawn?.locus || !at || !Number.isFinite(at.re) || !Number.isFinite(at.im)) return []
      const ink = { ...inkOfLine(line), dash: [] }
      const common = { id: `${line}@`, line, label: name, ink, labelled: true, draggable: false }
      const unit = view.sweep?.in ?? NO_UNIT
      const place = scaledPoint(at, scaleOf(unit))
      return [{ ...common, role: 'arrow', ...place, unit: unit.key, ...texts(unit, scaleOf(unit))(place) }]
    })
    // Of a family the marks of each member stand beside those of the values as they are, lighter and with its value.
    const family = plates.membersOf(plate.value).flatMap(({ label, member, dash }) =>
      values.value.flatMap(({ line }): PlaneMark[] => {
        const drawn = member.drawn.get(line)
        if (!drawn) return []
        const unit = drawn.unit ?? NO_UNIT
        const ink = { ...inkOfLine(line), dash, width: 1.4 }
        const own = marksOf([{ line, name: label, drawn, ink, role: dresses.get(line)?.role, labelled: true, draggable: false, unit, scale: scaleOf(unit) }]) // prettier-ignore
        return own.map((mark, k) => ({ ...mark, id: `${mark.id}~${label}`, label, labelled: k === 0, term: true }))
      }),
    )
    const byName = new Map(values.value.map((v) => [v.name, v.line]))
    const chains = plate.value.chains.flatMap((line) => {
      const view = results.views.get(line)
      const unit = view?.drawn?.unit ?? NO_UNIT
      const scale = scaleOf(unit)
      const links = (view?.links ?? []).map(({ label, tail, tip }) => ({ label, tail: scaledPoint(tail, scale), tip: scaledPoint(tip, scale) })) // prettier-ignore
      const inkOfName = (name: string) => inks.get(byName.get(name.replace('−', '')) ?? '')
      return chainMarks(line, links, inkOfLine(line), inkOfName, texts(unit, scale))
    })
    return [...chains, ...marks, ...family, ...read]
  })
  const branches = computed(() =>
    values.value.flatMap(({ line, view }): ShownBranches[] => {
      const picture = view.drawn?.branches
      if (!picture) return []
      return [{ line, ink: inkFor(line), scale: scaleOf(view.drawn?.unit ?? NO_UNIT), picture }]
    }),
  )
  const inkFor = (line: string): Ink => plates.inkOfLine(line)

  /** The line above that keeps the gain of a locus as a plain number. */
  function gainLine({ id, gain }: LineView, editing: string | undefined): string | undefined {
    if (gain === null) return undefined
    const above = folio.lines.slice(
      0,
      folio.lines.findIndex((line) => line.id === id),
    )
    const found = above.findLast((line) => results.views.get(line.id)?.name === gain)
    return found && found.id !== editing && KEPT_NUMBER.test(found.source) ? found.id : undefined
  }
  return { marks, loci, branches, scales, front }
}

/** The points of a sweep that are furthest from the origin, in coherent units. */
function extremesOf({ re, im, in: unit = NO_UNIT }: SweepData): readonly Complex[] {
  let [best, size] = [-1, -1]
  for (let k = 0; k < re.length; k += 1) {
    const here = Math.hypot(re[k] ?? 0, im?.[k] ?? 0)
    if (here > size && here < Infinity) [best, size] = [k, here]
  }
  return best < 0 ? [] : [scaledPoint({ re: re[best] ?? 0, im: im?.[best] ?? 0 }, unit.factor)]
}

/** Sweeps that were scaled before: the picture is worked out anew only for new ones. */
const scaledBefore = new WeakMap<SweepData, { readonly factor: number; readonly data: SweepData }>()

function scaledData(data: SweepData, factor: number): SweepData {
  const before = scaledBefore.get(data)
  if (before?.factor === factor) return before.data
  const unit = data.in ?? NO_UNIT
  const parts = { re: data.re.map((x) => x * factor), im: data.im && data.im.map((x) => x * factor) }
  // What one of the plane's units is of the coherent ones, for whatever reads the picture.
  const found = { ...data, ...parts, in: { ...unit, factor: unit.factor / factor } }
  scaledBefore.set(data, { factor, data: found })
  return found
}
