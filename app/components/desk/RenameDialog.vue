<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { nameIndex } from '~/composables/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Spelling a kept name anew in every line that has it; a clash is said before anything changes. */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()
const entry = ref('')
const why = ref('')
const input = ref<HTMLInputElement | null>(null)
const open = computed({
  get: () => desk.renaming !== null,
  set: (now) => {
    if (!now) desk.renaming = null
  },
})
const places = computed(() => {
  const found = nameIndex(folio.lines, results.views).filter((e) => e.name === desk.renaming)
  const lines = [...new Set(found.flatMap((e) => [e.number, ...e.usedIn]))].sort((a, b) => a - b)
  return lines.length === 1 ? `line ${lines[0]}` : `lines ${lines.join(', ')}`
})

watch(open, async (now) => {
  if (!now) return
  entry.value = desk.renaming ?? ''
  why.value = ''
  await nextTick()
  setTimeout(() => input.value?.select(), 30)
})

function answer(): void {
  const from = desk.renaming
  if (from === null) return
  const refused = folio.renameName(from, entry.value.trim())
  if (refused === null) desk.renaming = null
  else why.value = refused
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Rename everywhere" max-width="420">
    <form class="sheet ask" @submit.prevent="answer">
      <h2>Rename {{ desk.renaming }} everywhere</h2>
      <p>It stands in {{ places }}. All of them change together, as one step.</p>
      <label>
        <span>New name</span>
        <input
          ref="input"
          v-model="entry"
          type="text"
          autocomplete="off"
          spellcheck="false"
          :aria-invalid="why !== ''"
          aria-describedby="rename-why"
        />
      </label>
      <p id="rename-why" class="why" role="alert">{{ why }}</p>
      <div class="answers">
        <button type="button" class="framed-button" @click="open = false">Cancel</button>
        <button type="submit" class="framed-button primary">Rename</button>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.ask {
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
h2 {
  font-size: 20px;
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
  font-family: var(--mono);
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
