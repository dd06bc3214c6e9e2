<script setup lang="ts">
import { useFolioStore } from '~/stores/folio'

/** What lies beside a value of the plane that is pointed at: its name and both its forms; a note may follow. */
defineProps<{ name: string; hue: number; rectangular: string; polar: string; at: Readonly<Record<string, string>> }>()
const folio = useFolioStore()
</script>

<template>
  <div class="told sheet" :style="at" role="status">
    <strong :style="{ color: `var(--hue-${hue + 1})` }">{{ name }}</strong>
    <slot name="above" />
    <ValueText :text="rectangular" :letter="folio.conventions.letter" />
    <ValueText :text="polar" :letter="folio.conventions.letter" />
    <span v-if="$slots.default" class="told-note"><slot /></span>
  </div>
</template>

<style scoped>
.told {
  position: absolute;
  z-index: 2;
  display: flex;
  flex-direction: column;
  max-width: 280px;
  padding: 6px 10px;
  font-size: 14px;
  pointer-events: none;
}
.told strong {
  font-family: var(--serif);
  font-style: italic;
}
.told-note {
  font-size: 12.5px;
  color: var(--quiet);
}
</style>
