<script setup lang="ts" generic="T extends string">
/** A row of choices of which one is on: radio buttons, so arrow keys and screen readers know them. */
export interface Choice<V extends string> {
  readonly value: V
  readonly label: string
  readonly name: string
}
defineProps<{ label: string; group: string; choices: readonly Choice<T>[]; value: T }>()
const emit = defineEmits<{ choose: [value: T] }>()
</script>

<template>
  <fieldset class="choice-group">
    <legend>{{ label }}</legend>
    <div class="frame">
      <label v-for="choice in choices" :key="choice.value" :class="{ on: choice.value === value }" :title="choice.name">
        <input
          type="radio"
          class="visually-hidden"
          :name="group"
          :value="choice.value"
          :checked="choice.value === value"
          :aria-label="choice.name"
          @change="emit('choose', choice.value)"
        />
        <span aria-hidden="true">{{ choice.label }}</span>
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
.choice-group {
  display: flex;
  align-items: center;
  gap: 6px;
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  float: left;
  padding: 0;
  font-size: 12.5px;
  color: var(--quiet);
}
.frame {
  display: flex;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--leaf);
}
label {
  position: relative;
  display: flex;
  align-items: center;
  min-height: 28px;
  padding: 0 7px;
  font-size: 13.5px;
  cursor: pointer;
  white-space: nowrap;
  transition: background var(--fast);
}
label + label {
  border-left: 1px solid var(--rule);
}
label:hover:not(.on) {
  background: color-mix(in srgb, var(--brass) 12%, transparent);
}
label.on {
  background: var(--teal);
  color: var(--on-teal);
  font-weight: 600;
}
label:focus-within {
  outline: 2px solid var(--teal);
  outline-offset: 2px;
  z-index: 1;
}
</style>
