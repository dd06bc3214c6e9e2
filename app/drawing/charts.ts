import { Chart, LinearScale, LineElement, PointElement, ScatterController } from 'chart.js'

/** What every chart is made of. Curves need more: see {@link file://./curveCharts.ts}. */
Chart.register(ScatterController, LinearScale, PointElement, LineElement)

/** For a chart of the plane: the plug-ins of curves, should they have been fetched, keep away from it. */
export function withoutCurves(): { readonly legend: { readonly display: false } } {
  const plugins = { legend: { display: false } } as const
  // Their types know no false, by which the library turns a plug-in off for one chart.
  return Object.assign(plugins, { annotation: false, zoom: false })
}

export { Chart }
