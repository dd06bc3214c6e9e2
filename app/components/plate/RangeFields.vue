<script setup lang="ts">
/** A range by number: from, to. The events say what was written; whoever asks decides whether it fits. */
defineProps<{ label: string; lead: string; low: string; high: string }>()
const emit = defineEmits<{ low: [event: Event]; high: [event: Event] }>()
</script>

<template>
  <div class="range">
    <span>{{ lead }}</span>
    <input
      type="text"
      inputmode="decimal"
      :aria-label="`${label} from`"
      :value="low"
      @change="(event) => emit('low', event)"
    />
    <span>to</span>
    <input
      type="text"
      inputmode="decimal"
      :aria-label="`${label} to`"
      :value="high"
      @change="(event) => emit('high', event)"
    />
  </div>
</template>
