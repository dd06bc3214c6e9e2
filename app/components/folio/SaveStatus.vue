<script setup lang="ts">
import { computed } from 'vue'
import { useSaveFolio } from '~/composables/saveFolio'
import { useFolioStore } from '~/stores/folio'

/** Whether the work is saved, told truthfully. */
const folio = useFolioStore()
const save = useSaveFolio()

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
const remedy = computed(() => (folio.saveState?.kind === 'failed' ? folio.saveState.remedy : null))
</script>

<template>
  <span class="status" :class="{ failed: told.failed }" role="status">
    {{ told.text }}<span v-if="reason" class="reason">{{ reason }}</span>
    <NuxtLink v-if="remedy === 'sign in'" to="/sign-in" target="_blank" class="remedy">Sign in</NuxtLink>
    <v-btn v-else-if="remedy === 'file' || folio.wouldLose" variant="text" class="link remedy" @click="save()">
      Save as a file
    </v-btn>
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
.remedy,
.v-btn.remedy {
  margin-left: 8px;
  font-size: inherit;
  color: var(--teal);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.reason::before {
  content: ': ';
}
@media (max-width: 899px) {
  .reason {
    display: block;
  }
  .reason::before {
    content: none;
  }
}
</style>
