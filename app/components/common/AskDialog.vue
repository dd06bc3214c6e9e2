<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'

/** A question with one line of text, or with nothing but yes and no. */
const props = defineProps<{
  title: string
  text?: string
  field?: string
  value?: string
  action: string
  danger?: boolean
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ answer: [value: string] }>()
const entry = ref('')
const input = ref<HTMLInputElement | null>(null)

watch(open, async (now) => {
  if (!now) return
  entry.value = props.value ?? ''
  await nextTick()
  setTimeout(() => input.value?.select(), 30)
})

function answer(): void {
  if (props.field && entry.value.trim() === '') return
  open.value = false
  emit('answer', entry.value.trim())
}
</script>

<template>
  <v-dialog v-model="open" :aria-label="title">
    <form class="sheet ask" @submit.prevent="answer">
      <h2>{{ title }}</h2>
      <p v-if="text">{{ text }}</p>
      <label v-if="field">
        <span>{{ field }}</span>
        <input ref="input" v-model="entry" type="text" maxlength="200" autocomplete="off" />
      </label>
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
.answers {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
