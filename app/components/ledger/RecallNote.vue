<script setup lang="ts">
import { useRecallStore } from '~/stores/recall'

/** Says that the line holds an earlier entry, and how to go on from there. */
const recall = useRecallStore()
</script>

<template>
  <span v-if="recall.active" class="recall" role="status">
    earlier entry {{ recall.at + 1 }} of {{ recall.count }} <span class="key">Ctrl+↑</span> older
    <span class="key">Ctrl+↓</span> newer
  </span>
</template>

<style scoped>
.recall {
  flex: none;
  margin-left: auto;
  font-size: 12.5px;
  color: var(--quiet);
}
</style>
