import type { ShownSweep } from '#core/scene/curve'
import { computed } from 'vue'
import type { Ref } from 'vue'
import type { PlaneMark } from '#core/scene/scene'
import { chainMarks, marksOf } from '#core/scene/marks'
import { formatPolar, formatRectangular } from '#core/format/number'
import { complexNumber } from '#core/values/make'
import type { Complex } from '#core/numbers/complex'
import type { PlanePlate } from '#shared/plate'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** The marks and the loci of a plane plate, from what the lines came to. */
export function usePlateMarks(plate: Ref<PlanePlate>): {
  readonly marks: Ref<readonly PlaneMark[]>
  readonly loci: Ref<readonly ShownSweep[]>
} {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const results = useResultsStore()

  const texts = (z: Complex): { rectangular: string; polar: string } => {
    const value = complexNumber(z)
    return { rectangular: formatRectangular(value, folio.conventions), polar: formatPolar(value, folio.conventions) }
  }
  const loci = computed(() => plates.sweepsOn(plate.value))
  const marks = computed<readonly PlaneMark[]>(() => {
    const values = plates.valuesOn(plate.value)
    const editing = folio.editing?.id
    const { dresses, inks, inkOfLine } = plates
    const marks = marksOf(
      values.flatMap(({ line, name, view }) => {
        if (!view.drawn) return []
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
          },
        ]
      }),
    )
    // The point of a sweep that is read along is a value like any other.
    const read = values.flatMap(({ line, name, view }): PlaneMark[] => {
      const { at } = view
      if (!view.drawn?.locus || !at || !Number.isFinite(at.re) || !Number.isFinite(at.im)) return []
      const ink = { ...inkOfLine(line), dash: [] }
      const common = { id: `${line}@`, line, label: name, ink, labelled: true, draggable: false }
      return [{ ...common, role: 'arrow', re: at.re, im: at.im, ...texts(at) }]
    })
    const byName = new Map(values.map((v) => [v.name, v.line]))
    const chains = plate.value.chains.flatMap((line) => {
      const links = results.views.get(line)?.links ?? []
      const inkOfName = (name: string) => inks.get(byName.get(name.replace('−', '')) ?? '')
      return chainMarks(line, links, inkOfLine(line), inkOfName, texts)
    })
    return [...chains, ...marks, ...read]
  })
  return { marks, loci }
}
