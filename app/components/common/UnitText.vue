<script setup lang="ts">
import { spokenUnit } from '#core/units/spoken'

/** The unit behind a value, upright as units are set; said by its name. */
defineProps<{ unit: string | undefined }>()
</script>

<template>
  <span v-if="unit" class="unit"
    ><span aria-hidden="true">{{ unit }}</span
    ><span class="visually-hidden">{{ spokenUnit(unit) }}</span></span
  >
</template>

<style scoped>
.unit {
  font-family: var(--sans);
  font-size: 14px;
  white-space: nowrap;
  color: var(--brass-text);
}
</style>
