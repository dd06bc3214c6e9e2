<script setup lang="ts">
import { useFocusBack } from '~/composables/focusBack'

/** The frame of every dialog: its title, what it says, and the answers at its foot; a form where it is submitted. */
defineProps<{ title: string; name?: string; wide?: boolean; form?: boolean }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ submit: [] }>()
useFocusBack(() => open.value)
</script>

<template>
  <v-dialog v-model="open" :aria-label="name ?? title" :max-width="wide ? 800 : undefined">
    <v-sheet :tag="form ? 'form' : 'div'" class="dialog-sheet" @submit.prevent="emit('submit')">
      <h2>{{ title }}</h2>
      <slot />
      <div class="answers"><slot name="answers" /></div>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.dialog-sheet {
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-height: 88vh;
  padding: 24px;
  overflow: auto;
}
h2 {
  font-size: 21px;
}
.dialog-sheet > :slotted(p) {
  margin: 0;
  color: var(--quiet);
}
.answers {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
}
</style>
