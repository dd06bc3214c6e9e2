<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { signature } from '#core/functions/definition'
import type { Example } from '#core/functions/definition'
import { FUNCTIONS } from '#core/functions/registry'
import { TOPICS } from '#core/handbook/topics'
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
              <code v-for="line in example.before ?? []" :key="line">{{ line }}</code>
              <code>{{ example.entry }}</code>
              <span class="gives"><ValueText :text="example.gives" letter="j" /></span>
              <v-btn
                variant="text"
                class="link try"
                :disabled="!folio.writable"
                :aria-label="`Put ${example.entry} into the ledger`"
                @click="folio.insertBelow([...(example.before ?? []), example.entry])"
              >
                try it
              </v-btn>
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
li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  padding: 1px 0;
}
code {
  font-family: var(--mono);
  background: var(--rail);
  padding: 1px 6px;
  border-radius: var(--corner);
}
.gives::before {
  content: '= ';
  color: var(--quiet);
}
.v-btn.try {
  margin-left: auto;
  font-size: 13.5px;
  color: var(--teal);
}
</style>
