<script setup lang="ts">
import { mdiRulerSquare, mdiTableLarge } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { formatReal } from '#core/numbers/decimal'
import { formatAngle } from '#core/format/parts'
import { formatPolar, formatRectangular } from '#core/format/number'
import { angleOf, complexNumber } from '#core/values/make'
import type { PlaneMark } from '#core/scene/scene'
import { extentOf, fitRange, fitView, panBy, toPixel, zoomAt } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'
import { onceAFrame } from '~/browser/onceAFrame'
import { useNameDrop } from '~/composables/nameDrop'
import { sourcesOf } from '~/lines/nameIndex'
import { usePlanePointer } from '~/composables/planePointer'
import { usePlateFiles } from '~/composables/plateFiles'
import { usePlateMarks } from '~/composables/plateMarks'
import { Chart, withoutCurves } from '~/drawing/charts'
import type { PlaneFrame } from '~/drawing/frame'
import { gridStep } from '~/drawing/ground'
import { boxOf, isCoarseLocus, locusAt } from '~/drawing/locus'
import type { ShownSweep } from '#core/scene/curve'
import { paintPlane, planePlugin } from '~/drawing/plane'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'
import { THEMES } from '~/theme/tokens'

/** A plane plate: values in the complex plane, to be seen, compared and moved. */
const props = defineProps<{ plate: PlanePlate; number: number }>()
const folio = useFolioStore()
const plates = usePlatesStore()
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
const { marks, loci } = usePlateMarks(computed(() => props.plate))
const places = new Map<string, number>()

// Drawing.

let chart: Chart<'scatter'> | null = null
const redraw = onceAFrame(() => chart?.draw())

function frame(): PlaneFrame {
  return {
    view: view.value,
    size: size.value,
    marks: marks.value,
    loci: loci.value,
    theme: theme.value,
    active: active.value,
    picked: picked.value,
    plate: props.plate,
    conventions: folio.conventions,
    places,
    hurried: drag.value !== null,
  }
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
      plugins: withoutCurves(),
    },
    plugins: [planePlugin(frame)],
  })
  observer.observe(host.value)
})
let observer: ResizeObserver | null = null
onBeforeUnmount(() => {
  observer?.disconnect()
  chart?.destroy()
  chart = null
})

const tipsOf = () => [...marks.value, ...loci.value.flatMap(boxOf)]

/** The range that the student has set, or else all values. */
function fit(): void {
  const { range } = props.plate
  const tips = tipsOf()
  const shown = props.plate.conjugates ? [...tips, ...tips.map((m) => ({ re: m.re, im: -m.im }))] : tips
  view.value = range ? fitRange(range, size.value) : fitView(shown, size.value)
  held.value = false
}

function zoom(factor: number, at: Pixel = { x: size.value.width / 2, y: size.value.height / 2 }): void {
  view.value = zoomAt(view.value, size.value, at, factor, extentOf(tipsOf()))
  held.value = true
}

function pan(dx: number, dy: number): void {
  view.value = panBy(view.value, dx, dy)
  held.value = true
}

// Moving values and picking them.

const focused = ref<string | null>(null)
const measuring = ref(false)
const picked = ref<readonly string[]>([])
/** The value that a finger has tapped: it has a handle beside it. */
const tapped = ref<string | null>(null)
/** The computed value that somebody tried to drag. */
const refusedMark = shallowRef<PlaneMark | null>(null)

const pointer = usePlanePointer({
  canvas,
  view,
  size,
  marks,
  way: () => plates.way,
  step: () => gridStep(view.value),
  pan,
  zoom,
  grasp(line) {
    folio.keep()
    const literal = results.views.get(line)?.literal
    const source = folio.lineOf(line)?.source
    return source !== undefined && literal ? { source, literal } : null
  },
  dragged: (line, source) => void results.type(line, source),
  dropped(line, source) {
    folio.rewrite(line, source, 'drag')
    if (!held.value) fitIfOut()
  },
  takenBack: () => void results.settle(),
  clicked(mark, touch) {
    if (measuring.value) pick(mark)
    else if (touch) tapped.value = tapped.value === mark.id ? null : mark.id
    else folio.reveal(mark.line)
  },
  refused: refuse,
})
const { drag, cursor } = pointer
const active = computed(() => pointer.active.value ?? focused.value ?? tapped.value)

/** How long a refusal is said, in milliseconds. */
const REFUSAL = 7_000
let refusing: ReturnType<typeof setTimeout> | null = null
function refuse(mark: PlaneMark): void {
  refusedMark.value = mark
  if (refusing !== null) clearTimeout(refusing)
  refusing = setTimeout(() => (refusedMark.value = null), REFUSAL)
}

function pick(mark: PlaneMark): void {
  const others = picked.value.filter((id) => id !== mark.id)
  picked.value = others.length < picked.value.length ? others : [...others.slice(-1), mark.id]
}
const pickedMarks = computed(() => picked.value.flatMap((id) => marks.value.find((m) => m.id === id) ?? []))

function toggleMeasure(): void {
  measuring.value = !measuring.value
  picked.value = []
}

const handle = computed(() => {
  const mark = marks.value.find((m) => m.id === tapped.value && m.draggable)
  if (!mark) return null
  const { x, y } = toPixel(view.value, size.value, mark)
  const [left, top] = [x + (x > size.value.width - 90 ? -58 : 58), y + (y > size.value.height - 90 ? -58 : 58)]
  return { mark, style: { left: `${left}px`, top: `${top}px` } }
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
  }
  if (event.key === 'Escape' && drag.value) {
    event.stopPropagation()
    pointer.cancel()
    return
  }
  const step = event.ctrlKey || event.metaKey || event.altKey ? undefined : steps[event.key]
  if (!step) return
  event.preventDefault()
  step()
}

/** On a value that has the focus: arrows move it, Enter picks it, Escape takes a move back. */
function markKey(event: KeyboardEvent, mark: PlaneMark): void {
  if (event.key === 'Escape') {
    if (!pointer.takeKeysBack()) return
    event.stopPropagation()
  } else if (event.key === 'Enter' || event.key === ' ') {
    pointer.settleKeys()
    if (measuring.value) pick(mark)
    else folio.reveal(mark.line)
  } else if (!pointer.nudge(event, mark)) return
  event.preventDefault()
}

/** After a drag the view stays, unless the tip was left outside it. */
function fitIfOut(): void {
  const out = marks.value.some((mark) => {
    const { x, y } = toPixel(view.value, size.value, mark)
    return x < 0 || y < 0 || x > size.value.width || y > size.value.height
  })
  if (out) fit()
}

const ids = computed(() => [...marks.value.map((m) => m.id), ...loci.value.map((l) => l.line)].join(' '))
watch([marks, loci], () => {
  if (!held.value && drag.value === null && folio.editing === null && focused.value === null) fit()
  redraw()
})
watch(ids, () => {
  if (!held.value && drag.value === null) fit()
  refusedMark.value = null
})
watch(
  () => props.plate.range,
  () => fit(),
)
watch([view, loci, theme, active, picked, () => props.plate, () => folio.conventions], redraw)

// Files.

const paint = (ctx: CanvasRenderingContext2D): void =>
  paintPlane(ctx, {
    ...frame(),
    marks: marks.value.map((mark) => ({ ...mark, draggable: false })),
    theme: THEMES.day,
    active: null,
    places: new Map(places),
  })

const { savePng, saveSvg, copy } = usePlateFiles(props, size, paint)

// What hover and focus say.

const told = computed(() => marks.value.find((m) => m.id === active.value) ?? null)
const refusal = computed(() => {
  const mark = refusedMark.value
  if (!mark) return null
  const sources = sourcesOf(folio.lines, results.views, mark.line)
  const list = sources.map(({ name, number }) => `${name} (line ${number})`).join(', ')
  return sources.length === 0
    ? `${mark.label} is computed.`
    : `${mark.label} is computed from ${list}: move ${sources.length === 1 ? 'it' : 'these'}.`
})
const toldAt = computed(() => {
  const mark = told.value
  if (!mark) return {}
  // Beside a value that was tapped stands its handle.
  return handle.value ? { left: '8px', bottom: '8px' } : besides(toPixel(view.value, size.value, mark))
})
/** Beside a place of the picture, and inside of it. */
function besides(pixel: Pixel): Record<string, string> {
  const right = pixel.x > size.value.width * 0.55
  const low = pixel.y > size.value.height * 0.7
  return {
    left: right ? 'auto' : `${Math.max(4, pixel.x + 18)}px`,
    right: right ? `${Math.max(4, size.value.width - pixel.x + 18)}px` : 'auto',
    top: low ? 'auto' : `${Math.max(4, pixel.y + 14)}px`,
    bottom: low ? `${Math.max(4, size.value.height - pixel.y + 14)}px` : 'auto',
  }
}
// A value read off along a locus.

const coarseLocus = computed(() => loci.value.find((locus) => isCoarseLocus(locus, view.value, size.value)))

const onLocus = shallowRef<{ readonly locus: ShownSweep; readonly index: number } | null>(null)
function hoverLocus(event: PointerEvent): void {
  if (loci.value.length === 0) return
  const box = canvas.value?.getBoundingClientRect()
  const busy = drag.value !== null || pointer.active.value !== null
  onLocus.value =
    box && !busy
      ? locusAt(loci.value, view.value, size.value, { x: event.clientX - box.left, y: event.clientY - box.top }, 10)
      : null
}
function readLocus(): void {
  if (onLocus.value) plates.readAlong(onLocus.value.locus.data.along, onLocus.value.index)
}
const offLocus = computed(() => {
  const found = onLocus.value
  if (!found || told.value) return null
  const { data, name, ink } = found.locus
  const z = { re: data.re[found.index] ?? NaN, im: data.im?.[found.index] ?? 0 }
  const value = complexNumber(z)
  const x = data.x[found.index] ?? NaN
  const parameter = data.turns ? formatAngle(angleOf(x), folio.conventions) : formatReal(x, folio.conventions)
  return {
    name,
    hue: ink.hue,
    along: data.along ?? 'point',
    parameter: data.along === null ? String(found.index + 1) : parameter,
    rectangular: formatRectangular(value, folio.conventions),
    polar: formatPolar(value, folio.conventions),
    at: besides(toPixel(view.value, size.value, z)),
  }
})

const WAY_NAMES = { free: '', ray: 'along its ray', ring: 'along its ring', steps: 'in steps' } as const

/** Values that the summary for screen readers tells; the table has them all. */
const SPOKEN = 24
/** What the table and the summary tell: while a value is under the hand they rest. */
const settled = shallowRef<readonly PlaneMark[]>([])
watch(
  [marks, () => drag.value === null, tableOpen],
  () => {
    if (!drag.value?.tip || tableOpen.value) settled.value = marks.value
  },
  { immediate: true },
)
const summary = computed(() => {
  const values = settled.value.filter((m) => !m.term)
  const told = values.slice(0, SPOKEN).map((m) => `${m.label} ${m.polar}`)
  if (values.length > SPOKEN) told.push(`and ${values.length - SPOKEN} more, in the table`)
  for (const { name, data } of loci.value.slice(0, SPOKEN)) told.push(`locus of ${name}, ${data.re.length} points`)
  const names = told.join('; ')
  const what = values.length === 0 ? 'Complex plane' : `Complex plane with ${values.length} values`
  return names === ''
    ? 'Complex plane, empty'
    : `${what}: ${names}. Arrow keys move the picture, plus and minus zoom, 0 fits.`
})

// A name that is dropped on the picture.

const { dropping, dragOver, drop } = useNameDrop(() => props.plate)
</script>

<template>
  <PlateFrame :number="number" :caption="plate.caption">
    <div
      ref="host"
      class="canvas-host"
      :class="{ dropping }"
      @dragover="dragOver"
      @dragleave="dropping = false"
      @drop="drop"
    >
      <canvas
        ref="canvas"
        tabindex="0"
        role="img"
        :aria-label="summary"
        :style="{ cursor: measuring && cursor === 'default' ? 'crosshair' : cursor }"
        @pointerdown="pointer.down"
        @pointermove="(event) => (pointer.move(event), hoverLocus(event))"
        @pointerup="pointer.up"
        @pointercancel="pointer.cancel"
        @pointerleave="(pointer.leave(), (onLocus = null))"
        @click="readLocus"
        @wheel="pointer.wheel"
        @keydown="key"
        @touchstart="pointer.touchStart"
      />
      <MarkStops
        :marks="settled"
        :view="view"
        :size="size"
        @focused="(id) => (focused = id)"
        @left="pointer.settleKeys"
        @pressed="markKey"
      />
      <button
        v-if="handle"
        type="button"
        class="handle"
        :style="handle.style"
        :aria-label="`Drag ${handle.mark.label}`"
        @pointerdown="(event) => handle && pointer.handleDown(event, handle.mark)"
        @pointermove="pointer.move"
        @pointerup="pointer.up"
        @pointercancel="pointer.cancel"
      >
        ✥
      </button>
      <div v-if="told" class="told sheet" :style="toldAt" role="status">
        <strong :style="{ color: `var(--hue-${told.ink.hue + 1})` }">{{ told.label }}</strong>
        <ValueText :text="told.rectangular" :letter="folio.conventions.letter" />
        <ValueText :text="told.polar" :letter="folio.conventions.letter" />
        <span v-if="refusal" class="told-note">{{ refusal }}</span>
        <span v-else-if="handle" class="told-note">drag the round handle to move it</span>
        <span v-else-if="told.draggable && drag === null" class="told-note"
          >drag the tip{{ plates.way === 'free' ? '' : ` ${WAY_NAMES[plates.way]}` }}: Shift along its ray, Alt along
          its ring, Ctrl in steps</span
        >
      </div>
      <div v-else-if="offLocus" class="told sheet" :style="offLocus.at" role="status">
        <strong :style="{ color: `var(--hue-${offLocus.hue + 1})` }">{{ offLocus.name }}</strong>
        <span>{{ offLocus.along }} = <ValueText :text="offLocus.parameter" :letter="folio.conventions.letter" /></span>
        <ValueText :text="offLocus.rectangular" :letter="folio.conventions.letter" />
        <ValueText :text="offLocus.polar" :letter="folio.conventions.letter" />
        <span class="told-note">a click reads this point along</span>
      </div>
      <p v-else-if="refusal" class="refusal sheet" role="status">{{ refusal }}</p>
      <p v-if="marks.length === 0 && loci.length === 0" class="nothing">
        <template v-if="plate.all"
          >Values that are kept under a name appear here as arrows.<br />Try <code>V = 230/_30</code></template
        >
        <template v-else
          >Nothing is on this plate yet.<br />Drag a name here from the index, or choose under <b>Plate</b>.</template
        >
      </p>
    </div>
    <template #tools>
      <PlateTools
        :fit-title="plate.range ? 'Back to the range that is set (0)' : 'Show all values (0)'"
        @nearer="zoom(1.25)"
        @farther="zoom(0.8)"
        @fit="fit"
      >
        <v-btn
          data-tip="Pick two values and read their difference, ratio and angle"
          variant="text"
          :aria-pressed="measuring"
          @click="toggleMeasure"
        >
          <AppIcon :path="mdiRulerSquare" />Measure
        </v-btn>
        <PlaneSheet
          :plate="plate"
          :number="number"
          :view="view"
          :size="size"
          @png="savePng"
          @svg="saveSvg"
          @copy="copy"
        />
      </PlateTools>
      <v-btn
        data-tip="The values as a table"
        variant="text"
        :aria-pressed="tableOpen"
        aria-label="Table"
        @click="tableOpen = !tableOpen"
      >
        <AppIcon :path="mdiTableLarge" />
      </v-btn>
    </template>
    <template #below>
      <CoarseNote v-if="coarseLocus" :along="coarseLocus.data.along" />
      <MeasureStrip
        v-if="measuring"
        :marks="pickedMarks"
        @close="toggleMeasure"
        @swap="picked = [...picked].reverse()"
      />
      <PlaneTable :marks="settled" :open="tableOpen" :number="number" />
    </template>
  </PlateFrame>
</template>

<style scoped>
.canvas-host {
  contain: strict;
  position: absolute;
  inset: 0;
  overflow: hidden;
}
.canvas-host.dropping {
  box-shadow: inset 0 0 0 3px var(--teal);
}
canvas {
  display: block;
  touch-action: pan-y;
}
canvas:focus-visible {
  outline-offset: -2px;
}
.handle {
  position: absolute;
  z-index: 3;
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  margin: -22px 0 0 -22px;
  border: 1.5px solid var(--teal);
  border-radius: 50%;
  background: var(--leaf);
  color: var(--teal);
  font-size: 22px;
  touch-action: none;
}
.told,
.refusal {
  position: absolute;
  z-index: 2;
  display: flex;
  flex-direction: column;
  max-width: 280px;
  padding: 6px 10px;
  font-size: 14px;
  pointer-events: none;
}
.refusal {
  inset: auto 12px 12px;
  margin: 0;
  max-width: none;
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
  pointer-events: none;
}
code {
  font-family: var(--mono);
  color: var(--ink);
}
</style>
