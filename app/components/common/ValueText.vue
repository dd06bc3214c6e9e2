<script setup lang="ts">
import { computed } from 'vue'
import { dressValue } from '~/texts/dress'

/** A value as the core formats it, in the dress of print: a true minus, powers of ten, the angle sign in brass. */
const props = defineProps<{ text: string; letter: 'i' | 'j' }>()
const pieces = computed(() => dressValue(props.text, props.letter))
</script>

<template>
  <span class="value"
    ><template v-for="(piece, k) in pieces" :key="k"
      ><span v-if="piece.kind === 'angle'" class="angle-mark">{{ piece.text }}</span
      ><i v-else-if="piece.kind === 'letter'">{{ piece.text }}</i
      ><sup v-else-if="piece.kind === 'power'">{{ piece.text }}</sup
      ><template v-else>{{ piece.text }}</template></template
    ></span
  >
</template>

<style scoped>
.value {
  font-family: var(--mono);
  font-size: 14px;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
sup {
  font-size: 0.72em;
  line-height: 0;
}
</style>
