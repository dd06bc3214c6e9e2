<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Component } from 'vue'
import { useFolioActions } from '~/composables/folioActions'
import { useClipboardLines } from '~/composables/clipboardLines'
import { useEnclosures } from '~/composables/enclosures'
import { useFileOpening } from '~/composables/fileOpening'
import { FOLIO_LEAVES } from '~/composables/folioLeaves'
import { fetchLeavesAhead } from '~/composables/leavesAhead'
import { useFocusBack } from '~/composables/focusBack'
import { useNarrow } from '~/composables/narrow'
import { useOnceOpen } from '~/composables/onceOpen'
import { useSaveFolio } from '~/composables/saveFolio'
import { fetchLineEditor } from '~/lines/lineEditor'
import { isKey } from '~/texts/keys'
import { typedAhead } from '~/browser/typedAhead'
import { pageNonce } from '~/browser/nonce'
import { useDeskStore } from '~/stores/desk'
import { useExchangeStore } from '~/stores/exchange'
import { useFolioStore } from '~/stores/folio'
import { PLATE_SHARE_LEAST, PLATE_SHARE_MOST, usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'
import { useSheetStore } from '~/stores/sheet'

/** The folio page: conventions, ledger, plates. */
const route = useRoute()
const folio = useFolioStore()
const saveFolio = useSaveFolio()
const preferences = usePreferencesStore()
const results = useResultsStore()
const desk = useDeskStore()
const actions = useFolioActions()
const exchange = useExchangeStore()
const narrow = useNarrow()
const main = ref<HTMLElement | null>(null)

const id = computed(() => String(route.params.id))
let opened = ''
watch(
  id,
  (value) => {
    opened = value
    desk.reset()
    void folio.open(value)
  },
  { immediate: true },
)
// The paper is told before anything is printed: the print command waits for nothing.
const sheet = useSheetStore()
useHead({
  style: [
    {
      innerHTML: () => `@page { size: ${sheet.choices.paper === 'A4' ? 'A4' : 'letter'}; margin: 0 }`,
      nonce: pageNonce(),
    },
  ],
})
useHead({ title: computed(() => (folio.title === '' ? 'Ornate Phasor' : `${folio.title} · Ornate Phasor`)) })

// An empty folio begins in its first line.
watch(
  () => folio.status,
  (status) => {
    const [only] = folio.lines
    if (status === 'ready') fetchLeavesAhead(FOLIO_LEAVES)
    if (status === 'ready' && exchange.unload()) return desk.show('import')
    if (status === 'ready' && exchange.returned) return desk.show('compare')
    if (status === 'ready' && folio.lines.length === 1 && only?.source === '') folio.edit(only.id)
    else typedAhead()
  },
)

/** A field of text has an undo of its own. */
function hasOwnUndo(target: EventTarget | null): boolean {
  const field = target instanceof HTMLInputElement && (target.type === 'text' || target.type === 'search')
  return field || target instanceof HTMLTextAreaElement
}

/** Ctrl+A in a text is about that text. */
function isWritten(target: EventTarget | null): boolean {
  return hasOwnUndo(target) || (target instanceof HTMLElement && target.isContentEditable)
}

function onKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || folio.status !== 'ready') return
  if (event.key === 'Escape' && desk.full) {
    desk.full = false
    return
  }
  const action = actions.keyed.find((a) => isKey(event, a.key))
  if (!action) return
  if (action.key === 'selectAll' && isWritten(event.target)) return
  if ((action.key === 'undo' || action.key === 'redo') && hasOwnUndo(event.target)) return
  event.preventDefault()
  action.run()
}

/** How much of the window a touch keyboard covers: the key strip stands on it, and the header makes room. */
function onViewport(): void {
  const viewport = window.visualViewport
  if (!viewport) return
  const covered = Math.max(0, Math.round(window.innerHeight - viewport.height - viewport.offsetTop))
  document.documentElement.style.setProperty('--keyboard', `${covered}px`)
  keyboardUp.value = covered > 120
}
const keyboardUp = ref(false)

/** The browser asks before it closes the page, where something would be lost. */
function onLeave(event: BeforeUnloadEvent): void {
  if (folio.wouldLose) event.preventDefault()
}

function onHide(): void {
  if (document.visibilityState === 'hidden') void folio.flush()
}

/** What waits is sent as soon as there is a network again. */
function onOnline(): void {
  void folio.flush()
}

// Files that are dropped, tables and lines that are pasted.

useEnclosures()
const { copyLines, pasteLines } = useClipboardLines()
const { openFile } = useFileOpening()
const dropping = ref(false)

const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false

function onDragOver(event: DragEvent): void {
  if (!hasFiles(event) || folio.status !== 'ready') return
  event.preventDefault()
  dropping.value = folio.writable
}

function onDragLeave(event: DragEvent): void {
  if (event.relatedTarget === null) dropping.value = false
}

function onDrop(event: DragEvent): void {
  dropping.value = false
  const file = event.dataTransfer?.files[0]
  if (!hasFiles(event) || !file) return
  event.preventDefault()
  const row = event.target instanceof Element ? event.target.closest<HTMLElement>('.row[data-id]') : null
  void openFile(file, row?.dataset.id ?? folio.current)
}

/** The browser's own print command prints the sheet. */
function beforePrint(): void {
  if (folio.status !== 'ready' || desk.sheetOpen) return
  folio.keep()
  if (!sheetView.value) {
    folio.tell('The sheet was still being fetched when you printed: print once more.')
    return
  }
  desk.sheetForPrint = true
  desk.sheetOpen = true
}

/** The sheet is fetched while nothing else is to be done: the print command finds it ready. */
const sheetView = shallowRef<Component | null>(null)
async function fetchSheet(): Promise<void> {
  try {
    sheetView.value ??= (await import('~/components/sheet/SheetView.vue')).default
  } catch {
    // Without a network it is fetched when it is asked for again.
    if (!desk.sheetOpen) return
    desk.sheetOpen = false
    folio.tell('The sheet could not be fetched. Is the server still running?')
  }
}
watch(
  () => desk.sheetOpen,
  (open) => open && void fetchSheet(),
)
watch(
  () => folio.status === 'ready',
  (ready) => {
    if (!ready) return
    if (typeof requestIdleCallback === 'undefined') setTimeout(() => void fetchSheet(), SHEET_AFTER)
    else requestIdleCallback(() => void fetchSheet(), { timeout: SHEET_AFTER })
  },
)
/** Milliseconds after a folio was opened, at most. */
const SHEET_AFTER = 2_000

function afterPrint(): void {
  if (!desk.sheetForPrint) return
  desk.sheetForPrint = false
  desk.sheetOpen = false
}

onMounted(() => {
  window.addEventListener('keydown', onKey)
  window.addEventListener('afterprint', afterPrint)
  document.addEventListener('copy', copyLines)
  document.addEventListener('paste', pasteLines)
  window.addEventListener('dragover', onDragOver)
  window.addEventListener('dragleave', onDragLeave)
  window.addEventListener('drop', onDrop)
  window.addEventListener('beforeprint', beforePrint)
  document.addEventListener('visibilitychange', onHide)
  window.addEventListener('beforeunload', onLeave)
  window.addEventListener('online', onOnline)
  window.visualViewport?.addEventListener('resize', onViewport)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  window.removeEventListener('afterprint', afterPrint)
  document.removeEventListener('copy', copyLines)
  document.removeEventListener('paste', pasteLines)
  window.removeEventListener('dragover', onDragOver)
  window.removeEventListener('dragleave', onDragLeave)
  window.removeEventListener('drop', onDrop)
  window.removeEventListener('beforeprint', beforePrint)
  document.removeEventListener('visibilitychange', onHide)
  window.removeEventListener('beforeunload', onLeave)
  window.removeEventListener('online', onOnline)
  window.visualViewport?.removeEventListener('resize', onViewport)
  // The page of another folio may have opened it already.
  if (folio.id === opened) folio.close()
})

useFocusBack(() => desk.sheetOpen && !desk.sheetForPrint)

// The splitter between ledger and plates.

const dragging = ref(false)
function split(event: PointerEvent): void {
  if (!dragging.value || !main.value) return
  const box = main.value.getBoundingClientRect()
  preferences.setPlateShare(((box.right - event.clientX) / box.width) * 100)
}
function startSplit(event: PointerEvent): void {
  dragging.value = true
  if (event.currentTarget instanceof HTMLElement) event.currentTarget.setPointerCapture(event.pointerId)
}

// What opens over the page.

const once = {
  find: useOnceOpen(() => desk.findOpen, 'field'),
  keys: useOnceOpen(() => desk.keysOpen),
  conventions: useOnceOpen(() => desk.conventionsOpen),
  renaming: useOnceOpen(() => desk.renaming !== null, 'field'),
  answering: useOnceOpen(() => desk.answering !== null, 'field'),
}
void fetchLineEditor()
</script>

<template>
  <div
    class="page"
    :class="{ 'as-sheet': desk.sheetOpen && sheetView, 'with-foot': !keyboardUp }"
    :data-sheet="sheetView ? 'ready' : null"
  >
    <FolioHeader v-show="!keyboardUp" />
    <template v-if="folio.status === 'ready'">
      <ConventionsRail />
      <p v-if="!folio.writable" class="notice following" role="status">
        <template v-if="folio.role === 'taking'">Taking the folio over; in a moment you can write here…</template>
        <template v-else>
          Another tab writes this folio. Here you see it live.
          <v-btn variant="text" @click="folio.takeOver()">Write here instead</v-btn>
        </template>
      </p>
      <p v-if="!folio.browserKeeps" class="notice" role="alert">
        This browser keeps nothing for you (its storage is full or refused). What has not reached the server is lost
        when this page closes.
        <v-btn variant="text" @click="saveFolio()"> Save as a file </v-btn>
      </p>
      <AsideNotice />
      <NumbersNotice />
      <p v-if="folio.notice" class="notice" role="status">
        {{ folio.notice }}
        <v-btn v-if="folio.overlong !== ''" variant="text" @click="folio.takeOverlong()"> Put it in as a note </v-btn>
        <v-btn variant="text" @click="folio.dismissNotice()">Understood</v-btn>
      </p>
      <p v-if="results.slow && results.running === null" class="notice" role="status">
        A line takes long to reckon{{ results.progress === null ? '' : `: ${Math.round(100 * results.progress)} %` }}.
        <v-btn variant="text" @click="results.stop()">Stop it</v-btn>
      </p>
      <main
        ref="main"
        class="main"
        :class="[`show-${desk.part}`, { full: desk.full }]"
        :style="{ '--plate-share': `${preferences.plateShare}%` }"
      >
        <IndexPane class="index-column" />
        <div class="ledger-column" tabindex="-1"><LedgerPane /></div>
        <div
          class="splitter"
          role="separator"
          tabindex="0"
          aria-orientation="vertical"
          aria-label="Width of the plate"
          :aria-valuenow="Math.round(preferences.plateShare)"
          :aria-valuemin="PLATE_SHARE_LEAST"
          :aria-valuemax="PLATE_SHARE_MOST"
          @pointerdown="startSplit"
          @pointermove="split"
          @pointerup="dragging = false"
          @keydown.left.prevent="preferences.setPlateShare(preferences.plateShare + 2)"
          @keydown.right.prevent="preferences.setPlateShare(preferences.plateShare - 2)"
        />
        <aside class="plate-column" aria-label="Beside the ledger"><PanelColumn /></aside>
      </main>
      <LazyVernierScale v-if="narrow" class="at-foot" />
      <FootBar v-show="!keyboardUp" />
      <LazyFindPalette v-if="once.find.value" />
      <LazyKeysDialog v-if="once.keys.value" />
      <LazyConventionsSheet v-if="once.conventions.value" />
      <LazyRenameDialog v-if="once.renaming.value" />
      <LazyAnswerDialog v-if="once.answering.value" />
      <p v-if="dropping" class="drop-here" role="status">Let go: you see what is in the file before it is taken in.</p>
      <component :is="sheetView" v-if="desk.sheetOpen && sheetView" />
    </template>
    <main v-else-if="folio.status === 'failed'" class="state">
      <h2>This folio could not be opened</h2>
      <p>{{ folio.message }}</p>
      <AsideNotice />
      <p>
        <v-btn
          v-if="folio.damaged"
          :href="`/api/folios/${id}/rescue`"
          download="folio.json"
          color="primary"
          variant="flat"
        >
          Save what can be read as a file
        </v-btn>
        <v-btn v-if="folio.signedOut" :to="`/sign-in?to=/folio/${id}`" color="primary" variant="flat">Sign in</v-btn>
        <v-btn color="primary" variant="flat" @click="folio.open(id)">Try again</v-btn>
        <v-btn to="/">To the shelf</v-btn>
      </p>
    </main>
    <main v-else class="state" aria-busy="true"><p>Opening the folio…</p></main>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  display: flex;
  flex-direction: column;
}
.main {
  flex: 1;
  min-height: 0;
  display: grid;
  position: relative;
  grid-template-columns: auto minmax(min(540px, 48vw), 1fr) 9px minmax(min(300px, 28vw), var(--plate-share));
}
.ledger-column {
  overflow-y: auto;
  min-width: 0;
  scrollbar-gutter: stable;
  scrollbar-width: thin;
}
.splitter {
  cursor: col-resize;
  border-left: 3px double var(--brass);
  touch-action: none;
}
.splitter:hover {
  background: var(--rail);
}
.plate-column {
  padding: 16px 16px 12px 8px;
  min-width: 0;
  min-height: 0;
}
.full {
  grid-template-columns: minmax(0, 1fr);
}
.full > :not(.plate-column) {
  display: none;
}
.full .plate-column {
  padding-left: 16px;
}
.drop-here {
  position: fixed;
  inset: auto 0 0;
  z-index: 800;
  margin: 0;
  padding: 16px;
  text-align: center;
  background: var(--teal);
  color: var(--on-teal);
}
@media print {
  .as-sheet > :not(.sheet-view) {
    display: none !important;
  }
  .page {
    display: block;
    height: auto;
  }
}
.state {
  margin: 12vh auto 0;
  padding: 0 24px;
  max-width: 520px;
}
.state .v-btn {
  margin-right: 8px;
}
@media (max-width: 899px) {
  .with-foot {
    --foot: calc(56px + env(safe-area-inset-bottom));
  }
  .main {
    grid-template-columns: minmax(0, 1fr);
  }
  .splitter {
    display: none;
  }
  .plate-column {
    padding: 12px;
  }
  .show-ledger .plate-column,
  .show-ledger .index-column,
  .show-plates .ledger-column,
  .show-plates .index-column,
  .show-index .ledger-column,
  .show-index .plate-column {
    display: none;
  }
}
</style>
