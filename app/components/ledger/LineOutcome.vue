<script setup lang="ts">
import { mdiEyeOffOutline } from '@mdi/js'
import { computed } from 'vue'
import type { Line } from '#shared/folio'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/**
 * What a line came to, or that it is hidden. It watches its value by itself, so
 * that a value that changes under the hand draws this and not the whole row.
 */
const props = defineProps<{ line: Line; number: number; hue: number | null; failed: boolean; awaits: boolean }>()
const folio = useFolioStore()
const results = useResultsStore()
/** A line of words has nothing to wait for. */
const waits = computed(() => props.awaits && !props.line.note && props.line.source.trim() !== '')
const view = computed(() => results.views.get(props.line.id) ?? null)
</script>

<template>
  <span v-if="waits" class="waits" title="This line is still to be reckoned."
    ><span aria-hidden="true">…</span><span class="visually-hidden">still to be reckoned</span></span
  >
  <LineResult
    v-else-if="view && !failed && !line.hidden"
    :view="view"
    :number="number"
    :letter="folio.conventions.letter"
    :digits="folio.conventions.digits"
    :hue="hue"
  />
  <button
    v-else-if="line.hidden && view && view.readout.shape !== 'none' && !failed"
    type="button"
    class="hidden-result"
    tabindex="-1"
    @click="folio.toggle(line.id, 'hidden')"
  >
    <AppIcon :path="mdiEyeOffOutline" />hidden<span class="visually-hidden">: show the result</span>
  </button>
</template>

<style scoped>
.waits {
  padding: 8px 12px;
  color: var(--quiet);
}
.hidden-result {
  grid-column: 1 / -1;
  justify-self: start;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 4px 12px 4px 28px;
  font-size: 13.5px;
  color: var(--quiet);
}
</style>
