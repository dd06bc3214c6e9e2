<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { VTextField } from 'vuetify/components'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** The title, which a click turns into a field. */
const folio = useFolioStore()
const desk = useDeskStore()
const entry = ref('')
const input = ref<VTextField | null>(null)

watch(
  () => desk.titling,
  async (now) => {
    if (!now) return
    entry.value = folio.title
    await nextTick()
    input.value?.select()
  },
)

function keep(): void {
  if (!desk.titling) return
  desk.titling = false
  folio.rename(entry.value)
}
</script>

<template>
  <h1 class="title">
    <v-text-field
      v-if="desk.titling"
      ref="input"
      v-model="entry"
      maxlength="200"
      aria-label="Title of the folio"
      @keydown.enter="keep"
      @keydown.esc="desk.titling = false"
      @blur="keep"
    />
    <v-btn v-else data-tip="Rename" variant="text" @click="desk.titling = true">
      <span class="words">{{ folio.title }}</span><span class="visually-hidden"> (rename)</span>
    </v-btn>
  </h1>
</template>

<style scoped>
.title {
  font-size: 23px;
  line-height: 1.2;
  min-width: 0;
}
.v-btn.v-btn--variant-text {
  /* A title that becomes another as its line is kept does not shrink away from under the pointer. */
  min-width: 160px;
  max-width: 100%;
  padding: 0;
  justify-content: flex-start;
  font: inherit;
  font-family: var(--serif);
  line-height: 1.3;
}
.v-btn :deep(.v-btn__content) {
  min-width: 0;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.v-text-field {
  width: min(420px, 60vw);
}
.v-text-field :deep(input) {
  font-family: var(--serif);
  font-size: 20px;
}
</style>
