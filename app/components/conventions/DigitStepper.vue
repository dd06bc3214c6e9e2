<script setup lang="ts">
import { DIGITS_MAX, DIGITS_MIN } from '#core/format/conventions'

defineProps<{ value: number }>()
const emit = defineEmits<{ choose: [value: number] }>()
</script>

<template>
  <div class="stepper" role="group" aria-label="Significant digits">
    <span class="caption" aria-hidden="true">Digits</span>
    <div class="frame">
      <v-btn
        variant="text"
        aria-label="Fewer digits"
        :disabled="value <= DIGITS_MIN"
        @click="emit('choose', value - 1)"
      >
        −
      </v-btn>
      <output :aria-label="`${value} significant digits`">{{ value }}</output>
      <v-btn variant="text" aria-label="More digits" :disabled="value >= DIGITS_MAX" @click="emit('choose', value + 1)">
        +
      </v-btn>
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
.v-btn.v-btn--variant-text {
  width: 26px;
  min-height: 28px;
  padding: 0;
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
