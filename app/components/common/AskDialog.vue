<script setup lang="ts">
import { nextTick, ref, useId, watch } from 'vue'

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
const id = useId()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ answer: [value: string] }>()
const entry = ref('')
const why = ref('')
const input = ref<HTMLInputElement | null>(null)

watch(open, async (now) => {
  if (!now) return
  entry.value = props.value ?? ''
  why.value = ''
  await nextTick()
  setTimeout(() => input.value?.select(), 30)
})

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
  <v-dialog v-model="open" :aria-label="title">
    <form class="sheet ask" @submit.prevent="answer">
      <h2>{{ title }}</h2>
      <p v-if="text">{{ text }}</p>
      <label v-if="field">
        <span>{{ field }}</span>
        <input
          ref="input"
          v-model="entry"
          type="text"
          maxlength="200"
          autocomplete="off"
          :class="{ code }"
          :spellcheck="code ? false : undefined"
          :aria-invalid="why !== ''"
          :aria-describedby="refusal ? `${id}-why` : undefined"
        />
      </label>
      <p v-if="refusal" :id="`${id}-why`" class="why" role="alert">{{ why }}</p>
      <div class="answers">
        <button type="button" class="framed-button" @click="open = false">Cancel</button>
        <button
          type="submit"
          class="framed-button"
          :class="danger ? 'danger' : 'primary'"
          :disabled="field !== undefined && entry.trim() === ''"
        >
          {{ action }}
        </button>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.ask {
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 16px;
}
h2 {
  font-size: 21px;
}
p {
  margin: 0;
  color: var(--quiet);
}
.why {
  color: var(--error);
  min-height: 1.4em;
}
label span {
  display: block;
  font-size: 13px;
  color: var(--quiet);
  margin-bottom: 4px;
}
input {
  width: 100%;
  padding: 8px 10px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
}
input.code {
  font-family: var(--mono);
}
.answers {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
