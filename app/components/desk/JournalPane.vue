<script setup lang="ts">
import { mdiArrowLeft } from '@mdi/js'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { equalData } from '#core/equalData'
import { difference, STATE_NAME_MAX } from '#shared/operations'
import type { FolioState, JournalEntry, Operation } from '#shared/operations'
import type { Line } from '#shared/folio'
import { api } from '~/keeping/api'
import { tellOperation } from '~/texts/journalText'
import { useFolioStore } from '~/stores/folio'

/** Everything entered in this folio with its time, and its earlier states to look at and restore. */
const folio = useFolioStore()
const entries = shallowRef<readonly JournalEntry[]>([])
const more = ref(false)
const failed = ref('')
const loading = ref(false)
const looking = shallowRef<{ readonly entry: JournalEntry; readonly state: FolioState } | null>(null)

async function load(before?: number): Promise<void> {
  loading.value = true
  failed.value = ''
  try {
    const page = await api.journal(folio.id, before)
    entries.value = before === undefined ? page.entries : [...entries.value, ...page.entries]
    more.value = page.more
  } catch (error) {
    failed.value = error instanceof Error ? error.message : 'The journal could not be fetched.'
  } finally {
    loading.value = false
  }
}
onMounted(() => void load())
// What is saved while the journal is open joins it.
watch(
  () => (folio.saveState?.kind === 'saved' ? folio.saveState.at : null),
  (at, before) => {
    if (at !== null && before !== undefined && looking.value === null) void load()
  },
)

function day(iso: string): string {
  const date = new Date(iso)
  const today = new Date().toDateString() === date.toDateString()
  return today ? 'Today' : date.toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' })
}
function time(iso: string): string {
  return new Date(iso).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit', second: '2-digit' })
}
const days = computed(() => {
  const groups: { title: string; entries: JournalEntry[] }[] = []
  for (const entry of entries.value) {
    const title = day(entry.savedAt)
    const last = groups.at(-1)
    if (last?.title === title) last.entries.push(entry)
    else groups.push({ title, entries: [entry] })
  }
  return groups
})

async function look(entry: JournalEntry): Promise<void> {
  try {
    failed.value = ''
    name.value = entry.name ?? ''
    looking.value = { entry, state: await api.stateAt(folio.id, entry.revision) }
  } catch (error) {
    failed.value = error instanceof Error ? error.message : 'This state could not be fetched.'
  }
}

/** A line of the earlier state beside what it is now. */
interface Compared {
  readonly line: Line
  readonly now: 'same' | 'changed' | 'gone'
}
const compared = computed<readonly Compared[]>(() =>
  (looking.value?.state.lines ?? []).map((line) => {
    const present = folio.lineOf(line.id)
    const same = equalData(present, line)
    return { line, now: !present ? 'gone' : same ? 'same' : 'changed' }
  }),
)
const added = computed(() => {
  const then = new Set(looking.value?.state.lines.map((l) => l.id))
  return folio.lines.filter((l) => !then.has(l.id)).length
})
const differs = computed(() => looking.value !== null && difference(folio.state, looking.value.state).length > 0)

// A state that has a name is kept for good; older ones without are thinned out in time.
const name = ref('')
async function nameIt(): Promise<void> {
  const { value } = looking
  if (!value) return
  try {
    const given = name.value.trim() === '' ? null : name.value.trim()
    await api.nameState(folio.id, value.entry.revision, given)
    const named = { ...value.entry, name: given }
    // Meanwhile one may have gone back to all entries, or to another of them.
    if (looking.value === value) looking.value = { ...value, entry: named }
    entries.value = entries.value.map((e) => (e.revision === named.revision ? named : e))
  } catch (error) {
    failed.value = error instanceof Error ? error.message : 'The name could not be kept.'
  }
}

function restoreAll(): void {
  if (looking.value) folio.goBackTo(looking.value.state)
}

function putBack({ line, now }: Compared): void {
  const state = looking.value?.state
  if (!state) return
  folio.keep()
  const operations: readonly Operation[] =
    now === 'changed'
      ? difference(folio.state, { ...folio.state, lines: folio.lines.map((l) => (l.id === line.id ? line : l)) })
      : [{ type: 'insert', line, at: placeOf(state, line.id) }]
  folio.perform('put a line back', operations, line.id)
  folio.reveal(line.id)
}

/** Below the nearest line above that is still there. */
function placeOf(state: FolioState, id: string): number {
  const index = state.lines.findIndex((l) => l.id === id)
  const above = state.lines.slice(0, index).findLast((l) => folio.lineOf(l.id))
  return above ? folio.indexOf(above.id) + 1 : 0
}
</script>

<template>
  <section class="journal" aria-label="Journal">
    <template v-if="looking">
      <header>
        <v-btn variant="text" @click="looking = null"> <AppIcon :path="mdiArrowLeft" />All entries </v-btn>
        <h2>As it was, {{ day(looking.entry.savedAt).toLowerCase() }} at {{ time(looking.entry.savedAt) }}</h2>
        <p class="quiet">
          {{ differs ? 'Lines that differ from now are marked.' : 'This is how the folio is now.' }}
          <template v-if="added > 0">{{ added === 1 ? 'One line' : `${added} lines` }} came later.</template>
        </p>
        <v-btn v-if="differs && folio.writable" color="primary" variant="flat" @click="restoreAll">
          Restore the whole folio
        </v-btn>
        <form v-if="folio.writable" class="naming" @submit.prevent="nameIt">
          <v-text-field v-model="name" label="Name of this state" :maxlength="STATE_NAME_MAX" placeholder="handed in" />
          <v-btn type="submit" variant="text" :disabled="name.trim() === (looking.entry.name ?? '')">
            {{ name.trim() === '' && looking.entry.name ? 'Take the name off' : 'Keep it under this name' }}
          </v-btn>
        </form>
        <p v-if="failed" class="failure" role="alert">{{ failed }}</p>
      </header>
      <ol class="state-lines">
        <li v-for="(item, k) in compared" :key="item.line.id" :class="item.now">
          <span class="no">{{ k + 1 }}</span>
          <code>{{ item.line.source || '(empty)' }}</code>
          <template v-if="item.now !== 'same'">
            <span class="mark">{{ item.now === 'gone' ? 'deleted since' : 'changed since' }}</span>
            <v-btn v-if="folio.writable" variant="text" class="link" @click="putBack(item)">put back</v-btn>
          </template>
        </li>
      </ol>
    </template>
    <template v-else>
      <p v-if="failed" class="failure" role="alert">
        {{ failed }} <v-btn variant="text" @click="load()">Try again</v-btn>
      </p>
      <p v-if="entries.length === 0 && !loading && !failed" class="quiet">
        Nothing has been entered yet. Every change is noted here with its time.
      </p>
      <section v-for="group in days" :key="group.title" class="day">
        <h2>{{ group.title }}</h2>
        <ol>
          <li v-for="entry in group.entries" :key="entry.revision">
            <v-btn data-tip="Look at the folio as it was then" variant="text" class="entry" @click="look(entry)">
              <time :datetime="entry.savedAt">{{ time(entry.savedAt) }}</time>
              <span class="what">
                <b v-if="entry.name" class="name">{{ entry.name }}</b>
                <span v-if="entry.damaged" class="failure">What was done here can no longer be read.</span>
                <span v-for="(told, k) in entry.operations.slice(0, 4).map(tellOperation)" :key="k" class="told">
                  {{ told.did }} <code v-if="told.text">{{ told.text.slice(0, 300) }}</code>
                </span>
                <span v-if="entry.operations.length > 4" class="quiet">and {{ entry.operations.length - 4 }} more</span>
              </span>
            </v-btn>
          </li>
        </ol>
      </section>
      <v-btn v-if="more" :disabled="loading" @click="load(entries.at(-1)?.revision)"> Older entries </v-btn>
    </template>
  </section>
</template>

<style scoped>
.journal {
  overflow-y: auto;
  padding: 4px 4px 24px;
  scrollbar-width: thin;
}
h2 {
  font-size: 16px;
  font-style: italic;
  font-weight: 500;
  margin: 10px 0 4px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.quiet {
  color: var(--quiet);
  font-size: 14px;
  margin: 4px 0 8px;
}
.v-btn.entry {
  display: block;
  width: 100%;
  padding: 5px 4px;
  text-align: left;
  border-bottom: 1px solid var(--rule);
  border-radius: 0;
}
.entry :deep(.v-btn__content) {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 8px;
}
time {
  font-family: var(--serif);
  font-variant-numeric: tabular-nums;
  color: var(--brass-text);
  font-size: 14px;
}
.name {
  display: block;
  font-family: var(--serif);
  color: var(--brass-text);
}
.naming {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 12px 0 8px;
  font-size: 14px;
}
.told {
  display: block;
  font-size: 14px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
code {
  font-family: var(--mono);
  font-size: 14px;
}
.state-lines li {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto auto;
  align-items: baseline;
  gap: 8px;
  padding: 5px 4px;
  border-bottom: 1px solid var(--rule);
}
.state-lines code {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.no {
  text-align: right;
  font-family: var(--serif);
  color: var(--brass-text);
}
.changed,
.gone {
  background: color-mix(in srgb, var(--brass) 12%, transparent);
}
.mark {
  font-size: 13px;
  color: var(--brass-text);
}
</style>
