<script setup lang="ts">
import { mdiTableLarge } from '@mdi/js'
import { computed } from 'vue'
import type { LineView } from '#core/views/lineView'
import type { SweepReadout } from '#core/format/readout'
import type { Twin } from '#core/format/readout'
import { countText } from '~/texts/dress'
import { useDeskStore } from '~/stores/desk'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** A sweep in its line: the first and the last value, how many, a small curve, and the point that is read along. */
const props = defineProps<{
  view: LineView
  readout: SweepReadout
  letter: 'i' | 'j'
  number: number
  hue: number | null
}>()
const desk = useDeskStore()
const plates = usePlatesStore()
const results = useResultsStore()

const side = (value: string | Twin): string => (typeof value === 'string' ? value : value.rectangular)
const SIZE = { width: 132, height: 26 }

/** The small curve as a path; gaps where a value is not finite. */
const path = computed(() => {
  const { curve } = props.readout
  const finite = curve.filter(Number.isFinite)
  if (finite.length < 2) return ''
  const [low, high] = [Math.min(...finite), Math.max(...finite)]
  const scale = high === low ? 0 : (SIZE.height - 4) / (high - low)
  let pen = 'M'
  return curve
    .map((y, k) => {
      if (!Number.isFinite(y)) {
        pen = 'M'
        return ''
      }
      const x = 2 + (k * (SIZE.width - 4)) / Math.max(1, curve.length - 1)
      const height = high === low ? SIZE.height / 2 : SIZE.height - 2 - (y - low) * scale
      const stroke = `${pen}${x.toFixed(1)} ${height.toFixed(1)}`
      pen = 'L'
      return stroke
    })
    .join('')
})
const curveName = computed(
  () => `Small curve of its ${props.readout.shows === 'value' ? 'values' : (props.readout.shows ?? '')}`,
)
const at = computed(() => props.view.at?.readout ?? null)
/** The place that is read along; of a line that needs the whole sweep the point beside it. */
const atWhat = computed(() => {
  const { along } = plates
  if (!along) return ''
  if (along.entry === null) return `at point ${along.index + 1} of ${along.name}`
  if (props.view.at?.exact) return `at ${along.name} = ${along.entry}`
  return `at point ${(results.placed?.index ?? 0) + 1} of ${along.name}, the nearest: it needs the whole sweep`
})
</script>

<template>
  <div class="sweep">
    <span class="ends">
      <ValueText :text="side(readout.first)" :letter="letter" />
      <span class="dots">…</span>
      <ValueText :text="side(readout.last)" :letter="letter" />
      <UnitText :unit="readout.unit" />
    </span>
    <span class="count"
      >{{ countText(readout.count) }} points<template v-if="readout.along">
        along <i>{{ readout.along }}</i></template
      ></span
    >
    <svg
      v-if="path"
      class="small-curve"
      :viewBox="`0 0 ${SIZE.width} ${SIZE.height}`"
      role="img"
      :aria-label="curveName"
      :style="hue === null ? {} : { color: `var(--hue-${hue + 1})` }"
    >
      <title>{{ curveName }}</title>
      <path :d="path" />
    </svg>
    <v-btn
      variant="text"
      class="table-button"
      tabindex="-1"
      :aria-label="`Table of line ${number}`"
      title="All of its points as a table"
      @click.stop="desk.openTable(view.id)"
    >
      <AppIcon :path="mdiTableLarge" />
    </v-btn>
    <span v-if="at && plates.along" class="at">
      <span class="at-what">{{ atWhat }}</span>
      <template v-if="at.shape === 'twin'">
        <ValueText :text="at.rectangular" :letter="letter" />
        <ValueText :text="at.polar" :letter="letter" />
      </template>
      <ValueText v-else-if="'text' in at" :text="at.text" :letter="letter" />
      <ValueText
        v-else-if="at.shape === 'list'"
        :text="at.entries.map((e) => (typeof e === 'string' ? e : e.rectangular)).join(',  ')"
        :letter="letter"
      />
      <UnitText v-if="'unit' in at" :unit="at.unit" />
    </span>
  </div>
</template>

<style scoped>
.sweep {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
}
.dots,
.count {
  color: var(--quiet);
}
.count {
  font-size: 13.5px;
}
.small-curve {
  width: 132px;
  height: 26px;
  border: 1px solid var(--rule);
  background: var(--leaf);
  color: var(--ink);
}
.small-curve path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.4;
  stroke-linejoin: round;
}
.table-button {
  min-width: 30px;
  min-height: 28px;
}
.at {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  padding-left: 8px;
  border-left: 3px double var(--brass);
}
.at-what {
  font-size: 13.5px;
  color: var(--brass-text);
}
</style>
