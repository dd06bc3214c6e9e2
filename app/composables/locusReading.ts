import { computed, shallowRef } from 'vue'
import type { Ref } from 'vue'
import { scaledPoint } from '#core/scene/unitScales'
import { twinIn } from '#core/views/twinIn'
import { formatAngle } from '#core/format/parts'
import { formatReal } from '#core/numbers/decimal'
import type { ShownSweep } from '#core/scene/curve'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import { angleOf } from '#core/values/make'
import { locusAt } from '~/drawing/locus'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** How near the pointer must be to a point of a locus, in pixels. */
const REACH = 10

/** The value that is read off a locus under the pointer, and what it says. */
export function useLocusReading(loci: Ref<readonly ShownSweep[]>, view: Ref<PlaneView>, size: Ref<Size>) {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const under = shallowRef<{ readonly locus: ShownSweep; readonly index: number } | null>(null)

  /** `null` where the pointer is away, or busy with something else. */
  function hover(at: Pixel | null): void {
    if (loci.value.length === 0) return
    under.value = at && locusAt(loci.value, view.value, size.value, at, REACH)
  }

  /** Reads the point under the pointer along, on all plates. */
  function readAlong(): void {
    if (under.value) plates.readAlong(under.value.locus.data.along, under.value.index)
  }

  const told = computed(() => {
    const found = under.value
    if (!found) return null
    const { conventions } = folio
    const { data, name, ink } = found.locus
    const z = { re: data.re[found.index] ?? NaN, im: data.im?.[found.index] ?? 0 }
    const x = data.x[found.index] ?? NaN
    const parameter = data.turns ? formatAngle(angleOf(x), conventions) : formatReal(x, conventions)
    return {
      name,
      hue: ink.hue,
      parameter:
        data.along === null
          ? `point = ${found.index + 1}`
          : `${data.along} = ${parameter}${data.xUnit ? ` ${data.xUnit}` : ''}`,
      ...twinIn(scaledPoint(z, data.in?.factor ?? 1), data.in?.text ?? '', conventions),
      z,
    }
  })

  return { hover, readAlong, told }
}
