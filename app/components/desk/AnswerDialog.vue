<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { ANSWER_LENGTH_MAX } from '#shared/folio'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** Which part of the problem sheet a line answers. */
const desk = useDeskStore()
const folio = useFolioStore()
const open = computed({
  get: () => desk.answering !== null,
  set: (now) => {
    if (!now) desk.answering = null
  },
})
const line = computed(() => (desk.answering === null ? null : folio.lineOf(desk.answering)))
const part = ref('')
watch(
  line,
  (now) => {
    if (now) part.value = now.answer ?? nextPart()
  },
  { immediate: true },
)

/** The part after the last one that is answered: 1 b after 1 a. */
function nextPart(): string {
  const last = folio.lines.findLast((l) => l.answer)?.answer ?? ''
  const letter = /^(.*?)([a-y])$/.exec(last)
  if (letter) return `${letter[1] ?? ''}${String.fromCharCode((letter[2] ?? 'a').charCodeAt(0) + 1)}`
  const number = /^(.*?)(\d+)$/.exec(last)
  return number ? `${number[1] ?? ''}${Number(number[2]) + 1}` : '1 a'
}

function mark(text: string): void {
  const id = desk.answering
  desk.answering = null
  if (id !== null) folio.answer(id, text)
}
</script>

<template>
  <SheetDialog v-model="open" title="Mark as an answer" form @submit="mark(part)">
    <p>On the sheet the line stands boxed, and all answers once more in a list.</p>
    <v-text-field v-model="part" label="Part of the problem sheet" :maxlength="ANSWER_LENGTH_MAX" autofocus />
    <template #answers>
      <v-btn v-if="line?.answer" @click="mark('')">No answer any more</v-btn>
      <v-btn @click="open = false">Cancel</v-btn>
      <v-btn color="primary" variant="flat" type="submit">Mark</v-btn>
    </template>
  </SheetDialog>
</template>
