import { Chart, Legend, LinearScale, LineElement, LogarithmicScale, PointElement, ScatterController } from 'chart.js'
import annotationPlugin from 'chartjs-plugin-annotation'
import zoomPlugin from 'chartjs-plugin-zoom'

/**
 * What charts are made of, registered before the first of them: a plug-in that comes later would meet charts that
 * it has not prepared.
 */
Chart.register(
  ScatterController,
  LinearScale,
  LogarithmicScale,
  PointElement,
  LineElement,
  Legend,
  annotationPlugin,
  zoomPlugin,
)

export { Chart }
