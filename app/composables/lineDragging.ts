import { onBeforeUnmount, onMounted, ref } from 'vue'
import type { Ref } from 'vue'

/** Longest time until what drags is fetched, in milliseconds: it comes when the page has nothing else to do. */
const AFTER = 400

/** The rows of a list are dragged by their handles; `moved` gets the places among the rows that are drawn. */
export function useLineDragging(
  list: Ref<HTMLElement | null>,
  handle: string,
  moved: (from: number, to: number) => void,
) {
  let end: (() => void) | null = null
  let left = false

  async function begin(): Promise<void> {
    const found = await import('vue-draggable-plus').catch(() => null)
    if (!found || left || !list.value) return
    const { destroy } = found.useDraggable(list, ref<unknown[]>([]), {
      handle,
      forceFallback: true,
      fallbackTolerance: 4,
      animation: 120,
      delay: 150,
      delayOnTouchOnly: true,
      ghostClass: 'moving',
      clone: (row: unknown) => row,
      // The row goes back to where it was: the lines say in which order they are drawn.
      customUpdate({ from, item, oldIndex = 0, newIndex = 0 }) {
        item.remove()
        from.insertBefore(item, from.children[oldIndex] ?? null)
        moved(oldIndex, newIndex)
      },
    })
    end = destroy
  }

  onMounted(() => {
    if (typeof requestIdleCallback === 'undefined') setTimeout(() => void begin(), AFTER)
    else requestIdleCallback(() => void begin(), { timeout: AFTER })
  })
  onBeforeUnmount(() => {
    left = true
    end?.()
  })
}
