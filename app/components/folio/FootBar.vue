<script setup lang="ts">
import { mdiBookOutline, mdiFormatListNumbered, mdiNotebookOutline, mdiSortAlphabeticalAscending, mdiUndo, mdiVectorLine } from '@mdi/js' // prettier-ignore
import { computed } from 'vue'
import { PANEL_NAMES, useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** In a narrow window the parts of the folio are chosen at its foot, where the thumb is; beside them the last step back. */
const desk = useDeskStore()
const folio = useFolioStore()

type View = 'ledger' | 'plates' | 'leaf' | 'index'
const view = computed<View>(() => (desk.part === 'plates' && desk.panel !== 'plates' ? 'leaf' : desk.part))
const leafName = computed(() => (desk.leaf && desk.leaf !== 'leaves' ? PANEL_NAMES[desk.leaf] : 'Leaf'))

function go(to: View): void {
  if (to === 'leaf') {
    // A leaf that is there already makes way for the choice of all.
    desk.show(view.value === 'leaf' ? 'leaves' : (desk.leaf ?? 'leaves'))
  } else if (to === 'plates') desk.show('plates')
  else desk.part = to
}
const VIEWS = [
  { view: 'ledger', icon: mdiFormatListNumbered },
  { view: 'plates', icon: mdiVectorLine },
  { view: 'leaf', icon: mdiNotebookOutline },
  { view: 'index', icon: mdiSortAlphabeticalAscending },
] as const
const wordOf = (of: View): string => (of === 'leaf' ? leafName.value : { ledger: 'Ledger', plates: 'Plates', index: 'Index' }[of]) // prettier-ignore
</script>

<template>
  <nav class="foot-bar" aria-label="Part of the folio">
    <v-tabs :model-value="view" grow>
      <v-tab v-for="one in VIEWS" :key="one.view" :value="one.view" @click="go(one.view)">
        <span class="sign"><AppIcon :path="one.view === 'leaf' && view === 'leaf' ? mdiBookOutline : one.icon" /></span>
        <span class="word">{{ wordOf(one.view) }}</span>
      </v-tab>
    </v-tabs>
    <v-btn variant="text" class="undo" aria-label="Undo" :disabled="!folio.canUndo" @click="folio.undo()">
      <span class="sign"><AppIcon :path="mdiUndo" /></span><span class="word">Undo</span>
    </v-btn>
  </nav>
</template>

<style scoped>
.foot-bar {
  display: none;
}
@media (max-width: 899px) {
  .foot-bar {
    flex: none;
    display: flex;
    height: var(--foot);
    padding-bottom: env(safe-area-inset-bottom);
    background: var(--rail);
    border-top: 3px double var(--brass);
  }
  .foot-bar .v-tabs {
    flex: 4;
    min-width: 0;
    height: 53px;
  }
  .foot-bar .v-btn {
    height: 53px;
    min-width: 0;
    padding: 2px;
    border-radius: 0;
    font-size: 12.5px;
  }
  .undo {
    flex: 1;
  }
  .foot-bar :deep(.v-btn__content) {
    display: flex;
    flex-direction: column;
    gap: 1px;
    min-width: 0;
    max-width: 100%;
  }
  .word {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
</style>
