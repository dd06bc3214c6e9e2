import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { FolioCard } from '#shared/folio'
import { api } from '~/composables/api'
import { usePreferencesStore } from './preferences'

/** The folios there are. */
export const useShelfStore = defineStore('shelf', () => {
  const preferences = usePreferencesStore()
  const cards = ref<readonly FolioCard[]>([])
  const state = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')

  const folios = computed(() =>
    sorted(
      cards.value.filter((c) => c.binnedAt === null),
      sort.value,
    ),
  )
  const binned = computed(() => cards.value.filter((c) => c.binnedAt !== null))

  /** What is looked for in titles, names and lines. */
  const find = ref('')
  const sort = ref<ShelfSort>('changed')

  async function load(): Promise<void> {
    const asked = find.value.trim()
    try {
      const found = await api.shelf(asked)
      // An answer that comes late must not take the place of a newer one.
      if (asked !== find.value.trim()) return
      cards.value = found
      state.value = 'ready'
      message.value = ''
    } catch (error) {
      state.value = cards.value.length > 0 ? 'ready' : 'failed'
      message.value = error instanceof Error ? error.message : ''
    }
  }

  /** Runs a change and shows the shelf as it is afterwards; a failure is said, not thrown. */
  async function change<T>(action: () => Promise<T>): Promise<T | null> {
    try {
      const result = await action()
      await load()
      return result
    } catch (error) {
      message.value = error instanceof Error ? error.message : 'This could not be done.'
      return null
    }
  }

  const create = (title: string) =>
    change(() => api.create({ title, conventions: { ...preferences.defaults }, lines: [{ source: '' }] }))
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
    cards, folios, binned, find, sort, state, message,
    load, create, duplicate, bin, restore, remove, emptyBin, rename,
  } // prettier-ignore
})

export type ShelfSort = 'changed' | 'title' | 'created' | 'length'

const collator = new Intl.Collator(undefined, { sensitivity: 'base', numeric: true })

/** The cards in the order asked for; cards that are alike keep theirs. */
export function sorted(cards: readonly FolioCard[], by: ShelfSort): readonly FolioCard[] {
  const order: Readonly<Record<ShelfSort, (a: FolioCard, b: FolioCard) => number>> = {
    changed: (a, b) => b.changedAt.localeCompare(a.changedAt),
    created: (a, b) => b.createdAt.localeCompare(a.createdAt),
    title: (a, b) => collator.compare(a.title, b.title),
    length: (a, b) => b.lineCount - a.lineCount,
  }
  return [...cards].sort(order[by])
}
