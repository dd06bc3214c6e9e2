<script setup lang="ts">
import { computed } from 'vue'

/** The small round glyph that shows a value's direction. */
const props = defineProps<{ re: number; im: number; hue: number | null; size?: number }>()
const zero = computed(() => props.re === 0 && props.im === 0)
const degrees = computed(() => (-Math.atan2(props.im, props.re) * 180) / Math.PI)
const ticks = [0, 45, 90, 135, 180, 225, 270, 315]
</script>

<template>
  <svg class="dial" :width="size ?? 28" :height="size ?? 28" viewBox="0 0 28 28" aria-hidden="true">
    <circle cx="14" cy="14" r="12.6" class="face" />
    <path
      v-for="t in ticks"
      :key="t"
      :d="t % 90 === 0 ? 'M23.4 14h2.6' : 'M24.6 14h1.4'"
      class="tick"
      :transform="`rotate(${t} 14 14)`"
    />
    <g
      v-if="!zero"
      :transform="`rotate(${degrees} 14 14)`"
      :style="{ color: hue === null ? 'var(--teal)' : `var(--hue-${hue + 1})` }"
    >
      <path d="M14 14h6" class="needle" />
      <path d="M24 14l-5.4-2.7v5.4z" class="head" />
    </g>
    <circle cx="14" cy="14" r="1.6" class="hub" />
  </svg>
</template>

<style scoped>
.dial {
  contain: strict;
  display: block;
}
.face {
  fill: var(--leaf);
  stroke: var(--brass);
  stroke-width: 1;
}
.tick {
  stroke: var(--brass);
  stroke-width: 0.9;
}
.needle {
  stroke: currentcolor;
  stroke-width: 1.9;
}
.head {
  fill: currentcolor;
}
.hub {
  fill: var(--brass);
}
</style>
