import { computed } from 'vue'
import type { ComputedRef } from 'vue'
import { useDisplay } from 'vuetify'

/** Narrower than this the parts of a folio are shown one at a time, as the styles have it. */
const NARROW = 900

export function useNarrow(): ComputedRef<boolean> {
  const { width } = useDisplay()
  return computed(() => width.value < NARROW)
}
