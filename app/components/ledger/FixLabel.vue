<script setup lang="ts">
import { computed } from 'vue'
import type { ProblemFix } from '#core/notation/problem'

/** What a correction writes, and how the line is read then. */
const props = defineProps<{ fix: ProblemFix }>()
/** Longest reading that is shown beside the text. */
const LONGEST = 120
const reading = computed(() => {
  const { reading = '' } = props.fix
  return reading.length <= LONGEST ? reading : ''
})
</script>

<template>
  <span class="label"
    ><span>{{ fix.label }}</span
    ><ReadingMath v-if="reading !== ''" class="reads" :latex="reading" aria-hidden="true"
  /></span>
</template>

<style scoped>
.label {
  display: inline-flex;
  align-items: baseline;
  gap: 10px;
}
.reads {
  padding-left: 10px;
  border-left: 1px solid currentcolor;
  color: var(--ink);
}
</style>
