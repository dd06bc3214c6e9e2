import { onScopeDispose, ref, watch } from 'vue'
import { spokenResult } from '~/texts/spoken'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** The worker has answered for what was typed last by then, in milliseconds; later answers are said when they come. */
const AFTER = 250

/**
 * What is said once a line is left: its result, or its error. While a line is
 * typed nothing is said; one that was left as it was is not said again.
 */
export function useAnnouncements() {
  const folio = useFolioStore()
  const results = useResultsStore()
  const said = ref('')
  let timer: ReturnType<typeof setTimeout> | null = null

  function announce(id: string): void {
    timer = null
    const view = results.views.get(id)
    const line = folio.lineOf(id)
    if (!view || !line || line.note || line.source.trim() === '') return
    const text = spokenResult(view)
    said.value = text === '' ? '' : `Line ${folio.indexOf(id) + 1}: ${text}`
  }

  watch(
    () => folio.editing,
    (now, before) => {
      if (timer !== null) clearTimeout(timer)
      timer = null
      if (now) said.value = ''
      if (!before || before.id === now?.id || folio.lineOf(before.id)?.source === before.was) return
      const { id } = before
      timer = setTimeout(() => announce(id), AFTER)
    },
  )
  onScopeDispose(() => {
    if (timer !== null) clearTimeout(timer)
  })
  return { said }
}
