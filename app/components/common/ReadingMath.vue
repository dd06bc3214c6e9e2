<script setup lang="ts">
import { computed } from 'vue'
import { vMarkup } from '~/browser/markup'
import { typeset } from '~/texts/typeset'

/** Mathematics typeset from LaTeX that the core wrote, never from a folio's own text; as it was typed until it can be. */
const props = defineProps<{ latex: string; typed?: string; words?: 'in it' | 'beside it' }>()
const html = computed(() => typeset(props.latex, props.words))
</script>

<template>
  <span v-if="html !== null" v-markup="html" class="reading" />
  <span v-else class="reading typed">{{ typed }}</span>
</template>

<style scoped>
.typed {
  font-family: var(--mono);
  white-space: pre-wrap;
}
</style>
