<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { EditorView } from '@codemirror/view'
import { createEntry, markProblem } from '~/browser/entryEditor'
import type { Entry } from '~/browser/entryEditor'
import { typedAhead } from '~/browser/typedAhead'
import { completionsAbove } from '~/lines/completions'
import { useDeskStore } from '~/stores/desk'
import { useFileOpening } from '~/composables/fileOpening'
import { useFolioStore } from '~/stores/folio'
import { useRecallStore } from '~/stores/recall'
import { useResultsStore } from '~/stores/results'

/** The one live editor: the line that is being typed. */
const props = defineProps<{
  id: string
  number: number
  caret: number | 'end' | { readonly from: number; readonly to: number }
  /** The place of a problem that is due to be shown. */
  mark: { readonly from: number; readonly to: number } | null
  fix: (() => void) | null
}>()
const folio = useFolioStore()
const { pasteTable } = useFileOpening()
const results = useResultsStore()
const recall = useRecallStore()
const desk = useDeskStore()
const host = ref<HTMLElement | null>(null)
let entry: Entry | null = null

function label(): string {
  return `Line ${props.number}, entry`
}

function viewsAbove() {
  return folio.lines.slice(0, props.number - 1).flatMap((l) => results.views.get(l.id) ?? [])
}

onMounted(() => {
  if (!host.value) return
  // What was typed while the editor was being fetched goes on at its end.
  const caret = folio.text === folio.lineOf(props.id)?.source ? props.caret : 'end'
  entry = createEntry(host.value, folio.text, caret, label(), {
    change: (text) => folio.type(text),
    keepAndGoOn: () => folio.keepAndGoOn(),
    restore: () => folio.restore(),
    step: (by) => folio.step(by),
    insertBelow: () => folio.insertAt(folio.indexOf(props.id) + 1),
    insertAbove: () => folio.insertAt(folio.indexOf(props.id)),
    move: (by) => folio.moveBy(props.id, by),
    duplicate: () => folio.duplicate(props.id),
    recall: (by) => recall.go(by),
    recalling: () => recall.active,
    lastAndEmpty: () => folio.text === '' && folio.lines.at(-1)?.id === props.id,
    find: () => (desk.findOpen = true),
    remove: () => folio.remove(props.id),
    removeEmpty: () => removeEmpty(),
    undo: () => folio.undo(),
    redo: () => folio.redo(),
    paste: (first, rest) => folio.paste(first, rest),
    pasteTable,
    refuses: (text) => folio.refuses(text, false),
    applyFix: () => {
      props.fix?.()
      return props.fix !== null
    },
    complete: () => completionsAbove(viewsAbove()),
  })
  entry.view.focus()
  folio.typeOn(typedAhead())
  host.value.closest('.row')?.scrollIntoView({ block: 'nearest' })
  recall.end()
})

/** Backspace in an empty line takes the line away and goes on above it. */
function removeEmpty(): void {
  const index = folio.indexOf(props.id)
  const above = folio.lines[index - 1]
  if (!above) return
  folio.remove(props.id)
  folio.edit(above.id)
}

watch(
  () => folio.text,
  (text) => {
    const view = entry?.view
    if (!view || view.state.doc.toString() === text) return
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text }, selection: { anchor: text.length } })
  },
)
watch(
  () => props.mark,
  (mark) => entry?.view.dispatch({ effects: markProblem.of(mark) }),
)
watch(
  () => props.number,
  async () => {
    entry?.setLabel(label())
    // A line that was moved has been taken out of the page and put back: its focus is lost.
    await nextTick()
    entry?.view.focus()
  },
)

onBeforeUnmount(() => {
  recall.end()
  entry?.view.destroy()
  entry = null
})

/** Puts text at the caret, as a key of the strip does; `|` in it is where the caret goes. */
function insert(text: string): void {
  const view: EditorView | undefined = entry?.view
  if (!view) return
  const { from, to } = view.state.selection.main
  const caret = text.indexOf('|')
  const plain = caret < 0 ? text : text.replace('|', '')
  view.dispatch({
    changes: { from, to, insert: plain },
    selection: { anchor: from + (caret < 0 ? plain.length : caret) },
    userEvent: 'input.type',
  })
  view.focus()
}

defineExpose({ insert })
</script>

<template>
  <div ref="host" class="line-editor" />
</template>

<style>
.line-editor .cm-editor {
  font-family: var(--mono);
  font-size: 16px;
  background: transparent;
  color: var(--ink);
}
.line-editor .cm-editor.cm-focused {
  outline: none;
}
.line-editor .cm-scroller {
  font-family: var(--mono);
  line-height: 1.5;
  overflow-x: auto;
  scrollbar-width: thin;
}
.line-editor .cm-content {
  padding: 4px 0;
  caret-color: var(--teal);
}
.line-editor .cm-line {
  padding: 0 2px;
}
.line-editor .cm-cursor {
  border-left: 2px solid var(--teal);
}
.line-editor .cm-editor .cm-selectionBackground,
.line-editor .cm-editor.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground {
  background: var(--select);
}
.line-editor .cm-placeholder {
  color: var(--quiet);
}
.problem-mark {
  text-decoration: underline wavy var(--error) 1.5px;
  text-underline-offset: 4px;
}
.missing-mark {
  display: inline-block;
  width: 0;
  height: 1.1em;
  vertical-align: text-bottom;
  border-left: 2px dashed var(--error);
  margin: 0 2px;
}
.cm-tooltip.cm-tooltip-autocomplete {
  background: var(--leaf);
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  box-shadow: 0 6px 24px rgb(20 30 40 / 18%);
  overflow: hidden;
}
.cm-tooltip.cm-tooltip-autocomplete > ul {
  font-family: var(--mono);
  font-size: 14px;
  max-height: 15em;
}
.cm-tooltip.cm-tooltip-autocomplete > ul > li {
  padding: 4px 10px;
  color: var(--ink);
}
.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected] {
  background: var(--select);
  color: var(--ink);
}
.cm-completionMatchedText {
  text-decoration: none;
  color: var(--teal);
  font-weight: 600;
}
.cm-completionDetail {
  font-style: normal;
  color: var(--quiet);
  margin-left: 8px;
}
.cm-tooltip.cm-completionInfo {
  background: var(--leaf);
  color: var(--ink);
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  font-family: var(--sans);
  font-size: 14px;
  padding: 6px 10px;
  max-width: 260px;
}
</style>
