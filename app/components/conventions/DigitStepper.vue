<script setup lang="ts">
import { DIGITS_MAX, DIGITS_MIN } from '#core/format/conventions'

defineProps<{ value: number }>()
const emit = defineEmits<{ choose: [value: number] }>()
</script>

<template>
  <div class="stepper" role="group" aria-label="Significant digits">
    <span class="caption" aria-hidden="true">Digits</span>
    <div class="frame">
      <button
        type="button"
        aria-label="Fewer digits"
        :disabled="value <= DIGITS_MIN"
        @click="emit('choose', value - 1)"
      >
        −
      </button>
      <output :aria-label="`${value} significant digits`">{{ value }}</output>
      <button type="button" aria-label="More digits" :disabled="value >= DIGITS_MAX" @click="emit('choose', value + 1)">
        +
      </button>
    </div>
  </div>
</template>

<style scoped>
.stepper {
  display: flex;
  align-items: center;
  gap: 6px;
}
.caption {
  font-size: 12.5px;
  color: var(--quiet);
}
.frame {
  display: flex;
  align-items: stretch;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--leaf);
}
button {
  width: 26px;
  min-height: 28px;
}
button:hover:not(:disabled) {
  background: color-mix(in srgb, var(--brass) 14%, transparent);
}
button:disabled {
  color: var(--quiet);
  opacity: 0.5;
  cursor: default;
}
output {
  min-width: 26px;
  display: grid;
  place-items: center;
  font-weight: 600;
  font-family: var(--serif);
  font-variant-numeric: lining-nums tabular-nums;
  border-inline: 1px solid var(--rule);
}
</style>
