import { shallowRef, watchEffect } from 'vue'
import type { Ref } from 'vue'

/** True from the first time on that something is open: what it shows is fetched and made only then. */
export function useOnceOpen(isOpen: () => boolean): Readonly<Ref<boolean>> {
  const once = shallowRef(isOpen())
  const stop = watchEffect(() => {
    if (!isOpen()) return
    once.value = true
    queueMicrotask(() => stop())
  })
  return once
}
