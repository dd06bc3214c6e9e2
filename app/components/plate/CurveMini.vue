<script setup lang="ts">
import { computed } from 'vue'
import { thinned } from '#core/scene/curve'
import type { CurvePlate } from '#shared/plate'
import { curvesOf, isLogX } from '~/drawing/curves'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** A curve plate in small. */
const props = defineProps<{ plate: CurvePlate }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const SIZE = { width: 96, height: 66 }
const COLUMNS = 48

const curves = computed(() => {
  const all = curvesOf(props.plate, plates.sweepsOn(props.plate), null, folio.conventions.angle)
  const log = isLogX(props.plate, all)
  return all.map((curve) => {
    const along = (x: number): number => (log ? Math.log(x) : x)
    const [first, last] = [along(curve.x[0] ?? 0), along(curve.x.at(-1) ?? 1)]
    const columnOf = (x: number): number => ((along(x) - first) / (last - first || 1)) * COLUMNS
    const points = thinned(curve.x, curve.y, columnOf, COLUMNS).flatMap(({ x, y }) =>
      Number.isFinite(y) ? [{ x: along(x), y }] : [],
    )
    const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)]
    const span = (list: number[]) => ({ low: Math.min(...list), size: Math.max(...list) - Math.min(...list) || 1 })
    const [h, v] = [span(xs), span(ys)]
    const path = points
      .map((p, k) => {
        const x = 6 + ((p.x - h.low) / h.size) * (SIZE.width - 12)
        const y = SIZE.height - 6 - ((p.y - v.low) / v.size) * (SIZE.height - 12)
        return `${k === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`
      })
      .join('')
    return { id: curve.id, path, hue: curve.ink.hue }
  })
})
</script>

<template>
  <svg :width="SIZE.width" :height="SIZE.height" :viewBox="`0 0 ${SIZE.width} ${SIZE.height}`" aria-hidden="true">
    <path class="axes" :d="`M6 4V${SIZE.height - 6}H${SIZE.width - 4}`" />
    <path v-for="curve in curves" :key="curve.id" :d="curve.path" :style="{ stroke: `var(--hue-${curve.hue + 1})` }" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  background: var(--leaf);
}
path {
  fill: none;
  stroke-width: 1.4;
}
.axes {
  stroke: var(--edge);
  stroke-width: 1;
}
</style>
