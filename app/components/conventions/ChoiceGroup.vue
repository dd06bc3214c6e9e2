<script setup lang="ts" generic="T extends string">
import { useId } from 'vue'

/** A row of choices of which one is on: radio buttons, so arrow keys and screen readers know them. */
export interface Choice<V extends string> {
  readonly value: V
  readonly label: string
  readonly name: string
}
defineProps<{ label: string; group: string; choices: readonly Choice<T>[]; value: T | null }>()
const emit = defineEmits<{ choose: [value: T] }>()
const id = useId()
</script>

<template>
  <div class="choice-group">
    <span :id="`${id}-label`" class="label">{{ label }}</span>
    <v-radio-group
      inline
      class="frame"
      :aria-labelledby="`${id}-label`"
      :name="group"
      :model-value="value"
      @update:model-value="(chosen: T | null) => chosen !== null && emit('choose', chosen)"
    >
      <v-radio
        v-for="choice in choices"
        :key="choice.value"
        :data-tip="choice.name"
        :value="choice.value"
        :label="choice.label"
        :aria-label="choice.name"
      >
        <template v-if="$slots.mark" #label><slot name="mark" :choice="choice" /></template>
      </v-radio>
    </v-radio-group>
  </div>
</template>

<style scoped>
.choice-group {
  display: flex;
  align-items: center;
  gap: 6px;
}
.label {
  font-size: 12.5px;
  color: var(--quiet);
}
.frame {
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--leaf);
}
.frame :deep(.v-selection-control-group) {
  flex-wrap: nowrap;
  gap: 0;
  padding: 0;
}
.v-radio {
  position: relative;
  min-height: 28px;
  transition: background var(--fast);
}
.v-radio + .v-radio {
  border-left: 1px solid var(--rule);
}
.v-radio:hover:not(.v-selection-control--dirty) {
  background: color-mix(in srgb, var(--brass) 12%, transparent);
}
.v-radio.v-selection-control--dirty {
  background: var(--teal);
}
.v-radio :deep(.v-label) {
  padding: 0 7px;
  font-size: 13.5px;
  white-space: nowrap;
}
.v-radio.v-selection-control--dirty :deep(.v-label) {
  color: var(--on-teal);
  font-weight: 600;
}
/* The word itself is the choice: the round mark is not seen. */
.v-radio :deep(.v-selection-control__wrapper) {
  position: absolute;
  inset: 0;
  width: auto;
  height: auto;
  opacity: 0;
  pointer-events: none;
}
.v-radio.v-selection-control--focus-visible {
  outline: 2px solid var(--teal);
  outline-offset: 2px;
  z-index: 1;
}
</style>
