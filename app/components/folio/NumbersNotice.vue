<script setup lang="ts">
import { computed, ref } from 'vue'
import { onTheirWay, sendAgain, stopSending } from '~/keeping/blocks'
import type { OnTheirWay } from '~/keeping/blocks'
import { useSaveFolio } from '~/composables/saveFolio'
import { useFolioStore } from '~/stores/folio'

/** Measured numbers on their way to the server: how far they are, and whether this browser keeps them meanwhile. */
const folio = useFolioStore()
const save = useSaveFolio()
const problem = ref('')

/** What is sent in a moment need not be told. */
const TOLD_FROM = 1024 * 1024
const told = computed(() =>
  onTheirWay.value.filter(
    (one) => one.folio === folio.id && (one.state !== 'sending' || !one.kept || one.of >= TOLD_FROM),
  ),
)

function sentence(one: OnTheirWay): string {
  const what = `The numbers of “${one.name}”`
  const percent = one.of > 0 ? Math.floor((100 * one.sent) / one.of) : 0
  const how = {
    sending: `are being sent: ${percent} %.`,
    stopped: 'are not on the server; sending was stopped.',
    failed: `are not on the server. ${one.message}`,
  }[one.state]
  const lost = 'This browser does not keep them (its storage is full or refused): they are lost when this page closes.'
  const kept = one.state === 'sending' ? '' : 'They are kept in this browser.'
  return [what, how, one.kept ? kept : lost, problem.value].filter((part) => part !== '').join(' ')
}

async function saveFile(): Promise<void> {
  problem.value = (await save()) ? '' : 'The numbers could not be put into the file.'
}
</script>

<template>
  <p v-for="one in told" :key="one.block" class="notice numbers" :role="one.kept ? 'status' : 'alert'">
    {{ sentence(one) }}
    <v-btn v-if="one.state === 'sending'" variant="text" @click="stopSending(one)">Stop</v-btn>
    <v-btn v-else variant="text" @click="sendAgain(one)">Send</v-btn>
    <v-btn v-if="!one.kept" variant="text" @click="saveFile">Save the folio as a file</v-btn>
    <v-progress-linear
      v-if="one.state === 'sending' && one.of > 0"
      :model-value="(100 * one.sent) / one.of"
      :aria-label="`Sending the numbers of ${one.name}`"
      color="primary"
      height="3"
    />
  </p>
</template>
