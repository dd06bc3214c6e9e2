import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { FolioCard } from '#shared/folio'
import { api } from '~/composables/api'

/** The folios there are. */
export const useShelfStore = defineStore('shelf', () => {
  const cards = ref<readonly FolioCard[]>([])
  const state = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')

  const folios = computed(() => cards.value.filter((c) => c.binnedAt === null))
  const binned = computed(() => cards.value.filter((c) => c.binnedAt !== null))

  async function load(): Promise<void> {
    try {
      cards.value = await api.shelf()
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

  const create = (title: string) => change(() => api.create({ title, conventions: {}, lines: [{ source: '' }] }))
  const duplicate = (id: string) => change(() => api.duplicate(id))
  const bin = (id: string) => change(() => api.bin(id, true))
  const restore = (id: string) => change(() => api.bin(id, false))
  const remove = (id: string) => change(() => api.remove(id))
  async function rename(id: string, title: string): Promise<void> {
    await change(async () => {
      const folio = await api.open(id)
      await api.save(id, { revision: folio.revision, operations: [{ type: 'rename', title }] })
    })
  }

  return { cards, folios, binned, state, message, load, create, duplicate, bin, restore, remove, rename }
})
