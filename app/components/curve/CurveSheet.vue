<script setup lang="ts">
import { computed, ref } from 'vue'
import { CURVE_PARTS, SORTS } from '#core/scene/curve'
import type { CurvePart, Sort } from '#core/scene/curve'
import type { CurveAxis, CurvePlate } from '#shared/plate'
import { textIn, tickedIn } from '~/browser/fields'
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
] as const

const change = (changes: Partial<CurvePlate>): void => plates.change(props.plate, changes)
const chosen = (event: Event): string => (event.target instanceof HTMLSelectElement ? event.target.value : '')

function setPart(part: CurvePart, on: boolean): void {
  const parts = CURVE_PARTS.filter((p) => (p === part ? on : props.plate.parts.includes(p)))
  if (parts.length > 0) change({ parts })
}

const sweeps = computed(() => plates.candidatesFor(props.plate))

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
  <PlateSheet
    :plate="plate"
    :number="number"
    csv
    @png="(s) => emit('png', s)"
    @svg="emit('svg')"
    @csv="emit('csv')"
    @copy="emit('copy')"
  >
    <div class="row" role="group" aria-label="What of complex values">
      <label v-for="part in CURVE_PARTS" :key="part">
        <input type="checkbox" :checked="plate.parts.includes(part)" @change="(e) => setPart(part, tickedIn(e))" />{{
          PART_NAMES[part]
        }}
      </label>
    </div>
    <div class="row">
      <label v-for="[mark, label] in SWITCHES" :key="mark">
        <input type="checkbox" :checked="plate[mark]" @change="(e) => change({ [mark]: tickedIn(e) })" />{{ label }}
      </label>
    </div>
    <div class="row" role="radiogroup" aria-label="Drawn as">
      <label v-for="[style, label] in STYLES" :key="style">
        <input type="radio" name="curve-style" :checked="plate.style === style" @change="change({ style })" />{{
          label
        }}
      </label>
    </div>
    <label class="field">
      <span>Horizontal axis</span>
      <input
        type="text"
        maxlength="60"
        placeholder="its name"
        :value="plate.x.name"
        @change="(e) => change({ x: { ...plate.x, name: textIn(e) } })"
      />
    </label>
    <div class="row">
      <label
        ><span class="what">runs along </span
        ><select aria-label="Runs along" :value="plate.over ?? ''" @change="(e) => change({ over: chosen(e) || null })">
          <option value="">its own range</option>
          <option v-for="sweep in sweeps" :key="sweep.line" :value="sweep.line">{{ sweep.name }}</option>
        </select></label
      >
      <label
        ><select
          aria-label="Scale of the horizontal axis"
          :value="plate.x.scale"
          @change="(e) => change({ x: { ...plate.x, scale: chosen(e) as CurvePlate['x']['scale'] } })"
        >
          <option value="auto">as the range</option>
          <option value="linear">linear</option>
          <option value="log">logarithmic</option>
        </select></label
      >
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
      <label class="field"
        ><span>Name</span
        ><input type="text" maxlength="60" :value="plate[sort].name" @change="(e) => setY(sort, { name: textIn(e) })"
      /></label>
      <RangeFields
        :label="`${SORT_NAMES[sort]} axis`"
        lead="from"
        :low="shown(plate[sort].low)"
        :high="shown(plate[sort].high)"
        @low="(e) => setHeight(sort, 'low', e)"
        @high="(e) => setHeight(sort, 'high', e)"
      />
      <div v-if="sort === 'number'" class="row">
        <label
          ><input
            type="checkbox"
            :checked="plate.number.log"
            @change="(e) => setY('number', { log: tickedIn(e) })"
          />logarithmic</label
        >
      </div>
    </details>
    <form class="levels" @submit.prevent="addLevel">
      <span class="what">Mark crossings of</span>
      <input v-model="level" type="text" inputmode="decimal" aria-label="Height whose crossings are marked" />
      <select v-model="levelSort" aria-label="On which axis">
        <option v-for="sort in SORTS" :key="sort" :value="sort">{{ SORT_NAMES[sort] }}</option>
      </select>
      <button type="submit" class="link">mark</button>
    </form>
    <div v-if="plate.levels.length > 0" class="row">
      <button
        v-for="(mark, k) in plate.levels"
        :key="k"
        type="button"
        class="link"
        @click="change({ levels: plate.levels.filter((_, n) => n !== k) })"
      >
        {{ mark.height }}{{ mark.sort === 'dB' ? ' dB' : '' }}: no longer
      </button>
    </div>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
    <ValueList :plate="plate" :candidates="sweeps" />
  </PlateSheet>
</template>

<style scoped>
select {
  padding: 2px 6px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
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
.levels {
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 6px 0;
}
.levels input {
  width: 76px;
  padding: 2px 6px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
}
</style>
