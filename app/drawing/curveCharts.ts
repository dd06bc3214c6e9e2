import { Legend, LogarithmicScale } from 'chart.js'
import annotationPlugin from 'chartjs-plugin-annotation'
import zoomPlugin from 'chartjs-plugin-zoom'
import { Chart } from './charts'

/**
 * What curves need besides; it comes with the first of them. Plug-ins that come later would meet charts that they
 * have not prepared, so the charts of planes say that they want none of them.
 */
Chart.register(LogarithmicScale, Legend, annotationPlugin, zoomPlugin)

export { Chart }
