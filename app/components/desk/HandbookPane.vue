<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { signature } from '#core/signatures/definition'
import type { Example } from '#core/signatures/definition'
import { FUNCTIONS } from '#core/functions/registry'
import { TOPICS, TOUR } from '#core/handbook/topics'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** The reference of functions and notation; its examples run in the ledger. */
interface Entry {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly also: readonly string[]
  readonly examples: readonly Example[]
}
const folio = useFolioStore()
const desk = useDeskStore()
const filter = ref('')
const list = ref<HTMLElement | null>(null)

const notation: readonly Entry[] = TOPICS.map((t) => ({ ...t, also: [] }))
const groups = [...new Set(FUNCTIONS.map((f) => f.group))]
const chapters: readonly { readonly title: string; readonly entries: readonly Entry[] }[] = [
  { title: 'Notation', entries: notation },
  ...groups.map((group) => ({
    title: group.charAt(0).toUpperCase() + group.slice(1),
    entries: FUNCTIONS.filter((f) => f.group === group).map((f) => ({
      id: f.name,
      title: signature(f),
      text: f.summary,
      also: f.spellings ?? [],
      examples: f.examples,
    })),
  })),
]

const shown = computed(() => {
  const words = filter.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const fits = (chapter: string, entry: Entry): boolean => {
    const text = `${chapter} ${entry.title} ${entry.text} ${entry.also.join(' ')}`.toLowerCase()
    return words.every((word) => text.includes(word))
  }
  return chapters
    .map((c) => ({ ...c, entries: c.entries.filter((entry) => fits(c.title, entry)) }))
    .filter((c) => c.entries.length > 0)
})

/** Lines are put in where one is, and the ledger comes into sight. */
function putIn(lines: readonly Example[]): void {
  folio.insertBelow(lines.flatMap((line) => [...(line.before ?? []), line.entry]))
  desk.part = 'ledger'
}

const tourShown = computed(() => filter.value.trim() === '')

async function goToTopic(): Promise<void> {
  if (desk.topic === null) return
  filter.value = ''
  await nextTick()
  const target = list.value?.querySelector<HTMLElement>(`[data-entry="${CSS.escape(desk.topic)}"]`)
  target?.scrollIntoView({ block: 'start' })
  target?.focus()
}
onMounted(() => void goToTopic())
watch(
  () => desk.topic,
  () => void goToTopic(),
)
</script>

<template>
  <section class="handbook" aria-label="Handbook">
    <v-text-field
      v-model="filter"
      type="search"
      class="filter"
      placeholder="Find a function or a subject"
      aria-label="Search the handbook"
    />
    <div ref="list" class="chapters" tabindex="-1">
      <p v-if="shown.length === 0" class="quiet">Nothing in the handbook has these words.</p>
      <section v-if="tourShown">
        <h2>Five minutes with the ledger</h2>
        <article data-entry="tour" tabindex="-1">
          <p>
            One small problem, line after line. Each step puts its lines into your folio; undo takes them out again.
          </p>
          <ol class="tour">
            <li v-for="(step, k) in TOUR" :key="step.says">
              <p>{{ step.says }}</p>
              <HandbookExample
                v-for="(line, at) in step.lines"
                :key="line.entry"
                :example="line"
                :label="at === 0 ? `Run step ${k + 1} of the tour` : ''"
                words="run it"
                @put="putIn(step.lines)"
              />
            </li>
          </ol>
        </article>
      </section>
      <section v-for="chapter in shown" :key="chapter.title">
        <h2>{{ chapter.title }}</h2>
        <article
          v-for="entry in chapter.entries"
          :key="entry.id"
          :data-entry="entry.id"
          tabindex="-1"
          :class="{ asked: desk.topic === entry.id }"
        >
          <h3 :class="{ code: chapter.title !== 'Notation' }">{{ entry.title }}</h3>
          <p>{{ entry.text }}</p>
          <p v-if="entry.also.length > 0" class="quiet">also read: {{ entry.also.join(', ') }}</p>
          <ul>
            <li v-for="example in entry.examples" :key="example.entry">
              <HandbookExample
                :example="example"
                :label="`Put ${example.entry} into the ledger`"
                words="try it"
                @put="putIn([example])"
              />
            </li>
          </ul>
        </article>
      </section>
    </div>
  </section>
</template>

<style scoped>
.handbook {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.filter {
  flex: none;
  margin: 2px;
}
.chapters {
  flex: 1;
  overflow-y: auto;
  padding: 4px 8px 24px 2px;
  scrollbar-width: thin;
}
h2 {
  position: sticky;
  top: -4px;
  padding: 12px 0 6px;
  font-size: 18px;
  background: var(--paper);
  border-bottom: 3px double var(--brass);
}
article {
  scroll-margin-top: 44px;
  padding: 10px 2px;
  border-bottom: 1px solid var(--rule);
}
article.asked {
  background: var(--select);
}
h3 {
  font-size: 16px;
}
h3.code {
  font-family: var(--mono);
  font-size: 15px;
}
p {
  margin: 2px 0 4px;
  font-size: 14.5px;
}
.quiet {
  color: var(--quiet);
  font-size: 13.5px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
.tour {
  margin: 4px 0 0;
  padding-left: 22px;
}
.tour > li::marker {
  font-family: var(--serif);
  color: var(--brass-text);
}
</style>
