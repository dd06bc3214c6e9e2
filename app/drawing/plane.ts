import type { Plugin } from 'chart.js'
import type { PlaneFrame } from './frame'
import { drawGround } from './ground'
import { drawLabels } from './labels'
import { drawLoci } from './locus'
import { drawMarks } from './marks'
import { drawBranches } from './rootLocus'

/** The whole picture of a plane, on any canvas: of the page, or of a file. */
export function paintPlane(ctx: CanvasRenderingContext2D, frame: PlaneFrame): void {
  drawGround(ctx, frame)
  drawBranches(ctx, frame)
  drawLoci(ctx, frame)
  drawMarks(ctx, frame)
  if (frame.plate.labels && !frame.mini) drawLabels(ctx, frame)
}

/** The picture of a plane on a chart of Chart.js. */
export function planePlugin(frame: () => PlaneFrame): Plugin<'scatter'> {
  return {
    id: 'plane',
    afterDraw: (chart) => paintPlane(chart.ctx, frame()),
  }
}
