<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js'
import type { Line } from '#shared/folio'
import { useFolioStore } from '~/stores/folio'

/** Folds and unfolds what stands below a heading. */
defineProps<{ line: Line; number: number }>()
const folio = useFolioStore()
</script>

<template>
  <button
    type="button"
    class="fold-toggle"
    :aria-expanded="!line.folded"
    :aria-label="line.folded ? `Unfold what stands below line ${number}` : `Fold what stands below line ${number}`"
    tabindex="-1"
    @click="folio.toggle(line.id, 'folded')"
  >
    <AppIcon :path="line.folded ? mdiChevronRight : mdiChevronDown" />
  </button>
</template>

<style scoped>
.fold-toggle {
  align-self: flex-start;
  display: grid;
  place-items: center;
  width: 24px;
  min-height: 40px;
  margin-left: -6px;
  color: var(--brass-text);
}
</style>
