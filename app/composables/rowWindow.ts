import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import { rowsBetween, tops } from '../browser/rowHeights'

/** Folios up to this length are drawn whole. */
const WHOLE = 80
/** How far beyond the window rows are drawn, in pixels. */
const MARGIN = 700
/** The window moves by so many rows at a time: fewer changes while scrolling. */
const STRIDE = 2
/** What a row takes that was never drawn, in pixels. */
const ESTIMATE = 58

/**
 * Which rows of a long ledger are drawn: those near what is in sight. The
 * others are room above and below, as high as they were when last drawn.
 */
export function useRowWindow(scroller: () => HTMLElement | null, ids: Ref<readonly string[]>) {
  const heights = new Map<string, number>()
  const version = ref(0)
  const range = shallowRef({ from: 0, to: WHOLE })
  let asked = false

  const offsets = computed(() => {
    void version.value
    return tops(ids.value.map((id) => heights.get(id) ?? ESTIMATE))
  })
  const whole = computed(() => ids.value.length <= WHOLE)
  const first = computed(() => (whole.value ? 0 : Math.min(range.value.from, ids.value.length)))
  const last = computed(() => (whole.value ? ids.value.length : Math.min(range.value.to, ids.value.length)))
  const above = computed(() => offsets.value[first.value] ?? 0)
  const below = computed(() => (offsets.value.at(-1) ?? 0) - (offsets.value[last.value] ?? 0))

  function look(): void {
    const box = scroller()
    if (!box || whole.value) return
    const next = rowsBetween(offsets.value, box.scrollTop - MARGIN, box.scrollTop + box.clientHeight + MARGIN)
    const from = Math.floor(next.from / STRIDE) * STRIDE
    const to = Math.ceil(next.to / STRIDE) * STRIDE
    if (from !== range.value.from || to !== range.value.to) range.value = { from, to }
  }

  const sizes =
    typeof ResizeObserver === 'undefined'
      ? null
      : new ResizeObserver((entries) => {
          for (const { target, borderBoxSize } of entries) {
            const id = target instanceof HTMLElement ? target.dataset.id : undefined
            const height = borderBoxSize[0]?.blockSize ?? 0
            if (id !== undefined && height > 0) heights.set(id, height)
          }
          if (asked || whole.value) return
          asked = true
          requestAnimationFrame(() => {
            asked = false
            version.value += 1
            look()
          })
        })
  onBeforeUnmount(() => sizes?.disconnect())

  /** Brings a row that is not drawn into the window, before anything looks for it. */
  function bring(id: string): void {
    const index = ids.value.indexOf(id)
    const box = scroller()
    if (!box || whole.value || index < 0 || (index >= first.value && index < last.value)) return
    const from = Math.max(0, index - 12)
    range.value = { from, to: from + 24 }
    const top = offsets.value[index] ?? 0
    requestAnimationFrame(() => box.scrollTo({ top: Math.max(0, top - box.clientHeight / 3) }))
  }

  watch(ids, look, { flush: 'post' })

  return {
    first,
    last,
    above,
    below,
    look,
    bring,
    observe: (row: Element) => sizes?.observe(row),
    unobserve: (row: Element) => sizes?.unobserve(row),
  }
}
export type RowWindow = ReturnType<typeof useRowWindow>
