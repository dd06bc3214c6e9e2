<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { drawNote } from '~/texts/markdown'
import type { SheetItem } from '~/lines/sheetItems'

/** One piece of the sheet, the same in the preview and on paper. */
const props = defineProps<{
  item: SheetItem
  /** How much smaller formulas are set where they would not fit; 0 where they stand as they are typed. */
  scale: number
  letter: 'i' | 'j'
  conventions: boolean
  picture: SVGElement | null
}>()

const host = ref<HTMLElement | null>(null)
function draw(): void {
  if (!host.value || !props.picture) return
  host.value.replaceChildren(props.picture.cloneNode(true))
}
onMounted(draw)
watch(() => props.picture, draw)

/** Drawn at once, not when what draws notes has come: the pages are measured by it. */
const note = computed(() => (props.item.kind === 'note' ? drawNote(props.item.text, props.letter) : ''))

const report = computed(() => (props.item.kind === 'title' ? props.item.report : null))
const about = computed(() => {
  const head = report.value?.head
  return head ? [head.course, head.sheet, head.date].filter((part) => part !== '').join(' · ') : ''
})
const size = computed(() => ({ fontSize: `${props.scale || 1}em` }))
const wide = computed(() => {
  const { item } = props
  if (item.kind !== 'entry' || item.result.kind !== 'value') return false
  return item.result.forms.some(
    ({ latex }) => latex.includes('matrix') && (latex.split('\\\\')[0]?.split('&').length ?? 0) > 4,
  )
})
</script>

<template>
  <div v-if="report" class="item title-block">
    <h1>{{ report.head.title }}</h1>
    <p v-if="about !== ''" class="about">{{ about }}</p>
    <p v-if="report.head.names.length > 0" class="names">{{ report.head.names.join(', ') }}</p>
    <p v-if="conventions" class="conventions">Conventions: {{ report.conventions }}.</p>
  </div>
  <h2 v-else-if="item.kind === 'answers'" class="item">Answers</h2>
  <h2 v-else-if="item.kind === 'runs'" class="item">Runs</h2>
  <SheetRunsRow v-else-if="item.kind === 'run'" class="item" :style="size" :row="item.row" :typed="scale === 0" />
  <div v-else-if="item.kind === 'answer'" class="item answer-row">
    <span class="part">{{ item.answer.label }}</span>
    <span class="forms fit" :style="size"
      ><SheetResult :result="item.result" :problem="item.answer.entry.problem" :typed="scale === 0"
    /></span>
    <span class="from">({{ item.answer.entry.number }})</span>
  </div>
  <div v-else-if="item.kind === 'note'" class="item note">
    <!-- eslint-disable-next-line vue/no-v-html -- drawn by markdown-it with raw HTML off and untrusted KaTeX -->
    <div class="note-text" v-html="note" />
  </div>
  <figure v-else-if="item.kind === 'figure'" class="item">
    <div ref="host" class="picture" />
    <figcaption>
      <b>Plate {{ item.figure.number }}.</b> {{ item.figure.caption }}
    </figcaption>
  </figure>
  <div v-else-if="item.kind === 'entry'" class="item entry" :class="{ wide, boxed: item.entry.answer !== null }">
    <span class="number">({{ item.entry.number }})</span>
    <div class="reading-cell">
      <span v-if="item.entry.answer !== null" class="part">{{ item.entry.answer }}</span>
      <template v-if="item.entry.reading !== '' && scale > 0">
        <span class="fit" :style="size"><ReadingMath :latex="item.entry.reading" /></span>
      </template>
      <code v-else-if="item.entry.reading !== '' || item.entry.problem !== null">{{ item.entry.source }}</code>
      <span v-if="item.entry.remark" class="remark">{{ item.entry.remark }}</span>
    </div>
    <div class="result-cell fit" :style="size">
      <SheetResult :result="item.result" :problem="item.entry.problem" :typed="scale === 0" />
    </div>
  </div>
</template>

<style scoped>
.item {
  margin: 0;
  padding: 4px 0;
  font-size: 14px;
  line-height: 1.4;
}
.title-block {
  padding-bottom: 10px;
  margin-bottom: 6px;
  border-bottom: 3px double #8c7a4e;
}
h1 {
  font-size: 24px;
}
h2 {
  font-size: 17px;
}
p {
  margin: 2px 0;
}
.conventions {
  font-style: italic;
  font-size: 12.5px;
}
.entry {
  display: grid;
  grid-template-columns: 40px minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 2px 12px;
  align-items: center;
  min-height: 30px;
  border-bottom: 1px solid #e4e4e4;
}
.wide .result-cell {
  grid-column: 2 / -1;
}
.number,
.from {
  font-family: var(--serif);
  color: #444;
}
.reading-cell,
.result-cell {
  min-width: 0;
}
.fit {
  display: block;
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
}
.reading-cell > .remark:first-child {
  font-family: var(--serif);
  font-style: normal;
  font-weight: 600;
  font-size: 15px;
}
.remark {
  display: block;
  font-style: italic;
  overflow-wrap: anywhere;
}
code {
  font-family: var(--mono);
  font-size: 12.5px;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
.part {
  display: inline-block;
  margin-right: 8px;
  padding: 0 6px;
  border: 1.5px solid currentcolor;
  font-weight: 600;
}
.boxed .result-cell {
  padding: 4px 8px;
  border: 1.5px solid currentcolor;
}
.answer-row {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr) max-content;
  gap: 12px;
  align-items: center;
}
figure {
  text-align: center;
}
.picture :deep(svg) {
  display: block;
  margin: 0 auto;
  max-width: 100%;
  height: auto;
}
figcaption {
  margin-top: 2px;
  font-size: 13px;
}
.note :deep(.note-text) {
  max-width: none;
  font-size: 14px;
}
</style>
