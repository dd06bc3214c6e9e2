import { nextTick, watch } from 'vue'
import type { Ref } from 'vue'
import { typedAhead } from '~/browser/typedAhead'

/** What can be focused and selected: a field of the library. */
interface Field {
  focus: () => void
  select?: () => void
}

/** A sheet takes the focus itself once it has come in: the field asks for it again then, in milliseconds. */
const AGAIN_AFTER = 30

/**
 * A field that takes the hand as soon as its sheet is open. What was typed until
 * then is put into it, in the place of what it began with; what is typed while
 * the sheet still comes in is not selected again.
 */
export function useReadyField(
  open: () => boolean,
  field: Readonly<Ref<Field | null>>,
  value: Ref<string>,
  start: () => string = () => '',
): void {
  watch(
    open,
    async (now) => {
      if (!now) return
      const first = start()
      value.value = first
      await nextTick()
      focus()
      // The sheet may give the focus away as it comes in.
      setTimeout(() => {
        focus()
        typedAhead()
      }, AGAIN_AFTER)

      function focus(): void {
        if (!field.value || !open()) return
        field.value.focus()
        if (value.value === first && first !== '') field.value.select?.()
        const [ahead = ''] = typedAhead().split('\n')
        if (ahead !== '') value.value = value.value === first ? ahead : value.value + ahead
      }
    },
    { immediate: true },
  )
}
