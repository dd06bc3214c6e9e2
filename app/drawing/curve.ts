import type { ChartDataset, LegendItem } from 'chart.js'
import { thinned } from '#core/scene/curve'
import type { Point } from '#core/scene/curve'
import { annotationsOf } from './curveAnnotations'
import { scalesOf } from './curveAxes'
import { isLogX } from './curves'
import type { Curve, CurveConfig, CurveFrame } from './curves'
import { hueColour, SANS, SERIF } from './frame'
import { straightDatasets } from './straight'

/** A curve plate as a chart of Chart.js: of the page, or of a file. */

/** The marker of each hue, as Chart.js has them. */
const POINT_STYLES = ['circle', 'rect', 'triangle', 'rectRot', 'triangle', 'rectRounded', 'star', 'rectRot'] as const
/** Fewer points than this are marked in the style with points. */
const MARKED_MOST = 400

export function curveConfig(frame: CurveFrame): CurveConfig {
  const { plate, curves, theme } = frame
  // The members of a family are told apart in the caption.
  const told = frame.paper ? curves : curves.filter(({ beside }) => !beside)
  return {
    type: 'scatter',
    data: { datasets: [...curves.map((curve) => datasetOf(curve, frame)), ...straightDatasets(frame)] },
    options: {
      animation: false,
      responsive: false,
      maintainAspectRatio: false,
      parsing: false,
      normalized: true,
      events: [],
      font: { family: SANS, size: 13 },
      color: theme.ink,
      layout: { padding: { top: 8, right: 14, bottom: 4, left: 4 } },
      scales: scalesOf(frame),
      plugins: {
        legend: {
          display: plate.legend && told.length > 1,
          position: 'top',
          align: 'end',
          labels: {
            usePointStyle: true,
            pointStyle: 'line',
            pointStyleWidth: 30,
            color: theme.ink,
            font: { family: SERIF, size: 14, style: 'italic' },
            generateLabels: () => told.map((curve) => legendItem(curve, frame)),
          },
        },
        annotation: { annotations: annotationsOf(frame), clip: false },
        tooltip: { enabled: false },
      },
    },
  }
}

/** A curve in the legend with the dash it is drawn with: in black and white that is all that tells it from others. */
function legendItem(curve: Curve, { theme, curves, paper }: CurveFrame): LegendItem {
  const strokeStyle = hueColour(theme, curve.ink)
  return {
    text: paper ? curve.label : curve.title,
    fontColor: theme.ink,
    strokeStyle,
    fillStyle: strokeStyle,
    lineWidth: curve.ink.width,
    lineDash: [...curve.ink.dash],
    pointStyle: 'line',
    datasetIndex: curves.indexOf(curve),
  }
}

function datasetOf(curve: Curve, frame: CurveFrame): ChartDataset<'scatter', Point[]> {
  const { plate, theme } = frame
  const colour = hueColour(theme, curve.ink)
  const data = pointsIn(curve, frame)
  const few = data.length <= MARKED_MOST
  const marked = plate.style !== 'line' && few
  return {
    label: curve.label,
    data,
    yAxisID: curve.sort,
    showLine: plate.style !== 'points' || !few,
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: curve.ink.width,
    borderDash: [...curve.ink.dash],
    pointRadius: marked ? 3.5 : 0,
    pointStyle: POINT_STYLES[curve.ink.hue] ?? 'circle',
    pointRotation: curve.ink.hue === 4 ? 180 : 0,
    spanGaps: false,
    // With this the line is drawn on the context itself and not as a path object, which a file has no use for; it is slow.
    ...(frame.paper ? { segment: {} } : {}),
    clip: 4,
  }
}

/** The points of a curve that the window can tell apart. */
function pointsIn(curve: Curve, frame: CurveFrame): Point[] {
  const { window, width } = frame
  const log = isLogX(frame.plate, frame.curves)
  const [first = 0, last = 1] = [curve.x[0], curve.x.at(-1)]
  const low = window?.low ?? Math.min(first, last)
  const high = window?.high ?? Math.max(first, last)
  const columns = Math.max(200, Math.round(width))
  const share = log
    ? (x: number): number => Math.log(x / low) / Math.log(high / low)
    : (x: number): number => (x - low) / (high - low)
  let [from, to] = [0, curve.x.length]
  if (window) {
    // One point more on either side, so that the line goes on to the edge.
    const inside = (k: number): boolean => (curve.x[k] ?? NaN) >= low && (curve.x[k] ?? NaN) <= high
    while (from < to && !inside(from)) from += 1
    while (to > from && !inside(to - 1)) to -= 1
    from = Math.max(0, from - 1)
    to = Math.min(curve.x.length, to + 1)
  }
  return thinned(curve.x.subarray(from, to), curve.y.subarray(from, to), (x) => share(x) * columns, columns)
}
