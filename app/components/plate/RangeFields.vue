<script setup lang="ts">
/** A range by number: from, to. The events say what was written; whoever asks decides whether it fits. */
defineProps<{ label: string; lead: string; low: string; high: string }>()
const emit = defineEmits<{ low: [event: Event]; high: [event: Event] }>()
</script>

<template>
  <div class="range">
    <span>{{ lead }}</span>
    <v-text-field
      inputmode="decimal"
      :aria-label="`${label} from`"
      :model-value="low"
      @change="(event: Event) => emit('low', event)"
    />
    <span>to</span>
    <v-text-field
      inputmode="decimal"
      :aria-label="`${label} to`"
      :model-value="high"
      @change="(event: Event) => emit('high', event)"
    />
  </div>
</template>
