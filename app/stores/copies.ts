import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Check, CopiedFolio, EarlierCopy } from '#shared/copies'
import { api } from '~/keeping/api'
import { useShelfStore } from './shelf'

/** The earlier copies of the data file, what is in them, and whether the file itself is whole. */
export const useCopiesStore = defineStore('copies', () => {
  const shelf = useShelfStore()
  const copies = shallowRef<readonly EarlierCopy[]>([])
  const check = shallowRef<Check | null>(null)
  /** What keeps the server from saving or copying; empty where nothing does. */
  const trouble = ref('')
  const known = ref(false)
  const shown = ref(false)
  const checking = ref(false)
  /** What was done, or could not be. */
  const said = ref('')
  const failed = ref('')

  /** The copy that is looked into, and its folios; `null` until they are fetched. */
  const looked = ref('')
  const inside = shallowRef<readonly CopiedFolio[] | null>(null)
  const bringing = ref(false)

  const damage = computed(() => (check.value?.whole === false ? check.value.sentences : []))

  const why = (error: unknown): string => (error instanceof Error ? error.message : 'It could not be done.')

  async function load(): Promise<void> {
    try {
      const found = await api.copies()
      copies.value = found.copies
      check.value = found.check
      trouble.value = found.trouble ?? ''
      known.value = true
    } catch {
      // The shelf says what is wrong with the server.
    }
  }

  async function look(name: string): Promise<void> {
    said.value = ''
    failed.value = ''
    inside.value = null
    looked.value = looked.value === name ? '' : name
    if (looked.value === '') return
    try {
      const { folios } = await api.inCopy(name)
      if (looked.value === name) inside.value = folios
    } catch (error) {
      failed.value = why(error)
      looked.value = ''
    }
  }

  /** Brings folios back beside those that are here; all of them where none is named. */
  async function bringBack(folios: readonly string[] | null): Promise<void> {
    const name = looked.value
    if (name === '' || bringing.value) return
    bringing.value = true
    said.value = ''
    failed.value = ''
    try {
      const { folios: brought, left } = await api.bringBack(name, folios)
      said.value = broughtSentence(brought.map((folio) => folio.title))
      if (left.length > 0) failed.value = `Not to be read in this copy: ${left.join(', ')}.`
      await shelf.load()
    } catch (error) {
      failed.value = why(error)
    } finally {
      bringing.value = false
    }
  }

  async function checkNow(): Promise<void> {
    checking.value = true
    failed.value = ''
    try {
      check.value = await api.check()
      await load()
    } catch (error) {
      failed.value = why(error)
    } finally {
      checking.value = false
    }
  }

  return { copies, check, trouble, damage, known, shown, checking, said, failed, looked, inside, bringing, load, look, bringBack, checkNow } // prettier-ignore
})

function broughtSentence(titles: readonly string[]): string {
  const [only] = titles
  if (only === undefined) return ''
  return titles.length === 1
    ? `On the shelf again: “${only}”, beside what was there.`
    : `On the shelf again: ${titles.length} folios, beside what was there.`
}
