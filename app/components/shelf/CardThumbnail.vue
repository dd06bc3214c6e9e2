<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { assignSlots, dashOf, hueOf } from '#core/scene/scene'
import { fitView, toPixel } from '#core/scene/view'
import type { FolioCard, Thumbnail } from '#shared/folio'
import { reckonThumbnail } from '~/browser/thumbnails'

/** A small picture of the folio's plane, as it was reckoned from its first lines. */
const props = defineProps<{ card: FolioCard }>()
const SIZE = { width: 264, height: 128 }
const reckoned = shallowRef<Thumbnail | null>(null)
watch(
  () => [props.card.id, props.card.revision] as const,
  async ([id, revision]) => {
    if (props.card.thumbnail || props.card.damaged) return
    const thumbnail = await reckonThumbnail(props.card).catch(() => null)
    if (props.card.id === id && props.card.revision === revision) reckoned.value = thumbnail
  },
  { immediate: true },
)

const arrows = computed(() => {
  const marks = (props.card.thumbnail ?? reckoned.value)?.marks.map((mark, k) => ({ ...mark, id: String(k) })) ?? []
  const view = fitView(marks, SIZE, 16)
  const slots = assignSlots(
    marks.map((m) => m.id),
    new Map(),
  )
  const origin = toPixel(view, SIZE, { re: 0, im: 0 })
  return {
    origin,
    list: marks.map((mark) => {
      const tip = toPixel(view, SIZE, mark)
      const slot = slots.get(mark.id) ?? 0
      const degrees = (Math.atan2(tip.y - origin.y, tip.x - origin.x) * 180) / Math.PI
      return {
        id: mark.id,
        tip,
        hue: hueOf(slot),
        dash: dashOf(slot).join(' '),
        turn: `translate(${tip.x} ${tip.y}) rotate(${degrees})`,
      }
    }),
  }
})
</script>

<template>
  <svg class="thumbnail" :viewBox="`0 0 ${SIZE.width} ${SIZE.height}`" aria-hidden="true">
    <path class="axis" :d="`M0 ${arrows.origin.y}H${SIZE.width}M${arrows.origin.x} 0V${SIZE.height}`" />
    <g v-for="arrow in arrows.list" :key="arrow.id" :style="{ color: `var(--hue-${arrow.hue + 1})` }">
      <line
        class="arrow"
        :x1="arrows.origin.x"
        :y1="arrows.origin.y"
        :x2="arrow.tip.x"
        :y2="arrow.tip.y"
        :stroke-dasharray="arrow.dash"
      />
      <path class="head" d="M0 0l-8-3.200v6.400z" :transform="arrow.turn" />
    </g>
  </svg>
</template>

<style scoped>
.thumbnail {
  display: block;
  width: 100%;
  background: var(--leaf);
}
.axis {
  stroke: var(--grid);
  stroke-width: 1;
  fill: none;
}
.arrow {
  stroke: currentcolor;
  stroke-width: 1.8;
}
.head {
  fill: currentcolor;
}
</style>
