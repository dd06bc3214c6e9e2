import { shallowRef } from 'vue'
import PlainEntry from '~/components/ledger/PlainEntry.vue'

/** What a line is typed in: a plain field until the editor, which comes beside the page and not before it, is there. */
export const lineEditor = shallowRef<
  typeof PlainEntry | (typeof import('~/components/ledger/LineEditor.vue'))['default']
>(PlainEntry)

export async function fetchLineEditor(): Promise<void> {
  if (lineEditor.value !== PlainEntry) return
  try {
    lineEditor.value = (await import('~/components/ledger/LineEditor.vue')).default
  } catch {
    // One that does not come now is asked for again when a line is opened.
  }
}
