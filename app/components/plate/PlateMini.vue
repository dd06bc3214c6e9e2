<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { fitRange, fitView } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'
import { drawCalmly } from '~/browser/calmly'
import { usePlateMarks } from '~/composables/plateMarks'
import { boxOf } from '~/drawing/locus'
import { scaledRange } from '~/composables/planeView'
import { perShown } from '~/drawing/frame'
import { paintPlane } from '~/drawing/plane'
import { placesOf } from '~/drawing/rootLocus'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'
import { THEMES } from '~/theme/tokens'

/** A plane plate in small: what is on it and where, without numbers. */
const props = defineProps<{ plate: PlanePlate }>()
const folio = useFolioStore()
const preferences = usePreferencesStore()
const SIZE = { width: 96, height: 66 }
const canvas = ref<HTMLCanvasElement | null>(null)
const { marks, loci, branches, scales, front } = usePlateMarks(computed(() => props.plate))
function draw(): void {
  const paper = canvas.value
  const ctx = paper?.getContext('2d')
  if (!paper || !ctx) return
  const scale = window.devicePixelRatio || 1
  paper.width = SIZE.width * scale
  paper.height = SIZE.height * scale
  ctx.scale(scale, scale)
  paintPlane(ctx, {
    view: props.plate.range
      ? fitRange(scaledRange(props.plate.range, perShown({ scales: scales.value, front: front.value })), SIZE)
      : fitView([...marks.value, ...loci.value.flatMap(boxOf), ...branches.value.flatMap(placesOf)], SIZE, 10),
    size: SIZE,
    marks: marks.value,
    loci: loci.value,
    branches: branches.value,
    theme: THEMES[preferences.theme],
    active: null,
    picked: [],
    plate: props.plate,
    conventions: folio.conventions,
    places: new Map(),
    mini: true,
  })
}
onMounted(() => drawCalmly(draw))
</script>

<template>
  <canvas ref="canvas" :style="{ width: `${SIZE.width}px`, height: `${SIZE.height}px` }" aria-hidden="true" />
</template>
