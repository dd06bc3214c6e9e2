<script setup lang="ts">
import type { VTextField } from 'vuetify/components'
import { mdiClose, mdiContentCopy, mdiDeleteOutline, mdiRenameOutline } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import { useLineActions } from '~/composables/lineActions'
import { initialOf, nameIndex } from '~/lines/nameIndex'
import type { IndexEntry } from '~/lines/nameIndex'
import { useFocusBack } from '~/composables/focusBack'
import { KEPT_NAME } from '~/composables/nameDrop'
import { usePlateActions } from '~/composables/plateActions'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** The thumb index at the left edge: a notch an initial, and the sheet of kept names it opens. */
const folio = useFolioStore()
const results = useResultsStore()
const plates = usePlatesStore()
const desk = useDeskStore()
const { copy } = useLineActions()
const { actionsFor: onPlates } = usePlateActions()
const filter = ref('')
const field = ref<VTextField | null>(null)
const list = ref<HTMLElement | null>(null)
const removing = ref<IndexEntry | null>(null)
const removeOpen = ref(false)

/** Nothing is sorted while the sheet is closed: it would be anew with every key that is typed. */
const open = computed(() => desk.indexOpen || desk.part === 'index')
const entries = computed(() => (open.value || removeOpen.value ? nameIndex(folio.lines, results.views) : []))
const shown = computed(() => {
  const text = filter.value.trim().toLowerCase()
  return text === '' ? entries.value : entries.value.filter((e) => `${e.name} ${e.kind}`.toLowerCase().includes(text))
})
const initials = computed<readonly string[]>((before) => {
  const found = new Set<string>()
  for (const view of results.views.values()) if (view.name !== null) found.add(initialOf(view.name))
  // While values change and names do not, the notches stay as they are.
  if (before?.length === found.size && before.every((one) => found.has(one))) return before
  return [...found].sort((a, b) => a.localeCompare(b))
})

watch(
  () => desk.indexOpen,
  async (open) => {
    if (!open) return
    await nextTick()
    field.value?.focus()
  },
)

useFocusBack(() => desk.indexOpen)

async function openAt(initial: string): Promise<void> {
  filter.value = ''
  desk.indexOpen = true
  await nextTick()
  list.value?.querySelector(`[data-initial="${CSS.escape(initial)}"]`)?.scrollIntoView({ block: 'start' })
}

function go(entry: IndexEntry): void {
  folio.keep()
  folio.reveal(entry.line)
  desk.part = 'ledger'
}

function dragName(event: DragEvent, entry: IndexEntry): void {
  event.dataTransfer?.setData(KEPT_NAME, entry.id)
  event.dataTransfer?.setData('text/plain', entry.name)
}

function goTo(number: number): void {
  const line = folio.lines[number - 1]
  if (!line) return
  folio.keep()
  folio.reveal(line.id)
  desk.part = 'ledger'
}

function hue(entry: IndexEntry): string | null {
  const ink = plates.inks.get(entry.id)
  return ink === undefined ? null : `var(--hue-${ink.hue + 1})`
}

function actions(entry: IndexEntry): readonly MenuAction[] {
  return [
    { label: `Rename ${entry.name} everywhere`, icon: mdiRenameOutline, run: () => (desk.renaming = entry.name) },
    ...onPlates(entry.id),
    ...(entry.failed || entry.value === ''
      ? []
      : [{ label: 'Copy its value', icon: mdiContentCopy, run: () => void copy(entry.id, 'shown') }]),
    // What equations were solved for goes with them.
    ...(entry.id === entry.line
      ? [{ label: `Delete ${entry.name}`, icon: mdiDeleteOutline, danger: true, run: () => ask(entry) }]
      : []),
  ]
}

function ask(entry: IndexEntry): void {
  removing.value = entry
  if (entry.usedIn.length === 0) remove()
  else removeOpen.value = true
}

function remove(): void {
  if (!removing.value) return
  folio.clearSelection()
  folio.remove(removing.value.line)
}

const warning = computed(() => {
  const entry = removing.value
  if (!entry) return ''
  const users = entry.usedIn.map((number) => {
    const line = folio.lines[number - 1]
    const name = line ? results.views.get(line.id)?.name : null
    return name ? `${name} (line ${number})` : `line ${number}`
  })
  const earlier = entries.value.some((e) => e.name === entry.name && e.number < entry.number)
  const after = earlier
    ? `They will take the ${entry.name} that is defined above.`
    : 'They will have no value until it is defined again.'
  return `${entry.name} is used by ${users.join(', ')}. ${after}`
})
</script>

<template>
  <nav class="index" :class="{ open: desk.indexOpen }" aria-label="Index of kept names">
    <ul class="notches">
      <li v-for="initial in initials" :key="initial">
        <v-btn variant="text" class="notch" :aria-label="`Names with ${initial}`" @click="openAt(initial)">
          {{ initial }}
        </v-btn>
      </li>
      <li v-if="initials.length === 0" class="none" aria-hidden="true">·</li>
    </ul>
    <section v-if="open" class="index-sheet" @keydown.esc="desk.indexOpen = false">
      <header>
        <h2>Index</h2>
        <v-btn class="close" variant="text" aria-label="Close the index" @click="desk.indexOpen = false">
          <AppIcon :path="mdiClose" />
        </v-btn>
      </header>
      <v-text-field
        ref="field"
        v-model="filter"
        type="search"
        class="filter"
        placeholder="Filter by name or kind"
        aria-label="Filter the index"
      />
      <ol v-if="shown.length > 0" ref="list" class="names">
        <li v-for="entry in shown" :key="`${entry.name} ${entry.line}`" :data-initial="initialOf(entry.name)">
          <span class="hue" :style="{ background: hue(entry) ?? 'transparent' }" aria-hidden="true" />
          <v-btn
            :data-tip="`Go to line ${entry.number}; drag it onto a plate to put it there`"
            variant="text"
            class="name-row"
            draggable="true"
            @dragstart="(event: DragEvent) => dragName(event, entry)"
            @click="go(entry)"
          >
            <span class="name">{{ entry.name }}</span>
            <span class="line">{{ entry.number }}</span>
            <span class="value" :class="{ failed: entry.failed }">
              <ValueText v-if="entry.value" :text="entry.value" :letter="folio.conventions.letter" />
              <template v-else>{{ entry.kind }}</template>
            </span>
          </v-btn>
          <MenuButton :label="`Actions for ${entry.name}, line ${entry.number}`" :actions="() => actions(entry)" />
          <p class="facts">
            <span v-if="entry.value">{{ entry.kind }}</span>
            <span v-if="entry.twice" class="twice">defined more than once</span>
            <span v-if="entry.usedIn.length > 0"
              >used in
              <template v-for="(number, k) in entry.usedIn.slice(0, 8)" :key="number"
                >{{ k > 0 ? ', ' : ''
                }}<v-btn variant="text" class="link use" :aria-label="`Go to line ${number}`" @click="goTo(number)">
                  {{ number }}
                </v-btn></template
              ><template v-if="entry.usedIn.length > 8"> and {{ entry.usedIn.length - 8 }} more</template></span
            >
            <span v-else>not used</span>
          </p>
        </li>
      </ol>
      <p v-else class="empty">
        {{ entries.length === 0 ? 'No name is kept yet. Write Z = 3 + 4j and it stands here.' : 'No name fits.' }}
      </p>
    </section>
    <AskDialog
      v-model="removeOpen"
      :title="`Delete ${removing?.name ?? ''}?`"
      :text="warning"
      action="Delete"
      danger
      @answer="remove"
    />
  </nav>
</template>

<style scoped>
.index {
  display: flex;
  min-height: 0;
  border-right: 1px solid var(--rule);
  background: var(--rail);
}
.notches {
  list-style: none;
  margin: 0;
  padding: 10px 0;
  width: 34px;
  overflow-y: auto;
  scrollbar-width: none;
}
.v-btn.notch {
  width: 34px;
  min-height: 27px;
  padding: 0;
  margin-bottom: 3px;
  font-family: var(--serif);
  font-size: 15px;
  font-weight: 600;
  color: var(--brass-text);
  /* A half-moon cut into the edge of the leaf, as in a book. */
  background: var(--paper);
  border: 1px solid var(--rule);
  border-left: 0;
  border-radius: 0 14px 14px 0;
}
.v-btn.notch:hover {
  color: var(--ink);
  border-color: var(--brass);
}
.none {
  text-align: center;
  color: var(--quiet);
}
.index-sheet {
  width: 280px;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--leaf);
  border-left: 1px solid var(--rule);
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 8px 8px 4px 14px;
}
h2 {
  font-size: 18px;
}
.filter {
  flex: none;
  margin: 0 12px 8px 14px;
}
.names {
  list-style: none;
  margin: 0;
  padding: 0 4px 24px 0;
  overflow-y: auto;
  scrollbar-width: thin;
}
.names li {
  display: grid;
  grid-template-columns: 4px minmax(0, 1fr) 30px;
  align-items: start;
  column-gap: 8px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.hue {
  grid-row: 1 / span 2;
  align-self: stretch;
  border-radius: 0 2px 2px 0;
}
.v-btn.name-row {
  display: block;
  min-height: 0;
  padding: 0;
  text-align: left;
}
.v-btn.name-row:hover:not(:disabled) {
  background: none;
}
.name-row :deep(.v-btn__content) {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
}
.name-row:hover .name {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.name {
  font-family: var(--serif);
  font-size: 16px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
}
.line {
  font-family: var(--serif);
  color: var(--brass-text);
  font-variant-numeric: oldstyle-nums;
}
.value {
  grid-column: 1 / -1;
  font-size: 14px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.failed {
  color: var(--error);
}
.facts {
  grid-column: 2 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  margin: 0;
  font-size: 12.5px;
  color: var(--quiet);
}
.twice {
  color: var(--brass-text);
}
.v-btn.use {
  min-width: 14px;
  min-height: 0;
  padding: 0;
  font-size: inherit;
}
.empty {
  margin: 0 14px;
  font-size: 14px;
  color: var(--quiet);
}
@media (min-width: 900px) and (max-width: 1219px) {
  .index-sheet {
    position: absolute;
    inset: 0 auto 0 34px;
    z-index: 6;
    box-shadow: 0 6px 24px rgb(20 30 40 / 18%);
  }
}
@media (max-width: 899px) {
  .index {
    border: 0;
    background: none;
  }
  .notches,
  .close {
    display: none;
  }
  .index-sheet {
    width: 100%;
    border: 0;
    background: none;
  }
  .names li {
    grid-template-columns: 4px minmax(0, 1fr) 44px;
  }
}
</style>
