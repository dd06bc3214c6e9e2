<script setup lang="ts">
import { ref, watch } from 'vue'
import type { VTextField } from 'vuetify/components'
import { useReadyField } from '~/composables/readyField'

/** A question with one line of text, or with nothing but yes and no. */
const props = defineProps<{
  title: string
  text?: string
  field?: string
  value?: string
  action: string
  danger?: boolean
  /** The field takes an entry of the notation. */
  code?: boolean
  /** Why an answer cannot be taken: the question stays open and says so; `null` where it can. */
  refusal?: (value: string) => string | null
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ answer: [value: string] }>()
const entry = ref('')
const why = ref('')
const input = ref<VTextField | null>(null)

useReadyField(
  () => open.value,
  input,
  entry,
  () => props.value ?? '',
)
watch(open, () => (why.value = ''))

function answer(): void {
  const value = entry.value.trim()
  if (props.field && value === '') return
  why.value = props.refusal?.(value) ?? ''
  if (why.value !== '') return
  open.value = false
  emit('answer', value)
}
</script>

<template>
  <SheetDialog v-model="open" :title="title" form @submit="answer">
    <p v-if="text">{{ text }}</p>
    <v-text-field
      v-if="field"
      ref="input"
      v-model="entry"
      :label="field"
      maxlength="200"
      autocomplete="off"
      :class="{ code }"
      :spellcheck="code ? false : undefined"
      :error-messages="why"
    />
    <template #answers>
      <v-btn @click="open = false">Cancel</v-btn>
      <v-btn
        type="submit"
        :class="{ danger }"
        :color="danger ? undefined : 'primary'"
        :variant="danger ? 'outlined' : 'flat'"
        :disabled="field !== undefined && entry.trim() === ''"
      >
        {{ action }}
      </v-btn>
    </template>
  </SheetDialog>
</template>
