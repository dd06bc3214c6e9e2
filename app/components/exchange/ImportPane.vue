<script setup lang="ts">
import { mdiFileOutline, mdiFolderOpenOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Source } from '#core/exchange/csv'
import { SEPARATORS } from '#core/exchange/dialect'
import type { DecimalMark, Separator } from '#core/exchange/dialect'
import { useFileOpening } from '~/composables/fileOpening'
import { useTakingIn, WRITTEN_MOST } from '~/composables/takingIn'
import { useExchangeStore } from '~/stores/exchange'
import { useFolioStore } from '~/stores/folio'

/** What a file holds, before it is taken in: the first rows, what was guessed, and what can be chosen instead. */
const exchange = useExchangeStore()
const folio = useFolioStore()
const { chooseFile } = useFileOpening()
const { enclose, writeIn, putIn, close } = useTakingIn()
const draw = ref(true)

const data = computed(() => exchange.data)
const reading = computed(() => exchange.guess?.reading ?? null)
const replaces = computed(() => folio.enclosures.some((e) => e.name === exchange.name))
const small = computed(() =>
  data.value?.kind === 'matrix' && data.value.re.length <= WRITTEN_MOST ? data.value : null,
)

const SEPARATOR_NAMES: Readonly<Record<Separator, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars', ' ': 'blanks' } // prettier-ignore
const separators = SEPARATORS.map((value) => ({ value, title: SEPARATOR_NAMES[value] }))
const marks: { value: DecimalMark; title: string }[] = [
  { value: '.', title: 'a point' },
  { value: ',', title: 'a comma' },
]

function speak(change: { separator?: Separator; mark?: DecimalMark }): void {
  const dialect = reading.value?.dialect
  if (dialect) void exchange.speak({ ...dialect, ...change })
}

/** In which ways a column can be taken. */
type Use = 'own' | 'skip' | 'RI' | 'MA deg' | 'MA rad' | 'DB deg' | 'DB rad'
const USES: readonly { value: Use; title: string }[] = [
  { value: 'own', title: 'real numbers' },
  { value: 'RI', title: 'real part, next is imaginary' },
  { value: 'MA deg', title: 'magnitude, next is angle in °' },
  { value: 'MA rad', title: 'magnitude, next is angle in rad' },
  { value: 'DB deg', title: 'dB, next is angle in °' },
  { value: 'DB rad', title: 'dB, next is angle in rad' },
  { value: 'skip', title: 'left out' },
]

function useOf({ skip, second, form, angle }: Source): Use {
  if (skip) return 'skip'
  if (second === null) return 'own'
  return form === 'RI' ? 'RI' : form === 'MA' ? (angle === 'deg' ? 'MA deg' : 'MA rad') : angle === 'deg' ? 'DB deg' : 'DB rad' // prettier-ignore
}

/** Another use of a column: what it was joined with stands by itself again, or is joined with it now. */
function take(source: Source, use: Use): void {
  const now = reading.value
  if (!now) return
  const joins = use !== 'own' && use !== 'skip'
  const [form, angle] = use.split(' ')
  const changed: Source = {
    ...source,
    skip: use === 'skip',
    second: joins ? source.first + 1 : null,
    form: form === 'MA' || form === 'DB' ? form : 'RI',
    angle: angle === 'rad' ? 'rad' : 'deg',
  }
  const alone = (first: number): Source => ({ name: headText(first), unit: '', first, second: null, form: 'RI', angle: 'deg', skip: false }) // prettier-ignore
  const sources = now.sources.flatMap((s): Source[] => {
    if (s === source) return source.second !== null && !joins ? [changed, alone(source.second)] : [changed]
    if (!joins || s.first !== source.first + 1) return [s]
    return s.second === null ? [] : [alone(s.second)]
  })
  void exchange.choose({ sources, parameter: Math.min(now.parameter, sources.length - 1) })
}

function headText(column: number): string {
  const row = reading.value?.header === null ? undefined : exchange.guess?.shown[0]?.[column]
  return row === undefined || row.trim() === '' ? `column_${column + 1}` : row.trim()
}

function rename(source: Source, name: string): void {
  if (!reading.value || name.trim() === '') return
  void exchange.choose({ sources: reading.value.sources.map((s) => (s === source ? { ...s, name: name.trim() } : s)) })
}

/** The first rows as the file has them. */
const sample = computed(() => exchange.guess?.shown ?? [])
const width = computed(() => Math.max(0, ...sample.value.map((row) => row.length)))
const isHead = (k: number): boolean => (exchange.guess?.from ?? 0) + k < (reading.value?.first ?? 0)

const summary = computed(() => {
  const found = data.value
  if (!found) return ''
  if (found.kind === 'matrix') return `A ${found.im ? 'complex' : 'real'} matrix of ${found.rows} × ${found.cols}.`
  const columns = found.columns.map((c) => (c.order > 1 ? `${c.name} (${c.order} × ${c.order})` : c.name) + (c.unit === '' ? '' : ` in ${c.unit}`)) // prettier-ignore
  const along = found.columns[found.parameter]
  return `${found.rows} rows: ${columns.join(', ')}${along ? `; all along ${along.name}` : ''}.`
})
</script>

<template>
  <section class="pane leaf-frame" aria-label="A file for this folio">
    <h2><AppIcon :path="mdiFileOutline" />{{ exchange.name === '' ? 'A file for this folio' : exchange.name }}</h2>

    <div v-if="exchange.reading" class="reading" role="status">
      <p>Reading the file: {{ Math.round(100 * exchange.progress) }} %</p>
      <v-progress-linear :model-value="100 * exchange.progress" aria-label="How much is read" />
      <v-btn @click="exchange.stop()">Stop</v-btn>
    </div>
    <template v-else-if="exchange.problem !== ''">
      <p class="problem" role="alert">{{ exchange.problem }}</p>
      <p class="quiet">Nothing was taken in.</p>
      <div class="actions">
        <v-btn color="primary" variant="flat" @click="chooseFile">Choose another file</v-btn>
        <v-btn @click="close">Close</v-btn>
      </div>
    </template>
    <template v-else-if="exchange.opened === null">
      <p>
        Measured data, matrices, network parameters, lines or folios: choose a file, drop it on the ledger, or paste a
        table from a spreadsheet. You see what is in it before anything changes.
      </p>
      <v-btn color="primary" variant="flat" :prepend-icon="mdiFolderOpenOutline" @click="chooseFile"
        >Choose a file</v-btn
      >
    </template>
    <template v-else-if="exchange.opened.kind === 'folio' || exchange.opened.kind === 'lines'">
      <p>
        {{ exchange.opened.kind === 'folio' ? 'This is a folio.' : 'These are lines of text.' }} Its lines can be put in
        here, below the current line, as one step. On the shelf the file makes a folio of its own.
      </p>
      <div class="actions">
        <v-btn color="primary" variant="flat" @click="putIn(exchange.opened.text, exchange.opened.kind === 'folio')">
          Put its lines in
        </v-btn>
        <v-btn @click="close">Cancel</v-btn>
      </div>
    </template>
    <template v-else-if="exchange.opened.kind === 'archive'">
      <p>This is an archive. Open it on the shelf: every folio in it comes to stand there.</p>
      <v-btn @click="close">Close</v-btn>
    </template>
    <template v-else-if="data">
      <p class="summary">{{ summary }}</p>
      <ul v-if="exchange.told.length > 0" class="told">
        <li v-for="sentence in exchange.told" :key="sentence">{{ sentence }}</li>
      </ul>

      <div class="actions">
        <v-btn
          color="primary"
          variant="flat"
          :disabled="!folio.writable"
          @click="enclose(exchange.name, data, draw && data.kind === 'table')"
        >
          {{ replaces ? 'Take in the new numbers' : 'Keep with the folio' }}
        </v-btn>
        <v-btn v-if="small" @click="writeIn(exchange.name, small)">Write into a line</v-btn>
        <v-btn @click="close">Cancel</v-btn>
        <v-checkbox v-if="data.kind === 'table' && !replaces" v-model="draw" label="and draw it" />
      </div>

      <template v-if="reading">
        <div class="choices">
          <v-select
            label="Cells are parted by"
            :items="separators"
            :model-value="reading.dialect.separator"
            @update:model-value="(separator: Separator) => speak({ separator })"
          />
          <v-select
            label="Decimals begin with"
            :items="marks"
            :model-value="reading.dialect.mark"
            @update:model-value="(mark: DecimalMark) => speak({ mark })"
          />
          <v-select
            label="The table is"
            :items="[
              { value: 'table', title: 'sweeps, one a column' },
              { value: 'matrix', title: 'one matrix' },
            ]"
            :model-value="reading.as"
            @update:model-value="(as: 'table' | 'matrix') => exchange.choose({ as })"
          />
          <v-select
            v-if="reading.as === 'table'"
            label="All run along"
            :items="[
              { value: -1, title: 'the number of the row' },
              ...reading.sources
                .map((s, value) => ({ value, title: s.name }))
                .filter((_, k) => reading?.sources[k]?.second === null && !reading?.sources[k]?.skip),
            ]"
            :model-value="reading.parameter"
            @update:model-value="(parameter: number) => exchange.choose({ parameter })"
          />
        </div>

        <div v-if="reading.as === 'table'" class="columns">
          <div v-for="source in reading.sources" :key="source.first" class="source">
            <v-text-field
              label="Name"
              :model-value="source.name"
              :disabled="source.skip"
              @change="(event: Event) => rename(source, (event.target as HTMLInputElement).value)"
            />
            <v-select
              label="Holds"
              :items="USES.filter((u) => u.value === 'own' || u.value === 'skip' || source.first + 1 < width)"
              :model-value="useOf(source)"
              @update:model-value="(use: Use) => take(source, use)"
            />
            <span class="unit">{{ source.unit }}</span>
          </div>
        </div>

        <div class="sample" tabindex="0" role="group" aria-label="The first rows of the file">
          <v-table>
            <tbody>
              <tr v-for="(row, k) in sample" :key="k" :class="{ head: isHead(k) }">
                <th scope="row">{{ (exchange.guess?.from ?? 0) + k + 1 }}</th>
                <td v-for="column in width" :key="column">{{ row[column - 1] ?? '' }}</td>
              </tr>
            </tbody>
          </v-table>
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  align-items: center;
  gap: 8px;
  overflow-wrap: anywhere;
}
.summary {
  margin: 8px 0 4px;
}
.told {
  margin: 0 0 8px;
  padding-left: 20px;
  color: var(--quiet);
  font-size: 14px;
}
.reading {
  display: flex;
  flex-direction: column;
  gap: 8px;
  align-items: flex-start;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 12px 0 16px;
}
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px;
  margin-bottom: 12px;
}
.columns {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0 12px;
  border-top: 1px solid var(--rule);
}
.source {
  display: grid;
  grid-template-columns: minmax(90px, 1fr) minmax(150px, 1.6fr) 48px;
  gap: 8px;
  align-items: center;
}
.unit {
  font-family: var(--mono);
  color: var(--quiet);
}
.sample {
  overflow: auto;
  border: 1px solid var(--rule);
  background: var(--leaf);
  scrollbar-width: thin;
}
.v-table {
  border-collapse: collapse;
  font-family: var(--mono);
  font-size: 13px;
}
th,
td {
  padding: 3px 10px;
  white-space: pre;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}
th {
  font-family: var(--serif);
  font-weight: 400;
  color: var(--quiet);
}
.head td {
  font-weight: 600;
  background: var(--rail);
}
</style>
