<script setup lang="ts">
import { computed } from 'vue'
import type { LineView } from '#core/format/lineView'

/** Says whether the digits on show are the whole truth. */
const props = defineProps<{ view: LineView }>()
const mark = computed(() => {
  const { exactness, fraction } = props.view
  if (exactness === 'exact') return { text: 'exact', title: 'Every digit of this value is on show.' }
  if (exactness === 'exact-rounded') {
    return {
      text: fraction ? `= ${fraction}` : 'exact, shown rounded',
      title: 'The value is kept exactly; only what is shown is rounded.',
    }
  }
  return null
})
</script>

<template>
  <span v-if="mark" class="exact" :title="mark.title">{{ mark.text }}</span>
</template>

<style scoped>
.exact {
  font-size: 12.5px;
  color: var(--teal);
  white-space: nowrap;
}
</style>
