<script setup lang="ts">
import { mdiKeyboardOutline, mdiRedo, mdiUndo } from '@mdi/js'
import { ref } from 'vue'
import { useFolioStore } from '~/stores/folio'

const folio = useFolioStore()
const keysOpen = ref(false)
</script>

<template>
  <header class="header">
    <NuxtLink to="/" class="home" aria-label="To the shelf" title="To the shelf"><AppMark :size="42" /></NuxtLink>
    <div class="titles">
      <FolioTitle />
      <SaveStatus />
    </div>
    <nav class="actions" aria-label="Folio">
      <button
        type="button"
        class="plain-button"
        aria-label="Undo"
        title="Undo (Ctrl+Z)"
        :disabled="!folio.canUndo"
        @click="folio.undo()"
      >
        <AppIcon :path="mdiUndo" />
      </button>
      <button
        type="button"
        class="plain-button"
        aria-label="Redo"
        title="Redo (Ctrl+Y)"
        :disabled="!folio.canRedo"
        @click="folio.redo()"
      >
        <AppIcon :path="mdiRedo" />
      </button>
      <button type="button" class="plain-button" aria-label="Keys" @click="keysOpen = true">
        <AppIcon :path="mdiKeyboardOutline" /><span class="wide-only">Keys</span>
      </button>
      <ThemeButton />
    </nav>
    <KeysDialog v-model="keysOpen" />
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
    padding: 6px 8px;
  }
  .titles {
    flex-direction: column;
    gap: 0;
  }
  .titles :deep(.title) {
    max-width: 100%;
    font-size: 19px;
  }
  .actions {
    gap: 0;
  }
  .actions :deep(.wide-only) {
    display: none;
  }
}
</style>
