<script setup lang="ts">
import { computed, ref, shallowRef, watchEffect } from 'vue'

/** A note, drawn from its Markdown. */
const props = defineProps<{ text: string; letter: 'i' | 'j' }>()
const draw = shallowRef<((text: string, letter: 'i' | 'j') => string) | null>(null)
/** True where what draws notes could not be fetched: the text is shown as it was written. */
const unfetched = ref(false)
async function fetchDrawing(): Promise<void> {
  try {
    // Only a folio that has notes fetches what draws them.
    draw.value ??= (await import('~/texts/markdown')).drawNote
    unfetched.value = false
  } catch {
    unfetched.value = true
  }
}
watchEffect(() => void fetchDrawing())

/** A note that cannot be drawn says so, and shows its text. */
const html = computed(() => {
  try {
    return draw.value?.(props.text, props.letter) ?? ''
  } catch {
    return null
  }
})
</script>

<template>
  <div v-if="unfetched || html === null" class="note-text undrawn">
    <p>
      {{
        unfetched
          ? 'What draws notes could not be fetched; this is the text.'
          : 'This note cannot be typeset; this is its text.'
      }}
      <v-btn v-if="unfetched" variant="text" @click.stop="fetchDrawing">Try again</v-btn>
    </p>
    <pre>{{ text }}</pre>
  </div>
  <!-- eslint-disable-next-line vue/no-v-html -- drawn by markdown-it with raw HTML off and untrusted KaTeX -->
  <div v-else class="note-text" v-html="html" />
</template>

<style>
.note-text {
  font-size: 15.5px;
  line-height: 1.5;
  max-width: 68ch;
  overflow-wrap: anywhere;
}
.undrawn p {
  color: var(--error);
  font-size: 14px;
}
.undrawn pre {
  font-family: var(--mono);
  white-space: pre-wrap;
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
