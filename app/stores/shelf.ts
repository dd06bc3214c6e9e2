import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Folio, FolioCard, ShelfSort } from '#shared/folio'
import { UNNAMED } from '#shared/folioTitle'
import { api, RequestError } from '~/keeping/api'
import { usePreferencesStore } from './preferences'

/** The folios there are, a page at a time. */
export const useShelfStore = defineStore('shelf', () => {
  const preferences = usePreferencesStore()
  const folios = ref<readonly FolioCard[]>([])
  const binned = ref<readonly FolioCard[]>([])
  /** How many there are in all. */
  const count = ref(0)
  const binnedCount = ref(0)
  const binOpen = ref(false)
  const state = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')
  const fetching = ref(false)

  /** What is looked for in titles, names and lines. */
  const find = ref('')
  const sort = ref<ShelfSort>('changed')
  const more = computed(() => folios.value.length < count.value)
  const binnedMore = computed(() => binned.value.length < binnedCount.value)

  /** Counts up: an answer that comes late does not take the place of a newer one. */
  let asked = 0

  /** Fetches the shelf anew, as far as it was unfolded. */
  async function load(): Promise<void> {
    asked += 1
    const mine = asked
    try {
      const wanted = Math.max(1, folios.value.length)
      const found = await pages(false, wanted)
      const bin = binOpen.value ? await pages(true, Math.max(1, binned.value.length)) : null
      if (mine !== asked) return
      folios.value = found.cards
      count.value = found.count
      binnedCount.value = found.binned
      binned.value = bin?.cards ?? []
      state.value = 'ready'
      message.value = ''
    } catch (error) {
      if (mine !== asked) return
      if (error instanceof RequestError && error.signedOut) await navigateTo('/sign-in')
      state.value = folios.value.length > 0 ? 'ready' : 'failed'
      message.value = error instanceof Error ? error.message : ''
    }
  }

  /** Pages from the start until there are enough cards. */
  async function pages(
    bin: boolean,
    least: number,
  ): Promise<{ readonly cards: FolioCard[]; readonly count: number; readonly binned: number }> {
    const cards: FolioCard[] = []
    for (;;) {
      const page = await api.shelf({ find: find.value.trim(), sort: sort.value, from: cards.length, bin })
      cards.push(...page.folios)
      if (cards.length >= Math.min(least, page.count) || page.folios.length === 0)
        return { cards, count: page.count, binned: page.binned }
    }
  }

  /** Another search or order: from the beginning. */
  async function loadAnew(): Promise<void> {
    folios.value = folios.value.slice(0, 1)
    await load()
  }

  async function loadMore(bin = false): Promise<void> {
    if (fetching.value) return
    fetching.value = true
    try {
      const list = bin ? binned : folios
      const page = await api.shelf({ find: find.value.trim(), sort: sort.value, from: list.value.length, bin })
      const known = new Set(list.value.map((c) => c.id))
      list.value = [...list.value, ...page.folios.filter((c) => !known.has(c.id))]
      if (bin) binnedCount.value = page.count
      else count.value = page.count
    } catch (error) {
      message.value = error instanceof Error ? error.message : ''
    } finally {
      fetching.value = false
    }
  }

  async function toggleBin(): Promise<void> {
    binOpen.value = !binOpen.value
    if (binOpen.value) await loadMore(true)
  }

  const why = (error: unknown): string => (error instanceof Error ? error.message : 'This could not be done.')

  /** Runs a change and shows the shelf as it is afterwards; a failure is said, not thrown. */
  async function change<T>(action: () => Promise<T>): Promise<T | null> {
    try {
      const result = await action()
      await load()
      return result
    } catch (error) {
      message.value = why(error)
      return null
    }
  }

  /** A new folio, with the conventions that new ones begin with; the page goes there, so nothing is fetched here. */
  async function create(title = UNNAMED): Promise<Folio | null> {
    try {
      return await api.create({ title, conventions: { ...preferences.defaults }, lines: [{ source: '' }] })
    } catch (error) {
      message.value = why(error)
      return null
    }
  }
  const duplicate = (id: string) => change(() => api.duplicate(id))
  const bin = (id: string) => change(() => api.bin(id, true))
  const restore = (id: string) => change(() => api.bin(id, false))
  const remove = (id: string) => change(() => api.remove(id))
  const emptyBin = () => change(() => api.emptyBin())
  async function rename(id: string, title: string): Promise<void> {
    await change(async () => {
      const folio = await api.open(id)
      await api.save(id, { revision: folio.revision, operations: [{ type: 'rename', title }] })
    })
  }

  return {
    folios, binned, count, binnedCount, binOpen, more, binnedMore, fetching, find, sort, state, message,
    load, loadAnew, loadMore, toggleBin, create, duplicate, bin, restore, remove, emptyBin, rename,
  } // prettier-ignore
})
