import { computed } from 'vue'
import type { ComputedRef } from 'vue'
import { sameShown } from '#core/scene/curve'
import type { ShownSweep } from '#core/scene/curve'
import type { Plate } from '#shared/plate'
import { usePlatesStore } from '~/stores/plates'

/** The sweeps of a plate: the same list as long as none of them has changed, whatever has on other plates. */
export function usePlateSweeps(plate: () => Plate): ComputedRef<readonly ShownSweep[]> {
  const plates = usePlatesStore()
  return computed((before) => {
    const now = plates.sweepsOn(plate())
    return before?.length === now.length && now.every((one, k) => sameShown(before[k], one)) ? before : now
  })
}
