<script setup lang="ts">
import { computed } from 'vue'
import { heightOf, nearestIndex } from '#core/scene/curve'
import { formatReal } from '#core/numbers/decimal'
import type { Curve } from '~/drawing/curves'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** What the curves are worth at the cursor, at a fixed one, and the difference between both. */
const props = defineProps<{
  curves: readonly Curve[]
  xName: string
  cursor: number | null
  fixed: number | null
  /** The point that is read along. */
  along: number | null
  log: boolean
}>()
const folio = useFolioStore()
const plates = usePlatesStore()
const results = useResultsStore()

const here = computed(() => props.cursor ?? props.along)
const number = (x: number): string => formatReal(x, folio.conventions)
const unit = (curve: Curve): string =>
  curve.unit !== ''
    ? ` ${curve.unit}`
    : curve.sort === 'dB'
      ? ' dB'
      : curve.sort === 'angle'
        ? folio.conventions.angle === 'deg'
          ? '°'
          : ' rad'
        : ''

function heightAt(curve: Curve, x: number | null): number | null {
  return x === null ? null : (curve.y[nearestIndex(curve.x, x, props.log)] ?? null)
}
/** What stands at the cursor is the value that is read along: that is exact, between the points too. */
const readHere = computed(() => props.cursor === null && plates.along !== null && plates.along.entry !== null)
function heightHere(curve: Curve): { readonly height: number | null; readonly exact: boolean } {
  const beside = heightAt(curve, here.value)
  const at = readHere.value ? results.views.get(curve.line)?.at : null
  if (!at || beside === null) return { height: beside, exact: !readHere.value }
  const of = curve.angles ? 'angle' : 'number'
  return {
    height: heightOf(
      { re: at.re / curve.perUnit, im: at.im / curve.perUnit },
      of,
      curve.part,
      folio.conventions.angle,
      beside,
    ),
    exact: at.exact,
  }
}
const places = computed(() => [...new Set(props.curves.flatMap((curve) => curve.along ?? []))])
const rows = computed(() =>
  props.curves.slice(0, 12).map((curve) => {
    const { height: now, exact } = heightHere(curve)
    const then = heightAt(curve, props.fixed)
    return {
      id: curve.id,
      label: curve.label,
      hue: curve.ink.hue,
      now: now === null ? '' : `${number(now)}${unit(curve)}`,
      exact,
      then: then === null ? '' : `${number(then)}${unit(curve)}`,
      difference: now === null || then === null ? '' : `${number(now - then)}${unit(curve)}`,
    }
  }),
)
const name = computed(() => (props.xName === '' ? 'x' : props.xName))
</script>

<template>
  <section class="cursor-strip" aria-label="Values at the cursor">
    <PlaceField v-for="place in places.slice(0, 2)" :key="place" :name="place" />
    <p v-if="here === null" class="quiet">
      {{
        curves.length === 0
          ? ''
          : 'Move over the picture to read it; a click reads that point along, Shift and a click fixes a second cursor.'
      }}
    </p>
    <v-table v-else role="status">
      <thead>
        <tr>
          <th scope="col">{{ name }}</th>
          <td><ValueText :text="number(here)" :letter="folio.conventions.letter" /></td>
          <template v-if="fixed !== null">
            <td><ValueText :text="number(fixed)" :letter="folio.conventions.letter" /></td>
            <td>
              Δ <ValueText :text="number(here - fixed)" :letter="folio.conventions.letter" /><template
                v-if="log && fixed > 0 && here > 0"
                >, × <ValueText :text="number(here / fixed)" :letter="folio.conventions.letter"
              /></template>
            </td>
          </template>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id">
          <th scope="row" :style="{ color: `var(--hue-${row.hue + 1})` }">{{ row.label }}</th>
          <td>
            <ValueText :text="row.now" :letter="folio.conventions.letter" />
            <span v-if="!row.exact" class="nearest">at the nearest point: it needs the whole sweep</span>
          </td>
          <template v-if="fixed !== null">
            <td><ValueText :text="row.then" :letter="folio.conventions.letter" /></td>
            <td>Δ <ValueText :text="row.difference" :letter="folio.conventions.letter" /></td>
          </template>
        </tr>
      </tbody>
    </v-table>
    <p v-if="along !== null" class="reading">
      Read along at {{ name }} = <ValueText :text="number(along)" :letter="folio.conventions.letter" />
      <v-btn variant="text" @click="plates.endReading()">End reading along</v-btn>
    </p>
  </section>
</template>

<style scoped>
.cursor-strip {
  flex: none;
  min-height: 58px;
  max-height: 150px;
  overflow: auto;
  margin-top: 4px;
  padding-top: 2px;
  border-top: 1px solid var(--rule);
  scrollbar-width: thin;
}
/* Beside what is read, not above it. */
.cursor-strip :deep(.place-field) {
  float: right;
  margin-left: 12px;
}
.quiet {
  margin: 4px 0;
  font-size: 13px;
  color: var(--quiet);
}
.v-table {
  border-collapse: collapse;
  font-size: 14px;
}
th,
td {
  padding: 1px 18px 1px 0;
  text-align: left;
  white-space: nowrap;
}
th {
  font-family: var(--serif);
  font-style: italic;
  font-weight: 600;
}
.nearest {
  margin-left: 8px;
  font-size: 12.5px;
  font-style: italic;
  color: var(--quiet);
}
.reading {
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 0;
  font-size: 14px;
  color: var(--brass-text);
}
.reading .v-btn {
  margin-left: auto;
}
</style>
