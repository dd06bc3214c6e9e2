import { computed, ref } from 'vue'
import type { Ref } from 'vue'
import type { PlaneMark } from '#core/scene/scene'

/** Picking two values of a plane, to read what they say of each other. */
export function useMarkPicking(marks: Ref<readonly PlaneMark[]>) {
  const measuring = ref(false)
  const picked = ref<readonly string[]>([])

  /** A third value takes the place of the first. */
  function pick({ id }: PlaneMark): void {
    const others = picked.value.filter((other) => other !== id)
    picked.value = others.length < picked.value.length ? others : [...others.slice(-1), id]
  }
  function swap(): void {
    picked.value = [...picked.value].reverse()
  }
  function toggle(): void {
    measuring.value = !measuring.value
    picked.value = []
  }
  const pickedMarks = computed(() => picked.value.flatMap((id) => marks.value.find((m) => m.id === id) ?? []))

  return { measuring, picked, pickedMarks, pick, swap, toggle }
}
