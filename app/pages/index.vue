<script setup lang="ts">
import { mdiDeleteRestore, mdiPlus } from '@mdi/js'
import { onMounted, ref, watch } from 'vue'
import { SHELF_SORTS } from '#shared/folio'
import type { FolioCard, ShelfSort } from '#shared/folio'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { fetchLeavesAhead } from '~/composables/leavesAhead'
import { useOnceOpen } from '~/composables/onceOpen'
import { useShelfFiles } from '~/composables/shelfFiles'
import { catchTyping, typedAhead } from '~/browser/typedAhead'
import { useCopiesStore } from '~/stores/copies'
import { useDoorStore } from '~/stores/door'
import { useShelfStore } from '~/stores/shelf'

/** The shelf: the first page, with a card for each folio. */
const shelf = useShelfStore()
const copies = useCopiesStore()
const door = useDoorStore()
onMounted(async () => {
  fetchLater()
  await shelf.load()
  // What is seen only further down, or only by whoever came through the door, waits for the shelf.
  await Promise.all([copies.load(), door.load()])
})
function fetchLater(): void {
  fetchLeavesAhead([
    () => import('~/components/common/AskDialog.vue'),
    () => import('~/components/common/MenuSheet.vue'),
  ])
}
watch(
  () => [shelf.find, shelf.sort],
  () => void shelf.loadAnew(),
)
useHead({ title: 'Shelf · Ornate Phasor' })

const renaming = ref<FolioCard | null>(null)
const renameOpen = ref(false)
const removing = ref<FolioCard | null>(null)
const removeOpen = ref(false)
const emptyOpen = ref(false)
const said = ref('')

const { saveOne, saveAll, chooseFiles, bringIn, stop, passing, refused, asking, answerTwins } = useShelfFiles(
  (sentence) => (said.value = sentence),
)
const dropping = ref(false)
function onDrop(event: DragEvent): void {
  dropping.value = false
  void bringIn([...(event.dataTransfer?.files ?? [])])
}

/** A new folio opens at once: what is typed meanwhile is its first line. */
async function create(): Promise<void> {
  catchTyping()
  const folio = await shelf.create()
  if (folio) await navigateTo(`/folio/${folio.id}`)
  else typedAhead()
}

function askRename(card: FolioCard): void {
  renaming.value = card
  renameOpen.value = true
}

function askRemove(card: FolioCard): void {
  removing.value = card
  removeOpen.value = true
}

async function bin(card: FolioCard): Promise<void> {
  await shelf.bin(card.id)
  said.value = `${card.title} is in the bin.`
}

async function restore(card: FolioCard): Promise<void> {
  await shelf.restore(card.id)
  said.value = `${card.title} is back on the shelf.`
}

const ORDERS: Readonly<Record<ShelfSort, string>> = {
  changed: 'last change',
  title: 'title',
  created: 'when made',
  length: 'number of lines',
}
const orders = (): MenuAction[] =>
  SHELF_SORTS.map((sort) => ({ label: ORDERS[sort], on: shelf.sort === sort, run: () => (shelf.sort = sort) }))
const asked = useOnceOpen(
  () => renameOpen.value || removeOpen.value || emptyOpen.value || asking.value !== null || door.asking,
  'field',
)
</script>

<template>
  <div
    class="shelf-page"
    :class="{ dropping }"
    @dragover.prevent="dropping = true"
    @dragleave="dropping = false"
    @drop.prevent="onDrop"
  >
    <header class="masthead">
      <AppMark :size="64" />
      <div>
        <h1>Ornate Phasor</h1>
        <p>A ledger that answers: complex numbers, phasors and the complex plane.</p>
      </div>
      <nav aria-label="Shelf">
        <v-btn v-if="door.inside" variant="text" @click="door.ask()">Sign out…</v-btn>
        <ThemeButton />
      </nav>
    </header>
    <main class="content">
      <div class="bar">
        <h2>Folios</h2>
        <v-text-field
          v-model="shelf.find"
          type="search"
          class="search"
          placeholder="Search titles, names and lines"
          aria-label="Search the folios"
        />
        <MenuButton label="Sorted by" :words="`Sorted by ${ORDERS[shelf.sort]}`" :actions="orders" />
        <v-btn @click="chooseFiles">Bring in files</v-btn>
        <v-btn :disabled="shelf.folios.length === 0 || passing !== ''" @click="saveAll">Save all</v-btn>
        <v-btn color="primary" variant="flat" @click="create"> <AppIcon :path="mdiPlus" />New folio </v-btn>
      </div>
      <p v-if="shelf.message" class="failure" role="alert">{{ shelf.message }}</p>
      <p v-if="copies.trouble !== ''" class="failure" role="alert">{{ copies.trouble }}</p>
      <p v-if="copies.damage.length > 0" class="failure" role="alert">
        {{ copies.damage.join(' ') }}
        <v-btn variant="text" @click="copies.shown = true">Earlier copies</v-btn>
      </p>
      <p v-if="passing !== ''" class="quiet" role="status">
        {{ passing }} <v-btn variant="text" @click="stop()">Stop</v-btn>
      </p>
      <p v-for="sentence in refused" :key="sentence" class="failure" role="alert">{{ sentence }}</p>
      <p class="visually-hidden" role="status">{{ said }}</p>

      <p v-if="shelf.state === 'loading'" class="quiet">Fetching the folios…</p>
      <div v-else-if="shelf.state === 'failed'" class="quiet">
        <p>The shelf could not be fetched. Is the server still running?</p>
        <v-btn @click="shelf.load()">Try again</v-btn>
      </div>
      <p v-else-if="shelf.folios.length === 0 && shelf.find.trim() !== ''" class="quiet" role="status">
        No folio has “{{ shelf.find.trim() }}” in its title or its lines.
        <v-btn variant="text" @click="shelf.find = ''">Show all</v-btn>
      </p>
      <p v-else-if="shelf.folios.length === 0" class="quiet">
        The shelf is empty. A new folio is where you type lines, and they answer.
      </p>
      <ul v-else class="cards">
        <li v-for="card in shelf.folios" :key="card.id">
          <ShelfCard
            :card="card"
            @rename="askRename(card)"
            @duplicate="shelf.duplicate(card.id)"
            @bin="bin(card)"
            @save="saveOne(card)"
          />
        </li>
      </ul>
      <p v-if="shelf.more" class="further">
        <span class="quiet">{{ shelf.folios.length }} of {{ shelf.count }} folios</span>
        <v-btn :disabled="shelf.fetching" @click="shelf.loadMore()"> Show more </v-btn>
      </p>

      <section v-if="shelf.binnedCount > 0" class="bin">
        <v-btn variant="text" :aria-expanded="shelf.binOpen" @click="shelf.toggleBin()">
          {{ shelf.binOpen ? '▾' : '▸' }} Bin ·
          {{ shelf.binnedCount === 1 ? '1 folio' : `${shelf.binnedCount} folios` }}
        </v-btn>
        <v-btn v-if="shelf.binOpen" class="danger" variant="text" @click="emptyOpen = true"> Empty the bin… </v-btn>
        <ul v-if="shelf.binOpen" class="binned">
          <li v-for="card in shelf.binned" :key="card.id">
            <span class="binned-title">{{ card.title }}</span>
            <v-btn @click="restore(card)"> <AppIcon :path="mdiDeleteRestore" />Restore </v-btn>
            <v-btn class="danger" @click="askRemove(card)">Delete for good</v-btn>
          </li>
        </ul>
        <v-btn v-if="shelf.binOpen && shelf.binnedMore" :disabled="shelf.fetching" @click="shelf.loadMore(true)">
          Show more of the bin
        </v-btn>
      </section>
      <EarlierCopies v-if="copies.known" />
    </main>

    <template v-if="asked">
      <LazySheetDialog
        :model-value="asking !== null"
        name="Folios that are here already"
        title="Here already"
        @update:model-value="answerTwins('none')"
      >
        <p>{{ asking?.sentence }}</p>
        <template #answers>
          <v-btn @click="answerTwins('none')">Leave them out</v-btn>
          <v-btn v-if="asking?.comparable" @click="answerTwins('compare')">Compare</v-btn>
          <v-btn color="primary" variant="flat" @click="answerTwins('beside')">Put them beside</v-btn>
        </template>
      </LazySheetDialog>
      <LazyDoorDialog />
      <LazyAskDialog
        v-model="renameOpen"
        title="Rename folio"
        field="Title"
        :value="renaming?.title ?? ''"
        action="Rename"
        @answer="(title) => renaming && shelf.rename(renaming.id, title)"
      />
      <LazyAskDialog
        v-model="emptyOpen"
        title="Empty the bin?"
        :text="`${shelf.binnedCount === 1 ? 'One folio' : `${shelf.binnedCount} folios`} and all their lines will be gone. This cannot be undone.`"
        action="Empty the bin"
        danger
        @answer="shelf.emptyBin()"
      />
      <LazyAskDialog
        v-model="removeOpen"
        title="Delete for good?"
        :text="`${removing?.title ?? ''} and all its lines will be gone. This cannot be undone.`"
        action="Delete"
        danger
        @answer="removing && shelf.remove(removing.id)"
      />
    </template>
  </div>
</template>

<style scoped>
.shelf-page {
  min-height: 100vh;
}
.masthead {
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 20px clamp(16px, 5vw, 72px) 16px;
  border-bottom: 3px double var(--brass);
}
.masthead > div {
  flex: 1;
}
.dropping {
  outline: 3px dashed var(--teal);
  outline-offset: -6px;
}
h1 {
  font-size: 32px;
  line-height: 1.15;
}
.masthead p {
  margin: 2px 0 0;
  color: var(--quiet);
  font-family: var(--serif);
  font-style: italic;
  font-size: 16px;
}
.content {
  padding: 24px clamp(16px, 5vw, 72px) 48px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 16px;
}
.bar h2 {
  margin-right: auto;
}
.search {
  flex: none;
  width: 272px;
}
h2 {
  font-size: 23px;
}
.cards {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(264px, 1fr));
  gap: 24px;
}
.further {
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 16px;
  margin: 24px 0 0;
}
.bin {
  margin-top: 40px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.binned {
  list-style: none;
  margin: 8px 0 0;
  padding: 0 10px;
  max-width: 640px;
}
.binned li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.binned-title {
  flex: 1;
  font-family: var(--serif);
  font-size: 17px;
}
@media (max-width: 599px) {
  .masthead {
    gap: 12px;
  }
  h1 {
    font-size: 24px;
  }
  .masthead p {
    font-size: 14px;
  }
  .masthead nav {
    display: flex;
    flex-direction: column;
    align-items: flex-end;
  }
  .masthead :deep(.wide-only) {
    display: none;
  }
}
</style>
