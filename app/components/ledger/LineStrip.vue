<script setup lang="ts">
import { computed } from 'vue'
import type { LineView, ShownProblem } from '#core/views/lineView'
import { usePreferencesStore } from '~/stores/preferences'

/** The strip under the line that is being typed: its reading, or what it waits for. */
const props = defineProps<{
  draft: LineView | null
  view: LineView | null
  waiting: ShownProblem | null
  /** The result that is shown is from before this edit. */
  stale: boolean
}>()
const preferences = usePreferencesStore()

/** The reading of what is typed; while that cannot be read, the last one that could. */
const reading = computed(() => {
  const of = (v: LineView | null): string => (v ? (preferences.grouping ? v.grouped : v.reading) : '')
  return of(props.draft) || of(props.view)
})
</script>

<template>
  <div class="strip-line">
    <span v-if="waiting" class="waiting">{{ waiting.message }}</span>
    <ReadingMath v-else-if="reading !== ''" :latex="reading" :class="{ stale }" />
    <span v-else class="waiting">The reading of the line appears here as you type.</span>
    <RecallNote />
    <span v-if="stale" class="stale-note">result from before this edit</span>
  </div>
</template>

<style scoped>
.strip-line {
  grid-column: 3 / -1;
  min-height: 42px;
  padding: 0 12px 4px 4px;
  display: flex;
  align-items: center;
  gap: 12px;
  overflow-x: auto;
  overflow-y: hidden;
}
.waiting {
  font-size: 14px;
  color: var(--quiet);
  font-style: italic;
}
.stale-note {
  margin-left: auto;
  flex: none;
  font-size: 12.5px;
  color: var(--quiet);
}
.reading.stale {
  color: var(--quiet);
}
</style>
