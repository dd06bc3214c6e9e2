import type { Ref } from 'vue'
import type { Size } from '#core/scene/view'
import type { Plate } from '#shared/plate'
import { copyPicture, fileName, pngOf, saveAs, svgOf } from '~/drawing/files'
import type { Paint } from '~/drawing/files'
import { useFolioStore } from '~/stores/folio'

/** A plate as files of both sorts and on the clipboard, painted as it stands. */
export function usePlateFiles(
  props: { readonly plate: Plate; readonly number: number },
  size: Ref<Size>,
  paint: Paint,
) {
  const folio = useFolioStore()
  const name = (ending: string): string => fileName(folio.title, props.number, ending)

  async function savePng(scale: number): Promise<void> {
    const blob = await pngOf(paint, size.value, scale)
    if (blob) saveAs(blob, name('png'))
  }
  async function saveSvg(): Promise<void> {
    saveAs(await svgOf(paint, size.value, props.plate.caption), name('svg'))
  }
  async function copy(): Promise<void> {
    const done = await copyPicture(pngOf(paint, size.value, 2))
    folio.tell(
      done
        ? `Plate ${props.number} is on the clipboard.`
        : 'This browser does not let a page copy pictures: save the PNG instead.',
    )
  }
  return { savePng, saveSvg, copy, name }
}
