<script setup lang="ts" generic="T extends string">
/** A row of choices of which one is on, each with a word. */
defineProps<{ label: string; choices: readonly (readonly [value: T, word: string])[]; value: T }>()
const emit = defineEmits<{ choose: [value: T] }>()
</script>

<template>
  <v-radio-group
    inline
    :aria-label="label"
    :model-value="value"
    @update:model-value="(chosen: T | null) => chosen !== null && emit('choose', chosen)"
  >
    <v-radio v-for="[choice, word] in choices" :key="choice" :value="choice" :label="word" />
  </v-radio-group>
</template>
