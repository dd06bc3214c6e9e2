<script setup lang="ts">
import {
  mdiBookOpenPageVariantOutline,
  mdiHistory,
  mdiMagnify,
  mdiRedo,
  mdiShoePrint,
  mdiSwapHorizontal,
  mdiUndo,
} from '@mdi/js'
import { useFolioActions } from '~/composables/folioActions'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

const folio = useFolioStore()
const desk = useDeskStore()
const { stroll } = useFolioActions()
</script>

<template>
  <header class="header">
    <NuxtLink to="/" class="home" aria-label="To the shelf" title="To the shelf"><AppMark :size="42" /></NuxtLink>
    <div class="titles">
      <FolioTitle />
      <SaveStatus />
    </div>
    <nav class="actions" aria-label="Folio">
      <v-btn
        data-tip="Undo (Ctrl+Z)"
        class="undo-button"
        variant="text"
        aria-label="Undo"
        :disabled="!folio.canUndo"
        @click="folio.undo()"
      >
        <AppIcon :path="mdiUndo" />
      </v-btn>
      <v-btn data-tip="Redo (Ctrl+Y)" variant="text" aria-label="Redo" :disabled="!folio.canRedo" @click="folio.redo()">
        <AppIcon :path="mdiRedo" />
      </v-btn>
      <v-btn data-tip="Find anything (F8)" variant="text" aria-label="Find" @click="desk.findOpen = true">
        <AppIcon :path="mdiMagnify" /><span class="wide-only">Find</span>
      </v-btn>
      <v-btn
        data-tip="Go through the folio line by line (Shift+F2)"
        class="wide-button"
        variant="text"
        :aria-pressed="desk.stroll !== null"
        @click="stroll"
      >
        <AppIcon :path="mdiShoePrint" /><span class="wide-only">Stroll</span>
      </v-btn>
      <v-btn
        data-tip="What was entered, and earlier states (Shift+F9)"
        class="wide-button"
        variant="text"
        :aria-pressed="desk.panel === 'journal'"
        @click="desk.toggle('journal')"
      >
        <AppIcon :path="mdiHistory" /><span class="wide-only">Journal</span>
      </v-btn>
      <v-btn
        data-tip="Functions and notation (F1)"
        class="wide-button"
        variant="text"
        :aria-pressed="desk.panel === 'handbook'"
        @click="desk.toggle('handbook')"
      >
        <AppIcon :path="mdiBookOpenPageVariantOutline" /><span class="wide-only">Handbook</span>
      </v-btn>
      <v-btn
        data-tip="Files in and out, and the sheet to hand in (Ctrl+F9)"
        class="wide-button"
        variant="text"
        :aria-pressed="desk.panel === 'exchange'"
        @click="desk.toggle('exchange')"
      >
        <AppIcon :path="mdiSwapHorizontal" /><span class="wide-only">Exchange</span>
      </v-btn>
      <ThemeButton />
    </nav>
  </header>
</template>

<style scoped>
.header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 6px 16px;
  min-height: 58px;
  border-bottom: 3px double var(--brass);
}
.home {
  display: grid;
  border-radius: 50%;
}
.titles {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: baseline;
  gap: 4px 14px;
  flex-wrap: wrap;
}
.actions {
  display: flex;
  gap: 4px;
}
@media (max-width: 899px) {
  .header {
    gap: 8px;
    min-height: 48px;
    padding: 0 8px;
  }
  .home :deep(svg) {
    width: 34px;
    height: 34px;
  }
  .titles {
    flex-direction: column;
    flex-wrap: nowrap;
    gap: 0;
    line-height: 1.15;
  }
  .titles :deep(.title) {
    max-width: 100%;
    font-size: 17px;
  }
  .titles :deep(.status) {
    font-size: 12.5px;
  }
  .actions .undo-button {
    display: none;
  }
  .actions {
    gap: 0;
  }
  .actions :deep(.wide-only),
  .wide-button {
    display: none;
  }
}
</style>
