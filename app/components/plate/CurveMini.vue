<script setup lang="ts">
import { onMounted, shallowRef } from 'vue'
import { thinned } from '#core/scene/curve'
import { drawCalmly } from '~/browser/calmly'
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

const INSET = 6
const inset = (share: number, length: number): number => INSET + share * (length - 2 * INSET)

/** Curves of one sort share a scale, as on the plate itself. */
const curves = shallowRef<readonly Drawn[]>([])
onMounted(() => drawCalmly(() => (curves.value = drawn())))

interface Drawn {
  readonly id: string
  readonly path: string
  readonly hue: number
  readonly beside: boolean
}

function drawn(): readonly Drawn[] {
  const all = curvesOf(props.plate, plates.sweepsOn(props.plate), null, folio.conventions.angle)
  const log = isLogX(props.plate, all)
  const along = (x: number): number => (log ? Math.log(x) : x)
  const thin = all.map((curve) => {
    const [first, last] = [along(curve.x[0] ?? 0), along(curve.x.at(-1) ?? 1)]
    const columnOf = (x: number): number => ((along(x) - first) / (last - first || 1)) * COLUMNS
    const points = thinned(curve.x, curve.y, columnOf, COLUMNS).flatMap(({ x, y }) =>
      Number.isFinite(y) ? [{ x: along(x), y }] : [],
    )
    return { curve, points }
  })
  const over = spanOf(thin.flatMap(({ points }) => points.map(({ x }) => x)))
  return thin.map(({ curve, points }) => {
    const up = spanOf(thin.flatMap((other) => (other.curve.sort === curve.sort ? other.points.map(({ y }) => y) : [])))
    const path = points
      .map((p, k) => {
        const x = inset((p.x - over.low) / over.size, SIZE.width)
        const y = inset(1 - (p.y - up.low) / up.size, SIZE.height)
        return `${k === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`
      })
      .join('')
    return { id: curve.id, path, hue: curve.ink.hue, beside: curve.beside }
  })
}

function spanOf(list: readonly number[]): { readonly low: number; readonly size: number } {
  let [low, high] = [Infinity, -Infinity]
  for (const x of list) {
    if (x < low) low = x
    if (x > high) high = x
  }
  return { low, size: high - low || 1 }
}
</script>

<template>
  <svg :width="SIZE.width" :height="SIZE.height" :viewBox="`0 0 ${SIZE.width} ${SIZE.height}`" aria-hidden="true">
    <path class="axes" :d="`M6 4V${SIZE.height - 6}H${SIZE.width - 4}`" />
    <path
      v-for="curve in curves"
      :key="curve.id"
      :class="{ beside: curve.beside }"
      :d="curve.path"
      :style="{ stroke: `var(--hue-${curve.hue + 1})` }"
    />
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
.beside {
  stroke-width: 0.8;
}
.axes {
  stroke: var(--edge);
  stroke-width: 1;
}
</style>
