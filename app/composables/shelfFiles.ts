import { ref, shallowRef } from 'vue'
import { ARCHIVE_BYTES_MOST } from '#core/exchange/limits'
import { fault, faultSentence } from '#core/exchange/told'
import type { FolioCard } from '#shared/folio'
import { saveAs } from '~/drawing/files'
import { useExchangeStore } from '~/stores/exchange'
import { useShelfStore } from '~/stores/shelf'
import { api } from '../keeping/api'
import { askForFiles } from '~/browser/askForFiles'
import type { Arrived } from '../keeping/arrivals'

/** Folios that are on the shelf already, in a file that is brought in: asked once for all of them. */
export interface Twins {
  readonly sentence: string
  /** True of a single one, which can be compared line by line. */
  readonly comparable: boolean
}
export type TwinAnswer = 'beside' | 'compare' | 'none'

/** What reads and writes files is fetched when a file comes or goes. */
const reader = () => import('../keeping/folioFiles')

/** Folios of the shelf to files, and files to the shelf. */
export function useShelfFiles(say: (sentence: string) => void) {
  const shelf = useShelfStore()
  const exchange = useExchangeStore()
  const passing = ref('')
  const refused = ref<readonly string[]>([])
  const asking = shallowRef<Twins | null>(null)
  let answered: ((answer: TwinAnswer) => void) | null = null
  let stopper: AbortController | null = null

  /** What is on its way is stopped. */
  function stop(): void {
    stopper?.abort()
    exchange.end()
  }

  function answerTwins(answer: TwinAnswer): void {
    asking.value = null
    answered?.(answer)
    answered = null
  }

  const why = (error: unknown): string => (error instanceof Error ? error.message : 'It could not be done.')

  async function saveOne(card: FolioCard): Promise<void> {
    refused.value = []
    try {
      const { name, bytes } = await (await reader()).shelvedAsFile(card.id)
      saveAs(new Blob([new Uint8Array(bytes)]), name)
    } catch (error) {
      refused.value = [`${card.title}: ${why(error)}`]
    }
  }

  /** The whole shelf, one archive. */
  async function saveAll(): Promise<void> {
    refused.value = []
    try {
      const { shelvedAsFile, pack } = await reader()
      const files = []
      for (let from = 0; ;) {
        const page = await api.shelf({ find: '', sort: 'changed', from, bin: false })
        for (const card of page.folios) {
          passing.value = `${files.length + 1} of ${page.count}: ${card.title}`
          if (!card.damaged) files.push(await shelvedAsFile(card.id))
        }
        from += page.folios.length
        if (page.folios.length === 0 || from >= page.count) break
      }
      saveAs(new Blob([new Uint8Array(pack(files))], { type: 'application/zip' }), 'shelf.zip')
      say(`${files.length} folios are in the file.`)
    } catch (error) {
      refused.value = [why(error)]
    } finally {
      passing.value = ''
    }
  }

  async function chooseFiles(): Promise<void> {
    await bringIn(await askForFiles(true))
  }

  /** Files of any kind: folios stand beside what is there, data makes a folio of its own. */
  async function bringIn(files: readonly File[]): Promise<void> {
    refused.value = []
    const arrived: Arrived[] = []
    const problems: string[] = []
    for (const file of files) {
      if (file.size > ARCHIVE_BYTES_MOST) {
        problems.push(
          `${file.name}: ${faultSentence(fault('too-big', { bytes: file.size, most: ARCHIVE_BYTES_MOST }))}`,
        )
        continue
      }
      const bytes = new Uint8Array(await file.arrayBuffer())
      passing.value = `Reading ${file.name}`
      const found = await exchange
        .arrivals(bytes, file.name)
        .catch(() => 'It could not be read, or reading was stopped; nothing was taken in.')
      passing.value = ''
      if (found === 'data') return dataFolio(file.name, bytes)
      if (typeof found === 'string') problems.push(`${file.name}: ${found}`)
      else arrived.push(...found)
    }
    refused.value = problems
    if (arrived.length > 0) await putAll(arrived)
  }

  /** A file of data on the shelf: a new folio, in which it is shown before it is taken in. */
  async function dataFolio(name: string, bytes: Uint8Array): Promise<void> {
    const title = name
      .replace(/\.[A-Za-z0-9]{1,12}$/, '')
      .trim()
      .slice(0, 200)
    const folio = await shelf.create(title === '' ? 'Measured data' : title)
    if (!folio) return
    exchange.carry(name, bytes)
    await navigateTo(`/folio/${folio.id}`)
  }

  async function putAll(arrived: readonly Arrived[]): Promise<void> {
    const twins: Arrived[] = []
    for (const one of arrived) if (await isHere(one)) twins.push(one)
    const answer = twins.length === 0 ? 'beside' : await ask(twins)
    const [only] = twins
    if (answer === 'compare' && only?.file.folio) {
      exchange.bringBack(only.file)
      await navigateTo(`/folio/${only.file.folio}`)
      return
    }
    const wanted = answer === 'none' ? arrived.filter((one) => !twins.includes(one)) : arrived
    let put = 0
    stopper = new AbortController()
    const { signal } = stopper
    for (const one of wanted) {
      if (signal.aborted) break
      passing.value = `${put + 1} of ${wanted.length}: ${one.file.title}`
      try {
        const place = `${put + 1} of ${wanted.length}: ${one.file.title}`
        await (
          await reader()
        ).shelve(one, signal, (sent, of) => {
          passing.value = `${place} · ${Math.floor((100 * sent) / of)} %`
        })
        put += 1
      } catch (error) {
        const sentence = signal.aborted ? 'It was stopped; nothing of it is left.' : why(error)
        refused.value = [...refused.value, `${one.file.title}: ${sentence}`]
      }
    }
    passing.value = ''
    stopper = null
    await shelf.load()
    say(put === 1 ? 'One folio came in.' : `${put} folios came in.`)
  }

  async function isHere({ file }: Arrived): Promise<boolean> {
    if (!file.folio) return false
    try {
      await api.open(file.folio)
      return true
    } catch {
      return false
    }
  }

  function ask(twins: readonly Arrived[]): Promise<TwinAnswer> {
    const titles = twins.slice(0, 3).map((one) => `“${one.file.title}”`)
    const more = twins.length > 3 ? ` and ${twins.length - 3} more` : ''
    asking.value = {
      sentence: `${titles.join(', ')}${more} ${twins.length === 1 ? 'is' : 'are'} on the shelf already. What is in the file can stand beside ${twins.length === 1 ? 'it' : 'them'}${twins.length === 1 ? ', or be compared with it line by line' : ''}.`,
      comparable: twins.length === 1,
    }
    return new Promise((done) => (answered = done))
  }

  return { saveOne, saveAll, chooseFiles, bringIn, stop, passing, refused, asking, answerTwins }
}
