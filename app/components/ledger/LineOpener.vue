<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { LineView } from '#core/views/lineView'
import type { Line } from '#shared/folio'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useVernierStore } from '~/stores/vernier'
import { spokenWithAnswers } from '~/texts/spoken'
import { usePreferencesStore } from '~/stores/preferences'

/** A line that is not being edited, as it is read: a click opens it at the term that was clicked. */
const props = defineProps<{
  line: Line
  number: number
  view: LineView | null
  /** The text in three pieces, with the place of its error in the middle. */
  marked: { readonly before: string; readonly at: string; readonly after: string } | null
  /** Folded to one slim row. */
  slim: boolean
  /** The row that the Tab key stops at. */
  reachable: boolean
}>()
const emit = defineEmits<{ pressed: [event: KeyboardEvent] }>()
const folio = useFolioStore()
const preferences = usePreferencesStore()
const results = useResultsStore()
const vernier = useVernierStore()

const opener = ref<HTMLElement | null>(null)
defineExpose({ focus: () => opener.value?.focus() })

// What of the view is shown here: texts, which mostly stay while the value changes.
const reading = computed(() => (preferences.grouping ? props.view?.grouped : props.view?.reading) ?? '')
const remark = computed(() => props.view?.remark ?? null)
const remarkOnly = computed(() => props.view?.kind === 'remark')
/** What the line says, for screen readers. */
const spoken = computed(() => (props.line.source.trim() === '' ? 'empty' : props.line.source))
/** What it comes to, said after that; while values change under the hand it rests. */
const result = computed<string>((before) => {
  if (results.unsettled && before !== undefined) return before
  return props.view && !props.line.hidden && props.line.source.trim() !== '' ? spokenWithAnswers(props.view) : ''
})

function open(event: MouseEvent): void {
  const target = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-span]') : null
  if (!target) {
    folio.edit(props.line.id)
    return
  }
  const [from = 0, to = 0] = (target.dataset.span ?? '').split('-').map(Number)
  const box = target.getBoundingClientRect()
  folio.edit(props.line.id, event.clientX < box.left + box.width / 2 ? from : to)
}

// A number that is in hand is underlined where it stands in the reading.
const inHand = computed(() => (vernier.held?.line === props.line.id ? vernier.held.literal : null))
watch(
  [inHand, reading],
  async ([now], [before]) => {
    if (!now && !before) return
    await nextTick()
    for (const span of opener.value?.querySelectorAll<HTMLElement>('[data-span]') ?? []) {
      const { from, to } = inHand.value ?? { from: -1, to: -1 }
      span.classList.toggle('in-hand', span.dataset.span === `${from}-${to}`)
    }
  },
  { immediate: true, flush: 'post' },
)

/** A click on a note opens it; one on a link follows the link. */
function openNote(event: MouseEvent): void {
  if (event.target instanceof Element && event.target.closest('a')) return
  folio.edit(props.line.id)
}
</script>

<template>
  <div
    v-if="line.note"
    ref="opener"
    class="opener note-opener"
    role="group"
    :tabindex="reachable ? 0 : -1"
    :aria-label="`Line ${number}, note. Enter to edit`"
    @click="openNote"
    @keydown="(event) => emit('pressed', event)"
    @focus="folio.makeCurrent(line.id)"
  >
    <NoteText v-if="line.source.trim() !== ''" :text="line.source" :letter="folio.conventions.letter" />
    <span v-else class="empty">An empty note</span>
  </div>
  <button
    v-else
    ref="opener"
    type="button"
    class="opener"
    :class="{ slim, remark: remarkOnly }"
    :tabindex="reachable ? 0 : -1"
    :aria-label="`Line ${number}: ${spoken}. Edit`"
    :aria-description="result === '' ? undefined : result"
    @click="open"
    @keydown="(event) => emit('pressed', event)"
    @focus="folio.makeCurrent(line.id)"
  >
    <span v-if="marked" class="source"
      >{{ marked.before }}<mark :class="{ gap: marked.at === '' }">{{ marked.at }}</mark
      >{{ marked.after }}</span
    >
    <span v-else-if="remarkOnly" class="remark-text">{{ remark }}</span>
    <template v-else-if="!slim && reading !== ''">
      <ReadingMath :latex="reading" :typed="line.source" />
      <span v-if="remark" class="trailing">{{ remark }}</span>
    </template>
    <span v-else-if="line.source !== ''" class="source">{{ line.source }}</span>
    <span v-else class="blank">&nbsp;</span>
  </button>
</template>

<style scoped>
.opener {
  flex: 1;
  min-width: 0;
  text-align: left;
  padding: 8px 4px;
  cursor: text;
  overflow: hidden;
  scrollbar-width: thin;
}
/* Only where it is wanted: every box that scrolls costs a layer of its own in each frame. */
.row:hover .opener,
.row.current .opener {
  overflow: auto hidden;
}
.opener :deep(.in-hand) {
  border-bottom: 2px solid var(--brass);
}
.opener:focus-visible {
  outline-offset: -2px;
}
.note-opener {
  padding: 10px 12px 10px 4px;
}
.remark {
  padding-block: 12px 10px;
}
.source {
  font-family: var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.slim {
  padding-block: 4px;
}
.slim .source {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--quiet);
}
mark {
  background: none;
  color: inherit;
  text-decoration: underline wavy var(--error) 1.5px;
  text-underline-offset: 4px;
}
mark.gap {
  border-left: 2px dashed var(--error);
  margin: 0 2px;
}
.remark-text {
  font-family: var(--serif);
  font-size: 17px;
  font-weight: 500;
}
/* A long remark is broken at the width of the reading: it does not push the result below. */
.trailing {
  display: block;
  width: 0;
  min-width: 100%;
  font-size: 13px;
  color: var(--quiet);
  padding-top: 2px;
  white-space: normal;
}
.empty {
  font-size: 14px;
  color: var(--quiet);
  font-style: italic;
}
</style>
