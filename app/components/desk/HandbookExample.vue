<script setup lang="ts">
import type { Example } from '#core/signatures/definition'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** An example of the handbook: its lines, what it gives, and a button that puts it into the ledger. */
defineProps<{
  example: Example
  words: string
  /** What the button does; empty where another one does it, too. */
  label: string
}>()
const emit = defineEmits<{ put: [] }>()
const folio = useFolioStore()
const desk = useDeskStore()
</script>

<template>
  <div class="example">
    <code v-for="line in example.before ?? []" :key="line">{{ line }}</code>
    <code>{{ example.entry }}</code>
    <span v-if="example.gives !== ''" class="gives"><ValueText :text="example.gives" letter="j" /></span>
    <v-btn
      variant="text"
      class="link worked"
      :aria-label="`Show the working of ${example.entry}`"
      @click="desk.openWorking(example)"
    >
      Working
    </v-btn>
    <v-btn
      v-if="label !== ''"
      variant="text"
      class="link try"
      :disabled="!folio.writable"
      :aria-label="label"
      @click="emit('put')"
    >
      {{ words }}
    </v-btn>
  </div>
</template>

<style scoped>
.example {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  padding: 1px 0;
}
code {
  font-family: var(--mono);
  background: var(--rail);
  padding: 1px 6px;
  border-radius: var(--corner);
}
.gives::before {
  content: '= ';
  color: var(--quiet);
}
.v-btn.worked {
  margin-left: auto;
  font-size: 13.5px;
  color: var(--teal);
}
.v-btn.try {
  font-size: 13.5px;
  color: var(--teal);
}
</style>
