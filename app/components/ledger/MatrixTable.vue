<script setup lang="ts">
import { computed, ref } from 'vue'
import { alignColumn } from '#core/format/align'
import type { GridReadout } from '#core/format/readout'

/** A matrix with its columns aligned by their decimal points; a large one folds to its corner. */
const props = defineProps<{
  readout: GridReadout
  letter: 'i' | 'j'
  line: string
  number: number
  /** The reading says it already: only its polar form is shown, on request. */
  said: boolean
}>()
const emit = defineEmits<{ grid: [] }>()
const CORNER = 4
const open = ref(false)
const polar = ref(false)

const large = computed(() => props.readout.rows > CORNER || props.readout.cols > CORNER)
const folded = computed(() => large.value && !open.value)
const shownRows = computed(() => (folded.value ? Math.min(CORNER, props.readout.shownRows) : props.readout.shownRows))
const shownCols = computed(() => (folded.value ? Math.min(CORNER, props.readout.shownCols) : props.readout.shownCols))
const cells = computed(() => (polar.value && props.readout.polar ? props.readout.polar : props.readout.cells))
/** By columns, aligned. */
const columns = computed(() =>
  Array.from({ length: shownCols.value }, (_, c) =>
    alignColumn(Array.from({ length: shownRows.value }, (__, r) => cells.value[r * props.readout.shownCols + c] ?? '')),
  ),
)
const cut = computed(() => ({
  rows: props.readout.rows - shownRows.value,
  cols: props.readout.cols - shownCols.value,
}))
const shape = computed(() => `${props.readout.rows} × ${props.readout.cols}`)
</script>

<template>
  <div class="matrix">
    <div
      v-if="!said || polar"
      class="scroller"
      tabindex="-1"
      role="region"
      :aria-label="`Matrix ${shape}, line ${number}`"
    >
      <table :aria-label="`Matrix of ${readout.rows} rows and ${readout.cols} columns`">
        <tbody>
          <tr v-for="r in shownRows" :key="r">
            <td v-for="(column, c) in columns" :key="c">
              <span class="value-cell"><ValueText :text="column[r - 1] ?? ''" :letter="letter" /></span>
            </td>
            <td v-if="cut.cols > 0" class="more" aria-hidden="true">…</td>
          </tr>
          <tr v-if="cut.rows > 0" aria-hidden="true">
            <td v-for="(_, c) in columns" :key="c" class="more">⋮</td>
            <td v-if="cut.cols > 0" class="more">⋱</td>
          </tr>
        </tbody>
      </table>
    </div>
    <UnitText v-if="!said || polar" :unit="readout.unit" />
    <p class="tools">
      <span class="shape">{{ shape }}</span>
      <button v-if="large && (!said || polar)" type="button" tabindex="-1" :aria-expanded="open" @click="open = !open">
        {{ open ? 'fold to the corner' : 'show it' }}
      </button>
      <button v-if="readout.polar" type="button" tabindex="-1" :aria-pressed="polar" @click="polar = !polar">
        {{ polar ? 'rectangular' : 'polar' }}
      </button>
      <button type="button" tabindex="-1" @click="emit('grid')">grid</button>
    </p>
  </div>
</template>

<style scoped>
.matrix {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 6px 12px 6px 28px;
  min-width: 0;
}
.scroller {
  display: inline-block;
  max-width: 100%;
  max-height: 320px;
  overflow: auto;
  scrollbar-width: thin;
  border-inline: 1.5px solid var(--ink);
  border-radius: 7px;
}
table {
  border-collapse: collapse;
}
td {
  padding: 2px 10px;
  text-align: right;
}
.value-cell :deep(.value) {
  white-space: pre;
}
.more {
  color: var(--quiet);
  text-align: center;
}
.tools {
  display: flex;
  gap: 12px;
  margin: 0;
  font-size: 13.5px;
  color: var(--quiet);
}
.tools button {
  text-decoration: underline;
  text-underline-offset: 3px;
  color: var(--quiet);
}
.tools button:hover {
  color: var(--ink);
}
.shape {
  font-family: var(--serif);
  color: var(--brass-text);
}
</style>
