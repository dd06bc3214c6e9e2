<script setup lang="ts">
import { mdiArrowBottomRight } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import {
  begunName,
  cellsFromText,
  cellsToText,
  readGrid,
  resized,
  symmetricCells,
  transposedCells,
  writeGrid,
} from '#core/notation/grid'
import { parseLine } from '#core/notation/parser'
import { useDeskStore } from '~/stores/desk'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** A vector or matrix filled cell by cell; it is read from a line and written back into it. */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()
const MOST = 30

const cells = ref<string[][]>([['', ''], ['', '']]) // prettier-ignore
const name = ref<string | null>(null)
const remark = ref<string | null>(null)
/** The unit behind the brackets of the line. */
const unit = ref('')
const focus = ref({ r: 0, c: 0 })
const table = ref<HTMLElement | null>(null)
const said = ref('')

const rows = computed(() => cells.value.length)
const cols = computed(() => cells.value[0]?.length ?? 1)
const line = computed(() => (desk.gridLine === null ? null : folio.lineOf(desk.gridLine)))
const view = computed(() => (line.value ? (results.views.get(line.value.id) ?? null) : null))
const written = computed(() =>
  writeGrid({
    name: name.value,
    cells: cells.value,
    remark: remark.value,
    ...(unit.value ? { unit: unit.value } : {}),
  }),
)
const problem = computed(() => {
  const draft = results.draft?.id === line.value?.id ? results.draft : null
  return draft?.problem ?? (draft === null ? (view.value?.problem ?? null) : null)
})

/** Takes the cells from the line, unless they are what this pane has just written there. */
watch(
  () => [desk.gridLine, line.value?.source] as const,
  ([, source]) => {
    if (source === undefined || source === written.value.source) return
    const found = readGrid(parseLine(source))
    if (found) {
      cells.value = found.cells.map((row) => [...row])
      name.value = found.name
      remark.value = found.remark
      unit.value = found.unit ?? ''
    } else if (source.trim() === '' || begunName(source) !== null) {
      name.value = begunName(source)
      remark.value = null
      unit.value = ''
    }
  },
  { immediate: true },
)
watch(
  () => desk.gridLine,
  () => void nextTick(() => go(0, 0)),
  { immediate: true },
)

/** The cell that a problem of the line is about. */
function wrong(r: number, c: number): boolean {
  const found = problem.value
  const span = written.value.spans[r]?.[c]
  return found !== null && span !== undefined && found.at.from >= span.from && found.at.to <= span.to
}

function typed(r: number, c: number, text: string): void {
  const row = cells.value[r]
  if (!row) return
  row[c] = text
  if (line.value) void results.type(line.value.id, written.value.source)
}

/** Writes the grid into its line as one step. */
function keep(): void {
  if (line.value) folio.rewrite(line.value.id, written.value.source, 'grid')
}

function change(next: string[][]): void {
  cells.value = next
  keep()
}

function setSize(r: number, c: number): void {
  const clamp = (n: number): number => Math.max(1, Math.min(MOST, Math.round(n) || 1))
  const [height, width] = [clamp(r), clamp(c)]
  if (height !== rows.value || width !== cols.value) change(resized(cells.value, height, width))
}

async function go(r: number, c: number): Promise<void> {
  focus.value = { r: Math.max(0, Math.min(rows.value - 1, r)), c: Math.max(0, Math.min(cols.value - 1, c)) }
  await nextTick()
  const field = table.value?.querySelector<HTMLInputElement>(`[data-cell="${focus.value.r},${focus.value.c}"]`)
  field?.focus()
  field?.select()
}

function onKey(event: KeyboardEvent, r: number, c: number): void {
  const field = event.target
  if (!(field instanceof HTMLInputElement) || event.altKey || event.metaKey) return
  const atStart = field.selectionStart === 0 && (field.selectionEnd === 0 || field.selectionEnd === field.value.length)
  const atEnd =
    field.selectionEnd === field.value.length &&
    (field.selectionStart === field.value.length || field.selectionStart === 0)
  if (event.key === 'ArrowUp') void go(r - 1, c)
  else if (event.key === 'ArrowDown') void go(r + 1, c)
  else if (event.key === 'Enter') void (r + 1 < rows.value ? go(r + 1, c) : go(0, c + 1 < cols.value ? c + 1 : 0))
  else if (event.key === 'ArrowLeft' && atStart && c > 0) void go(r, c - 1)
  else if (event.key === 'ArrowRight' && atEnd && c + 1 < cols.value) void go(r, c + 1)
  else if (event.key === 'Escape') {
    keep()
    desk.hide('grid')
    if (line.value) folio.reveal(line.value.id)
  } else return
  event.preventDefault()
  event.stopPropagation()
}

function pasted(event: ClipboardEvent, r: number, c: number): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  const found = cellsFromText(text)
  if (found.length === 1 && (found[0]?.length ?? 0) <= 1) return
  event.preventDefault()
  const height = Math.min(MOST, Math.max(rows.value, r + found.length))
  const width = Math.min(MOST, Math.max(cols.value, c + Math.max(...found.map((row) => row.length))))
  const next = resized(cells.value, height, width)
  found.forEach((row, i) =>
    row.forEach((cell, j) => {
      const target = next[r + i]
      if (target && c + j < width) target[c + j] = cell
    }),
  )
  change(next)
}

async function copyAll(): Promise<void> {
  await navigator.clipboard.writeText(cellsToText(cells.value))
  said.value = 'Copied for a spreadsheet.'
}

const square = computed(() => rows.value === cols.value)
function fill(what: 'identity' | 'zeros' | 'transpose' | 'symmetric'): void {
  if (what === 'transpose') change(transposedCells(cells.value))
  else if (what === 'symmetric') change(symmetricCells(cells.value))
  else change(cells.value.map((row, r) => row.map((_, c) => (what === 'identity' && r === c ? '1' : '0'))))
}

// The corner is dragged to another size.

const CELL = { width: 112, height: 38 }
let from: { readonly x: number; readonly y: number; readonly rows: number; readonly cols: number } | null = null
function grab(event: PointerEvent): void {
  from = { x: event.clientX, y: event.clientY, rows: rows.value, cols: cols.value }
  if (event.currentTarget instanceof HTMLElement) event.currentTarget.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  if (!from) return
  const height = Math.max(1, Math.min(MOST, from.rows + Math.round((event.clientY - from.y) / CELL.height)))
  const width = Math.max(1, Math.min(MOST, from.cols + Math.round((event.clientX - from.x) / CELL.width)))
  if (height !== rows.value || width !== cols.value) cells.value = resized(cells.value, height, width)
}
function drop(): void {
  if (!from) return
  from = null
  keep()
}
</script>

<template>
  <section class="grid-pane" aria-label="Grid">
    <p v-if="!line" class="quiet">The line of this grid is gone.</p>
    <template v-else>
      <header>
        <h2>
          {{ name ?? 'Grid' }} <span class="quiet">in line {{ folio.indexOf(line.id) + 1 }}</span>
        </h2>
        <v-text-field
          label="rows"
          type="number"
          min="1"
          :max="MOST"
          :model-value="rows"
          @change="(e: Event) => setSize(Number(textIn(e)), cols)"
        />
        <v-text-field
          label="columns"
          type="number"
          min="1"
          :max="MOST"
          :model-value="cols"
          @change="(e: Event) => setSize(rows, Number(textIn(e)))"
        />
      </header>
      <div class="sheet-area">
        <table ref="table" :aria-label="`Grid of ${rows} rows and ${cols} columns`">
          <tbody>
            <tr v-for="(row, r) in cells" :key="r">
              <th scope="row">{{ r + 1 }}</th>
              <td v-for="(cell, c) in row" :key="c" :class="{ wrong: wrong(r, c) }">
                <input
                  type="text"
                  class="cell-field"
                  :data-cell="`${r},${c}`"
                  :value="cell"
                  :readonly="!folio.writable"
                  :aria-label="`Row ${r + 1}, column ${c + 1}`"
                  :aria-invalid="wrong(r, c)"
                  placeholder="0"
                  autocomplete="off"
                  spellcheck="false"
                  @input="(e) => typed(r, c, (e.target as HTMLInputElement).value)"
                  @focus="focus = { r, c }"
                  @change="keep"
                  @keydown="(e) => onKey(e, r, c)"
                  @paste="(e) => pasted(e, r, c)"
                />
              </td>
            </tr>
          </tbody>
        </table>
        <span class="corner" title="Drag to another size" @pointerdown="grab" @pointermove="drag" @pointerup="drop">
          <AppIcon :path="mdiArrowBottomRight" />
        </span>
      </div>
      <p class="problem" role="status">{{ problem?.message ?? '' }}</p>
      <div class="fills">
        <v-btn :disabled="!square" @click="fill('identity')">Identity</v-btn>
        <v-btn @click="fill('zeros')">Zeros</v-btn>
        <v-btn @click="fill('transpose')">Transpose</v-btn>
        <v-btn :disabled="!square" @click="fill('symmetric')">Symmetric</v-btn>
        <v-btn @click="copyAll">Copy for a spreadsheet</v-btn>
      </div>
      <p class="quiet">
        Each cell takes an entry: 3+4j, 5∠30°, 1/3, a kept name. Enter goes down, Tab on; a table can be pasted.
        <span role="status">{{ said }}</span>
      </p>
    </template>
  </section>
</template>

<style scoped>
.grid-pane {
  overflow: auto;
  padding: 4px 4px 24px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-bottom: 8px;
  padding-top: 6px;
}
h2 {
  font-size: 18px;
  margin-right: auto;
}
.v-text-field {
  flex: none;
  width: 92px;
}
.quiet {
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.sheet-area {
  position: relative;
  display: inline-block;
  max-width: 100%;
  overflow: auto;
  padding: 0 26px 26px 0;
}
table {
  border-collapse: collapse;
}
th {
  padding-right: 8px;
  font-family: var(--serif);
  font-weight: 400;
  font-size: 13px;
  color: var(--brass-text);
}
td {
  border: 1px solid var(--rule);
  padding: 0;
  background: var(--leaf);
}
.cell-field {
  width: 112px;
  height: 36px;
  padding: 4px 8px;
  border: 0;
  background: transparent;
  font-family: var(--mono);
  font-size: 14.5px;
  text-align: right;
}
.cell-field::placeholder {
  color: var(--quiet);
  opacity: 1;
}
.cell-field:focus-visible {
  outline-offset: -2px;
}
td.wrong {
  box-shadow: inset 0 -2px 0 var(--error);
}
td.wrong .cell-field {
  color: var(--error);
}
.corner {
  position: absolute;
  right: 2px;
  bottom: 2px;
  color: var(--brass-text);
  cursor: nwse-resize;
  touch-action: none;
}
.problem {
  min-height: 1.4em;
  margin: 4px 0;
  font-size: 14px;
  color: var(--error);
}
.fills {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
