import { onBeforeUnmount, onMounted, ref } from 'vue'
import type { Ref } from 'vue'

/** How far outside the window something counts as soon to be seen. */
const MARGIN = '900px 0px'

let observer: IntersectionObserver | null = null
const waiting = new WeakMap<Element, () => void>()

function watch(element: Element, seen: () => void): void {
  observer ??= new IntersectionObserver(
    (entries) => {
      for (const entry of entries) {
        if (!entry.isIntersecting) continue
        observer?.unobserve(entry.target)
        waiting.get(entry.target)?.()
        waiting.delete(entry.target)
      }
    },
    { rootMargin: MARGIN },
  )
  waiting.set(element, seen)
  observer.observe(element)
}

/** True from the moment the element comes near the window: what is far below is not typeset. */
export function useSeen(element: Ref<Element | null>): Ref<boolean> {
  const seen = ref(false)
  onMounted(() => {
    if (element.value) watch(element.value, () => (seen.value = true))
  })
  onBeforeUnmount(() => {
    if (element.value) observer?.unobserve(element.value)
  })
  return seen
}
