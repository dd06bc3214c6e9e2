<script setup lang="ts">
import { computed, ref } from 'vue'
import { writePlain } from '#core/exchange/plainLines'
import { faultSentence } from '#core/exchange/told'
import type { NumberFormat } from '#core/exchange/writeValue'
import { fileName } from '~/keeping/folioFile'
import { useFileOpening } from '~/composables/fileOpening'
import { useReporting } from '~/composables/reporting'
import { useSaveFolio } from '~/composables/saveFolio'
import { saveAs } from '~/drawing/files'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Everything that leaves the folio as a file, and the way in for files. */
const folio = useFolioStore()
const desk = useDeskStore()
const results = useResultsStore()
const { chooseFile } = useFileOpening()
const { saveReport } = useReporting()

const problem = ref('')
const busy = ref(false)
/** What is written as numbers: all kept ones, or one line. */
const which = ref<string>('all')
const format = ref<NumberFormat>('csv')
const form = ref<'parts' | 'polar'>('parts')

const FORMATS: readonly { value: NumberFormat; title: string }[] = [
  { value: 'csv', title: 'CSV, with commas' },
  { value: 'spreadsheet', title: 'CSV for a spreadsheet with decimal commas' },
  { value: 'tsv', title: 'TSV, with tabs' },
  { value: 'mtx', title: 'Matrix Market (.mtx)' },
  { value: 'touchstone', title: 'Touchstone 1.1 (.s1p, .s2p, …)' },
]

const sources = computed(() => [
  { value: 'all', title: 'All kept numbers' },
  ...folio.lines.flatMap((line, k) => {
    const view = results.views.get(line.id)
    const shape = view?.readout.shape
    const held = shape === 'sweep' || shape === 'grid' || shape === 'list'
    return view && held && !view.problem
      ? [{ value: line.id, title: `${view.name ?? 'a result'} (line ${k + 1})` }]
      : []
  }),
])

async function doing(what: () => Promise<void>): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    await what()
  } catch {
    problem.value = 'The file could not be made. Nothing was changed.'
  } finally {
    busy.value = false
  }
}

const saveWhole = useSaveFolio()
const saveFolio = () =>
  doing(async () => {
    folio.keep()
    if (!(await saveWhole())) throw new Error('its numbers are not in it')
  })

function saveLines(): void {
  folio.keep()
  saveAs(new Blob([writePlain(folio.lines)], { type: 'text/plain;charset=utf-8' }), `${fileName(folio.title)}.txt`)
}

const saveNumbers = () =>
  doing(async () => {
    folio.keep()
    const id = which.value === 'all' ? null : which.value
    const found = await results.numberFile(id, format.value, { angle: folio.conventions.angle, form: form.value })
    if (found.kind === 'fault') {
      problem.value = faultSentence(found)
      return
    }
    const name = id === null ? 'numbers' : (results.views.get(id)?.name ?? 'result')
    saveAs(
      new Blob([found.text], { type: 'text/plain;charset=utf-8' }),
      `${fileName(`${folio.title} ${name}`)}${found.ending}`,
    )
  })

function openSheet(): void {
  folio.keep()
  desk.sheetOpen = true
}
</script>

<template>
  <section class="pane leaf-frame" aria-label="Exchange">
    <h2>Exchange</h2>
    <p v-if="problem !== ''" class="problem" role="alert">{{ problem }}</p>

    <h3>Hand in</h3>
    <div class="group">
      <v-btn color="primary" variant="flat" @click="openSheet">The sheet</v-btn>
      <v-btn :disabled="busy" @click="doing(() => saveReport('latex'))">LaTeX</v-btn>
      <v-btn :disabled="busy" @click="doing(() => saveReport('markdown'))">Markdown</v-btn>
      <p class="quiet">Pages to print or keep as PDF; or the same as a file that compiles, its plates beside it.</p>
    </div>

    <h3>Pass on</h3>
    <div class="group">
      <v-btn :disabled="busy" @click="saveFolio">Folio file</v-btn>
      <v-btn @click="saveLines">Plain text</v-btn>
      <p class="quiet">
        The folio whole, to be opened here again; or its lines as they are typed. Your name is in neither.
      </p>
    </div>

    <h3>Numbers</h3>
    <div class="numbers">
      <v-select v-model="which" label="What" :items="sources" />
      <v-select v-model="format" label="As" :items="FORMATS" />
      <v-select
        v-if="format !== 'mtx' && format !== 'touchstone'"
        v-model="form"
        label="Complex values in"
        :items="[
          { value: 'parts', title: 'real and imaginary part' },
          { value: 'polar', title: 'magnitude and angle' },
        ]"
      />
      <v-btn :disabled="busy" @click="saveNumbers">Save the numbers</v-btn>
    </div>

    <h3>Take in</h3>
    <div class="group">
      <v-btn :disabled="!folio.writable" @click="chooseFile">Open a file</v-btn>
      <p class="quiet">
        Tables (CSV, TSV), Matrix Market, Touchstone, folios and lines. Drop a file on the ledger, or paste a table
        there: you see what is in it first.
      </p>
    </div>

    <template v-if="folio.enclosures.length > 0">
      <h3>Enclosures</h3>
      <ul class="enclosures">
        <li v-for="enclosure in folio.enclosures" :key="enclosure.name">
          <code>{{ enclosure.name }}</code>
          <span class="quiet">
            {{
              enclosure.kind === 'matrix'
                ? `${enclosure.rows} × ${enclosure.cols}`
                : `${enclosure.rows} rows, ${enclosure.columns.length} columns`
            }}
          </span>
          <v-btn size="small" :disabled="!folio.writable" @click="folio.unenclose(enclosure.name)">Take out</v-btn>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 16px 0 8px;
  padding-top: 8px;
  font-size: 16px;
  border-top: 1px solid var(--rule);
}
.group {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.quiet {
  margin: 0;
}
.group .quiet {
  flex-basis: 100%;
}
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 8px;
  align-items: center;
}
.enclosures {
  margin: 0;
  padding: 0;
  list-style: none;
}
.enclosures li {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 40px;
}
.enclosures code {
  font-family: var(--mono);
}
.enclosures .quiet {
  flex: 1;
}
</style>
