import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { TableGuess, TableReading } from '#core/exchange/csv'
import type { Data } from '#core/measured/data'
import type { Dialect } from '#core/exchange/dialect'
import { FILE_BYTES_MOST } from '#core/exchange/encoding'
import type { Opened } from '#core/exchange/open'
import { fault, faultSentence, remarkSentence } from '#core/exchange/told'
import type { Fault } from '#core/exchange/told'
import type { FolioFile } from '#shared/folio'
import type { Arrived } from '~/keeping/arrivals'
import type { ExchangeService } from '~/workers/exchange'

/** A file on its way into a folio: what it is, how it is read, and what came of it. */
export const useExchangeStore = defineStore('exchange', () => {
  const name = ref('')
  const bytes = shallowRef<Uint8Array | null>(null)
  const opened = shallowRef<Opened | null>(null)
  /** Of a table of text: how it is read, and its first rows. */
  const guess = shallowRef<TableGuess | null>(null)
  const problem = ref('')
  const reading = ref(false)
  const progress = ref(0)
  /** The line below which it comes to stand; `null` for the end. */
  const below = ref<string | null>(null)

  const data = computed<Data | null>(() => (opened.value?.kind === 'data' ? opened.value.data : null))
  const told = computed<readonly string[]>(() =>
    opened.value?.kind === 'data' ? opened.value.told.map(remarkSentence) : [],
  )

  let worker: Worker | null = null
  let service: Remote<ExchangeService> | null = null
  let turn = 0

  function remote(): Remote<ExchangeService> {
    if (service) return service
    worker = new Worker(new URL('../workers/exchange.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data: sent }: MessageEvent<{ progress?: number }>) => {
      if (typeof sent.progress === 'number') progress.value = sent.progress
    })
    service = wrap<ExchangeService>(worker)
    return service
  }

  let stopped: () => void = () => undefined

  function end(): void {
    stopped()
    worker?.terminate()
    worker = null
    service = null
  }

  /** Opens a file; whatever it is, the page stays alive. */
  async function open(fileName: string, content: Uint8Array, line: string | null): Promise<void> {
    name.value = fileName.slice(-120)
    bytes.value = content
    below.value = line
    guess.value = null
    await read()
  }

  async function read(chosen?: TableReading): Promise<void> {
    const content = bytes.value
    if (!content) return
    turn += 1
    const mine = turn
    opened.value = null
    problem.value = ''
    progress.value = 0
    reading.value = true
    try {
      if (content.length > FILE_BYTES_MOST)
        return fail(fault('too-big', { bytes: content.length, most: FILE_BYTES_MOST }))
      const found = await remote().open(content, name.value, chosen)
      if (mine !== turn) return
      if (found.kind === 'fault') return fail(found)
      opened.value = found
      if (found.kind === 'data') guess.value ??= found.guess
    } catch {
      if (mine === turn) problem.value = 'The file could not be read.'
    } finally {
      if (mine === turn) reading.value = false
    }
  }

  function fail(found: Fault): void {
    problem.value = faultSentence(found)
  }

  /** The folios in a file, read away from the page; stopped it throws. */
  async function arrivals(content: Uint8Array, fileName: string): Promise<readonly Arrived[] | string> {
    const gone = new Promise<never>((_, refuse) => (stopped = () => refuse(new Error('stopped'))))
    return Promise.race([remote().arrivals(content, fileName), gone])
  }

  /** The same text with other separators, or another decimal mark. */
  async function speak(dialect: Dialect): Promise<void> {
    const content = bytes.value
    if (!content) return
    const how = await remote().guess(content, dialect)
    if (how.kind === 'fault') {
      problem.value = faultSentence(how)
      return
    }
    guess.value = how
    await read(how.reading)
  }

  /** The same table read in another way. */
  async function choose(change: Partial<TableReading>): Promise<void> {
    if (!guess.value) return
    guess.value = { ...guess.value, reading: { ...guess.value.reading, ...change } }
    await read(guess.value.reading)
  }

  function stop(): void {
    turn += 1
    end()
    reading.value = false
    problem.value = 'Reading was stopped; nothing was taken in.'
  }

  function clear(): void {
    turn += 1
    if (reading.value) end()
    reading.value = false
    bytes.value = null
    opened.value = null
    guess.value = null
    problem.value = ''
    name.value = ''
  }

  /** A file that was dropped on the shelf and waits for its folio; a folio that came back, to be compared. */
  let carried: { readonly name: string; readonly bytes: Uint8Array } | null = null
  const returned = shallowRef<FolioFile | null>(null)

  function carry(fileName: string, content: Uint8Array): void {
    carried = { name: fileName, bytes: content }
  }

  /** Opens what was carried here, once. */
  function unload(): boolean {
    const waiting = carried
    carried = null
    if (waiting) void open(waiting.name, waiting.bytes, null)
    return waiting !== null
  }

  function bringBack(file: FolioFile): void {
    returned.value = file
  }

  return {
    returned,
    carry,
    unload,
    bringBack,
    name,
    opened,
    guess,
    problem,
    reading,
    progress,
    below,
    data,
    told,
    open,
    speak,
    choose,
    stop,
    clear,
    arrivals,
    end,
  }
})
