import { computed } from 'vue'
import type { Ref } from 'vue'
import { inkOf } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { chainMarks, marksOf } from '#core/scene/marks'
import { formatPolar, formatRectangular } from '#core/format/readout'
import { complexNumber } from '#core/values/make'
import type { Complex } from '#core/numbers/complex'
import type { PlanePlate } from '#shared/plate'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** The marks of a plane plate, from what the lines came to. */
export function usePlateMarks(plate: Ref<PlanePlate>): Ref<readonly PlaneMark[]> {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const results = useResultsStore()

  const texts = (z: Complex): { rectangular: string; polar: string } => {
    const value = complexNumber(z)
    return { rectangular: formatRectangular(value, folio.conventions), polar: formatPolar(value, folio.conventions) }
  }
  return computed<readonly PlaneMark[]>(() => {
    const values = plates.valuesOn(plate.value)
    const editing = folio.editing?.id
    const marks = marksOf(
      values.flatMap(({ line, name, view }) => {
        if (!view.drawn) return []
        const dress = plates.dresses.get(line)
        return [
          {
            line,
            name,
            drawn: view.drawn,
            ink: plates.inks.get(line) ?? inkOf(0),
            role: dress?.role,
            labelled: dress?.label ?? true,
            draggable: view.literal !== null && editing !== line && folio.writable,
          },
        ]
      }),
    )
    const byName = new Map(values.map((v) => [v.name, v.line]))
    const chains = plate.value.chains.flatMap((line) => {
      const links = results.views.get(line)?.links ?? []
      const inkOfName = (name: string) => plates.inks.get(byName.get(name.replace('−', '')) ?? '')
      return chainMarks(line, links, plates.inks.get(line) ?? inkOf(0), inkOfName, texts)
    })
    return [...chains, ...marks]
  })
}
