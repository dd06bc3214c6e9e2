<script setup lang="ts">
import { computed, ref } from 'vue'
import { CURVE_PARTS, SORTS } from '#core/scene/curve'
import type { CurvePart, Sort } from '#core/scene/curve'
import type { CurveAxis, CurvePlate } from '#shared/plate'
import { textIn } from '~/browser/fields'
import { usePlatesStore } from '~/stores/plates'

/** What a curve plate shows and how: parts, axes, marks, and which sweeps. Kept in the folio, undone like the rest. */
const props = defineProps<{ plate: CurvePlate; number: number }>()
const emit = defineEmits<{ png: [scale: number]; svg: []; csv: []; copy: [] }>()
const plates = usePlatesStore()

const PART_NAMES: Readonly<Record<CurvePart, string>> = {
  re: 'real part',
  im: 'imaginary part',
  magnitude: 'magnitude',
  dB: 'magnitude in dB',
  angle: 'angle',
  unwrapped: 'angle, unwrapped',
}
const PARTS = CURVE_PARTS.map((part) => [part, PART_NAMES[part]] as const)
const SORT_NAMES: Readonly<Record<Sort, string>> = { number: 'Values', dB: 'dB', angle: 'Angle' }
const STYLES = [
  ['line', 'line'],
  ['points', 'points'],
  ['both', 'line and points'],
] as const
const SWITCHES = [
  ['stacked', 'one above the other'],
  ['legend', 'legend'],
  ['grid', 'grid'],
  ['extremes', 'mark extremes'],
  ['figures', 'margins and figures'],
  ['straight', 'straight lines and corners'],
] as const

const change = (changes: Partial<CurvePlate>): void => plates.change(props.plate, changes)

function setPart(part: CurvePart, on: boolean): void {
  const parts = CURVE_PARTS.filter((p) => (p === part ? on : props.plate.parts.includes(p)))
  if (parts.length > 0) change({ parts })
}

const sweeps = computed(() => plates.candidatesFor(props.plate))
/** Straight lines are asked for, and nothing on the plate has any. */
const noneStraight = computed(() => props.plate.straight && !plates.sweepsOn(props.plate).some(({ data }) => data.straight)) // prettier-ignore
const ranges = computed(() => [
  { value: '', title: 'its own range' },
  ...sweeps.value.map(({ line, name }) => ({ value: line, title: name })),
])
const SCALES = [
  { value: 'auto', title: 'as the range' },
  { value: 'linear', title: 'linear' },
  { value: 'log', title: 'logarithmic' },
] as const

// Ranges by number: an empty field follows the values.

const problem = ref('')
function numberIn(event: Event): number | null | undefined {
  const written = textIn(event).replace('−', '-')
  if (written === '') return null
  const value = Number(written)
  return Number.isFinite(value) ? value : undefined
}
function setX(side: 'low' | 'high', event: Event): void {
  const value = numberIn(event)
  const x = { ...props.plate.x, [side]: value }
  if (value === undefined || !ordered(x)) return
  problem.value = ''
  change({ x })
}
function setY(sort: Sort, changes: Partial<CurveAxis>): void {
  change({ [sort]: { ...props.plate[sort], ...changes } })
}
function setHeight(sort: Sort, side: 'low' | 'high', event: Event): void {
  const value = numberIn(event)
  if (value === undefined || !ordered({ ...props.plate[sort], [side]: value })) return
  problem.value = ''
  setY(sort, { [side]: value })
}
function ordered({ low, high }: { low: number | null; high: number | null }): boolean {
  const fits = low === null || high === null || low < high
  if (!fits) problem.value = 'A range goes from the smaller number to the larger one.'
  return fits
}
const shown = (x: number | null): string => (x === null ? '' : String(x))

// Heights whose crossings are marked.

const level = ref('')
const levelSort = ref<Sort>('number')
function addLevel(): void {
  const height = Number(level.value.trim().replace('−', '-'))
  if (level.value.trim() === '' || !Number.isFinite(height)) {
    problem.value = 'A height is a number.'
    return
  }
  problem.value = ''
  level.value = ''
  change({ levels: [...props.plate.levels, { sort: levelSort.value, height }].slice(-8) })
}
</script>

<template>
  <PlateSettings
    :plate="plate"
    :number="number"
    csv
    @png="(s) => emit('png', s)"
    @svg="emit('svg')"
    @csv="emit('csv')"
    @copy="emit('copy')"
  >
    <div class="row" role="group" aria-label="What of complex values">
      <AnyOf :choices="PARTS" :is-on="(part) => plate.parts.includes(part)" @tick="setPart" />
    </div>
    <div class="row">
      <AnyOf :choices="SWITCHES" :is-on="(mark) => plate[mark]" @tick="(mark, on) => change({ [mark]: on })" />
    </div>
    <p v-if="noneStraight" class="none" role="status">
      Straight lines are those of a transfer function in s. None is on this plate; samples have no such lines.
    </p>
    <div class="row">
      <OneOf label="Drawn as" :choices="STYLES" :value="plate.style" @choose="(style) => change({ style })" />
    </div>
    <v-text-field
      label="Horizontal axis"
      maxlength="60"
      placeholder="its name"
      :model-value="plate.x.name"
      @change="(e: Event) => change({ x: { ...plate.x, name: textIn(e) } })"
    />
    <div class="selects">
      <v-select
        label="Runs along"
        :items="ranges"
        :model-value="plate.over ?? ''"
        @update:model-value="(over: string) => change({ over: over || null })"
      />
      <v-select
        label="Scale of the horizontal axis"
        :items="SCALES"
        :model-value="plate.x.scale"
        @update:model-value="(scale: CurvePlate['x']['scale']) => change({ x: { ...plate.x, scale } })"
      />
    </div>
    <RangeFields
      label="Horizontal axis"
      lead="from"
      :low="shown(plate.x.low)"
      :high="shown(plate.x.high)"
      @low="(e) => setX('low', e)"
      @high="(e) => setX('high', e)"
    />
    <details v-for="sort in SORTS" :key="sort">
      <summary>{{ SORT_NAMES[sort] }} axis</summary>
      <v-text-field
        label="Name"
        maxlength="60"
        :model-value="plate[sort].name"
        @change="(e: Event) => setY(sort, { name: textIn(e) })"
      />
      <RangeFields
        :label="`${SORT_NAMES[sort]} axis`"
        lead="from"
        :low="shown(plate[sort].low)"
        :high="shown(plate[sort].high)"
        @low="(e) => setHeight(sort, 'low', e)"
        @high="(e) => setHeight(sort, 'high', e)"
      />
      <div v-if="sort === 'number'" class="row">
        <v-checkbox
          label="logarithmic"
          :model-value="plate.number.log"
          @update:model-value="(on) => setY('number', { log: on === true })"
        />
      </div>
    </details>
    <form class="levels" @submit.prevent="addLevel">
      <span class="what">Mark crossings of</span>
      <v-text-field v-model="level" inputmode="decimal" aria-label="Height whose crossings are marked" />
      <v-select
        v-model="levelSort"
        aria-label="On which axis"
        :items="SORTS.map((value) => ({ value, title: SORT_NAMES[value] }))"
      />
      <v-btn type="submit" class="link" variant="text">mark</v-btn>
    </form>
    <div v-if="plate.levels.length > 0" class="row">
      <v-btn
        v-for="(mark, k) in plate.levels"
        :key="k"
        class="link"
        variant="text"
        @click="change({ levels: plate.levels.filter((_, n) => n !== k) })"
      >
        {{ mark.height }}{{ mark.sort === 'dB' ? ' dB' : '' }}: no longer
      </v-btn>
    </div>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
    <ValueList :plate="plate" :candidates="sweeps" />
  </PlateSettings>
</template>

<style scoped>
.none {
  margin: 0 0 6px;
  font-size: 14px;
  color: var(--quiet);
}
details {
  border-top: 1px solid var(--rule);
}
summary {
  min-height: 28px;
  padding: 4px 0;
  font-size: 14px;
  cursor: pointer;
}
.selects {
  display: grid;
  gap: 10px;
  padding: 4px 0 8px;
}
.levels {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr) auto;
  align-items: center;
  gap: 4px 6px;
  margin: 6px 0;
}
.levels .what {
  grid-column: 1 / -1;
}
.levels .v-input {
  margin: 0;
  min-width: 0;
}
</style>
