<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { isCoarse, nearestIndex } from '#core/scene/curve'
import type { Point } from '#core/scene/curve'
import type { Size } from '#core/scene/view'
import type { CurvePlate } from '#shared/plate'
import { onceAFrame } from '~/browser/onceAFrame'
import { usePlateFiles } from '~/composables/plateFiles'
import { usePlateSweeps } from '~/composables/plateSweeps'
import { Chart } from '~/drawing/curveCharts'
import { curveConfig } from '~/drawing/curve'
import { curvesCsv } from '~/drawing/curveCsv'
import { curvesOf, isLogX, usualXName } from '~/drawing/curves'
import type { Curve, CurveFrame } from '~/drawing/curves'
import { paperFor, saveAs } from '~/drawing/files'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'
import { THEMES } from '~/theme/tokens'

/** A curve plate: sweeps over what they run along, with cursors that read them. */
const props = defineProps<{ plate: CurvePlate; number: number }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const results = useResultsStore()
const preferences = usePreferencesStore()

const picture = ref<{ readonly canvas: HTMLCanvasElement | null } | null>(null)
const size = shallowRef<Size>({ width: 400, height: 400 })
const shownWindow = shallowRef<CurveFrame['window']>(null)
const cursor = ref<number | null>(null)
const fixed = ref<number | null>(null)
const coarse = ref(false)

const over = computed(() => {
  const view = props.plate.over ? results.views.get(props.plate.over) : undefined
  return view?.sweep ? { name: view.name ?? '', data: view.sweep } : null
})
const sources = usePlateSweeps(() => props.plate)
const curves = computed<readonly Curve[]>(() =>
  curvesOf(props.plate, sources.value, over.value, folio.conventions.angle),
)
const log = computed(() => isLogX(props.plate, curves.value))
const xName = computed(() =>
  props.plate.x.name === ''
    ? usualXName(props.plate, curves.value, over.value?.name ?? null, folio.conventions.angle)
    : props.plate.x.name,
)
const along = computed(() => {
  const at = plates.along
  const curve = at ? curves.value.find((c) => c.along === at.name) : undefined
  if (!at || !curve) return null
  if (at.entry === null) return curve.x[at.index] ?? null
  const { placed } = results
  if (!placed || placed.problem !== null) return null
  const x = over.value
    ? (results.views.get(props.plate.over ?? '')?.at?.re ?? NaN) / (over.value.data.in?.factor ?? 1)
    : placed.x
  return Number.isFinite(x) ? (curve.turns && folio.conventions.angle === 'deg' ? (x * 180) / Math.PI : x) : null
})

function frame(day = false): CurveFrame {
  return {
    plate: { ...props.plate, x: { ...props.plate.x, name: xName.value } },
    curves: curves.value,
    theme: THEMES[day ? 'day' : preferences.theme],
    conventions: folio.conventions,
    width: size.value.width,
    height: size.value.height,
    cursor: day ? null : cursor.value,
    fixed: day ? null : fixed.value,
    along: along.value,
    window: shownWindow.value,
    paper: day,
  }
}

// The chart: its configuration is made anew for every change, and drawn once a frame.

let chart: Chart<'scatter', Point[]> | null = null
const redraw = onceAFrame(update)

function update(): void {
  if (!chart) return
  const { data, options } = curveConfig(frame())
  chart.data = data
  if (options) chart.options = { ...options, plugins: { ...options.plugins, zoom: ZOOM } }
  chart.update('none')
  // Under the hand it would be out of date before it is read.
  if (!results.unsettled) coarse.value = looksCoarse()
}

/** Only along the horizontal axis: heights follow by themselves. */
const ZOOM = {
  zoom: { wheel: { enabled: true, speed: 0.12 }, pinch: { enabled: true }, mode: 'x' as const, onZoom: moved },
  pan: { enabled: true, mode: 'x' as const, onPan: moved },
}

function moved(): void {
  const scale = chart?.scales.x
  if (scale) shownWindow.value = { low: scale.min, high: scale.max }
}

function makeChart(on: HTMLCanvasElement): Chart<'scatter', Point[]> {
  const { data, options, type } = curveConfig(frame())
  // Wheel and pinch reach the zoom plugin by themselves.
  chart = new Chart(on, { type, data, options: { ...options, plugins: { ...options?.plugins, zoom: ZOOM } } })
  return chart
}
function sized(now: Size): void {
  size.value = now
  redraw()
}

watch(
  [
    curves,
    () => props.plate,
    () => preferences.theme,
    () => folio.conventions,
    cursor,
    fixed,
    along,
    shownWindow,
    xName,
    () => results.unsettled,
  ],
  redraw,
)
watch([() => props.plate.x, log], () => (shownWindow.value = null))

function fit(): void {
  shownWindow.value = null
}
function zoom(factor: number): void {
  const scale = chart?.scales.x
  if (!scale) return
  const { min, max } = scale
  if (log.value) {
    const [middle, half] = [Math.sqrt(min * max), Math.sqrt(max / min) ** (1 / factor)]
    shownWindow.value = { low: middle / half, high: middle * half }
  } else {
    const [middle, half] = [(min + max) / 2, (max - min) / 2 / factor]
    shownWindow.value = { low: middle - half, high: middle + half }
  }
}

// A curve too coarse to be true.

/** Points of a curve that are looked at. */
const LOOKED_MOST = 1_500

function looksCoarse(): boolean {
  const chartNow = chart
  if (!chartNow) return false
  return curves.value.some((curve, k) => {
    const points = chartNow.data.datasets[k]?.data ?? []
    if (points.length > LOOKED_MOST || points.length < 3) return false
    const [x, y] = [chartNow.scales.x, chartNow.scales[curve.sort]]
    if (!x || !y) return false
    const turn = folio.conventions.angle === 'deg' ? 180 : Math.PI
    const wrap = curve.part === 'angle' ? Math.abs(y.getPixelForValue(turn) - y.getPixelForValue(0)) : Infinity
    return isCoarse(
      points.map((p) => ({ x: x.getPixelForValue(p.x), y: y.getPixelForValue(p.y) })),
      wrap,
    )
  })
}

// Cursors.

function at(event: { clientX: number }): number | null {
  const box = picture.value?.canvas?.getBoundingClientRect()
  const scale = chart?.scales.x
  const [first] = curves.value
  if (!box || !scale || !first) return null
  const x = scale.getValueForPixel(event.clientX - box.left)
  return x === undefined ? null : nearestIndex(first.x, x, log.value)
}
const placeOf = (index: number | null): number | null => (index === null ? null : (curves.value[0]?.x[index] ?? null))
const indexOf = (x: number | null): number => (x === null || !curves.value[0] ? 0 : nearestIndex(curves.value[0].x, x, log.value)) // prettier-ignore

let pressed: { x: number; y: number } | null = null
function pointerMove(event: PointerEvent): void {
  if (event.buttons === 0) cursor.value = placeOf(at(event))
}
function pointerDown(event: PointerEvent): void {
  pressed = { x: event.clientX, y: event.clientY }
}
function pointerUp(event: PointerEvent): void {
  const start = pressed
  pressed = null
  if (!start || Math.hypot(event.clientX - start.x, event.clientY - start.y) > 5) return
  const index = at(event)
  cursor.value = placeOf(index)
  if (event.shiftKey) fixed.value = cursor.value
  else if (index !== null) readHere(index)
}
function readHere(index: number): void {
  const [first] = curves.value
  if (first) plates.readAlong(first.along, index)
}

function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const count = curves.value[0]?.x.length ?? 0
  const step = event.shiftKey ? 10 : 1
  const go = (to: number): void => {
    cursor.value = placeOf(Math.max(0, Math.min(count - 1, to)))
  }
  const here = indexOf(cursor.value)
  const steps: Readonly<Record<string, () => void>> = {
    ArrowLeft: () => go(cursor.value === null ? 0 : here - step),
    ArrowRight: () => go(cursor.value === null ? 0 : here + step),
    Home: () => go(0),
    End: () => go(count - 1),
    ' ': () => (fixed.value = fixed.value === cursor.value ? null : cursor.value),
    Enter: () => readHere(here),
    '+': () => zoom(1.5),
    '=': () => zoom(1.5),
    '-': () => zoom(1 / 1.5),
    '0': fit,
  }
  if (event.key === 'Escape' && (plates.along !== null || fixed.value !== null)) {
    event.stopPropagation()
    fixed.value = null
    plates.endReading()
    return
  }
  const action = steps[event.key]
  if (!action) return
  event.preventDefault()
  action()
}

// Files.

const paint = (ctx: CanvasRenderingContext2D): void => {
  const { width, height } = size.value
  const { data, options, type } = curveConfig(frame(true))
  ctx.fillStyle = THEMES.day.leaf
  ctx.fillRect(0, 0, width, height)
  const copied = new Chart(paperFor(ctx, size.value), { type, data, options: { ...options, devicePixelRatio: 1 } })
  copied.draw()
  copied.destroy()
}

const { savePng, saveSvg, copy, name: nameOfFile } = usePlateFiles(props, size, paint)
function saveCsv(): void {
  const text = curvesCsv(curves.value, xName.value)
  saveAs(new Blob([text], { type: 'text/csv;charset=utf-8' }), nameOfFile('csv'))
}

const summary = computed(() => {
  const told = curves.value.slice(0, 8).map((c) => {
    const [first, last] = [c.y[0] ?? NaN, c.y.at(-1) ?? NaN]
    return `${c.label}, ${c.y.length} points, from ${first.toPrecision(4)} to ${last.toPrecision(4)}`
  })
  return told.length === 0
    ? 'Curves, empty'
    : `Curves over ${xName.value || 'their parameter'}: ${told.join('; ')}. Left and right move the cursor, Space fixes one, Enter reads along, plus and minus zoom, 0 fits.`
})
</script>

<template>
  <PlateFrame :number="number" :caption="plate.caption">
    <PlateCanvas
      ref="picture"
      :plate="plate"
      :label="summary"
      :make="makeChart"
      nothing-at="40%"
      style="cursor: crosshair"
      @sized="sized"
      @pointermove="pointerMove"
      @pointerdown="pointerDown"
      @pointerup="pointerUp"
      @pointerleave="cursor = null"
      @keydown="key"
    >
      <template v-if="curves.length === 0" #nothing>
        No sweep is on this plate yet.<br />Write a range, as in <code>f = 10 to 100k per decade 50</code>, and put what
        depends on it here under <b>Plate</b>.
      </template>
    </PlateCanvas>
    <template #tools>
      <PlateTools fit-title="The whole range (0)" @nearer="zoom(1.5)" @farther="zoom(1 / 1.5)" @fit="fit" />
    </template>
    <template #legend><FamilyLegend :plate="plate" /></template>
    <template #below>
      <CoarseNote v-if="coarse" :along="curves[0]?.along ?? null" />
      <CursorStrip :curves="curves" :x-name="xName" :cursor="cursor" :fixed="fixed" :along="along" :log="log" />
    </template>
    <template v-if="plates.setting" #settings>
      <CurveSettings :plate="plate" :number="number" @png="savePng" @svg="saveSvg" @csv="saveCsv" @copy="copy" />
    </template>
  </PlateFrame>
</template>
