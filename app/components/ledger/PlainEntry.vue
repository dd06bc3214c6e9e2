<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { typedAhead } from '~/browser/typedAhead'
import { useFolioStore } from '~/stores/folio'

/** Takes what is typed into a line while its editor is still being fetched, or where it cannot be. */
defineOptions({ inheritAttrs: false })
defineProps<{ number: number }>()
const folio = useFolioStore()
const field = ref<HTMLInputElement | null>(null)
onMounted(() => {
  field.value?.focus()
  folio.typeOn(typedAhead())
})

function typed(): void {
  if (field.value) folio.type(field.value.value)
}

/** Puts signs at the caret, as a key of the strip does. */
function insert(text: string): void {
  const input = field.value
  if (!input) return
  const start = input.selectionStart ?? input.value.length
  const caret = text.indexOf('|')
  const plain = text.replace('|', '')
  input.setRangeText(plain, start, input.selectionEnd ?? start, 'end')
  if (caret >= 0) input.setSelectionRange(start + caret, start + caret)
  folio.type(input.value)
  input.focus()
}
defineExpose({ insert })

function key(event: KeyboardEvent): void {
  const does: Readonly<Record<string, () => void>> = {
    Enter: () => folio.keepAndGoOn(),
    Escape: () => folio.restore(),
    ArrowUp: () => folio.step(-1),
    ArrowDown: () => folio.step(1),
  }
  const action = does[event.key]
  if (!action || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return
  event.preventDefault()
  action()
}
</script>

<template>
  <input
    ref="field"
    type="text"
    class="plain-entry"
    :value="folio.text"
    :aria-label="`Line ${number}, entry`"
    autocomplete="off"
    spellcheck="false"
    @input="typed"
    @keydown="key"
  />
</template>

<style scoped>
.plain-entry {
  flex: 1;
  min-width: 0;
  align-self: center;
  padding: 8px 6px;
  border: 0;
  background: transparent;
  font-family: var(--mono);
}
.plain-entry:focus-visible {
  outline-offset: -2px;
}
</style>
