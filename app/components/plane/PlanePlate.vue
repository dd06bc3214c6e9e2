<script setup lang="ts">
import { mdiRulerSquare, mdiTableLarge } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { Size } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'
import { onceAFrame } from '~/browser/onceAFrame'
import { useLocusReading } from '~/composables/locusReading'
import { useMarkPicking } from '~/composables/markPicking'
import { usePlanePointer } from '~/composables/planePointer'
import { besides, usePlaneView } from '~/composables/planeView'
import { usePlateFiles } from '~/composables/plateFiles'
import { usePlateMarks } from '~/composables/plateMarks'
import { useRefusedMark } from '~/composables/refusedMark'
import { Chart, withoutCurves } from '~/drawing/charts'
import { perShown, viewInFront } from '~/drawing/frame'
import type { PlaneFrame } from '~/drawing/frame'
import { gridStep } from '~/drawing/ground'
import { boxOf, isCoarseLocus } from '~/drawing/locus'
import { paintPlane, planePlugin } from '~/drawing/plane'
import { nearestGain, placesOf } from '~/drawing/rootLocus'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'
import { planeSummary } from '~/texts/planeSummary'
import { THEMES } from '~/theme/tokens'

/** A plane plate: values in the complex plane, to be seen, compared and moved. */
const props = defineProps<{ plate: PlanePlate; number: number }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const results = useResultsStore()
const preferences = usePreferencesStore()

const picture = ref<{ readonly canvas: HTMLCanvasElement | null } | null>(null)
const canvas = computed(() => picture.value?.canvas ?? null)
const tableOpen = ref(false)
const theme = computed(() => THEMES[preferences.theme])
const { marks, loci, branches, scales, front } = usePlateMarks(computed(() => props.plate))
const per = computed(() => perShown({ scales: scales.value, front: front.value }))
const plane = usePlaneView(
  () => props.plate,
  () => [...marks.value, ...loci.value.flatMap(boxOf), ...branches.value.flatMap(placesOf)],
  () => per.value,
)
const { size, view, held, fit, zoom } = plane

// Drawing.

const places = new Map<string, number>()
let chart: Chart<'scatter'> | null = null
const redraw = onceAFrame(() => chart?.draw())

function frame(): PlaneFrame {
  return {
    view: view.value,
    size: size.value,
    marks: marks.value,
    loci: loci.value,
    branches: branches.value,
    scales: scales.value,
    front: front.value,
    theme: theme.value,
    active: active.value,
    picked: picked.value,
    plate: props.plate,
    conventions: folio.conventions,
    places,
    hurried: drag.value !== null,
  }
}

function makeChart(on: HTMLCanvasElement): Chart<'scatter'> {
  chart = new Chart(on, {
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
  return chart
}

function sized(now: Size): void {
  size.value = now
  if (!held.value) fit()
  redraw()
}

// Moving values and picking them.

const focused = ref<string | null>(null)
/** The value that a finger has tapped: it has a handle beside it. */
const tapped = ref<string | null>(null)
const { measuring, picked, pickedMarks, pick, swap, toggle: toggleMeasure } = useMarkPicking(marks)
const { refuse, forget, refusal } = useRefusedMark()

const pointer = usePlanePointer({
  canvas,
  view,
  size,
  marks,
  way: () => plates.way,
  step: () => {
    const seen = { view: view.value, scales: scales.value, front: front.value }
    return gridStep(viewInFront(seen)) * per.value
  },
  pan: plane.pan,
  zoom,
  grasp(line) {
    folio.keep()
    const literal = results.views.get(line)?.literal ?? null
    const source = folio.lineOf(line)?.source
    return source === undefined ? null : { source, literal }
  },
  slide(line, at) {
    const shown = branches.value.find((one) => one.line === line)
    return shown
      ? nearestGain(shown.picture, { re: at.re / shown.scale, im: at.im / shown.scale }, props.plate.below)
      : null
  },
  dragged: (line, source) => void results.type(line, source),
  dropped(line, source) {
    folio.rewrite(line, source, 'drag')
    if (!held.value) plane.fitIfOut(marks.value)
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

const handle = computed(() => {
  const mark = marks.value.find((m) => m.id === tapped.value && m.draggable)
  if (!mark) return null
  const { x, y } = toPixel(view.value, size.value, mark)
  const [left, top] = [x + (x > size.value.width - 90 ? -58 : 58), y + (y > size.value.height - 90 ? -58 : 58)]
  return { mark, style: { left: `${left}px`, top: `${top}px` } }
})

function key(event: KeyboardEvent): void {
  if (event.key === 'Escape' && drag.value) {
    event.stopPropagation()
    pointer.cancel()
  } else if (plane.key(event)) event.preventDefault()
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

const ids = computed(() => [...marks.value.map((m) => m.id), ...loci.value.map((l) => l.line)].join(' '))
watch([marks, loci], () => {
  if (!held.value && drag.value === null && folio.editing === null && focused.value === null) fit()
  redraw()
})
watch(ids, () => {
  if (!held.value && drag.value === null) fit()
  forget()
})
watch(
  () => props.plate.range,
  () => fit(),
)
watch([view, loci, branches, scales, front, theme, active, picked, () => props.plate, () => folio.conventions], redraw)

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

// What is said of the value, or of the point of a locus, that is pointed at.

const told = computed(() => marks.value.find((m) => m.id === active.value) ?? null)
const toldAt = computed(() => {
  const mark = told.value
  // Beside a value that was tapped stands its handle.
  if (!mark || handle.value) return { left: '8px', bottom: '8px' }
  return besides(toPixel(view.value, size.value, mark), size.value)
})
const WAY_NAMES = { free: '', ray: ' along its ray', ring: ' along its ring', steps: ' in steps' } as const

const locus = useLocusReading(loci, view, size)
/** What the loci run along, by name. */
const locusPlaces = computed(() => [...new Set(loci.value.flatMap((one) => one.data.along ?? []))].slice(0, 2))
const coarseLocus = computed(() => loci.value.find((one) => isCoarseLocus(one, view.value, size.value)))
function moved(event: PointerEvent): void {
  pointer.move(event)
  const box = canvas.value?.getBoundingClientRect()
  const busy = drag.value !== null || pointer.active.value !== null
  locus.hover(box && !busy ? { x: event.clientX - box.left, y: event.clientY - box.top } : null)
}
function left(): void {
  pointer.leave()
  locus.hover(null)
}

/** What the table and the summary tell: while a value is under the hand they rest. */
const settled = shallowRef<readonly PlaneMark[]>([])
watch(
  [marks, () => drag.value === null, tableOpen],
  () => {
    if (!drag.value?.tip || tableOpen.value) settled.value = marks.value
  },
  { immediate: true },
)
const summary = computed(() => planeSummary(settled.value, loci.value))
</script>

<template>
  <PlateFrame :number="number" :caption="plate.caption">
    <PlateCanvas
      ref="picture"
      :plate="plate"
      :label="summary"
      :make="makeChart"
      :style="{ cursor: measuring && cursor === 'default' ? 'crosshair' : cursor }"
      @sized="sized"
      @pointerdown="pointer.down"
      @pointermove="moved"
      @pointerup="pointer.up"
      @pointercancel="pointer.cancel"
      @pointerleave="left"
      @click="locus.readAlong"
      @wheel="pointer.wheel"
      @keydown="key"
      @touchstart="pointer.touchStart"
    >
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
      <ValueCard
        v-if="told"
        :name="told.label"
        :hue="told.ink.hue"
        :rectangular="told.rectangular"
        :polar="told.polar"
        :at="toldAt"
      >
        <template v-if="refusal || handle || (told.draggable && drag === null)" #default>
          <template v-if="refusal">{{ refusal }}</template>
          <template v-else-if="told.slides !== undefined"
            >drag it along its branch: the gain and the lines follow</template
          >
          <template v-else-if="handle">drag the round handle to move it</template>
          <template v-else
            >drag the tip{{ WAY_NAMES[plates.way] }}: Shift along its ray, Alt along its ring, Ctrl in steps</template
          >
        </template>
      </ValueCard>
      <ValueCard
        v-else-if="locus.told.value"
        :name="locus.told.value.name"
        :hue="locus.told.value.hue"
        :rectangular="locus.told.value.rectangular"
        :polar="locus.told.value.polar"
        :at="besides(toPixel(view, size, locus.told.value.z), size)"
      >
        <template #above><ValueText :text="locus.told.value.parameter" :letter="folio.conventions.letter" /></template>
        a click reads this point along
      </ValueCard>
      <p v-else-if="refusal" class="refusal sheet" role="status">{{ refusal }}</p>
      <template v-if="marks.length === 0 && loci.length === 0" #nothing>
        <template v-if="plate.all"
          >Values that are kept under a name appear here as arrows.<br />Try <code>V = 230/_30</code></template
        >
        <template v-else
          >Nothing is on this plate yet.<br />Drag a name here from the index, or choose under <b>Plate</b>.</template
        >
      </template>
    </PlateCanvas>
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
    <template #legend><FamilyLegend :plate="plate" /></template>
    <template #below>
      <LazyPlaceField v-for="place in locusPlaces" :key="place" :name="place" />
      <CoarseNote v-if="coarseLocus" :along="coarseLocus.data.along" />
      <MeasureStrip v-if="measuring" :marks="pickedMarks" :scales="scales" @close="toggleMeasure" @swap="swap" />
      <PlaneTable :marks="settled" :open="tableOpen" :number="number" />
    </template>
    <template v-if="plates.setting" #settings>
      <LazyPlaneSettings
        :plate="plate"
        :number="number"
        :view="view"
        :size="size"
        @png="savePng"
        @svg="saveSvg"
        @copy="copy"
      />
    </template>
  </PlateFrame>
</template>

<style scoped>
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
.refusal {
  position: absolute;
  z-index: 2;
  inset: auto 12px 12px;
  margin: 0;
  padding: 6px 10px;
  font-size: 14px;
  pointer-events: none;
}
</style>
