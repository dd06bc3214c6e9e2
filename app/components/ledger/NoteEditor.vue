<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { useFolioStore } from '~/stores/folio'

/** The text of a note: several lines of Markdown, so Enter begins a new one. */
const props = defineProps<{ id: string; number: number }>()
const folio = useFolioStore()
const area = ref<HTMLTextAreaElement | null>(null)

function grow(): void {
  const box = area.value
  if (!box) return
  box.style.height = 'auto'
  box.style.height = `${box.scrollHeight + 2}px`
}

onMounted(async () => {
  await nextTick()
  grow()
  area.value?.focus()
  area.value?.closest('.row')?.scrollIntoView({ block: 'nearest' })
  const end = area.value?.value.length ?? 0
  area.value?.setSelectionRange(end, end)
})
watch(
  () => folio.text,
  () => void nextTick(grow),
)

/** What is too long for a note is said, and the note stays as it was. */
function typed(event: Event): void {
  const box = event.target
  if (!(box instanceof HTMLTextAreaElement)) return
  if (box.value.length > folio.text.length && folio.refuses(box.value, true)) box.value = folio.text
  else folio.type(box.value)
}

function onKey(event: KeyboardEvent): void {
  const box = area.value
  if (!box || event.isComposing) return
  const { key, altKey, ctrlKey, metaKey, shiftKey } = event
  const index = folio.indexOf(props.id)
  const plain = !altKey && !ctrlKey && !metaKey && !shiftKey
  if (key === 'Escape') folio.restore()
  else if (key === 'Enter' && (ctrlKey || metaKey)) folio.insertAt(shiftKey ? index : index + 1)
  else if (key === 'ArrowUp' && plain && box.selectionEnd === 0) folio.step(-1)
  else if (key === 'ArrowDown' && plain && box.selectionStart === box.value.length) folio.step(1)
  else if (key === 'ArrowUp' && altKey) folio.moveBy(props.id, -1)
  else if (key === 'ArrowDown' && altKey && !shiftKey) folio.moveBy(props.id, 1)
  else if (key === 'Delete' && altKey) folio.remove(props.id)
  else if (key === 'Backspace' && box.value === '') folio.remove(props.id)
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="note-editor">
    <textarea
      ref="area"
      :value="folio.text"
      rows="2"
      :aria-label="`Line ${number}, note`"
      placeholder="A note: # heading, - list, **stress**, $a/b$ for mathematics"
      spellcheck="true"
      @input="typed"
      @keydown="onKey"
    />
    <p class="help">
      <span>Markdown, with <code>$R_1 || R_2$</code> for mathematics.</span>
      <span><span class="key">Ctrl+Enter</span> next line</span>
      <span><span class="key">Esc</span> leave as it was</span>
    </p>
  </div>
</template>

<style scoped>
.note-editor {
  flex: 1;
  min-width: 0;
  padding: 8px 12px 4px 2px;
}
textarea {
  display: block;
  width: 100%;
  padding: 6px 8px;
  font-family: var(--mono);
  font-size: 15px;
  line-height: 1.5;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  resize: none;
  overflow: hidden;
}
textarea::placeholder {
  color: var(--quiet);
  opacity: 1;
}
.help {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 4px 0;
  font-size: 13px;
  color: var(--quiet);
}
.help code {
  font-family: var(--mono);
}
</style>
