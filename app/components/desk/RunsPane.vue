<script setup lang="ts">
import { mdiContentCopy, mdiContentDuplicate, mdiDeleteOutline, mdiDownload, mdiPlus, mdiTrayArrowUp } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'
import { runsCsv } from '#core/exchange/runsOut'
import { parseLine } from '#core/notation/parser'
import { headText, valueText } from '#core/notation/valuePart'
import { RUN_SETS_MOST, SET_NAME_MAX, setName } from '#shared/runs'
import type { RunSet } from '#shared/runs'
import type { Line } from '#shared/folio'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { textIn } from '~/browser/fields'
import { saveAs } from '~/drawing/files'
import { fileName } from '~/keeping/folioFile'
import { useFolioStore } from '~/stores/folio'
import { useRunsStore } from '~/stores/runs'

/** The account book of the runs: varied lines above the double rule, what is watched below it, a column a set. */
const folio = useFolioStore()
const runs = useRunsStore()

interface Column {
  readonly set: RunSet | null
  readonly name: string
}
const columns = computed<readonly Column[]>(() => [
  { set: null, name: 'Folio' },
  ...runs.sets.map((set, k) => ({ set, name: setName(set, k) })),
])
const changes = ref(true)
const said = ref('')
const book = ref<HTMLElement | null>(null)

const headOf = (line: Line): string => headText(parseLine(line.source))
const numberOf = (line: Line): number => folio.indexOf(line.id) + 1
const entryIn = (line: Line, set: RunSet | null): string => (set ? (set.values[line.id] ?? '') : valueText(line.source))
/** Where a column stands in the account, which may be of a moment before. */
const placeOf = ({ set }: Column): number => runs.account?.columns.indexOf(set?.id ?? '') ?? -1
const variedCell = (line: Line, column: Column) =>
  runs.account?.varied.find((row) => row.line === line.id)?.cells[placeOf(column)] ?? null
const watchedCell = (line: Line, column: Column) =>
  runs.account?.watched.find((row) => row.line === line.id)?.cells[placeOf(column)] ?? null

/** Lines that can still be taken up, by their names. */
function takenUp(as: 'varied' | 'watched'): readonly MenuAction[] {
  const free = folio.lines.filter((line) => runs.canRun(line) && !line.varied && !line.watched && !line.source.trim().startsWith('#')) // prettier-ignore
  return free.map((line) => ({
    label: `${numberOf(line)}  ${line.source.trim().slice(0, 48)}`,
    run: () => runs.mark(line.id, as),
  }))
}

function actionsOf({ set }: Column): readonly MenuAction[] {
  if (set === null) return [{ label: 'Keep these values as a set', icon: mdiPlus, run: () => runs.add('folio') }]
  return [
    { label: 'Make these the folio’s values', icon: mdiTrayArrowUp, run: () => runs.take(set) },
    ...(runs.room ? [{ label: 'Duplicate the set', icon: mdiContentDuplicate, run: () => runs.add(set) }] : []),
    { label: 'Delete the set', icon: mdiDeleteOutline, danger: true, run: () => runs.remove(set) },
  ]
}

// The cells: Enter and the arrows go up and down, Tab along the row.

async function go(row: number, column: number): Promise<void> {
  await nextTick()
  const field = book.value?.querySelector<HTMLInputElement>(`[data-cell="${row},${column}"]`)
  field?.focus()
  field?.select()
}

function onKey(event: KeyboardEvent, row: number, column: number, own: string): void {
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const field = event.target
  if (event.key === 'ArrowUp') void go(row - 1, column)
  else if (event.key === 'ArrowDown' || event.key === 'Enter') void go(row + 1, column)
  else if (event.key === 'Escape' && field instanceof HTMLInputElement && field.value !== own) field.value = own
  else return
  event.preventDefault()
  event.stopPropagation()
  // The last of a column has none below: it is kept all the same.
  if (event.key === 'Enter' && row === runs.varied.length - 1 && field instanceof HTMLInputElement) field.blur()
}

/** A row or a block that was copied from a spreadsheet fills the cells from here on. */
function pasted(event: ClipboardEvent, row: number, column: number): void {
  const rows = (event.clipboardData?.getData('text/plain') ?? '').replace(/\r?\n$/, '').split(/\r?\n/).map((line) => line.split('\t')) // prettier-ignore
  if (rows.length === 1 && rows[0]?.length === 1) return
  event.preventDefault()
  runs.enterMany(
    rows.flatMap((cells, r) =>
      cells.flatMap((entry, c) => {
        const [line, to] = [runs.varied[row + r], columns.value[column + c]]
        return line && to ? [{ line, set: to.set, entry }] : []
      }),
    ),
  )
}

const csv = (): string => (runs.account ? runsCsv(runs.account, runs.columnNames) : '')
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(csv())
  said.value = 'Copied as CSV.'
}
function save(): void {
  saveAs(new Blob([csv()], { type: 'text/csv' }), `${fileName(folio.title)}-runs.csv`)
}
</script>

<template>
  <section class="runs-pane" aria-label="Runs">
    <header>
      <h2>Runs</h2>
      <MenuButton v-if="runs.any" words="Vary a line" label="Vary a line" :actions="() => takenUp('varied')" />
      <MenuButton v-if="runs.any" words="Watch a line" label="Watch a line" :actions="() => takenUp('watched')" />
    </header>
    <div v-if="!runs.any" class="guide">
      <p>
        The same calculation with other numbers, side by side: <em>vary</em> the lines whose values you want to try,
        <em>watch</em> the lines whose results you want to compare. Each set of values is a column of this account.
      </p>
      <div class="choices">
        <MenuButton words="Vary a line" label="Vary a line" :actions="() => takenUp('varied')" />
        <MenuButton words="Watch a line" label="Watch a line" :actions="() => takenUp('watched')" />
      </div>
      <p class="quiet">Both are in the menu of every line, too.</p>
    </div>
    <template v-else>
      <div ref="book" class="book" role="region" aria-label="Account of the runs" tabindex="0">
        <table :aria-busy="runs.reckoning">
          <thead>
            <tr>
              <th scope="col" class="head"><span class="visually-hidden">Line</span></th>
              <th v-for="column in columns" :key="column.set?.id ?? ''" scope="col">
                <div class="set">
                  <input
                    v-if="column.set"
                    class="set-name"
                    type="text"
                    :value="column.name"
                    :maxlength="SET_NAME_MAX"
                    :readonly="!folio.writable"
                    aria-label="Name of the set"
                    @change="(e) => column.set && runs.rename(column.set, textIn(e))"
                  />
                  <span v-else class="set-name">{{ column.name }}</span>
                  <MenuButton
                    v-if="column.set || (runs.room && runs.varied.length > 0)"
                    :label="`Actions for ${column.name}`"
                    :actions="() => actionsOf(column)"
                  />
                </div>
              </th>
            </tr>
          </thead>
          <tbody class="varied">
            <tr v-for="(line, r) in runs.varied" :key="line.id">
              <th scope="row" class="head">
                <RunsHead :line="line" :name="headOf(line)" part="vary" />
              </th>
              <td
                v-for="(column, c) in columns"
                :key="column.set?.id ?? ''"
                :class="{ wrong: variedCell(line, column)?.problem && entryIn(line, column.set) !== '' }"
              >
                <input
                  type="text"
                  class="cell-field"
                  :data-cell="`${r},${c}`"
                  :data-begin="c === 0 ? '' : undefined"
                  :value="entryIn(line, column.set)"
                  :placeholder="valueText(line.source)"
                  :readonly="!folio.writable"
                  :aria-label="`${headOf(line)}, ${column.name}`"
                  :aria-invalid="Boolean(variedCell(line, column)?.problem)"
                  :data-tip="variedCell(line, column)?.problem ?? undefined"
                  autocomplete="off"
                  spellcheck="false"
                  @change="(e) => runs.enter(line, column.set, textIn(e))"
                  @keydown="(e) => onKey(e, r, c, entryIn(line, column.set))"
                  @paste="(e) => pasted(e, r, c)"
                />
              </td>
            </tr>
            <tr v-if="runs.varied.length === 0">
              <th scope="row" class="head" />
              <td :colspan="columns.length" class="quiet none">No line is varied yet.</td>
            </tr>
          </tbody>
          <tbody class="watched">
            <tr v-for="line in runs.watched" :key="line.id">
              <th scope="row" class="head">
                <RunsHead :line="line" :name="headOf(line)" part="watch" />
              </th>
              <td v-for="column in columns" :key="column.set?.id ?? ''">
                <RunsResult :cell="watchedCell(line, column)" :letter="folio.conventions.letter" :changes="changes" />
              </td>
            </tr>
            <tr v-if="runs.watched.length === 0">
              <th scope="row" class="head" />
              <td :colspan="columns.length" class="quiet none">No line is watched yet.</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="runs.failed" class="problem" role="alert">{{ runs.failed }}</p>
      <div class="foot">
        <v-btn :disabled="!runs.room || !folio.writable" @click="runs.add()">
          <AppIcon :path="mdiPlus" />Add a set
        </v-btn>
        <v-checkbox v-model="changes" label="Changes" />
        <v-btn variant="text" :disabled="!runs.account" @click="copy"
          ><AppIcon :path="mdiContentCopy" />Copy as CSV</v-btn
        >
        <v-btn variant="text" :disabled="!runs.account" @click="save"><AppIcon :path="mdiDownload" />Save as CSV</v-btn>
      </div>
      <p class="quiet">
        An empty cell keeps the folio’s value. Enter goes down; a block from a spreadsheet can be pasted.
        {{ runs.room ? '' : `There are ${RUN_SETS_MOST} sets: one more has no room.` }}
        <span role="status">{{ said }}</span>
      </p>
    </template>
  </section>
</template>

<style scoped>
.runs-pane {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 4px 4px 16px;
  overflow: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin-bottom: 8px;
}
h2 {
  margin: 0 auto 0 0;
  font-family: var(--serif);
  font-size: 20px;
}
.guide {
  max-width: 46ch;
}
.choices {
  display: flex;
  gap: 12px;
  margin: 12px 0;
}
.quiet {
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.book {
  container-type: inline-size;
  flex: none;
  max-height: 100%;
  overflow: auto;
  border-block: 1px solid var(--edge);
  background: var(--leaf);
  scroll-snap-type: x proximity;
  scroll-padding-left: 64px;
  scrollbar-width: thin;
}
table {
  min-width: 100%;
  border-collapse: separate;
  border-spacing: 0;
}
th,
td {
  min-width: 148px;
  padding: 2px 8px;
  border-bottom: 1px solid var(--rule);
  border-left: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  scroll-snap-align: start;
}
.head {
  position: sticky;
  left: 0;
  z-index: 2;
  width: 88px;
  min-width: 88px;
  max-width: 88px;
  padding-right: 0;
  border-left: 0;
  border-right: 3px double var(--brass);
  background: var(--rail);
}
thead th {
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--rail);
  border-bottom: 1px solid var(--edge);
}
thead .head {
  z-index: 4;
}
.varied tr:last-child > * {
  border-bottom: 3px double var(--brass);
}
.set {
  display: flex;
  align-items: center;
  gap: 2px;
}
.set-name {
  flex: 1;
  min-width: 0;
  width: 100%;
  padding: 4px 0;
  font-family: var(--serif);
  font-size: 14px;
  font-weight: 600;
  text-overflow: ellipsis;
}
.cell-field,
.set-name {
  border: 0;
  background: transparent;
  color: inherit;
}
.cell-field {
  width: 100%;
  min-height: 32px;
  font-family: var(--mono);
  font-size: 14px;
}
.cell-field::placeholder {
  color: var(--quiet);
  opacity: 1;
}
td.wrong {
  box-shadow: inset 0 -2px 0 var(--error);
}
td.wrong .cell-field {
  color: var(--error);
}
.none {
  padding: 8px;
}
.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-top: 12px;
}
.foot .v-checkbox {
  flex: none;
}
/* What has been reckoned for a while is of before. */
[aria-busy='true'] .watched td {
  color: var(--quiet);
  transition: color 0s 0.3s;
}
.problem {
  color: var(--error);
}
/* On a phone two sets at a time; the others are a swipe away. */
@container (max-width: 420px) {
  th:not(.head),
  td {
    min-width: calc((100cqw - 64px) / 2);
    max-width: calc((100cqw - 64px) / 2);
    padding-inline: 4px;
  }
  .head {
    width: 64px;
    min-width: 64px;
    max-width: 64px;
    padding-left: 4px;
  }
  td :deep(.value),
  .cell-field {
    font-size: 12.5px;
  }
}
</style>
