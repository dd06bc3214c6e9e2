import { watch } from 'vue'
import type { Enclosure } from '#shared/enclosure'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { openEnclosure } from '../keeping/blocks'

/** How long a block that could not be fetched rests before it is asked for again, in milliseconds. */
const REST = 5_000

/** Brings the numbers of the folio's enclosures to where lines are reckoned; the folio does not wait for them. */
export function useEnclosures(): void {
  const folio = useFolioStore()
  const results = useResultsStore()
  /** The block that was asked for last, by name. */
  const asked = new Map<string, string>()

  async function bring(folioId: string, enclosure: Enclosure): Promise<void> {
    const { name, block } = enclosure
    const isWanted = (): boolean => folio.id === folioId && asked.get(name) === block
    try {
      const data = await openEnclosure(folioId, enclosure)
      if (isWanted()) await results.enclose(name, block, data, data === null)
    } catch {
      setTimeout(() => {
        if (isWanted()) void bring(folioId, enclosure)
      }, REST)
    }
  }

  watch(
    () => (folio.status === 'ready' ? ([folio.id, folio.enclosures] as const) : null),
    (now, before) => {
      if (!now) return asked.clear()
      const [folioId, enclosures] = now
      if (before?.[0] !== folioId) asked.clear()
      for (const name of [...asked.keys()]) {
        if (enclosures.some((e) => e.name === name)) continue
        asked.delete(name)
        void results.unenclose(name)
      }
      for (const enclosure of enclosures) {
        if (asked.get(enclosure.name) === enclosure.block) continue
        const replaced = asked.has(enclosure.name)
        asked.set(enclosure.name, enclosure.block)
        if (replaced || before?.[0] === folioId) void results.enclose(enclosure.name, enclosure.block, null)
        void bring(folioId, enclosure)
      }
    },
    { immediate: true },
  )
}
