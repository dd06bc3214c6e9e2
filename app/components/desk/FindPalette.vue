<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { mdiMagnify } from '@mdi/js'
import type { VTextField } from 'vuetify/components'
import { signature } from '#core/signatures/definition'
import { FUNCTIONS } from '#core/functions/registry'
import { TOPICS } from '#core/handbook/topics'
import type { FolioCard, Line } from '#shared/folio'
import { api } from '~/keeping/api'
import { leadingHeading } from '#shared/headings'
import { useFocusBack } from '~/composables/focusBack'
import { useReadyField } from '~/composables/readyField'
import { findAmong } from '~/texts/finding'
import type { Finding } from '~/texts/finding'
import { useFolioActions } from '~/composables/folioActions'
import { keyText } from '~/texts/keys'
import { nameIndex } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useDoorStore } from '~/stores/door'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** One field that finds every action, kept name, folio and handbook entry. */
const desk = useDeskStore()
const door = useDoorStore()
const folio = useFolioStore()
const results = useResultsStore()
const actions = useFolioActions()
const asked = ref('')
const marked = ref(0)
const field = ref<VTextField | null>(null)
const cards = shallowRef<readonly FolioCard[]>([])
const SHOWN = 60
/** Characters of a line that are shown. */
const LINE_SHOWN = 80

useReadyField(() => desk.findOpen, field, asked)
watch(
  () => desk.findOpen,
  (open) => {
    marked.value = 0
    if (!open) return
    void findFolios('')
    void door.load()
  },
  { immediate: true },
)
watch(asked, (text) => {
  marked.value = 0
  if (searching !== null) clearTimeout(searching)
  searching = setTimeout(() => void findFolios(text.trim()), 150)
})

/** The folios that have a text, on the server; without its answer those that were found before stay. */
let searching: ReturnType<typeof setTimeout> | null = null
async function findFolios(find: string): Promise<void> {
  try {
    const { folios } = await api.shelf({ find, sort: 'changed', from: 0, bin: false })
    if (asked.value.trim() === find) cards.value = folios
  } catch {
    // The other groups need no server.
  }
}

const all = computed<readonly Finding[]>(() => {
  if (!desk.findOpen) return []
  return [
    ...actions.all().map((action): Finding => {
      const key = 'text' in action && action.text ? action.text : action.key ? keyText(action.key) : undefined
      return {
        id: `action ${action.label}`,
        group: 'Actions',
        label: action.label,
        detail: '',
        ...(key ? { key } : {}),
        ...(action.also ? { also: action.also } : {}),
        run: action.run,
      }
    }),
    ...nameIndex(folio.lines, results.views).map((entry): Finding => ({
      id: `name ${entry.line}`,
      group: 'Names',
      label: entry.name,
      detail: entry.value === '' ? entry.kind : entry.value,
      also: `line ${entry.number}`,
      run: () => {
        folio.keep()
        folio.reveal(entry.line)
      },
    })),
    ...cards.value
      .filter((card) => card.binnedAt === null && card.id !== folio.id)
      .map((card): Finding => ({
        id: `folio ${card.id}`,
        group: 'Folios',
        label: card.title,
        detail: card.lineCount === 1 ? '1 line' : `${card.lineCount} lines`,
        run: () => void navigateTo(`/folio/${card.id}`),
      })),
    ...TOPICS.map((topic): Finding => ({
      id: `topic ${topic.id}`,
      group: 'Handbook',
      label: topic.title,
      detail: topic.text,
      run: () => desk.openHandbook(topic.id),
    })),
    ...FUNCTIONS.map((f): Finding => ({
      id: `function ${f.name}`,
      group: 'Handbook',
      label: signature(f),
      detail: f.summary,
      also: (f.spellings ?? []).join(' '),
      run: () => desk.openHandbook(f.name),
    })),
  ]
})
/** The lines of the folio, its notes and headings; nobody wants all of them listed. */
const lines = computed<readonly Finding[]>(() => (desk.findOpen ? folio.lines : []).flatMap(findingOf))

function findingOf(line: Line, index: number): readonly Finding[] {
  const text = line.source.replace(/\s+/g, ' ').trim()
  if (text === '') return []
  const heading = line.note ? leadingHeading(line.source)?.text : undefined
  return [
    {
      id: `line ${line.id}`,
      group: 'Lines',
      label: heading ?? (text.length > LINE_SHOWN ? `${text.slice(0, LINE_SHOWN)}…` : text),
      detail: `line ${index + 1}`,
      also: text,
      run: () => {
        folio.keep()
        folio.reveal(line.id)
      },
    },
  ]
}
const found = computed(() =>
  findAmong(asked.value.trim() === '' ? all.value : [...all.value, ...lines.value], asked.value, SHOWN),
)

/** Runs once the sheet has closed and given the focus back: what it does may move the focus. */
let chosen: Finding | null = null
function runChosen(): void {
  const finding = chosen
  chosen = null
  finding?.run()
}

function take(finding: Finding | undefined): void {
  if (!finding) return
  desk.findOpen = false
  chosen = finding
  // A sheet that was closed while it still opened may not say that it has left.
  setTimeout(runChosen, 400)
}

async function mark(by: number): Promise<void> {
  const count = found.value.length
  if (count === 0) return
  marked.value = (marked.value + by + count) % count
  await nextTick()
  document.getElementById(`finding-${marked.value}`)?.scrollIntoView({ block: 'nearest' })
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown') void mark(1)
  else if (event.key === 'ArrowUp') void mark(-1)
  else if (event.key === 'Enter') take(found.value[marked.value])
  else return
  event.preventDefault()
}
useFocusBack(() => desk.findOpen)
</script>

<template>
  <v-dialog
    v-model="desk.findOpen"
    aria-label="Find"
    max-width="640"
    location="top"
    scroll-strategy="block"
    @after-leave="runChosen"
  >
    <v-sheet class="find">
      <v-text-field
        ref="field"
        v-model="asked"
        class="field"
        variant="plain"
        :prepend-inner-icon="mdiMagnify"
        :role.attr="'combobox'"
        aria-label="Find an action, a name, a folio or a function"
        aria-expanded="true"
        aria-controls="findings"
        :aria-activedescendant="found.length > 0 ? `finding-${marked}` : undefined"
        placeholder="An action, a name, a line, a folio, a function"
        autocomplete="off"
        spellcheck="false"
        @keydown="onKey"
      />
      <v-list id="findings" class="findings" role="listbox" aria-label="Found">
        <v-list-item
          v-for="(finding, k) in found"
          :id="`finding-${k}`"
          :key="finding.id"
          role="option"
          tabindex="-1"
          :aria-selected="k === marked"
          @mousemove="marked = k"
          @click="take(finding)"
        >
          <span class="group">{{ finding.group }}</span>
          <span class="label">{{ finding.label }}</span>
          <span class="detail">{{ finding.detail }}</span>
          <span v-if="finding.key" class="key">{{ finding.key }}</span>
        </v-list-item>
      </v-list>
      <p v-if="found.length === 0" class="none">Nothing has these words.</p>
      <p class="foot">
        <span><span class="key">↑</span> <span class="key">↓</span> choose</span>
        <span><span class="key">Enter</span> take</span>
        <span><span class="key">Esc</span> close</span>
      </p>
    </v-sheet>
  </v-dialog>
</template>

<style scoped>
.find {
  display: flex;
  flex-direction: column;
  max-height: min(560px, 78vh);
}
.field {
  flex: none;
  border-bottom: 3px double var(--brass);
}
.field :deep(.v-field) {
  padding: 6px 16px;
  outline-offset: -3px;
  font-size: 17px;
}
.findings {
  overflow-y: auto;
  scrollbar-width: thin;
}
.v-list-item.v-list-item--density-compact {
  padding: 2px 12px;
  cursor: pointer;
}
.v-list-item :deep(.v-list-item__content) {
  display: grid;
  grid-template-columns: 84px minmax(0, auto) minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
}
.v-list-item[aria-selected='true'] {
  background: var(--select);
}
.group {
  font-family: var(--serif);
  font-style: italic;
  font-size: 13px;
  color: var(--quiet);
}
.label,
.detail {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.detail {
  font-size: 13.5px;
  color: var(--quiet);
}
.none {
  margin: 12px 16px;
  color: var(--quiet);
}
.foot {
  display: flex;
  gap: 16px;
  margin: 0;
  padding: 8px 16px;
  border-top: 1px solid var(--rule);
  font-size: 13px;
  color: var(--quiet);
}
@media (max-width: 599px) {
  .v-list-item :deep(.v-list-item__content) {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .group {
    display: none;
  }
  .detail {
    grid-column: 1 / -1;
  }
  .detail:empty {
    display: none;
  }
  .key {
    grid-row: 1;
    grid-column: 2;
  }
}
</style>
