import { effectScope, shallowRef } from 'vue'
import { fitRange, fitView } from '#core/scene/view'
import type { Size } from '#core/scene/view'
import type { CurvePlate, PlanePlate, Plate } from '#shared/plate'
import { Chart } from '~/drawing/curveCharts'
import { curveConfig } from '~/drawing/curve'
import { curvesOf, usualXName } from '~/drawing/curves'
import { paperFor, pngOf, svgOf } from '~/drawing/files'
import type { Paint } from '~/drawing/files'
import { boxOf } from '~/drawing/locus'
import { paintPlane } from '~/drawing/plane'
import { placesOf } from '~/drawing/rootLocus'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'
import type { Theme } from '~/theme/tokens'
import { perShown } from '~/drawing/frame'
import { usePlateMarks } from './plateMarks'
import { scaledRange } from './planeView'

/** Sizes of a plate on paper, in pixels of the screen: planes are square, curves are wide. */
export const PLANE_SIZE: Size = { width: 460, height: 380 }
export const CURVE_SIZE: Size = { width: 620, height: 360 }
/** Pixels of a PNG for each of these: 300 dots an inch. */
const PRINT_SCALE = 300 / 96

/** Pictures of any plate of the folio, shown or not. */
export function usePlatePictures() {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const results = useResultsStore()

  function planePaint(plate: PlanePlate, theme: Theme): Paint {
    const scope = effectScope()
    const found = scope.run(() => usePlateMarks(shallowRef(plate)))
    const marks = (found?.marks.value ?? []).map((mark) => ({ ...mark, draggable: false }))
    const loci = found?.loci.value ?? []
    const branches = found?.branches.value ?? []
    const scales = found?.scales.value ?? []
    const front = found?.front.value ?? ''
    scope.stop()
    const tips = [...marks, ...loci.flatMap(boxOf), ...branches.flatMap(placesOf)]
    const shown = plate.conjugates ? [...tips, ...tips.map((m) => ({ re: m.re, im: -m.im }))] : tips
    const per = perShown({ scales, front })
    const view = plate.range ? fitRange(scaledRange(plate.range, per), PLANE_SIZE) : fitView(shown, PLANE_SIZE)
    return (ctx) =>
      paintPlane(ctx, {
        view,
        size: PLANE_SIZE,
        marks,
        loci,
        branches,
        scales,
        front,
        theme,
        active: null,
        picked: [],
        plate,
        conventions: folio.conventions,
        places: new Map(),
      })
  }

  function curvePaint(plate: CurvePlate, theme: Theme): Paint {
    const over = plate.over ? results.views.get(plate.over) : undefined
    const along = over?.sweep ? { name: over.name ?? '', data: over.sweep } : null
    const curves = curvesOf(plate, plates.sweepsOn(plate), along, folio.conventions.angle)
    const name =
      plate.x.name === '' ? usualXName(plate, curves, along?.name ?? null, folio.conventions.angle) : plate.x.name
    const { width, height } = CURVE_SIZE
    return (ctx) => {
      const { data, options, type } = curveConfig({
        plate: { ...plate, x: { ...plate.x, name } },
        curves,
        theme,
        conventions: folio.conventions,
        width,
        height,
        cursor: null,
        fixed: null,
        along: null,
        window: null,
        paper: true,
      })
      ctx.fillStyle = theme.leaf
      ctx.fillRect(0, 0, width, height)
      const chart = new Chart(paperFor(ctx, CURVE_SIZE), { type, data, options: { ...options, devicePixelRatio: 1 } })
      chart.draw()
      chart.destroy()
    }
  }

  const paintOf = (plate: Plate, theme: Theme): Paint =>
    plate.kind === 'plane' ? planePaint(plate, theme) : curvePaint(plate, theme)
  const sizeOf = (plate: Plate): Size => (plate.kind === 'plane' ? PLANE_SIZE : CURVE_SIZE)

  return {
    sizeOf,
    paint: paintOf,
    svg: (plate: Plate, theme: Theme): Promise<Blob> => svgOf(paintOf(plate, theme), sizeOf(plate), plate.caption),
    png: (plate: Plate, theme: Theme): Promise<Blob | null> => pngOf(paintOf(plate, theme), sizeOf(plate), PRINT_SCALE),
  }
}
