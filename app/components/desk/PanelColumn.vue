<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { useDeskStore, PANEL_NAMES } from '~/stores/desk'
import type { Panel } from '~/stores/desk'

/** The right column: the plates, and whatever is opened beside them as tabs. */
const desk = useDeskStore()
</script>

<template>
  <div class="column">
    <nav v-if="desk.opened.length > 0" class="tabs" aria-label="Beside the ledger">
      <v-tabs :model-value="desk.panel" @update:model-value="(tab) => desk.show(tab as Panel)">
        <v-tab v-for="tab in desk.tabs" :key="tab" :value="tab">{{ PANEL_NAMES[tab] }}</v-tab>
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
      <LazyTablePane v-if="desk.panel === 'table'" />
      <LazyGridPane v-if="desk.panel === 'grid'" />
      <LazyReductionPane v-if="desk.panel === 'bench'" />
      <LazyJournalPane v-if="desk.panel === 'journal'" />
      <LazyHandbookPane v-if="desk.panel === 'handbook'" />
      <LazyExchangePane v-if="desk.panel === 'exchange'" />
      <LazyImportPane v-if="desk.panel === 'import'" />
      <LazyComparePane v-if="desk.panel === 'compare'" />
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
.panel {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.panel > * {
  flex: 1;
  min-height: 0;
}
</style>
