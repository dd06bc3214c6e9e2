<script setup lang="ts">
import { computed } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** What could not be saved: it is never dropped, but set aside, said, and can be copied out or put in again. */
const folio = useFolioStore()
const texts = computed(() => folio.aside.flatMap((a) => a.texts))
const why = computed(() => folio.aside.find((a) => a.why !== '')?.why ?? '')
const count = computed(() => Math.max(folio.aside.length, texts.value.length))

async function copy(): Promise<void> {
  const raw = folio.aside.map((a) => JSON.stringify(a.raw))
  await navigator.clipboard.writeText((texts.value.length > 0 ? texts.value : raw).join('\n'))
  folio.tell('Copied.')
}
</script>

<template>
  <p v-if="folio.aside.length > 0" class="aside" role="alert">
    {{ count === 1 ? 'One change' : `${count} changes` }} could not be saved and {{ count === 1 ? 'is' : 'are' }} set
    aside in this browser. {{ why }}
    <v-btn variant="text" @click="copy">Copy {{ count === 1 ? 'it' : 'them' }}</v-btn>
    <v-btn v-if="texts.length > 0 && folio.writable" variant="text" @click="folio.putAsideBack()">
      Put in again as {{ texts.length === 1 ? 'a note' : 'notes' }}
    </v-btn>
    <v-btn variant="text" @click="folio.dismissAside()">Give up</v-btn>
  </p>
</template>

<style scoped>
.aside {
  margin: 0;
  padding: 4px 16px;
  color: var(--error);
  border-bottom: 1px solid var(--rule);
  background: color-mix(in srgb, var(--error) 8%, var(--paper));
}
</style>
