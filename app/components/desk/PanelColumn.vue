<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { useDeskStore, PANEL_NAMES } from '~/stores/desk'

/** The right column: the plates, and whatever is opened beside them as tabs. */
const desk = useDeskStore()
</script>

<template>
  <div class="column">
    <nav v-if="desk.opened.length > 0" class="tabs" aria-label="Beside the ledger">
      <span v-for="tab in desk.tabs" :key="tab" class="tab" :class="{ on: desk.panel === tab }">
        <button type="button" :aria-pressed="desk.panel === tab" @click="desk.show(tab)">
          {{ PANEL_NAMES[tab] }}
        </button>
        <button
          v-if="tab !== 'plates'"
          type="button"
          class="close"
          :aria-label="`Close the ${PANEL_NAMES[tab].toLowerCase()}`"
          @click="desk.hide(tab)"
        >
          <AppIcon :path="mdiClose" />
        </button>
      </span>
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
.tab {
  display: flex;
  align-items: center;
  border: 1px solid transparent;
  border-bottom: 0;
  border-radius: var(--corner) var(--corner) 0 0;
  color: var(--quiet);
}
.tab.on {
  color: var(--ink);
  background: var(--leaf);
  border-color: var(--rule);
  box-shadow: inset 0 3px 0 -1px var(--brass);
}
.tab > button:first-child {
  padding: 6px 12px;
  font-family: var(--serif);
  font-size: 15px;
  min-height: 34px;
}
.close {
  padding: 4px 8px 4px 0;
  color: var(--quiet);
}
.close:hover {
  color: var(--ink);
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
