import { nextTick, watch } from 'vue'

/** How long what was open takes to go, in milliseconds: only then has it given the focus away. */
const GONE_AFTER = 60

/**
 * Gives the focus back to where it came from once something that lay over the page is closed; to `home` where that is
 * known. What has the focus by then, a line that was opened perhaps, keeps it.
 */
export function useFocusBack(open: () => boolean, home: () => HTMLElement | null = () => null): void {
  let before: Element | null = null
  watch(
    open,
    async (now, was) => {
      if (now) {
        before = home() ?? document.activeElement
        return
      }
      if (!was) return
      await nextTick()
      setTimeout(() => {
        const active = document.activeElement
        const lost = active === null || active === document.body || active.closest('.v-overlay') !== null
        if (lost && !open() && before instanceof HTMLElement && before.isConnected)
          before.focus({ preventScroll: true })
      }, GONE_AFTER)
    },
    { immediate: true, flush: 'sync' },
  )
}
