<script setup lang="ts">
import { mdiClose, mdiPrinter } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { pagesOf } from '#core/exchange/pages'
import { SHEET_HEAD_MAX } from '#shared/folio'
import { fileName } from '~/keeping/folioFile'
import { useReporting } from '~/composables/reporting'
import { sheetItems } from '~/lines/sheetItems'
import type { SheetItem } from '~/lines/sheetItems'
import { svgElement } from '~/drawing/vector'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useSheetStore } from '~/stores/sheet'

/**
 * The folio as it is handed in: real pages, boxes of fixed size that are the same on the screen and on paper.
 * Everything is measured first in a column of the width of a page, then divided among the pages.
 */
const folio = useFolioStore()
const desk = useDeskStore()
const sheet = useSheetStore()
const { report, runsTables, shownPlates, pictures, theme } = useReporting()

/** Pages in pixels of 1/96 inch, and what of their height is left for the text. */
const PAPERS = { A4: { width: 794, height: 1122 }, Letter: { width: 816, height: 1055 } } as const
const MARGIN = 64
const HEAD = 34
const paper = computed(() => PAPERS[sheet.choices.paper])
const room = computed(() => paper.value.height - 2 * MARGIN - HEAD)

const items = computed<readonly SheetItem[]>(() =>
  sheetItems(report(), sheet.choices, sheet.choices.runs ? runsTables() : []),
)

/** The pictures of the plates, by the plate. */
const drawn = computed(() => {
  const found = new Map<string, SVGElement>()
  if (!sheet.choices.plates) return found
  for (const { id, plate } of shownPlates()) {
    const picture = svgElement(pictures.paint(plate, theme()), pictures.sizeOf(plate), plate.caption)
    picture.setAttribute('role', 'img')
    found.set(id, picture)
  }
  return found
})
const pictureOf = (item: SheetItem): SVGElement | null => (item.kind === 'figure' ? (drawn.value.get(item.figure.id) ?? null) : null) // prettier-ignore

/** Formulas are set no smaller than this share of their size; then they stand as they are typed. */
const SMALLEST = 0.55
const scales = shallowRef<ReadonlyMap<string, number>>(new Map())
const scaleOf = (item: SheetItem): number => scales.value.get(item.id) ?? 1
const pages = shallowRef<readonly (readonly [number, number])[]>([])
const column = ref<HTMLElement | null>(null)
const measured = ref<readonly SheetItem[]>([])
let round = 0

/** Measures what stands on the sheet; formulas that are too wide are set smaller first. */
async function measure(): Promise<void> {
  round += 1
  const mine = round
  const now = items.value
  scales.value = new Map()
  measured.value = now
  await nextTick()
  if (mine !== round || !column.value) return
  const cells = [...column.value.children]
  scales.value = new Map(now.map((item, k) => [item.id, fittingScale(cells[k])]))
  await nextTick()
  if (mine !== round || !column.value) return
  const heights = [...column.value.children].map((cell) => cell.getBoundingClientRect().height)
  pages.value = pagesOf(
    now.map((item, k) => ({ height: heights[k] ?? 0, keepWithNext: item.keepWithNext })),
    room.value,
  )
  // Letters that come later are wider or narrower than those that stood for them.
  if (document.fonts.status !== 'loading') return
  await document.fonts.ready
  if (mine === round) await measure()
}

function fittingScale(cell: Element | undefined): number {
  let scale = 1
  for (const fit of cell?.querySelectorAll('.fit') ?? []) {
    const { scrollWidth, clientWidth } = fit
    if (scrollWidth > clientWidth + 1) scale = Math.min(scale, (clientWidth - 2) / scrollWidth)
  }
  return scale < SMALLEST ? 0 : scale
}

watch([items, paper, () => sheet.choices], () => void measure(), { immediate: true, flush: 'post' })
const view = ref<HTMLElement | null>(null)
onMounted(() => {
  title = document.title
  document.title = pdfName.value
  if (!desk.sheetForPrint) view.value?.focus()
})
onBeforeUnmount(() => {
  document.title = title
})
let title = ''

/** What a PDF of it is called: course, sheet, name. */
const pdfName = computed(() => {
  const { course, sheet: number } = folio.head
  return fileName([course, number, sheet.names[0] ?? '', folio.title].filter((part) => part !== '').join(' '))
})
watch(pdfName, (name) => (document.title = name))

function print(): void {
  window.print()
}
function close(): void {
  desk.sheetForPrint = false
  desk.sheetOpen = false
}

const names = computed({
  get: () => sheet.names.join(', '),
  set: (text: string) => {
    sheet.names = text
      .split(',')
      .map((name) => name.trim().slice(0, 120))
      .filter((name) => name !== '')
      .slice(0, 12)
  },
})

const HEAD_FIELDS = [
  { part: 'course', label: 'Course' },
  { part: 'sheet', label: 'Sheet' },
  { part: 'date', label: 'Date' },
] as const

/** What is on the sheet or not. */
const PARTS = [
  { choice: 'notes', label: 'Notes' },
  { choice: 'plates', label: 'Plates' },
  { choice: 'runs', label: 'Runs' },
  { choice: 'colour', label: 'Plates in colour' },
  { choice: 'conventions', label: 'Conventions' },
] as const

const answered = computed(() => folio.lines.filter((line) => line.answer).length)
</script>

<template>
  <section ref="view" class="sheet-view" tabindex="-1" aria-label="The sheet" @keydown.esc="close">
    <div class="choices">
      <header>
        <h2>The sheet</h2>
        <v-btn :aria-label="'Back to the folio'" variant="text" icon size="small" @click="close"
          ><AppIcon :path="mdiClose"
        /></v-btn>
      </header>
      <v-btn color="primary" variant="flat" block @click="print"
        ><AppIcon :path="mdiPrinter" />&nbsp;Print, or keep as PDF</v-btn
      >
      <p class="quiet" role="status">{{ pages.length === 1 ? '1 page' : `${pages.length} pages` }}</p>

      <h3>At its head</h3>
      <v-text-field
        v-for="field in HEAD_FIELDS"
        :key="field.part"
        :label="field.label"
        :model-value="folio.head[field.part]"
        :maxlength="SHEET_HEAD_MAX"
        :disabled="!folio.writable"
        @update:model-value="(text: string) => folio.writeHead({ [field.part]: text })"
      />
      <v-text-field
        v-model.lazy="names"
        label="Names and student numbers"
        hint="Kept on this device only; a shared folio never has them."
        persistent-hint
      />

      <h3>What is on it</h3>
      <v-select
        label="Paper"
        :items="['A4', 'Letter']"
        :model-value="sheet.choices.paper"
        @update:model-value="(paper: 'A4' | 'Letter') => sheet.choose({ paper })"
      />
      <v-select
        label="Results in"
        :items="[
          { value: 'both', title: 'both forms' },
          { value: 'rectangular', title: 'rectangular form' },
          { value: 'polar', title: 'polar form' },
        ]"
        :model-value="sheet.choices.forms"
        @update:model-value="(forms: 'both' | 'rectangular' | 'polar') => sheet.choose({ forms })"
      />
      <v-select
        label="Answers listed"
        :items="[
          { value: 'head', title: 'at the head' },
          { value: 'end', title: 'at the end' },
          { value: 'none', title: 'nowhere' },
        ]"
        :model-value="sheet.choices.answers"
        @update:model-value="(answers: 'head' | 'end' | 'none') => sheet.choose({ answers })"
      />
      <p v-if="answered === 0" class="quiet">
        No line is marked as an answer yet: a line’s menu does it, and the line is boxed.
      </p>
      <v-checkbox
        v-for="part in PARTS"
        :key="part.choice"
        :label="part.label"
        :disabled="part.choice === 'colour' && !sheet.choices.plates"
        :model-value="sheet.choices[part.choice]"
        @update:model-value="(on) => sheet.choose({ [part.choice]: on === true })"
      />
    </div>

    <div class="desk" tabindex="0" role="group" aria-label="Pages">
      <div class="measuring" aria-hidden="true" :style="{ width: `${paper.width - 2 * MARGIN}px` }">
        <div ref="column">
          <div v-for="item in measured" :key="item.id" class="cell">
            <SheetItem
              :item="item"
              :scale="scaleOf(item)"
              :letter="folio.conventions.letter"
              :conventions="sheet.choices.conventions"
              :picture="pictureOf(item)"
            />
          </div>
        </div>
      </div>
      <article
        v-for="([from, to], n) in pages"
        :key="n"
        class="sheet-page"
        :aria-label="`Page ${n + 1} of ${pages.length}`"
        :style="{ width: `${paper.width}px`, height: `${paper.height}px`, padding: `${MARGIN}px` }"
      >
        <div class="running">
          <span>{{ sheet.names.join(', ') }}</span><span>page {{ n + 1 }} of {{ pages.length }}</span>
        </div>
        <div v-for="item in measured.slice(from, to)" :key="item.id" class="cell">
          <SheetItem
            :item="item"
            :scale="scaleOf(item)"
            :letter="folio.conventions.letter"
            :conventions="sheet.choices.conventions"
            :picture="pictureOf(item)"
          />
        </div>
      </article>
    </div>
  </section>
</template>

<style scoped>
.sheet-view {
  position: fixed;
  inset: 0;
  z-index: 900;
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  background: var(--paper);
}
.choices {
  overflow-y: auto;
  padding: 12px 16px 24px;
  border-right: 3px double var(--brass);
  display: flex;
  flex-direction: column;
  gap: 10px;
  scrollbar-width: thin;
}
.choices > * {
  flex: none;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h2 {
  font-size: 20px;
}
h3 {
  margin-top: 6px;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
  font-size: 16px;
}
.quiet {
  margin: 0;
  font-size: 14px;
  color: var(--quiet);
}
.desk {
  overflow: auto;
  padding: 24px;
  background: color-mix(in srgb, var(--edge) 22%, var(--paper));
}
.measuring {
  position: absolute;
  visibility: hidden;
  height: 0;
  overflow: hidden;
  color: #111;
}
.sheet-page {
  box-sizing: border-box;
  margin: 0 auto 24px;
  overflow: hidden;
  background: #fff;
  color: #111;
  box-shadow: 0 2px 12px rgb(20 30 40 / 30%);
}
.running {
  display: flex;
  justify-content: space-between;
  height: 24px;
  margin-bottom: 10px;
  font-size: 12px;
  color: #444;
}
.cell {
  overflow: hidden;
}
@media (max-width: 899px) {
  .sheet-view {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  .choices {
    border-right: 0;
    border-bottom: 3px double var(--brass);
  }
  .desk {
    overflow: hidden;
    padding: 8px;
  }
  .sheet-page {
    zoom: 0.46;
  }
}
@media print {
  .sheet-view,
  .desk {
    position: static;
    display: block;
    overflow: visible;
    padding: 0;
    background: #fff;
  }
  .choices,
  .measuring {
    display: none;
  }
  .sheet-page {
    margin: 0;
    box-shadow: none;
    break-after: page;
    zoom: 1;
  }
  .sheet-page:last-child {
    break-after: auto;
  }
}
</style>
