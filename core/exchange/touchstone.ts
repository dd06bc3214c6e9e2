import * as C from '../numbers/complex'
import { fromDecimal, multiply } from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { cosTurns, sinTurns } from '../numbers/turns'
import type { Column, DataTable } from '../measured/data'
import { readNumeral } from './numerals'
import { fault, remark } from './told'
import type { Fault, Remark } from './told'

/**
 * Network data: the parameters of an n-port over frequency.
 * Source: IBIS Open Forum, Touchstone File Format Specification, versions 1.1 (2002) and 2.0 (2009).
 */

export type Parameter = 'S' | 'Y' | 'Z' | 'G' | 'H'
export const PARAMETERS: readonly Parameter[] = ['S', 'Y', 'Z', 'G', 'H']
type Form = 'RI' | 'MA' | 'DB'

export interface ReadNetwork {
  readonly kind: 'read'
  readonly data: DataTable
  readonly parameter: Parameter
  readonly told: readonly Remark[]
}

/** Hz in a unit of frequency, as a power of ten: the point of a number is moved, nothing is multiplied. */
const UNITS: ReadonlyMap<string, number> = new Map([
  ['HZ', 0],
  ['KHZ', 3],
  ['MHZ', 6],
  ['GHZ', 9],
])

interface Options {
  readonly power: number
  readonly parameter: Parameter
  readonly form: Form
  readonly ohms: number
}

/** What holds where the option line says nothing else. */
const DEFAULTS: Options = { power: 9, parameter: 'S', form: 'MA', ohms: 50 }

/** A number of the data, with its place. */
interface Item {
  readonly text: string
  readonly line: number
  readonly column: number
  /** True of the first of its line. */
  readonly first: boolean
}

interface Keywords {
  ports: number | null
  order: '12_21' | '21_12' | null
  frequencies: number | null
  reference: readonly string[] | null
  layout: 'full' | 'lower' | 'upper'
}

interface Source {
  readonly options: Options
  readonly version: 1 | 2
  readonly keywords: Keywords
  readonly items: readonly Item[]
  /** Frequencies of noise data under a keyword of its own. */
  readonly noise: number
}

/** Reads network data; `ports` is what the extension of the file says, where it has one. */
export function readTouchstone(text: string, ports: number | null = null): ReadNetwork | Fault {
  const source = sourceOf(text)
  if ('kind' in source) return source
  const { options, version, keywords, items } = source
  if (items.length === 0) return fault('no-data', {})
  const n = version === 2 ? keywords.ports : (ports ?? portsOf(items))
  if (n === null)
    return version === 2 ? fault('touchstone-no-ports', {}) : fault('touchstone-ports', {}, items[0]?.line)
  const { parameter } = options
  if ((parameter === 'G' || parameter === 'H') && n !== 2) return fault('touchstone-two-ports', { parameter, ports: n })
  if (version === 2 && n === 2 && keywords.order === null) return fault('touchstone-order', {})
  const read = readPoints(source, n)
  if ('kind' in read) return read
  const { points, told } = read
  const wanted = keywords.frequencies
  if (wanted !== null && wanted !== points.length)
    return fault('touchstone-count', { has: points.length, needs: wanted })
  const remarks = [...told]
  if (version === 1 && ports === null) remarks.push(remark('ports-guessed', { ports: n }))
  const reference = referenceOf(source, n)
  if (typeof reference !== 'string') return reference
  if (version === 1 && parameter !== 'S' && options.ohms !== 1)
    remarks.push(remark('denormalized', { parameter, ohms: options.ohms }))
  else remarks.push(remark('reference-ohms', { ohms: reference }))
  return { kind: 'read', data: tableOf(points, n, parameter), parameter, told: remarks }
}

function referenceOf({ options, keywords }: Source, ports: number): string | Fault {
  const { reference } = keywords
  if (reference === null) return String(options.ohms)
  if (reference.length !== ports) return fault('touchstone-reference', { has: reference.length, needs: ports })
  return [...new Set(reference)].length === 1 ? (reference[0] ?? '') : reference.join(', ')
}

/** Takes the text apart: options, keywords, and the numbers of the network. */
function sourceOf(text: string): Source | Fault {
  let options: Options | null = null
  let version: 1 | 2 = 1
  let section: 'head' | 'information' | 'network' | 'noise' | 'end' = 'head'
  let noise = 0
  let awaiting = false
  const keywords: Keywords = { ports: null, order: null, frequencies: null, reference: null, layout: 'full' }
  const items: Item[] = []
  const lines = text.split(/\r\n|\r|\n/)
  for (const [index, whole] of lines.entries()) {
    const line = whole.split('!', 1)[0] ?? ''
    const number = index + 1
    const trimmed = line.trim()
    if (trimmed === '') continue
    if (trimmed.startsWith('[')) {
      awaiting = false
      const read = keyword(trimmed, number, keywords)
      if (typeof read !== 'string') return read
      if (read === 'version') version = 2
      else if (read === 'begin information') section = 'information'
      else if (read === 'end information') section = 'head'
      else if (read === 'network data') section = 'network'
      else if (read === 'noise data') section = 'noise'
      else if (read === 'end') section = 'end'
      else if (read === 'reference') awaiting = true
      continue
    }
    if (section === 'information' || section === 'end') continue
    if (trimmed.startsWith('#')) {
      // Only the first option line counts.
      const read: Options | Fault = options ?? optionsOf(trimmed, number)
      if ('kind' in read) return read
      options = read
      continue
    }
    if (awaiting && section === 'head') {
      keywords.reference = [...(keywords.reference ?? []), ...trimmed.split(/\s+/)]
      continue
    }
    if (section === 'noise') noise += 1
    else itemsOf(line, number, items)
  }
  return { options: options ?? DEFAULTS, version, keywords, items, noise }
}

function itemsOf(line: string, number: number, items: Item[]): void {
  let first = true
  for (const found of line.matchAll(/\S+/g)) {
    items.push({ text: found[0], line: number, column: found.index + 1, first })
    first = false
  }
}

function optionsOf(line: string, number: number): Options | Fault {
  let { power, parameter, form, ohms } = DEFAULTS
  const words = line.slice(1).trim().split(/\s+/)
  for (let k = 0; k < words.length; k += 1) {
    const word = (words[k] ?? '').toUpperCase()
    const kind = PARAMETERS.find((p) => p === word)
    if (word === '') continue
    else if (UNITS.has(word)) power = UNITS.get(word) ?? power
    else if (kind) parameter = kind
    else if (word === 'RI' || word === 'MA' || word === 'DB') form = word
    else if (/^R\d*\.?\d*$/.test(word)) {
      const inline = word.slice(1)
      if (inline === '') k += 1
      const value = readNumeral(inline === '' ? (words[k] ?? '') : inline)
      if (typeof value === 'string' || value <= 0) return fault('touchstone-option', { text: words[k] ?? 'R' }, number)
      ohms = value
    } else return fault('touchstone-option', { text: words[k] ?? '' }, number)
  }
  return { power, parameter, form, ohms }
}

/** Takes what a keyword says; gives its name, for what opens or closes a part of the file. */
function keyword(line: string, number: number, keywords: Keywords): string | Fault {
  const close = line.indexOf(']')
  const name = line.slice(1, close).trim().toLowerCase().replace(/\s+/g, ' ')
  const argument = close < 0 ? '' : line.slice(close + 1).trim()
  const odd = fault('touchstone-keyword', { text: line.slice(0, 60) }, number)
  const whole = (): number | Fault => (/^\d{1,7}$/.test(argument) ? Number(argument) : odd)
  switch (name) {
    case 'version':
      return /^2(\.\d+)?$/.test(argument) ? name : fault('touchstone-version', { text: argument }, number)
    case 'number of ports': {
      const ports = whole()
      if (typeof ports !== 'number' || ports < 1 || ports > PORTS_MOST) return odd
      keywords.ports = ports
      return name
    }
    case 'number of frequencies': {
      const frequencies = whole()
      if (typeof frequencies !== 'number') return frequencies
      keywords.frequencies = frequencies
      return name
    }
    case 'two-port data order':
      if (argument !== '12_21' && argument !== '21_12') return odd
      keywords.order = argument
      return name
    case 'matrix format': {
      const layout = (['full', 'lower', 'upper'] as const).find((l) => l === argument.toLowerCase())
      if (!layout) return odd
      keywords.layout = layout
      return name
    }
    case 'reference':
      if (argument !== '') keywords.reference = argument.split(/\s+/)
      return name
    case 'mixed-mode order':
      return fault('touchstone-mixed', {}, number)
    case 'two-port order':
    case 'number of noise frequencies':
    case 'begin information':
    case 'end information':
    case 'network data':
    case 'noise data':
    case 'end':
      return name
    default:
      return odd
  }
}

const PORTS_MOST = 200

/**
 * How many ports, where nothing says so: the line that opens a frequency has an odd number of numbers, the lines
 * that go on have an even one.
 */
function portsOf(items: readonly Item[]): number | null {
  const end = items.findIndex((item, k) => k > 0 && item.first && lengthOfLine(items, k) % 2 === 1)
  const count = (end < 0 ? items.length : end) - 1
  const n = Math.sqrt(count / 2)
  return Number.isInteger(n) && n > 0 ? n : null
}

function lengthOfLine(items: readonly Item[], from: number): number {
  let length = 1
  while (items[from + length]?.first === false) length += 1
  return length
}

interface Point {
  readonly frequency: number
  /** n² entries by rows. */
  readonly re: readonly number[]
  readonly im: readonly number[]
}

/** The frequencies with their matrices; in version 1 noise data starts where the frequency falls. */
function readPoints(source: Source, n: number): { points: Point[]; told: Remark[] } | Fault {
  const { options, version, keywords, items } = source
  const pairs = keywords.layout === 'full' ? n * n : (n * (n + 1)) / 2
  const length = 1 + 2 * pairs
  const places = placesOf(n, version === 1 ? '21_12' : (keywords.order ?? '12_21'), keywords.layout)
  const points: Point[] = []
  let repeated = 0
  let noise = source.noise
  let last = -Infinity
  for (let at = 0; at < items.length; at += length) {
    const start = items[at]
    if (!start) break
    const frequency = frequencyOf(start, options.power)
    if (typeof frequency !== 'number') return frequency
    if (frequency < last) {
      if (version === 2 || n !== 2 || !startsLine(items, at))
        return fault('touchstone-falls', { frequency }, start.line)
      noise += items.slice(at).filter((item) => item.first).length
      break
    }
    if (frequency === last) repeated += 1
    last = frequency
    if (at + length > items.length)
      return fault('touchstone-cut', { has: items.length - at, needs: length }, start.line)
    const point = pointOf(items.slice(at + 1, at + length), frequency, n, places, source)
    if ('kind' in point) return point
    points.push(point)
  }
  const told: Remark[] = []
  if (noise > 0) told.push(remark('noise-skipped', { points: noise }))
  if (repeated > 0) told.push(remark('points-repeated', { points: repeated }))
  return { points, told }
}

const startsLine = (items: readonly Item[], at: number): boolean => items[at]?.first === true

function frequencyOf(item: Item, power: number): number | Fault {
  const value = numberOf(item)
  if (typeof value !== 'number' || power === 0) return value
  // 2.4 GHz are 2400000000 Hz, not 2399999999.9999995.
  const [mantissa = '', exponent = '0'] = item.text.toLowerCase().replace('d', 'e').split('e')
  return Number(`${mantissa}e${Number(exponent) + power}`)
}

function numberOf(item: Item): number | Fault {
  const value = readNumeral(item.text)
  if (typeof value === 'number') return value
  const code = value === 'too-large' ? 'number-too-large' : 'bad-number'
  return fault(code, { text: item.text.slice(0, 60) }, item.line, item.column)
}

/** Where the pairs of a frequency belong, by rows; both places where one pair stands for two. */
function placesOf(n: number, order: '12_21' | '21_12', layout: Keywords['layout']): readonly (readonly number[])[] {
  const places: number[][] = []
  for (let row = 0; row < n; row += 1) {
    const [from, to] = layout === 'full' ? [0, n] : layout === 'lower' ? [0, row + 1] : [row, n]
    for (let col = from; col < to; col += 1) {
      const mirrored = layout === 'full' || row === col ? [] : [col * n + row]
      places.push([row * n + col, ...mirrored])
    }
  }
  if (n === 2 && layout === 'full' && order === '21_12') return [places[0] ?? [], places[2] ?? [], places[1] ?? [], places[3] ?? []] // prettier-ignore
  return places
}

function pointOf(
  items: readonly Item[],
  frequency: number,
  n: number,
  places: readonly (readonly number[])[],
  { options, version }: Source,
): Point | Fault {
  const re = new Array<number>(n * n).fill(0)
  const im = new Array<number>(n * n).fill(0)
  for (const [k, targets] of places.entries()) {
    const [first, second] = [items[2 * k], items[2 * k + 1]]
    if (!first || !second) break
    const [a, b] = [numberOf(first), numberOf(second)]
    if (typeof a !== 'number') return a
    if (typeof b !== 'number') return b
    const z = entryOf(a, b, options.form, second.text)
    for (const at of targets) {
      const scale = version === 1 ? scaleOf(options, Math.floor(at / n), at % n) : null
      re[at] = scaled(z.re, scale)
      im[at] = scaled(z.im, scale)
    }
  }
  return { frequency, re, im }
}

/** A pair of numbers as the complex number it stands for; dB are 20 lg of the magnitude. */
function entryOf(a: number, b: number, form: Form, angle: string): C.Complex {
  if (form === 'RI') return { re: a, im: b }
  return fromDegrees(form === 'DB' ? 10 ** (a / 20) : a, b, angle)
}

/** A degree in turns. */
const DEGREE: Rational = { n: 1, d: 360 }

/** magnitude ∠ degrees; quarter and twelfth turns come out exact. */
export function fromDegrees(magnitude: number, degrees: number, text = String(degrees)): C.Complex {
  const exact = fromDecimal(text)
  const turns = exact && multiply(exact, DEGREE)
  if (!turns) return C.polar(magnitude, (degrees / 180) * Math.PI)
  return { re: magnitude * cosTurns(turns).value || 0, im: magnitude * sinTurns(turns).value || 0 }
}

/** In version 1 impedances are divided by R, and admittances multiplied by it. */
function scaleOf({ parameter, ohms }: Options, row: number, col: number): { times: number } | { over: number } | null {
  if (parameter === 'S' || ohms === 1) return null
  if (parameter === 'Z') return { times: ohms }
  if (parameter === 'Y') return { over: ohms }
  // h11 and g22 are impedances, h22 and g11 admittances, the others numbers.
  if (row !== col) return null
  const isImpedance = (parameter === 'H') === (row === 0)
  return isImpedance ? { times: ohms } : { over: ohms }
}

function scaled(x: number, scale: ReturnType<typeof scaleOf>): number {
  return scale === null ? x : 'times' in scale ? x * scale.times : x / scale.over
}

const PARAMETER_UNITS: Readonly<Record<Parameter, string>> = { S: '', Y: 'S', Z: 'Ω', G: '', H: '' }

function tableOf(points: readonly Point[], n: number, parameter: Parameter): DataTable {
  const rows = points.length
  const re = new Float64Array(rows * n * n)
  const im = new Float64Array(rows * n * n)
  points.forEach((point, k) => {
    re.set(point.re, k * n * n)
    im.set(point.im, k * n * n)
  })
  const f: Column = { name: 'f', unit: 'Hz', order: 1, re: Float64Array.from(points, (p) => p.frequency), im: null }
  return {
    kind: 'table',
    rows,
    columns: [f, { name: parameter, unit: PARAMETER_UNITS[parameter], order: n, re, im }],
    parameter: 0,
  }
}

/** How many ports the name of a file says: `.s2p` two; `null` where it says none. */
export function portsOfName(name: string): number | null {
  const found = /\.s(\d{1,3})p$/i.exec(name)
  return found ? Number(found[1]) : null
}
