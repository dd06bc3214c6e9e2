<script setup lang="ts">
import type { RunsRow } from '~/lines/sheetItems'

/** A row of the runs on the sheet: names of the columns, a varied line, or a watched one with the changes. */
defineProps<{ row: RunsRow; typed: boolean }>()
</script>

<template>
  <div class="run-row" :class="row.part">
    <span class="head">{{ row.head }}</span>
    <div v-for="(cell, k) in row.cells" :key="k" class="fit">
      <SheetResult :result="cell.result" :problem="cell.problem" :typed="typed" />
      <div v-if="cell.change.kind !== 'none'" class="change">
        <span class="word">change</span> <SheetResult :result="cell.change" :problem="null" :typed="typed" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.run-row {
  display: grid;
  grid-template-columns: 84px repeat(4, minmax(0, 1fr));
  font-size: 0.9em;
}
.run-row > * {
  min-width: 0;
  padding: 3px 6px;
  overflow: hidden;
  border-left: 1px solid #e4e4e4;
}
.head {
  border-left: 0;
  font-family: var(--mono);
  overflow-wrap: anywhere;
}
.fit {
  white-space: nowrap;
}
.varied :deep(.words),
.last-varied :deep(.words) {
  font-family: var(--mono);
}
.names {
  font-family: var(--serif);
  font-weight: 600;
  border-bottom: 1px solid #444;
}
.watched {
  border-bottom: 1px solid #e4e4e4;
}
.last-varied {
  border-bottom: 3px double #8c7a4e;
}
.change {
  margin-top: 2px;
  border-top: 1px dotted #999;
  font-size: 0.92em;
}
.word {
  font-style: italic;
}
</style>
