<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDoorStore } from '~/stores/door'
import { countText, momentText } from '~/texts/moments'

/** Who is signed in, and signing out. */
const door = useDoorStore()
const all = ref(false)

const here = computed(() => {
  const since = Math.min(...(door.session?.here ?? []).map((one) => one.since))
  return Number.isFinite(since) ? `This browser is signed in since ${momentText(since)}.` : ''
})
const others = computed(() => {
  const list = door.session?.others ?? []
  if (list.length === 0) return 'Nobody else is.'
  const since = list.map((one) => momentText(one.since))
  const shown = since.slice(0, 4).join('; ')
  return `${countText(list.length, 'other browser is', 'other browsers are')}, since ${shown}${since.length > 4 ? '; …' : ''}.`
})
const several = computed(() => (door.session?.here.length ?? 0) > 1)

const unsent = computed(() => {
  const changes = door.unsent.reduce((sum, one) => sum + Math.max(one.changes, one.texts.length), 0)
  const numbers = door.unsent.reduce((sum, one) => sum + one.numbers, 0)
  const parts = [
    ...(changes > 0 ? [countText(changes, 'change')] : []),
    ...(numbers > 0 ? [countText(numbers, 'table of numbers', 'tables of numbers')] : []),
  ]
  return parts.length === 0 ? '' : `${parts.join(' and ')} in ${countText(door.unsent.length, 'folio')}`
})
</script>

<template>
  <SheetDialog v-model="door.asking" title="Sign out">
    <p>{{ here }} {{ others }}</p>
    <v-btn v-if="(door.session?.others.length ?? 0) > 0" class="others" @click="door.endOthers()">
      Sign the others out
    </v-btn>
    <p v-if="unsent !== ''" class="unsent" role="alert">
      Not on the server yet: {{ unsent }}. Signing out takes it away: open the folio first to have it sent, or save it
      as a file.
    </p>
    <p v-else>Everything is on the server. This browser keeps nothing of it afterwards.</p>
    <v-checkbox v-if="several" v-model="all" label="Every session of this browser" hide-details density="comfortable" />
    <p v-if="door.message !== ''" class="unsent" role="alert">{{ door.message }}</p>
    <template #answers>
      <v-btn @click="door.asking = false">Stay</v-btn>
      <v-btn v-if="unsent !== ''" @click="door.saveUnsent()">
        {{ door.offered ? 'Saved as a file' : 'Save it as a file' }}
      </v-btn>
      <v-btn color="primary" variant="flat" :disabled="door.busy" @click="door.signOut(all)">
        {{ unsent !== '' && !door.offered ? 'Sign out all the same' : 'Sign out' }}
      </v-btn>
    </template>
  </SheetDialog>
</template>

<style scoped>
.others {
  align-self: flex-start;
}
.unsent {
  color: var(--error);
}
</style>
