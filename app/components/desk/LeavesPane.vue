<script setup lang="ts">
import { mdiBookOpenPageVariantOutline, mdiHistory, mdiKeyboardOutline, mdiPrinter, mdiShoePrint, mdiStairsUp, mdiSwapHorizontal, mdiTableColumn } from '@mdi/js' // prettier-ignore
import { useFolioActions } from '~/composables/folioActions'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** What can lie beside the plates, to choose from: in a narrow window there is no room for it in the header. */
const desk = useDeskStore()
const folio = useFolioStore()
const { stroll, showWorking } = useFolioActions()

const LEAVES = [
  { title: 'Runs', icon: mdiTableColumn, words: 'the folio with other values, side by side', run: () => desk.show('runs') },
  { title: 'Working', icon: mdiStairsUp, words: 'how the value of the line comes about', run: showWorking },
  { title: 'Journal', icon: mdiHistory, words: 'what was entered, and earlier states', run: () => desk.show('journal') },
  { title: 'Handbook', icon: mdiBookOpenPageVariantOutline, words: 'functions and notation, with examples that run', run: () => desk.show('handbook') },
  { title: 'Exchange', icon: mdiSwapHorizontal, words: 'files in and out', run: () => desk.show('exchange') },
  { title: 'The sheet', icon: mdiPrinter, words: 'the folio as it is handed in', run: openSheet },
  { title: 'Stroll', icon: mdiShoePrint, words: 'through the folio line by line', run: begin },
  { title: 'Keys', icon: mdiKeyboardOutline, words: 'all of them', run: () => (desk.keysOpen = true) },
] as const // prettier-ignore

function openSheet(): void {
  folio.keep()
  desk.sheetOpen = true
}
function begin(): void {
  desk.hide('leaves')
  stroll()
}
</script>

<template>
  <section class="leaves" aria-label="Leaves">
    <h2>Beside the ledger</h2>
    <v-list>
      <v-list-item
        v-for="leaf in LEAVES"
        :key="leaf.title"
        :title="leaf.title"
        :subtitle="leaf.words"
        @click="leaf.run"
      >
        <template #prepend><AppIcon :path="leaf.icon" /></template>
      </v-list-item>
    </v-list>
  </section>
</template>

<style scoped>
h2 {
  margin: 4px 0 8px;
  font-family: var(--serif);
  font-size: 20px;
}
.leaves {
  overflow: auto;
}
</style>
