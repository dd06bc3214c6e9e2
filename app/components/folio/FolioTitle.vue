<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** The title, which a click turns into a field. */
const folio = useFolioStore()
const open = ref(false)
const entry = ref('')
const input = ref<HTMLInputElement | null>(null)

async function edit(): Promise<void> {
  entry.value = folio.title
  open.value = true
  await nextTick()
  input.value?.select()
}

function keep(): void {
  if (!open.value) return
  open.value = false
  folio.rename(entry.value)
}
</script>

<template>
  <h1 class="title">
    <input
      v-if="open"
      ref="input"
      v-model="entry"
      type="text"
      maxlength="200"
      aria-label="Title of the folio"
      @keydown.enter="keep"
      @keydown.esc="open = false"
      @blur="keep"
    />
    <button v-else type="button" title="Rename" @click="edit">
      {{ folio.title }}<span class="visually-hidden"> (rename)</span>
    </button>
  </h1>
</template>

<style scoped>
.title {
  font-size: 23px;
  line-height: 1.2;
  min-width: 0;
}
button {
  font: inherit;
  font-family: var(--serif);
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border-bottom: 1px dotted transparent;
}
button:hover {
  border-bottom-color: var(--brass);
}
input {
  font: inherit;
  font-family: var(--serif);
  width: min(420px, 60vw);
  background: var(--leaf);
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  padding: 2px 8px;
}
</style>
