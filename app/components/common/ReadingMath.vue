<script setup lang="ts">
import { computed } from 'vue'
import { typeset } from '~/texts/typeset'

/** Mathematics typeset from LaTeX that the core wrote; never from a folio's own text. */
const props = defineProps<{ latex: string }>()
const html = computed(() => typeset(props.latex))
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- KaTeX output of our own LaTeX; texts in it are escaped -->
  <span class="reading" v-html="html" />
</template>
