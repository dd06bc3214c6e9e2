<script setup lang="ts">
import { computed } from 'vue'
import type { LineView } from '#core/views/lineView'
import { useLineActions } from '~/composables/lineActions'

/** What a line came to: a twin readout with its dial, one value across both columns, entries, or words. */
const props = defineProps<{
  view: LineView
  letter: 'i' | 'j'
  digits: number
  hue: number | null
  number: number
}>()
const { openGrid } = useLineActions()
const dial = computed(() => props.view.drawn?.entries[0] ?? null)
</script>

<template>
  <div class="result">
    <span v-if="view.readout.shape === 'twin' || view.readout.shape === 'single'" class="cell mark-cell">
      <ExactMark :view="view" :digits="digits" />
    </span>
    <template v-if="view.readout.shape === 'twin'">
      <span class="cell rectangular"
        ><span class="visually-hidden">Rectangular </span><ValueText :text="view.readout.rectangular" :letter="letter"
      /></span>
      <span class="cell polar"
        ><span
          ><span class="visually-hidden">Polar </span><ValueText :text="view.readout.polar" :letter="letter" /></span
        >{{ ' ' }}<UnitText :unit="view.readout.unit"
      /></span>
      <span class="cell dial-cell"><DialGlyph v-if="dial" :re="dial.re" :im="dial.im" :hue="hue" /></span>
    </template>
    <span v-else-if="view.readout.shape === 'single'" class="cell single">
      <ValueText :text="view.readout.text" :letter="letter" />{{ ' '
      }}<UnitText class="behind" :unit="view.readout.unit" />
      <span v-if="view.fraction" class="fraction">= <ValueText :text="view.fraction" :letter="letter" /></span>
    </span>
    <MatrixTable
      v-else-if="view.readout.shape === 'grid'"
      class="cell list-cell"
      :readout="view.readout"
      :letter="letter"
      :line="view.id"
      :number="number"
      :said="view.repeats"
      @grid="openGrid(view.id)"
    />
    <EntryList
      v-else-if="view.readout.shape === 'list'"
      class="cell list-cell"
      :readout="view.readout"
      :letter="letter"
      :said="view.repeats"
    />
    <SweepResult
      v-else-if="view.readout.shape === 'sweep'"
      class="cell list-cell"
      :view="view"
      :readout="view.readout"
      :letter="letter"
      :number="number"
      :hue="hue"
    />
    <div v-else-if="view.readout.shape === 'algebra'" class="cell list-cell algebra">
      <ReadingMath :latex="view.readout.latex" />
      <UnitText :unit="view.readout.unit" />
    </div>
    <span
      v-else-if="view.readout.shape === 'words'"
      class="cell words"
      :class="{ pass: view.pass === true, fail: view.pass === false }"
    >
      <span v-if="view.pass !== null" aria-hidden="true">{{ view.pass ? '✓' : '✗' }}</span>
      <span>{{ view.readout.text }}</span>
    </span>
  </div>
</template>

<style scoped>
.result {
  display: contents;
}
.cell {
  align-self: center;
  padding: 8px 12px 8px 4px;
  min-width: 0;
}
.mark-cell {
  padding: 8px 0 8px 6px;
}
.single {
  grid-column: 2 / -1;
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 4px 10px;
}
.behind {
  margin-left: -3px;
}
.polar {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 7px;
}
.words {
  grid-column: 1 / -1;
  display: flex;
  align-items: baseline;
  gap: 4px 8px;
  padding-left: 28px;
  font-size: 15px;
}
.list-cell {
  grid-column: 1 / -1;
}
.algebra {
  display: flex;
  align-items: center;
  gap: 8px;
  overflow: auto hidden;
  scrollbar-width: thin;
}
.fraction {
  font-size: 13px;
  color: var(--teal);
}
.pass {
  color: var(--pass);
  font-weight: 600;
}
.fail {
  color: var(--error);
  font-weight: 600;
}
.dial-cell {
  padding: 4px 8px 4px 0;
  justify-self: end;
}
</style>
