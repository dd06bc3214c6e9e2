<script setup lang="ts">
import { computed } from 'vue'
import { useLineActions } from '~/composables/lineActions'
import { useFolioStore } from '~/stores/folio'

/** What can be done to several selected lines together. */
const folio = useFolioStore()
const { actionsFor } = useLineActions()
const first = computed(() => folio.lines.find((l) => folio.selected.has(l.id))?.id ?? null)
const actions = computed(() => (first.value === null ? [] : actionsFor(first.value)))

async function copyTexts(): Promise<void> {
  const texts = folio.lines.filter((l) => folio.selected.has(l.id)).map((l) => l.source)
  await navigator.clipboard.writeText(texts.join('\n'))
  folio.tell(`Copied ${texts.length} lines.`)
}
</script>

<template>
  <div v-if="folio.selected.size > 0" class="selection" role="toolbar" aria-label="Selected lines">
    <span class="count" role="status"
      >{{ folio.selected.size === 1 ? '1 line' : `${folio.selected.size} lines` }} selected</span
    >
    <v-btn variant="text" @click="copyTexts">Copy their texts</v-btn>
    <v-btn
      v-for="action in actions"
      :key="action.label"
      :data-tip="action.key"
      variant="text"
      :class="{ danger: action.danger }"
      @click="action.run"
    >
      <AppIcon v-if="action.icon" :path="action.icon" />{{ action.label }}
    </v-btn>
    <v-btn data-tip="Esc" variant="text" @click="folio.clearSelection()">Select none</v-btn>
  </div>
</template>

<style scoped>
.selection {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 4px;
  padding: 6px 12px;
  background: var(--leaf);
  border-top: 3px double var(--brass);
  font-size: 14px;
}
.count {
  padding-right: 8px;
  font-family: var(--serif);
  font-weight: 600;
}
.danger {
  color: var(--error);
}
</style>
