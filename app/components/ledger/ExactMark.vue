<script setup lang="ts">
import { computed } from 'vue'
import type { LineView } from '#core/views/lineView'

/** `=` where every digit of an exact value is on show, `≈` where it is not. */
const props = defineProps<{ view: LineView; digits: number }>()
const mark = computed(() => {
  const { exactness, fraction } = props.view
  switch (exactness) {
    case 'exact':
      return { sign: '=', tone: 'exact', explanation: 'Exact, and every digit is on show.' } as const
    case 'exact-rounded':
      return {
        sign: '≈',
        tone: 'exact',
        explanation: `Kept exactly${fraction ? ` as ${fraction}` : ''}; only what is shown is rounded to ${props.digits} digits.`,
      } as const
    case 'rounded':
      return {
        sign: '≈',
        tone: 'rounded',
        explanation: `Rounded: reckoned to about 16 digits, ${props.digits} of them shown.`,
      } as const
    default:
      return null
  }
})
</script>

<template>
  <MarkBadge v-if="mark" v-bind="mark" />
</template>
