import { shallowRef, watch } from 'vue'
import type { Ref } from 'vue'

/** True from the first time on that something is open: what it shows is fetched and made only then. */
export function useOnceOpen(isOpen: () => boolean): Readonly<Ref<boolean>> {
  const once = shallowRef(false)
  watch(isOpen, (open) => (once.value ||= open), { immediate: true })
  return once
}
