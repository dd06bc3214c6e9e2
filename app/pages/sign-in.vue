<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api } from '~/keeping/api'

/** The door of a server that others on the network can reach: one passphrase. */
const route = useRoute()
const passphrase = ref('')
const said = ref('')
const busy = ref(false)
useHead({ title: 'Sign in · Ornate Phasor' })

/** Only pages of our own are gone to afterwards. */
function goal(): string {
  const to = typeof route.query.to === 'string' ? route.query.to : '/'
  return /^\/(?!\/|\\)/.test(to) ? to : '/'
}

onMounted(async () => {
  const session = await api.session().catch(() => null)
  if (session?.signedIn) await navigateTo(goal())
})

async function signIn(): Promise<void> {
  busy.value = true
  said.value = ''
  try {
    await api.signIn(passphrase.value)
    await navigateTo(goal())
  } catch (error) {
    said.value = error instanceof Error ? error.message : 'That did not work.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DoorPage>
    <p>This shelf is kept on another machine. Its passphrase is printed where the server was started.</p>
    <form @submit.prevent="signIn">
      <v-text-field
        v-model="passphrase"
        type="password"
        label="Passphrase"
        autocomplete="current-password"
        variant="outlined"
        density="comfortable"
        color="primary"
        hide-details
        autofocus
        :error="said !== ''"
        :aria-describedby="said === '' ? undefined : 'said'"
      />
      <p v-if="said !== ''" id="said" class="said" role="alert">{{ said }}</p>
      <v-btn type="submit" color="primary" variant="flat" :disabled="busy || passphrase === ''">Sign in</v-btn>
    </form>
  </DoorPage>
</template>

<style scoped>
p {
  margin: 16px 0;
}
form {
  display: grid;
  gap: 16px;
}
form .v-btn {
  justify-self: start;
}
.said {
  margin: 0;
  color: var(--error);
}
form :deep(label) {
  opacity: 1;
}
form :deep(.v-field) {
  border-radius: var(--corner);
}
/* The field has a rule of its own for the focus. */
form :deep(input:focus-visible) {
  outline: none;
}
</style>
