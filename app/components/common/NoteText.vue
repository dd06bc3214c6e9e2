<script setup lang="ts">
import { computed, shallowRef, watchEffect } from 'vue'

/** A note, drawn from its Markdown. */
const props = defineProps<{ text: string; letter: 'i' | 'j' }>()
const draw = shallowRef<((text: string, letter: 'i' | 'j') => string) | null>(null)
watchEffect(async () => {
  // Only a folio that has notes fetches what draws them.
  draw.value ??= (await import('~/composables/markdown')).drawNote
})
const html = computed(() => draw.value?.(props.text, props.letter) ?? '')
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- drawn by markdown-it with raw HTML off and untrusted KaTeX -->
  <div class="note-text" v-html="html" />
</template>

<style>
.note-text {
  font-size: 15.5px;
  line-height: 1.5;
  max-width: 68ch;
  overflow-wrap: anywhere;
}
.note-text > :first-child {
  margin-top: 0;
}
.note-text > :last-child {
  margin-bottom: 0;
}
.note-text h1,
.note-text h2,
.note-text h3,
.note-text h4 {
  margin: 4px 0;
  line-height: 1.25;
}
.note-text h1 {
  font-size: 22px;
}
.note-text h2 {
  font-size: 19px;
}
.note-text h3,
.note-text h4 {
  font-size: 16.5px;
  font-style: italic;
  font-weight: 500;
}
.note-text p,
.note-text ul,
.note-text ol {
  margin: 6px 0;
}
.note-text ul,
.note-text ol {
  padding-left: 22px;
}
.note-text a {
  color: var(--teal);
}
.note-text code {
  font-family: var(--mono);
  background: var(--rail);
  padding: 0 4px;
  border-radius: var(--corner);
}
.note-text blockquote {
  margin: 6px 0;
  padding-left: 12px;
  border-left: 3px double var(--brass);
}
.note-text .katex-error {
  color: var(--error) !important;
  font-family: var(--mono);
}
</style>
