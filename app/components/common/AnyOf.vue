<script setup lang="ts" generic="T extends string">
/** A row of boxes, each ticked by itself, each with a word. */
defineProps<{ choices: readonly (readonly [choice: T, word: string])[]; isOn: (choice: T) => boolean }>()
const emit = defineEmits<{ tick: [choice: T, on: boolean] }>()
</script>

<template>
  <v-checkbox
    v-for="[choice, word] in choices"
    :key="choice"
    :label="word"
    :model-value="isOn(choice)"
    @update:model-value="(on) => emit('tick', choice, on === true)"
  />
</template>
