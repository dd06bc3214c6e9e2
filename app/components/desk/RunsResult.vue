<script setup lang="ts">
import { computed } from 'vue'
import { readoutForms } from '#core/format/readout'
import type { WatchedCell } from '#core/views/runs'

/** What a watched line comes to under one set: both forms, and the change from what the folio has. */
const props = defineProps<{ cell: WatchedCell | null; letter: 'i' | 'j'; changes: boolean }>()
const forms = computed(() => (props.cell ? readoutForms(props.cell.readout) : []))
const change = computed(() => (props.cell && props.changes ? readoutForms(props.cell.difference) : []))
</script>

<template>
  <p v-if="cell?.problem" class="problem">{{ cell.problem }}</p>
  <template v-else>
    <div v-for="(form, k) in forms" :key="k" class="form"><ValueText :text="form" :letter="letter" /></div>
    <div v-if="change.length > 0" class="change">
      <span class="label">change</span>
      <div v-for="(form, k) in change" :key="k" class="form"><ValueText :text="form" :letter="letter" /></div>
    </div>
  </template>
</template>

<style scoped>
.form {
  padding: 3px 0;
  overflow-x: auto;
  scrollbar-width: thin;
}
.change {
  padding: 2px 0 4px;
  border-top: 1px dotted var(--edge);
  color: var(--quiet);
}
.label {
  font-family: var(--serif);
  font-style: italic;
  font-size: 12.5px;
}
.problem {
  margin: 4px 0;
  font-size: 13px;
  color: var(--error);
}
</style>
