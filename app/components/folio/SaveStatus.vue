<script setup lang="ts">
import { computed } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** Whether the work is saved, told truthfully. */
const folio = useFolioStore()

function clock(iso: string): string {
  const date = new Date(iso)
  if (iso === '' || Number.isNaN(date.getTime())) return ''
  const today = new Date().toDateString() === date.toDateString()
  const time = date.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
  return today ? time : `${date.toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}, ${time}`
}

const told = computed(() => {
  const state = folio.saveState
  switch (state?.kind) {
    case 'saved':
      return { text: `saved ${clock(state.at)}`.trim(), failed: false }
    case 'saving':
    case 'waiting':
      return { text: 'saving…', failed: false }
    case 'failed':
      return { text: 'not saved', failed: true }
    default:
      return { text: '', failed: false }
  }
})
const reason = computed(() => (folio.saveState?.kind === 'failed' ? folio.saveState.message : ''))
</script>

<template>
  <span class="status" :class="{ failed: told.failed }" role="status">
    {{ told.text }}<span v-if="reason" class="reason">: {{ reason }}</span>
  </span>
</template>

<style scoped>
.status {
  font-size: 14px;
  color: var(--quiet);
  min-width: 0;
}
.failed {
  color: var(--error);
}
@media (max-width: 899px) {
  .reason {
    display: block;
  }
}
</style>
