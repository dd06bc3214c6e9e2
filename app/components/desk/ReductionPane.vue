<script setup lang="ts">
import { mdiDragHorizontalVariant } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import { fractionText } from '#core/format/full'
import { readRowOperation, rowOperationText } from '#core/format/rowOperation'
import type { ExactMatrix } from '#core/linear/exact'
import { entryOf, isEchelon } from '#core/linear/reduction'
import { exactEntry } from '#core/evaluate/exactEntry'
import { freeName } from '#core/notation/rename'
import type { BenchStart } from '#core/views/bench'
import { exactNumber } from '#core/values/make'
import { formatNumber } from '#core/format/number'
import { nameToLatex } from '#core/notation/latex'
import * as G from '#core/numbers/gaussian'
import { useReduction } from '~/composables/reduction'
import { keptNames } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** The reduction bench: a matrix reduced by row operations, one after another, every state kept and exact. */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()

const bench = useReduction()
const { steps, at, right, state, columns, pivots, factor, square, form, about, next, toTheEnd, canGoOn } = bench
const entry = ref('')
const why = ref('')
const missing = ref('')
/** Where the matrix comes from: of equations with the sought names over its columns. */
const origin = shallowRef<BenchStart | null>(null)
const heads = computed(() => origin.value?.heads ?? [])
const rounded = computed(() => new Set(at.value === 0 ? origin.value?.rounded.map(([r, c]) => `${r},${c}`) : []))
const anyRounded = computed(() => (origin.value?.rounded.length ?? 0) > 0)

const line = computed(() => (desk.benchLine === null ? null : folio.lineOf(desk.benchLine)))
const name = computed(() => {
  if (heads.value.length > 0) return 'The equations'
  return line.value ? (results.views.get(line.value.id)?.name ?? 'M') : 'M'
})
const letter = computed(() => folio.conventions.letter)

watch(
  () => [desk.benchLine, desk.benchMatrix] as const,
  async ([id, given]) => {
    bench.begin(null)
    missing.value = ''
    origin.value = null
    if (given) {
      bench.begin(given.matrix)
      right.value = given.right
    }
    if (id === null) return
    const found = await results.bench(id)
    if (desk.benchLine !== id) return
    missing.value = typeof found === 'string' ? found : ''
    origin.value = typeof found === 'string' ? null : found
    bench.begin(origin.value?.matrix ?? null)
    if (origin.value?.right) right.value = origin.value.right
  },
  { immediate: true },
)

const rightSides = computed(() =>
  Array.from({ length: state.value?.cols ?? 0 }, (_, k) => ({
    value: k,
    title: k === 0 ? 'none' : k === 1 ? 'last column' : `last ${k} columns`,
  })),
)
function byHand(): void {
  const operation = readRowOperation(entry.value, (text) => exactEntry(text, letter.value))
  why.value = ''
  if (!operation) why.value = 'Write a row operation such as r2 -> r2 - 3r1, r1 <-> r3 or r2 -> r2/2.'
  else if (!bench.perform(operation)) why.value = 'There is no such row, or the factor is 0.'
  else entry.value = ''
}

/** Longer fractions are shown as decimals; they are whole in what is under the hand. */
const LONGEST = 14
function whole(r: number, c: number): string {
  return state.value ? fractionText(entryOf(state.value, r, c), letter.value) : ''
}
function isLong(r: number, c: number): boolean {
  return whole(r, c).length > LONGEST
}
function text(r: number, c: number): string {
  if (!state.value || !isLong(r, c)) return whole(r, c)
  const entry = entryOf(state.value, r, c)
  return formatNumber(exactNumber(entry, !G.isReal(entry)), { ...folio.conventions, exact: 'decimal' })
}

// A row is dragged onto another: they change places.

const dragged = ref<number | null>(null)
const over = ref<number | null>(null)
function dropOn(row: number): void {
  if (dragged.value !== null && dragged.value !== row) bench.perform({ type: 'swap', a: dragged.value, b: row })
  dragged.value = null
  over.value = null
}

function literal(m: ExactMatrix): string {
  const rows = Array.from({ length: m.rows }, (_, r) =>
    Array.from({ length: m.cols }, (__, c) => fractionText(entryOf(m, r, c), letter.value)).join(', '),
  )
  return `[[${rows.join('], [')}]]`
}

/** The steps as a note below the line, the result under a name below that. */
function keepSteps(): void {
  const list = steps.value.slice(0, at.value).map((step, k) => `${k + 1}. ${rowOperationText(step, letter.value)}`)
  const note = [
    `### Reducing ${name.value}`,
    ...list,
    ...(form.value ? [form.value] : []),
    ...(about.value ? [about.value] : []),
  ].join('\n')
  folio.insertNoteBelow(line.value?.id ?? null, note)
}
function keepResult(): void {
  const m = state.value
  if (!m) return
  if (line.value) folio.makeCurrent(line.value.id)
  folio.insertBelow([
    `${freeName(keptNames(folio.lines), heads.value.length > 0 ? 'M_' : `${name.value}_`)} = ${literal(m)}`,
  ])
}
</script>

<template>
  <section class="bench" aria-label="Reduction bench">
    <p v-if="missing" class="quiet">{{ missing }}</p>
    <template v-else-if="state">
      <header>
        <h2>
          {{ name }}
          <span class="quiet">{{ at === 0 ? 'as it is' : `after ${at} ${at === 1 ? 'step' : 'steps'}` }}</span>
        </h2>
        <v-select v-model="right" label="right sides" :items="rightSides" />
      </header>
      <div class="scroller" tabindex="0" role="region" aria-label="The matrix as it is now">
        <table :aria-label="`Matrix of ${state.rows} rows and ${state.cols} columns`">
          <thead v-if="heads.length > 0">
            <tr>
              <td />
              <th v-for="head in heads" :key="head.name" scope="col" class="head">
                <ReadingMath :latex="nameToLatex(head.name)" /><template v-if="head.unit">
                  / <UnitText :unit="head.unit"
                /></template>
              </th>
              <th scope="col" class="head right">=</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in state.rows"
              :key="r"
              :class="{ over: over === r - 1 && dragged !== null && dragged !== r - 1 }"
              @dragover.prevent="over = r - 1"
              @drop.prevent="dropOn(r - 1)"
            >
              <th
                scope="row"
                draggable="true"
                title="Drag onto another row: they change places"
                @dragstart="dragged = r - 1"
                @dragend="dragged = null"
              >
                <AppIcon :path="mdiDragHorizontalVariant" />({{ r }})
              </th>
              <td
                v-for="c in state.cols"
                :key="c"
                :class="{ pivot: pivots.has(`${r - 1},${c - 1}`), right: right > 0 && c - 1 === columns }"
                :data-tip="isLong(r - 1, c - 1) ? whole(r - 1, c - 1) : undefined"
              >
                <span v-if="isLong(r - 1, c - 1) || rounded.has(`${r - 1},${c - 1}`)" class="quiet">≈ </span>
                <ValueText :text="text(r - 1, c - 1)" :letter="letter" />
                <span v-if="pivots.has(`${r - 1},${c - 1}`)" class="visually-hidden"> pivot</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="facts" role="status">
        <p v-if="form">{{ form }}</p>
        <p v-if="about">{{ about }}</p>
        <p v-if="anyRounded" class="quiet">
          Entries marked ≈ were rounded before they came here; the bench goes on with all their figures.
        </p>
        <p v-if="origin?.point" class="quiet">The equations at point {{ origin.point }} of the sweep.</p>
        <p v-if="square" class="quiet">
          The determinant has been multiplied by <ValueText :text="fractionText(factor, letter)" :letter="letter" /> so
          far.
        </p>
      </div>
      <form class="hand" @submit.prevent="byHand">
        <v-text-field
          v-model="entry"
          class="code"
          aria-label="Row operation"
          placeholder="r2 -> r2 - 3r1"
          autocomplete="off"
          spellcheck="false"
        />
        <v-btn type="submit" color="primary" variant="flat">Do it</v-btn>
      </form>
      <p class="why" role="alert">{{ why }}</p>
      <div class="buttons">
        <v-btn :disabled="!canGoOn" @click="next(true)">Next step</v-btn>
        <v-btn :disabled="isEchelon(state, columns)" @click="toTheEnd(false)"> To echelon form </v-btn>
        <v-btn :disabled="!canGoOn" @click="toTheEnd(true)"> To reduced form </v-btn>
        <v-btn :disabled="at === 0" @click="at -= 1">Step back</v-btn>
        <v-btn :disabled="at >= steps.length" @click="at += 1">Step on</v-btn>
      </div>
      <ol class="steps">
        <li>
          <v-btn variant="text" :aria-current="at === 0" @click="at = 0">as it is</v-btn>
        </li>
        <li v-for="(step, k) in steps" :key="k" :class="{ ahead: k >= at }">
          <v-btn variant="text" :aria-current="at === k + 1" @click="at = k + 1">
            {{ rowOperationText(step, letter) }}
          </v-btn>
        </li>
      </ol>
      <div v-if="folio.writable" class="buttons">
        <v-btn :disabled="at === 0" @click="keepSteps"> Put the steps into the folio </v-btn>
        <v-btn @click="keepResult">Keep this matrix under a name</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.bench {
  overflow: auto;
  padding: 4px 4px 24px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  margin-bottom: 8px;
  padding-top: 6px;
}
h2 {
  font-size: 18px;
  margin-right: auto;
}
.quiet {
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.v-select {
  flex: none;
  width: 170px;
}
.scroller {
  display: inline-block;
  max-width: 100%;
  overflow: auto;
}
table {
  border-collapse: collapse;
}
.head {
  padding: 4px 10px 8px;
  text-align: right;
  white-space: nowrap;
}
th {
  padding: 4px 12px 4px 0;
  font-family: var(--serif);
  font-weight: 500;
  color: var(--brass-text);
  white-space: nowrap;
  cursor: grab;
}
th .icon {
  vertical-align: -4px;
}
td {
  padding: 6px 12px;
  text-align: right;
  min-width: 44px;
}
td:nth-child(2) {
  border-left: 1.5px solid var(--ink);
}
td:last-child {
  border-right: 1.5px solid var(--ink);
}
td.right {
  border-left: 3px double var(--brass);
}
td.pivot {
  box-shadow: inset 0 0 0 1.5px var(--brass);
  border-radius: 4px;
}
tr.over {
  background: var(--select);
}
.facts p {
  margin: 4px 0;
}
.hand {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
.why {
  min-height: 1.4em;
  margin: 2px 0;
  font-size: 14px;
  color: var(--error);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.steps {
  margin: 12px 0;
  padding: 0;
  list-style: none;
  font-family: var(--mono);
  font-size: 14px;
  border-top: 1px solid var(--rule);
}
.steps li {
  border-bottom: 1px solid var(--rule);
}
.steps .v-btn {
  width: 100%;
  min-height: 28px;
  padding: 3px 8px;
  justify-content: start;
}
.steps .v-btn[aria-current='true'] {
  background: var(--select);
}
.steps .ahead {
  color: var(--quiet);
}
</style>
