import { shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import { catchTyping } from '~/browser/typedAhead'

/**
 * True from the first time on that something is open: what it shows is fetched
 * and made only then. Where that brings a field, what is typed meanwhile waits.
 */
export function useOnceOpen(isOpen: () => boolean, what?: 'field'): Readonly<Ref<boolean>> {
  const once = shallowRef(false)
  watch(
    isOpen,
    (open) => {
      once.value ||= open
      if (open && what === 'field') catchTyping()
    },
    { immediate: true, flush: 'sync' },
  )
  return once
}
