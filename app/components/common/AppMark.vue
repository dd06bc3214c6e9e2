<script setup lang="ts">
/** The compass rose whose needle is a brass phasor. */
defineProps<{ size?: number }>()
const ticks = Array.from({ length: 24 }, (_, k) => k * 15)
</script>

<template>
  <svg class="mark" :width="size ?? 40" :height="size ?? 40" viewBox="0 0 48 48" aria-hidden="true">
    <circle cx="24" cy="24" r="22.6" class="ground" />
    <circle cx="24" cy="24" r="22.6" class="ring" />
    <circle cx="24" cy="24" r="18.2" class="ring thin" />
    <path
      v-for="t in ticks"
      :key="t"
      :d="t % 45 === 0 ? 'M24 1.6v4.2' : 'M24 3.6v2.2'"
      class="ring thin"
      :transform="`rotate(${t} 24 24)`"
    />
    <path class="rose" d="M24 8.5l3 12.5 12.5 3-12.5 3-3 12.5-3-12.5-12.5-3 12.5-3z" />
    <path class="rose faint" d="M24 15l2 7 7-7-7 7 7 2-7 2 7 7-7-7-2 7-2-7-7 7 7-7-7-2 7-2-7-7 7 7z" />
    <path class="needle" d="M18 30L34.5 13.5" />
    <path class="head" d="M38 10l-2.2 6.4-4.2-4.2z" />
    <circle cx="24" cy="24" r="2.3" class="hub" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
}
.ground {
  fill: var(--leaf);
}
.ring {
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.3;
}
.thin {
  stroke-width: 0.7;
}
.rose {
  fill: var(--teal);
}
.faint {
  opacity: 0.55;
}
.needle {
  stroke: var(--brass);
  stroke-width: 2.2;
  stroke-linecap: round;
}
.head {
  fill: var(--brass);
}
.hub {
  fill: var(--leaf);
  stroke: var(--brass);
  stroke-width: 1.2;
}
</style>
