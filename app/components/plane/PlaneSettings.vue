<script setup lang="ts">
import { computed, ref } from 'vue'
import { circlesText, readCircles } from '#core/scene/circles'
import { DRAG_WAYS } from '#core/scene/drag'
import { boundsOf } from '#core/scene/view'
import type { PlaneView, Size } from '#core/scene/view'
import type { PlanePlate, PlaneRange } from '#shared/plate'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** What a plane plate shows and how: axes, grid, range, circles, sums, and which values. Kept in the folio, undone like the rest. */
const props = defineProps<{ plate: PlanePlate; number: number; view: PlaneView; size: Size }>()
const emit = defineEmits<{ png: [scale: number]; svg: []; copy: [] }>()
const folio = useFolioStore()
const plates = usePlatesStore()

const GRIDS = [
  ['rectangular', 'lines'],
  ['polar', 'rings and rays'],
  ['damping', 'damping'],
  ['sampled', 'damping of samples'],
  ['none', 'none'],
] as const
const WAY_WORDS = { free: 'freely', ray: 'along its ray', ring: 'along its ring', steps: 'in steps' } as const
const WAYS = DRAG_WAYS.map((way) => [way, WAY_WORDS[way]] as const)

const change = (changes: Partial<PlanePlate>): void => plates.change(props.plate, changes)

const MARKS = [
  ['axes', 'axes'],
  ['labels', 'labels'],
  ['conjugates', 'conjugates'],
  ['components', 'components'],
  ['unitCircle', 'unit circle'],
  ['below', 'gains below 0'],
] as const

// Circles.

const circleProblem = ref('')
function setCircles(event: Event): void {
  const circles = readCircles(textIn(event))
  circleProblem.value = circles ? '' : 'Write radii with semicolons between, each perhaps at a point: 2; 0.5 at -1, 0'
  if (circles) change({ circles: [...circles] })
}

// Range by number.

const bounds = computed(() => boundsOf(props.view, props.size))
const rangeProblem = ref('')
const short = (x: number): string => String(Number(x.toPrecision(4)))
function setRange(side: keyof PlaneRange, event: Event): void {
  const value = Number(textIn(event).replace('−', '-'))
  const range = { ...(props.plate.range ?? rounded(bounds.value)), [side]: value }
  const fits = Number.isFinite(value) && range.left < range.right && range.bottom < range.top
  rangeProblem.value = fits ? '' : 'A range goes from the smaller number to the larger one.'
  if (fits) change({ range })
}
function rounded({ left, right, bottom, top }: PlaneRange): PlaneRange {
  return {
    left: Number(short(left)),
    right: Number(short(right)),
    bottom: Number(short(bottom)),
    top: Number(short(top)),
  }
}

// Sums tip to tail.

const sums = computed(() =>
  plates.candidates.filter((c) => {
    const line = folio.lineOf(c.line)
    return line !== null && c.view.uses.length > 1 && /[+\-−]/.test(line.source.split('#')[0]?.split('=')[1] ?? '')
  }),
)
function setChain(line: string, on: boolean): void {
  const others = props.plate.chains.filter((other) => other !== line)
  change({ chains: on ? [...others, line] : others })
}
</script>

<template>
  <PlateSettings :plate="plate" :number="number" @png="(s) => emit('png', s)" @svg="emit('svg')" @copy="emit('copy')">
    <div class="pair">
      <v-text-field
        label="Real axis"
        maxlength="60"
        :model-value="plate.re"
        @change="(e: Event) => change({ re: textIn(e) })"
      />
      <v-text-field
        label="Imaginary axis"
        maxlength="60"
        :model-value="plate.im"
        @change="(e: Event) => change({ im: textIn(e) })"
      />
    </div>
    <div class="row">
      <span class="what">Grid</span>
      <OneOf label="Grid" :choices="GRIDS" :value="plate.grid" @choose="(grid) => change({ grid })" />
    </div>
    <div class="row">
      <AnyOf :choices="MARKS" :is-on="(mark) => plate[mark]" @tick="(mark, on) => change({ [mark]: on })" />
    </div>
    <v-text-field
      label="Other circles, by radius"
      maxlength="200"
      placeholder="2; 0.5 at -1, 0"
      :model-value="circlesText(plate.circles)"
      :error-messages="circleProblem"
      @change="setCircles"
    />
    <RangeFields
      label="Real axis"
      lead="Real"
      :low="short(plate.range?.left ?? bounds.left)"
      :high="short(plate.range?.right ?? bounds.right)"
      @low="(e) => setRange('left', e)"
      @high="(e) => setRange('right', e)"
    />
    <RangeFields
      label="Imaginary axis"
      lead="Imaginary"
      :low="short(plate.range?.bottom ?? bounds.bottom)"
      :high="short(plate.range?.top ?? bounds.top)"
      @low="(e) => setRange('bottom', e)"
      @high="(e) => setRange('top', e)"
    />
    <p v-if="rangeProblem" class="wrong" role="alert">{{ rangeProblem }}</p>
    <div v-if="plate.range" class="row">
      <span class="what">This range is kept.</span>
      <v-btn class="link" variant="text" @click="change({ range: null })">fit to the values instead</v-btn>
    </div>
    <div class="row">
      <span class="what">Drag</span>
      <OneOf label="Values move" :choices="WAYS" :value="plates.way" @choose="(way) => (plates.way = way)" />
    </div>
    <div v-if="sums.length > 0" class="row">
      <span class="what">Tip to tail</span>
      <AnyOf
        :choices="sums.map((sum) => [sum.line, sum.name] as const)"
        :is-on="(line) => plate.chains.includes(line)"
        @tick="setChain"
      />
    </div>
    <ValueList :plate="plate" :candidates="plates.candidates" />
  </PlateSettings>
</template>
