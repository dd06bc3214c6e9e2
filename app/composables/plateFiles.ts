import type { Ref } from 'vue'
import type { Size } from '#core/scene/view'
import type { Plate } from '#shared/plate'
import { captioned } from '~/drawing/captioned'
import { copyPicture, fileName, pngOf, saveAs, svgOf } from '~/drawing/files'
import type { Paint } from '~/drawing/files'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'

/** A plate as files of both sorts and on the clipboard, painted as it stands. */
export function usePlateFiles(
  props: { readonly plate: Plate; readonly number: number },
  size: Ref<Size>,
  paint: Paint,
) {
  const folio = useFolioStore()
  const preferences = usePreferencesStore()
  const name = (ending: string): string => fileName(folio.title, props.number, ending)

  /** What is painted, and how large that is: with number and caption where the student wants them on pictures. */
  const picture = (): { readonly paint: Paint; readonly size: Size } =>
    preferences.captioned
      ? captioned(paint, size.value, props.number, props.plate.caption)
      : { paint, size: size.value }

  async function savePng(scale: number): Promise<void> {
    const shown = picture()
    const blob = await pngOf(shown.paint, shown.size, scale)
    if (blob) saveAs(blob, name('png'))
  }
  async function saveSvg(): Promise<void> {
    const shown = picture()
    saveAs(await svgOf(shown.paint, shown.size, props.plate.caption), name('svg'))
  }
  async function copy(): Promise<void> {
    const shown = picture()
    const done = await copyPicture(pngOf(shown.paint, shown.size, 2))
    folio.tell(
      done
        ? `Plate ${props.number} is on the clipboard.`
        : 'This browser does not let a page copy pictures: save the PNG instead.',
    )
  }
  return { savePng, saveSvg, copy, name }
}
