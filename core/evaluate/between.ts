import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { copyText, equalValues } from '../kinds/kinds'
import { definedName } from '../notation/references'
import { withValue } from '../notation/valuePart'
import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { sentence } from '../sentences/sentences'
import { asMatrix, itemsOf } from '../values/matrices'
import { factorNumber } from '../units/unit'
import { pointIn } from '../quantities/through'
import { bare, sweepIn } from '../values/quantity'
import { pointAt } from '../values/sweeps'
import type { SweepValue, Value } from '../values/types'
import type { Enclosures } from './enclosures'
import { FolioEvaluator } from './folio'
import type { LineResult, SourceLine } from './lineResult'
import type { EvaluationSettings } from './settings'

/** Sweeps at a place of their own: what every line is worth there, reckoned and not read off between two points. */

/** What the lines are worth where a range has a certain value. */
export interface PlaceReading {
  readonly kind: 'place'
  /** The value of the range in its unit: a real number, or radians. */
  readonly x: number
  /** The point of the range that is nearest. */
  readonly index: number
  /** By line; `null` of a line that needs the whole sweep, or has no value there: nothing is reckoned of it. */
  readonly values: ReadonlyMap<string, Value | null>
}

/** Why nothing can be read, in a sentence. */
export interface NoReading {
  readonly kind: 'none'
  readonly why: string
}

/** How far what is reckoned at a point of the sweep may be from what the sweep has there, relatively. */
const AGREES = 1e-9
/** Longest time for one line, in milliseconds. */
const LINE_LIMIT = 2_000

/**
 * Puts one value in the place of the range and reckons the folio again. A line is only believed where the same way
 * gives what its sweep has at three of its points: one that asks for the whole sweep, as its largest value, does not.
 */
export class PlaceReader {
  private readonly folio: FolioEvaluator

  constructor(enclosures: Enclosures) {
    this.folio = new FolioEvaluator(enclosures)
  }

  /** `resultOf` gives the lines as they are with the whole range. */
  read(
    lines: readonly SourceLine[],
    settings: EvaluationSettings,
    name: string,
    entry: string,
    resultOf: (id: string) => LineResult | null,
  ): PlaceReading | NoReading {
    const ranges = lines.filter(({ id }) => isRange(resultOf(id), name))
    const [first] = ranges
    const range = first && sweepOf(resultOf(first.id))
    if (!first || !range) return none(`${name} is no range of this folio: there is nothing between its points.`)
    this.folio.setSettings({ ...settings, timeLimit: LINE_LIMIT })
    const isPart = new Set(ranges.map((line) => line.id))
    const at = (value: string): void => {
      this.folio.setLines(lines.map((l) => (isPart.has(l.id) ? { ...l, source: withValue(l.source, value) } : l)))
      this.folio.update()
    }
    at(entry)
    // A bare number is read in the unit of the range, as its numerals are.
    const { unit } = range.axis
    if (unit && this.folio.result(first.id)?.evaluated.value?.kind === 'number') at(`(${entry}) ${unit.text}`)
    const own = this.folio.result(first.id)?.evaluated
    if (own?.problem) return none(sentence(own.problem))
    const x = placeOf(own?.value ? bare(own.value) : null, range.of)
    if (x === null) return none(range.of === 'angle' ? 'An angle is needed here.' : 'A real number is needed here.')
    const along = lines.filter(({ id }) => sweepOf(resultOf(id))?.axis.name === name)
    const values = new Map(along.map(({ id }) => [id, this.folio.result(id)?.evaluated.value ?? null]))
    const index = nearest(range.re, x)
    for (const k of new Set([0, Math.max(0, index - 1), Math.min(range.count - 1, index + 1)])) {
      const point = copyText(pointOf(resultOf(first.id), range, k), 'full', { ...DEFAULT_CONVENTIONS, angle: settings.angle, letter: settings.letter }) // prettier-ignore
      if (point === null) continue
      at(point)
      for (const { id } of along) {
        const sweep = sweepOf(resultOf(id))
        const there = this.folio.result(id)?.evaluated.value ?? null
        if (!sweep || !agree(there, pointAt(sweep, k))) values.set(id, null)
      }
    }
    return { kind: 'place', x: x / factorNumber(unit), index, values }
  }
}

const none = (why: string): NoReading => ({ kind: 'none', why })

function sweepOf(result: LineResult | null): SweepValue | null {
  return sweepIn(result?.evaluated.value ?? null)
}

/** A point of a range with its unit. */
function pointOf(result: LineResult | null, range: SweepValue, k: number): Value {
  const value = result?.evaluated.value
  return (value && pointIn(value, k)) ?? pointAt(range, k)
}

/** True of the line that keeps the range itself. */
function isRange(result: LineResult | null, name: string): boolean {
  const sweep = sweepOf(result)
  return sweep !== null && sweep.re === sweep.axis.values && result !== null && definedName(result.parsed) === name
}

function placeOf(value: Value | null, of: SweepValue['of']): number | null {
  if (of === 'angle') return value?.kind === 'angle' ? value.radians : null
  return value?.kind === 'number' && value.im === 0 && Number.isFinite(value.re) ? value.re : null
}

/** Points of a range in any order: a sweep of given values need not rise or fall. */
function nearest(points: Float64Array, x: number): number {
  let found = 0
  for (let k = 1; k < points.length; k += 1)
    if (Math.abs((points[k] ?? NaN) - x) < Math.abs((points[found] ?? NaN) - x)) found = k
  return found
}

function agree(found: Value | null, b: Value): boolean {
  if (found === null) return isUndefined(b)
  const a = bare(found)
  if (a.kind === 'angle' && b.kind === 'angle') return Math.abs(Math.sin((a.radians - b.radians) / 2)) <= AGREES
  const [x, y] = [partsOf(a), partsOf(b)]
  if (!x || !y) return equalValues(a, b) ?? false
  const size = Math.max(...y.map((z) => C.abs(z)), Number.MIN_VALUE)
  return x.length === y.length && x.every((z, k) => near(z, y[k] ?? z, size))
}

function near(a: Complex, b: Complex, size: number): boolean {
  const same = (p: number, q: number): boolean => Object.is(p + 0, q + 0) || Math.abs(p - q) <= AGREES * size
  return same(a.re, b.re) && same(a.im, b.im)
}

/** Numbers that a value consists of; `null` of what consists of none. */
function partsOf(value: Value): readonly Complex[] | null {
  if (value.kind === 'number') return [value]
  const matrix = asMatrix(value)
  return matrix && itemsOf(matrix)
}

function isUndefined(value: Value): boolean {
  return value.kind === 'number' && (Number.isNaN(value.re) || Number.isNaN(value.im))
}
