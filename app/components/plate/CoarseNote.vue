<script setup lang="ts">
import { computed } from 'vue'
import { refineRange } from '#core/notation/refine'
import { definedAbove } from '~/lines/nameIndex'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Says that a curve has too few points to be true, and writes its range finer where that is asked. */
const props = defineProps<{ along: string | null }>()
const folio = useFolioStore()
const results = useResultsStore()

const finer = computed(() => {
  const { along } = props
  const line =
    along === null ? undefined : folio.lines[definedAbove(folio.lines, results.views, along, folio.lines.length)]
  const source = line ? refineRange(line.source) : null
  return line && source ? { line, source } : null
})
function refine(): void {
  if (finer.value) folio.rewrite(finer.value.line.id, finer.value.source, 'finer step')
}
</script>

<template>
  <p class="coarse" role="status">
    These points lie too far apart for the curve to be true.
    <v-btn v-if="finer && folio.writable" variant="text" @click="refine">Take a finer step</v-btn>
  </p>
</template>

<style scoped>
.coarse {
  flex: none;
  margin: 6px 0 0;
  padding: 2px 8px;
  border-left: 3px solid var(--brass);
  background: color-mix(in srgb, var(--brass) 12%, var(--paper));
}
</style>
