<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { watch } from 'vue'
import { focusLeaf, focusLine } from '~/browser/regions'
import { useDeskStore, PANEL_NAMES } from '~/stores/desk'

/** The right column: the plates, and one loose leaf as a second tab. It has the focus as it is opened. */
const desk = useDeskStore()
watch(
  () => desk.asked,
  () => void focusLeaf(),
)
watch(
  () => desk.leaf,
  (leaf) => leaf === null && void focusLine(),
)

/** Escape gives the focus back to the line; the leaf stays. */
function toLine(event: KeyboardEvent): void {
  if (event.defaultPrevented) return
  desk.part = 'ledger'
  void focusLine()
}
</script>

<template>
  <div class="column">
    <nav v-if="desk.leaf" class="tabs" aria-label="Beside the ledger">
      <!-- The leaf's tab stays the same one while another leaf takes its place. -->
      <v-tabs
        :model-value="desk.panel === 'plates' ? 'plates' : 'leaf'"
        @update:model-value="(tab) => desk.show(tab === 'plates' || !desk.leaf ? 'plates' : desk.leaf)"
      >
        <v-tab value="plates">{{ PANEL_NAMES.plates }}</v-tab>
        <v-tab value="leaf">{{ PANEL_NAMES[desk.leaf] }}</v-tab>
      </v-tabs>
      <v-btn
        v-if="desk.panel !== 'plates'"
        data-tip="Close it: the plate comes back"
        variant="text"
        class="close"
        :aria-label="`Close the ${PANEL_NAMES[desk.panel].toLowerCase()}`"
        @click="desk.hide(desk.panel)"
      >
        <AppIcon :path="mdiClose" />
      </v-btn>
    </nav>
    <div class="panel">
      <PlatesPane v-show="desk.panel === 'plates'" />
      <div v-if="desk.panel !== 'plates'" class="leaf" @keydown.esc="toLine">
        <LazyTablePane v-if="desk.panel === 'table'" />
        <LazyGridPane v-if="desk.panel === 'grid'" />
        <LazyReductionPane v-if="desk.panel === 'bench'" />
        <LazyWorkingPane v-if="desk.panel === 'working'" />
        <LazyLeavesPane v-if="desk.panel === 'leaves'" />
        <LazyRunsPane v-if="desk.panel === 'runs'" />
        <LazyJournalPane v-if="desk.panel === 'journal'" />
        <LazyHandbookPane v-if="desk.panel === 'handbook'" />
        <LazyExchangePane v-if="desk.panel === 'exchange'" />
        <LazyImportPane v-if="desk.panel === 'import'" />
        <LazyComparePane v-if="desk.panel === 'compare'" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.column {
  height: 100%;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.tabs {
  display: flex;
  gap: 2px;
  margin-bottom: 8px;
  border-bottom: 1px solid var(--rule);
}
.tabs .v-tabs {
  flex: 1;
  min-width: 0;
}
/* In a narrow window the parts are chosen at the foot of the page. */
@media (max-width: 899px) {
  .tabs {
    justify-content: flex-end;
    margin: -8px 0 0;
    border-bottom: 0;
  }
  .tabs .v-tabs {
    display: none;
  }
}
.panel {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.leaf {
  display: flex;
  flex-direction: column;
}
.panel > *,
.leaf > * {
  flex: 1;
  min-height: 0;
}
</style>
