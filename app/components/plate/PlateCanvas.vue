<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref } from 'vue'
import type { Size } from '#core/scene/view'
import type { Plate } from '#shared/plate'
import { useNameDrop } from '~/composables/nameDrop'

/** What a plate asks of its chart. */
export interface HostedChart {
  resize(width: number, height: number): void
  destroy(): void
}

/**
 * The picture of a plate: a canvas with the chart that `make` puts on it, as large as its place, onto which kept
 * names can be dropped. What else is given to it, listeners and all, goes to the canvas; what lies over the picture
 * is its content.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  plate: Plate
  /** What a screen reader is told of the picture. */
  label: string
  make: (canvas: HTMLCanvasElement) => HostedChart
  /** How far from the foot it says that there is nothing yet. */
  nothingAt?: string
}>()
const emit = defineEmits<{ sized: [size: Size] }>()

const host = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
defineExpose({ canvas })
const { dropping, dragOver, drop } = useNameDrop(() => props.plate)

let chart: HostedChart | null = null
let observer: ResizeObserver | null = null
let left = false
onMounted(async () => {
  await nextTick()
  await document.fonts.ready
  if (left || !canvas.value || !host.value) return
  chart = props.make(canvas.value)
  observer = new ResizeObserver(([entry]) => {
    if (!entry) return
    const { width, height } = entry.contentRect
    if (width < 1 || height < 1) return
    chart?.resize(width, height)
    emit('sized', { width, height })
  })
  observer.observe(host.value)
})
onBeforeUnmount(() => {
  left = true
  observer?.disconnect()
  chart?.destroy()
})
</script>

<template>
  <div
    ref="host"
    class="canvas-host"
    :class="{ dropping }"
    @dragover="dragOver"
    @dragleave="dropping = false"
    @drop="drop"
  >
    <canvas ref="canvas" tabindex="0" role="img" :aria-label="label" v-bind="$attrs" />
    <slot />
    <p v-if="$slots.nothing" class="nothing" :style="{ bottom: nothingAt ?? '24px' }"><slot name="nothing" /></p>
  </div>
</template>

<style scoped>
.canvas-host {
  contain: strict;
  position: absolute;
  inset: 0;
  overflow: hidden;
}
.canvas-host.dropping {
  box-shadow: inset 0 0 0 3px var(--teal);
}
canvas {
  display: block;
  touch-action: pan-y;
}
canvas:focus-visible {
  outline-offset: -2px;
}
.nothing {
  position: absolute;
  inset: auto 24px;
  margin: 0;
  padding: 4px 0;
  background: var(--leaf);
  text-align: center;
  color: var(--quiet);
  pointer-events: none;
}
.nothing :slotted(code) {
  font-family: var(--mono);
  color: var(--ink);
}
</style>
