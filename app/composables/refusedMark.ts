import { computed, onScopeDispose, shallowRef } from 'vue'
import type { PlaneMark } from '#core/scene/scene'
import { sourcesOf } from '~/lines/nameIndex'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** How long a refusal is said, in milliseconds. */
const REFUSAL = 7_000

/** The computed value that somebody tried to drag, and what could be moved in its place. */
export function useRefusedMark() {
  const folio = useFolioStore()
  const results = useResultsStore()
  const refused = shallowRef<PlaneMark | null>(null)
  let timer: ReturnType<typeof setTimeout> | null = null

  function forget(): void {
    if (timer !== null) clearTimeout(timer)
    refused.value = null
  }
  function refuse(mark: PlaneMark): void {
    forget()
    refused.value = mark
    timer = setTimeout(forget, REFUSAL)
  }
  onScopeDispose(forget)

  const refusal = computed(() => {
    const mark = refused.value
    if (!mark) return null
    const sources = sourcesOf(folio.lines, results.views, mark.line)
    const list = sources.map(({ name, number }) => `${name} (line ${number})`).join(', ')
    return sources.length === 0
      ? `${mark.label} is computed.`
      : `${mark.label} is computed from ${list}: move ${sources.length === 1 ? 'it' : 'these'}.`
  })
  return { refuse, forget, refusal }
}
