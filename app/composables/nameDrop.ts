import { ref } from 'vue'
import type { Plate } from '#shared/plate'
import { usePlatesStore } from '~/stores/plates'

/** What is carried when a kept name is dragged: the identifier of its line. */
export const KEPT_NAME = 'application/x-kept-name'

/** A plate on which a kept name can be dropped to put its value there. */
export function useNameDrop(plate: () => Plate) {
  const plates = usePlatesStore()
  /** True while a name is held over the picture. */
  const dropping = ref(false)

  function dragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes(KEPT_NAME)) return
    event.preventDefault()
    dropping.value = true
  }
  function drop(event: DragEvent): void {
    dropping.value = false
    const line = event.dataTransfer?.getData(KEPT_NAME)
    if (line) plates.put(plate(), line, true)
  }
  return { dropping, dragOver, drop }
}
