<script setup lang="ts">
import { Chart, LinearScale, LineElement, PointElement, ScatterController } from 'chart.js'
import {
  mdiFitToPageOutline,
  mdiFullscreen,
  mdiFullscreenExit,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiTableLarge,
} from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { hueOf } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { fitView, panBy, toPixel, zoomAt } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import { paintPlane, planePlugin } from '~/composables/planeDrawing'
import { usePlanePointer } from '~/composables/planePointer'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'
import { onPlate, useResultsStore } from '~/stores/results'
import { THEMES } from '~/theme/tokens'

/** Every kept complex value of the folio as an arrow from the origin. */
Chart.register(ScatterController, LinearScale, PointElement, LineElement)

const folio = useFolioStore()
const desk = useDeskStore()
const results = useResultsStore()
const preferences = usePreferencesStore()

const host = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const size = shallowRef<Size>({ width: 400, height: 400 })
const view = shallowRef<PlaneView>({ re: 0, im: 0, perPixel: 0.01 })
/** True once the student has zoomed or panned: the view then stays as it was set. */
const held = ref(false)
const tableOpen = ref(false)
const theme = computed(() => THEMES[preferences.theme])
const plate = computed(() => folio.plate)

const off = computed(() => new Set(plate.value.off))
const kept = computed<readonly PlaneMark[]>(() =>
  (desk.stroll === null ? folio.lines : folio.lines.slice(0, desk.stroll + 1)).flatMap((line) => {
    const shown = results.views.get(line.id)
    if (!onPlate(shown) || !shown?.point || shown.readout.shape !== 'twin' || off.value.has(line.id)) return []
    const { rectangular, polar } = shown.readout
    return [
      {
        id: line.id,
        label: shown.name ?? '',
        slot: results.slots.get(line.id) ?? 0,
        draggable: shown.literal !== null && folio.editing?.id !== line.id && folio.writable,
        re: shown.point.re,
        im: shown.point.im,
        rectangular,
        polar,
      },
    ]
  }),
)

// Drawing.

let chart: Chart<'scatter'> | null = null
let frameAsked = false

function redraw(): void {
  if (frameAsked) return
  frameAsked = true
  requestAnimationFrame(() => {
    frameAsked = false
    draw()
  })
}

function draw(): void {
  if (!chart) return
  chart.draw()
}

onMounted(async () => {
  await nextTick()
  await document.fonts.ready
  if (!canvas.value || !host.value) return
  observer = new ResizeObserver(([entry]) => {
    if (!entry) return
    const { width, height } = entry.contentRect
    if (width < 1 || height < 1) return
    size.value = { width, height }
    chart?.resize(width, height)
    if (!held.value) fit()
    redraw()
  })
  chart = new Chart(canvas.value, {
    type: 'scatter',
    data: { datasets: [] },
    options: {
      responsive: false,
      maintainAspectRatio: false,
      animation: false,
      events: [],
      layout: { padding: 0 },
      scales: { x: { display: false }, y: { display: false } },
      plugins: { legend: { display: false } },
    },
    plugins: [
      planePlugin(() => ({
        view: view.value,
        size: size.value,
        marks: kept.value,
        theme: theme.value,
        active: active.value,
        plate: plate.value,
        unit: folio.conventions.angle,
      })),
    ],
  })
  observer.observe(host.value)
})
let observer: ResizeObserver | null = null
onBeforeUnmount(() => {
  observer?.disconnect()
  chart?.destroy()
  chart = null
})

function fit(): void {
  view.value = fitView(kept.value, size.value)
  held.value = false
}

function zoom(factor: number, at: Pixel = { x: size.value.width / 2, y: size.value.height / 2 }): void {
  view.value = zoomAt(view.value, size.value, at, factor)
  held.value = true
}

function pan(dx: number, dy: number): void {
  view.value = panBy(view.value, dx, dy)
  held.value = true
}

const { drag, active, cursor, down, move, up, cancel, touchStart, wheel, leave } = usePlanePointer({
  canvas,
  view,
  size,
  marks: kept,
  pan,
  zoom,
  grasp(id) {
    folio.keep()
    const line = folio.lineOf(id)
    const literal = results.views.get(id)?.literal
    return line && literal ? { source: line.source, literal } : null
  },
  dragged: (id, source) => void results.type(id, source),
  dropped(id, source) {
    folio.rewrite(id, source, 'drag')
    if (!held.value) fitIfOut()
  },
  takenBack: () => void results.settle(),
})

function key(event: KeyboardEvent): void {
  const steps: Readonly<Record<string, () => void>> = {
    ArrowLeft: () => pan(40, 0),
    ArrowRight: () => pan(-40, 0),
    ArrowUp: () => pan(0, 40),
    ArrowDown: () => pan(0, -40),
    '+': () => zoom(1.25),
    '=': () => zoom(1.25),
    '-': () => zoom(0.8),
    '0': fit,
    Escape: cancel,
  }
  const step = event.ctrlKey || event.metaKey || event.altKey ? undefined : steps[event.key]
  if (!step) return
  event.preventDefault()
  step()
}

/** After a drag the view stays, unless the tip was left outside it. */
function fitIfOut(): void {
  const out = kept.value.some((mark) => {
    const { x, y } = toPixel(view.value, size.value, mark)
    return x < 0 || y < 0 || x > size.value.width || y > size.value.height
  })
  if (out) fit()
}

const ids = computed(() => kept.value.map((m) => m.id).join(' '))
watch(kept, () => {
  if (!held.value && drag.value === null && folio.editing === null) fit()
  redraw()
})
watch(ids, () => {
  if (!held.value && drag.value === null) fit()
})
watch([view, theme, active, plate, () => folio.conventions.angle], redraw)

/** The picture as a file, on a light ground, at so many pixels for each of the screen's. */
function savePicture(scale: number): void {
  const paper = document.createElement('canvas')
  paper.width = Math.round(size.value.width * scale)
  paper.height = Math.round(size.value.height * scale)
  const ctx = paper.getContext('2d')
  if (!ctx) return
  ctx.scale(scale, scale)
  paintPlane(ctx, {
    view: view.value,
    size: size.value,
    marks: kept.value.map((mark) => ({ ...mark, draggable: false })),
    theme: THEMES.day,
    active: null,
    plate: plate.value,
    unit: folio.conventions.angle,
  })
  paper.toBlob((blob) => {
    if (!blob) return
    const link = document.createElement('a')
    link.href = URL.createObjectURL(blob)
    link.download = `${folio.title.replace(/[^\p{L}\p{Nd}]+/gu, '-')}-plate-1.png`
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 1_000)
  }, 'image/png')
}

// What hover and focus say.

const told = computed(() => kept.value.find((m) => m.id === active.value) ?? null)
const toldAt = computed(() => {
  const mark = told.value
  if (!mark) return {}
  const pixel = toPixel(view.value, size.value, mark)
  const right = pixel.x > size.value.width * 0.55
  const low = pixel.y > size.value.height * 0.7
  return {
    left: right ? 'auto' : `${Math.max(4, pixel.x + 18)}px`,
    right: right ? `${Math.max(4, size.value.width - pixel.x + 18)}px` : 'auto',
    top: low ? 'auto' : `${Math.max(4, pixel.y + 14)}px`,
    bottom: low ? `${Math.max(4, size.value.height - pixel.y + 14)}px` : 'auto',
  }
})
/** Values that the summary for screen readers tells; the table has them all. */
const SPOKEN = 24
const summary = computed(() => {
  const told = kept.value.slice(0, SPOKEN).map((m) => `${m.label} ${m.polar}`)
  if (kept.value.length > SPOKEN) told.push(`and ${kept.value.length - SPOKEN} more, in the table`)
  const names = told.join('; ')
  return names === ''
    ? 'Complex plane, empty'
    : `Complex plane with ${kept.value.length} values: ${names}. Arrow keys move the picture, plus and minus zoom, 0 fits.`
})
</script>

<template>
  <figure class="plate">
    <div class="frame">
      <svg
        v-for="corner in ['nw', 'ne', 'sw', 'se']"
        :key="corner"
        class="flourish"
        :class="corner"
        viewBox="0 0 26 26"
        aria-hidden="true"
      >
        <path d="M1 25V1H25M4.5 20V4.5H20M4.5 11c4 0 6.500-2.500 6.500-6.500" />
      </svg>
      <div ref="host" class="canvas-host">
        <canvas
          ref="canvas"
          tabindex="0"
          role="img"
          :aria-label="summary"
          :style="{ cursor }"
          @pointerdown="down"
          @pointermove="move"
          @pointerup="up"
          @pointercancel="cancel"
          @pointerleave="leave"
          @wheel="wheel"
          @keydown="key"
          @touchstart="touchStart"
        />
        <div v-if="told" class="told sheet" :style="toldAt" role="status">
          <strong :style="{ color: `var(--hue-${hueOf(told.slot) + 1})` }">{{ told.label }}</strong>
          <ValueText :text="told.rectangular" :letter="folio.conventions.letter" />
          <ValueText :text="told.polar" :letter="folio.conventions.letter" />
          <span v-if="told.draggable && drag === null" class="told-note">drag the tip to change its line</span>
        </div>
        <p v-if="kept.length === 0" class="nothing">
          Values that are kept under a name appear here as arrows.<br />Try <code>V = 230/_30</code>
        </p>
      </div>
    </div>
    <figcaption>
      <span class="caption"><b>Plate 1</b> {{ plate.caption }}</span>
      <span class="tools">
        <button type="button" class="plain-button" aria-label="Zoom in" title="Zoom in (+)" @click="zoom(1.25)">
          <AppIcon :path="mdiMagnifyPlusOutline" />
        </button>
        <button type="button" class="plain-button" aria-label="Zoom out" title="Zoom out (−)" @click="zoom(0.8)">
          <AppIcon :path="mdiMagnifyMinusOutline" />
        </button>
        <button type="button" class="plain-button" title="Show all values (0)" @click="fit">
          <AppIcon :path="mdiFitToPageOutline" />Fit
        </button>
        <PlateMenu @picture="savePicture" />
        <button
          type="button"
          class="plain-button"
          :aria-label="desk.full ? 'Give the ledger back' : 'Fill the window'"
          :title="desk.full ? 'Give the ledger back (Esc)' : 'Fill the window'"
          :aria-pressed="desk.full"
          @click="desk.full = !desk.full"
        >
          <AppIcon :path="desk.full ? mdiFullscreenExit : mdiFullscreen" />
        </button>
        <button
          type="button"
          class="plain-button"
          :aria-pressed="tableOpen"
          title="The values as a table"
          @click="tableOpen = !tableOpen"
        >
          <AppIcon :path="mdiTableLarge" />Table
        </button>
      </span>
    </figcaption>
    <div
      :class="tableOpen ? 'values' : 'visually-hidden'"
      :tabindex="tableOpen ? 0 : undefined"
      role="group"
      aria-label="Table of plate 1"
    >
      <table aria-label="Values on plate 1">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Rectangular</th>
            <th scope="col">Polar</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="mark in kept" :key="mark.id">
            <th scope="row" :style="{ color: `var(--hue-${hueOf(mark.slot) + 1})` }">{{ mark.label }}</th>
            <td><ValueText :text="mark.rectangular" :letter="folio.conventions.letter" /></td>
            <td><ValueText :text="mark.polar" :letter="folio.conventions.letter" /></td>
          </tr>
        </tbody>
      </table>
    </div>
  </figure>
</template>

<style scoped>
.plate {
  margin: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}
.frame {
  position: relative;
  flex: 1;
  min-height: 260px;
  padding: 7px;
  border: 1px solid var(--brass);
  background: var(--leaf);
}
.flourish {
  position: absolute;
  width: 22px;
  height: 22px;
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.1;
  z-index: 1;
  pointer-events: none;
}
.nw {
  top: 2px;
  left: 2px;
}
.ne {
  top: 2px;
  right: 2px;
  transform: scaleX(-1);
}
.sw {
  bottom: 2px;
  left: 2px;
  transform: scaleY(-1);
}
.se {
  bottom: 2px;
  right: 2px;
  transform: scale(-1);
}
.canvas-host {
  position: absolute;
  inset: 7px;
  overflow: hidden;
}
canvas {
  display: block;
  touch-action: pan-y;
}
canvas:focus-visible {
  outline-offset: -2px;
}
.told {
  position: absolute;
  z-index: 2;
  display: flex;
  flex-direction: column;
  padding: 6px 10px;
  font-size: 14px;
  pointer-events: none;
}
.told strong {
  font-family: var(--serif);
  font-style: italic;
}
.told-note {
  font-size: 12.5px;
  color: var(--quiet);
}
.nothing {
  position: absolute;
  inset: auto 24px 24px;
  margin: 0;
  text-align: center;
  color: var(--quiet);
}
code {
  font-family: var(--mono);
  color: var(--ink);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 8px;
  padding-top: 6px;
}
.caption {
  font-family: var(--serif);
  font-size: 15px;
  font-style: italic;
  color: var(--quiet);
}
.caption b {
  font-style: normal;
  color: var(--ink);
  margin-right: 6px;
}
.tools {
  display: flex;
  flex: none;
}
.tools :deep(.plain-button) {
  min-width: 32px;
}
.tools .plain-button[aria-pressed='true'] {
  background: var(--rail);
  border-color: var(--edge);
}
.values {
  margin-top: 8px;
  max-height: 220px;
  overflow: auto;
  flex: none;
}
.values table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
.values th,
.values td {
  text-align: left;
  padding: 3px 16px 3px 4px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.values thead th {
  font-family: var(--serif);
  font-style: italic;
  font-weight: 400;
  color: var(--quiet);
}
.values tbody th {
  font-family: var(--serif);
  font-style: italic;
}
</style>
