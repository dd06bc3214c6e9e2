<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, RequestError } from '~/keeping/api'
import { handOver, newTicket, presentAddress } from '~/keeping/handing'

/**
 * What stands at a port that the server had before: it hands over what this
 * browser could not send there, and goes on where the server is now.
 */
const route = useRoute()
const count = ref(0)
const failed = ref('')
useHead({ title: 'Handing over · Ornate Phasor' })

async function go(): Promise<void> {
  failed.value = ''
  try {
    const { port } = await api.version()
    const to = typeof route.query.to === 'string' ? route.query.to : '/'
    if (port === undefined) {
      await navigateTo('/')
      return
    }
    const ticket = newTicket()
    const handed = await handOver(ticket, (sent) => (count.value = sent))
    window.location.replace(presentAddress(window.location, port, to, handed > 0 ? ticket : null))
  } catch (error) {
    if (error instanceof RequestError && error.signedOut)
      await navigateTo(`/sign-in?to=${encodeURIComponent(route.fullPath)}`)
    failed.value = error instanceof Error ? error.message : 'It could not be handed over.'
  }
}
onMounted(() => void go())
</script>

<template>
  <DoorPage>
    <p role="status">
      The server is at another port now. What this browser could not send here is handed over{{
        count > 0 ? `: ${count}` : ''
      }}…
    </p>
    <template v-if="failed !== ''">
      <p class="failed" role="alert">{{ failed }} Nothing is lost: it is kept in this browser.</p>
      <v-btn color="primary" variant="flat" @click="go()">Try again</v-btn>
    </template>
  </DoorPage>
</template>

<style scoped>
p {
  margin: 16px 0;
}
.failed {
  color: var(--error);
}
</style>
