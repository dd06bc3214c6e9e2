<script setup lang="ts">
/** An icon as an SVG path; always beside a text or a label that says the same. */
defineProps<{ path: string }>()
</script>

<template>
  <svg class="icon" viewBox="0 0 24 24" aria-hidden="true"><path :d="path" /></svg>
</template>
