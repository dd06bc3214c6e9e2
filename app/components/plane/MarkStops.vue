<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { PlaneView, Size } from '#core/scene/view'

/**
 * The marks of a plane for the keyboard: one stop of the Tab key, from which
 * Page Up and Page Down go through the values in order.
 */
const props = defineProps<{ marks: readonly PlaneMark[]; view: PlaneView; size: Size }>()
const emit = defineEmits<{
  focused: [id: string | null]
  pressed: [event: KeyboardEvent, mark: PlaneMark]
  left: []
}>()
const at = ref(0)

const stops = computed(() => props.marks.filter((mark) => !mark.term))
const current = computed(() => Math.min(at.value, stops.value.length - 1))
const stop = computed(() => stops.value[current.value])

function place(mark: PlaneMark): { left: string; top: string } {
  const { x, y } = toPixel(props.view, props.size, mark)
  const within = (value: number, most: number): number => Math.max(13, Math.min(most - 13, value))
  return { left: `${within(x, props.size.width)}px`, top: `${within(y, props.size.height)}px` }
}

function go(to: number): void {
  emit('left')
  at.value = Math.max(0, Math.min(stops.value.length - 1, to))
  emit('focused', stop.value?.id ?? null)
}

function key(event: KeyboardEvent, mark: PlaneMark): void {
  const moves: Readonly<Record<string, number>> = {
    PageDown: current.value + 1,
    PageUp: current.value - 1,
    Home: 0,
    End: stops.value.length - 1,
  }
  const to = moves[event.key]
  if (to === undefined) {
    emit('pressed', event, mark)
    return
  }
  event.preventDefault()
  go(to)
}

function name(mark: PlaneMark): string {
  const how = mark.draggable ? 'Arrow keys move it.' : 'Computed.'
  return `${mark.label}: ${mark.rectangular}, ${mark.polar}. Value ${current.value + 1} of ${stops.value.length}. ${how}`
}
</script>

<template>
  <div v-if="stop" class="stops" role="group" aria-label="Values on the plane">
    <button
      type="button"
      class="stop"
      :style="place(stop)"
      :aria-label="name(stop)"
      @focus="emit('focused', stop.id)"
      @blur="(emit('focused', null), emit('left'))"
      @keydown="(event) => stop && key(event, stop)"
    />
  </div>
</template>

<style scoped>
.stop {
  position: absolute;
  width: 26px;
  height: 26px;
  margin: -13px 0 0 -13px;
  border-radius: 50%;
  pointer-events: none;
}
</style>
