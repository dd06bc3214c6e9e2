import { gcdSmall } from '#core/numbers/divisors'
import type { Sort } from '#core/scene/curve'
import { isLogX, shownRange, sortsOf, usualXName, usualYName } from './curves'
import type { CurveConfig, CurveFrame } from './curves'
import { SANS, SERIF, tickText } from './frame'

/** The axes of a curve plate: their ranges, their names and the numbers on them. */

type Scales = NonNullable<NonNullable<CurveConfig['options']>['scales']>

export function scalesOf(frame: CurveFrame): Scales {
  const { plate, curves, theme, conventions } = frame
  const { low, high } = shownRange(frame)
  const log = isLogX(plate, curves)
  const sorts = sortsOf(curves)
  const stacked = plate.stacked || sorts.length > 2
  const title = (text: string) => ({
    display: text !== '',
    text,
    color: theme.ink,
    font: { family: SERIF, size: 14, style: 'italic' as const },
  })
  const grid = { display: plate.grid, color: theme.grid }
  const border = { color: theme.ink }
  const xName = plate.x.name === '' ? usualXName(plate, curves, null, conventions.angle) : plate.x.name
  const scales: Scales = {
    x: {
      type: log ? 'logarithmic' : 'linear',
      position: 'bottom',
      min: low,
      max: high,
      title: title(xName),
      grid,
      border,
      ticks: { ...ticks(frame), ...(log ? { callback: decadeTick(frame) } : {}) },
    } as never,
  }
  const shown: readonly Sort[] = sorts.length === 0 ? ['number'] : sorts
  shown.forEach((sort, k) => {
    const axis = plate[sort]
    const room = (frame.height - 70) / (stacked ? shown.length : 1)
    const usual = usualYName(sort, curves, conventions.angle)
    scales[sort] = {
      type: axis.log && sort === 'number' ? 'logarithmic' : 'linear',
      position: stacked || k === 0 ? 'left' : 'right',
      // The first quantity stands on top.
      ...(stacked ? { stack: 'all', stackWeight: 1, weight: shown.length - k, offset: true } : {}),
      ...(axis.low === null ? {} : { min: axis.low }),
      ...(axis.high === null ? {} : { max: axis.high }),
      title: title(axis.name === '' ? usual : axis.name),
      grid: stacked || k === 0 ? grid : { display: false },
      border,
      ...(sort === 'number' ? { grace: '4%' } : {}),
      ticks: { ...ticks(frame), ...(sort === 'number' ? {} : niceSteps(frame, sort, room)) },
    } as never
  })
  return scales
}

function ticks({ theme, conventions }: CurveFrame) {
  return {
    color: theme.quiet,
    font: { family: SANS, size: 12 },
    maxRotation: 0,
    autoSkipPadding: 14,
    callback: (value: string | number) => tickText(Number(value), conventions),
  }
}

/** Along a log axis the decades are named, and between few decades 2 and 5, too. */
function decadeTick(frame: CurveFrame) {
  const { low = 1, high = 10 } = shownRange(frame)
  const few = Math.log10(high / low) < 2.5
  return (value: string | number): string => {
    const x = Number(value)
    const share = x / 10 ** Math.floor(Math.log10(x) + 1e-9)
    const named = Math.abs(share - 1) < 1e-6 || (few && (Math.abs(share - 2) < 1e-6 || Math.abs(share - 5) < 1e-6))
    return named ? tickText(x, frame.conventions) : ''
  }
}

const STEPS: Readonly<Record<Exclude<Sort, 'number'>, readonly number[]>> = {
  dB: [0.1, 0.2, 0.5, 1, 2, 3, 6, 10, 20, 40, 60, 100, 200],
  // Parts of a turn.
  angle: [0.1, 0.5, 1, 2, 5, 10, 15, 30, 45, 90, 180, 360, 720, 1440],
}
/** Least distance of two numbers up an axis, in pixels. */
const TICK_LEAST = 26

function niceSteps({ curves, conventions }: CurveFrame, sort: Exclude<Sort, 'number'>, room: number) {
  let [low, high] = [Infinity, -Infinity]
  for (const { sort: other, y } of curves) {
    if (other !== sort) continue
    for (const v of y) {
      if (!Number.isFinite(v)) continue
      if (v < low) low = v
      if (v > high) high = v
    }
  }
  const degrees = sort === 'dB' || conventions.angle === 'deg'
  const span = (high - low) * (degrees ? 1 : 180 / Math.PI)
  const most = Math.max(2, Math.floor(room / TICK_LEAST) - 1)
  const step = STEPS[sort].find((s) => span / s <= most)
  if (step === undefined || !(span > 0)) return {}
  if (degrees) return { stepSize: step, autoSkip: false }
  return {
    stepSize: (step * Math.PI) / 180,
    callback: (value: string | number) => radianTick(Number(value)),
  }
}

function radianTick(value: number): string {
  const parts = Math.round((value / Math.PI) * 180)
  if (Math.abs((parts * Math.PI) / 180 - value) > 1e-6) return value.toFixed(2)
  if (parts === 0) return '0'
  const divisor = gcdSmall(Math.abs(parts), 180)
  const [top, bottom] = [parts / divisor, 180 / divisor]
  const size = Math.abs(top) === 1 ? 'π' : `${Math.abs(top)}π`
  return `${top < 0 ? '−' : ''}${size}${bottom === 1 ? '' : `/${bottom}`}`
}
