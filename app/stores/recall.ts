import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '~/keeping/api'
import { useFolioStore } from './folio'

/** Earlier entries of the folio, brought back into the line that is being typed. */
export const useRecallStore = defineStore('recall', () => {
  const folio = useFolioStore()
  /** What earlier sessions entered, newest first, as far as the journal has been read. */
  const earlier = shallowRef<readonly string[]>([])
  /** What had been typed when recalling began; earlier entries begin like it. */
  const typed = ref<string | null>(null)
  const at = ref(-1)
  let fetched = ''

  watch(
    () => folio.id,
    () => {
      earlier.value = []
      fetched = ''
    },
  )

  async function fetchEarlier(): Promise<void> {
    if (fetched === folio.id) return
    fetched = folio.id
    try {
      const { entries } = await api.journal(folio.id)
      earlier.value = entries.flatMap((e) =>
        e.operations
          .toReversed()
          .flatMap((o) =>
            o.type === 'edit' ? [o.source] : o.type === 'insert' && !o.line.note ? [o.line.source] : [],
          ),
      )
    } catch {
      // Without the server there still is what was entered since the page was opened, and the lines themselves.
    }
  }

  const all = computed(() => {
    const texts = [
      ...folio.entered.toReversed(),
      ...earlier.value,
      ...folio.lines
        .filter((l) => !l.note)
        .map((l) => l.source)
        .toReversed(),
    ]
    return [...new Set(texts.filter((t) => t.trim() !== '' && !t.includes('\n')))]
  })
  /** Those that begin with what was typed first, then those that have it somewhere. */
  const matches = computed(() => {
    const start = typed.value ?? ''
    const others = all.value.filter((t) => t !== start)
    if (start.trim() === '') return others
    const first = others.filter((t) => t.startsWith(start))
    return [...first, ...others.filter((t) => !t.startsWith(start) && t.includes(start.trim()))]
  })
  /** True while the line still holds what was recalled. */
  const active = computed(() => typed.value !== null && at.value >= 0 && folio.text === matches.value[at.value])
  const count = computed(() => matches.value.length)

  function go(by: 1 | -1): boolean {
    if (!active.value) {
      if (by === 1) return false
      typed.value = folio.text
      at.value = -1
      void fetchEarlier()
    }
    const next = at.value - by
    if (next < -1) return false
    if (next === -1) {
      const back = typed.value ?? ''
      end()
      folio.type(back)
      return true
    }
    const text = matches.value[next]
    if (text === undefined) return at.value >= 0
    at.value = next
    folio.type(text)
    return true
  }

  function end(): void {
    typed.value = null
    at.value = -1
  }

  return { active, at, count, matches, go, end, fetchEarlier }
})
