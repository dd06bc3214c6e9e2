import type { Complex } from '#core/numbers/complex'
import { evaluateLine } from '#core/evaluate/line'
import type { Surroundings } from '#core/evaluate/line'
import type { Kept } from '#core/notation/names'
import { FolioEvaluator } from '#core/evaluate/folio'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { workingView } from '#core/working/view'
import { workingOf } from '#core/working/working'
import { inverseOf, standardName } from '#core/functions/registry'
import type { Dense } from '#core/linear/dense'
import { zeros } from '#core/linear/dense'
import { eigen } from '#core/linear/eigen'
import { decomposeLu, inverseLu, solveLu } from '#core/linear/lu'
import { multiply } from '#core/linear/multiply'
import { decomposeSvd } from '#core/linear/svd'
import { matrixOf } from '#core/values/matrices'
import { parseLine } from '#core/notation/parser'
import { complexNumber, real } from '#core/values/make'
import { unit } from '#core/units/unit'
import { bare, quantity } from '#core/values/quantity'
import type { Value } from '#core/values/types'
import { longFolio } from './cases'

/**
 * Speed of the core, as data for `scripts/bench.mjs`. Ratios are to a peer
 * measured in the same run.
 */
interface Measured {
  readonly name: string
  readonly value: number
  readonly unit: string
  readonly peer: string | null
  /** How many times the peer's time; below 1 is faster. */
  readonly ratio: number | null
}

/** Nanoseconds of warming up. */
const WARM_UP = 5e8

const clock = (): number => Number(process.hrtime.bigint())
const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN

/** How many calls take long enough to be told from noise, after warming up. */
function calibrate(run: () => void): number {
  // A page that is typed in has its code compiled.
  const warm = clock() + WARM_UP
  while (clock() < warm) run()
  let calls = 1
  for (;;) {
    const start = clock()
    for (let k = 0; k < calls; k += 1) run()
    if (clock() - start > 1e7) return calls
    calls *= 2
  }
}

/** Nanoseconds of one call, over many of them. */
function once(run: () => void, calls: number): number {
  const start = clock()
  for (let k = 0; k < calls; k += 1) run()
  return (clock() - start) / calls
}

const ROUNDS = 25

function time(run: () => void): number {
  const calls = calibrate(run)
  return median(Array.from({ length: ROUNDS }, () => once(run, calls)))
}

/** Two candidates in turn, so that a noisy machine is noisy for both: the time of the first and the median ratio. */
function compare(mine: () => void, peer: () => void): { readonly value: number; readonly ratio: number } {
  const [a, b] = [calibrate(mine), calibrate(peer)]
  const pairs = Array.from({ length: ROUNDS }, () => [once(mine, a), once(peer, b)] as const)
  return { value: median(pairs.map(([x]) => x)), ratio: median(pairs.map(([x, y]) => x / y)) }
}

/** The values that typical lines read. */
const V: Complex = { re: 230.1, im: 0.7 }
const I: Complex = { re: 16.33, im: -6.805 }
const [R, W, L] = [47.2, 314.159, 0.1203]

const times = (a: Complex, b: Complex): Complex => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re })
const over = (a: Complex, b: Complex): Complex => {
  const size = b.re * b.re + b.im * b.im
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size }
}
const conjugate = (a: Complex): Complex => ({ re: a.re, im: -a.im })
const root = (a: Complex): Complex => {
  const size = Math.hypot(a.re, a.im)
  return { re: Math.sqrt((size + a.re) / 2), im: Math.sign(a.im) * Math.sqrt((size - a.re) / 2) }
}

/**
 * Typical lines of a problem sheet, each beside the same written by hand in JavaScript: without reading a text,
 * without exact numbers, hints and edges. It is the floor that no evaluation of a text can reach.
 */
const LINES: readonly (readonly [line: string, byHand: () => unknown])[] = [
  ['2*(3 + 4)/5 - 1.5^2', () => (2 * (R - R + 3 + 4)) / 5 - 1.5 ** 2],
  ['(12 + 5j)*(3 - 4j)/(1 + 2j)', () => over(times({ re: 12, im: 5 }, { re: 3, im: -4 }), { re: 1, im: 2 })],
  ['230/sqrt(47^2 + 37.7^2)', () => 230 / Math.sqrt(47 ** 2 + (R - R + 37.7) ** 2)],
  ['V*conj(I)/2', () => over(times(V, conjugate(I)), { re: 2, im: 0 })],
  ['V/(R + j*w*L)', () => over(V, { re: R, im: W * L })],
  ['Z = 12 + 5j', () => ({ re: 12, im: 5 })],
  ['V/2 + 3*I', () => ({ re: V.re / 2 + 3 * I.re, im: V.im / 2 + 3 * I.im })],
  ['V*exp(0.3j)', () => times(V, { re: Math.cos(0.3), im: Math.sin(0.3) })],
  ['abs(V)^2/R', () => Math.hypot(V.re, V.im) ** 2 / R],
  ['sqrt(V*conj(V))', () => root(times(V, conjugate(V)))],
]

/** What a calculation by hand came to: kept, so that it is not left out. */
let outcome: unknown = null

const keep = (value: Value): Kept => ({ line: 0, kind: 'value', value })
const KEPT: ReadonlyMap<string, Kept> = new Map([
  ['V', keep(complexNumber(V))],
  ['I', keep(complexNumber(I))],
  ['R', keep(real(R))],
  ['w', keep(real(W))],
  ['L', keep(real(L))],
])
const NAMES: Surroundings = {
  angleUnit: 'deg',
  letter: 'j',
  timeLimit: undefined,
  above: (name) => KEPT.get(name) ?? null,
  below: () => null,
  anywhere: (name) => KEPT.has(name),
  builtIn: standardName,
  inverseOf,
  near: () => [],
}

const BY_HAND = 'the same by hand in JavaScript, read and checked by nobody'

function lines(): Measured[] {
  const measured = LINES.map(([line, byHand]): Measured => {
    const { value, ratio } = compare(
      () => void evaluateLine(parseLine(line), NAMES),
      () => {
        outcome = byHand()
      },
    )
    return { name: `parse and evaluate ${line}`, value: value / 1000, unit: 'µs', peer: BY_HAND, ratio }
  })
  if (outcome === null) throw new Error('nothing was worked out by hand')
  return [...measured, typical(measured)]
}

/** Geometric means: no line counts for more than another. */
function typical(lines: readonly Measured[]): Measured {
  const mean = (of: (line: Measured) => number): number =>
    Math.exp(lines.reduce((sum, line) => sum + Math.log(of(line)), 0) / lines.length)
  return {
    name: 'parse and evaluate a typical line: the mean of these (aim: under 2.5 µs)',
    value: mean(({ value }) => value),
    unit: 'µs',
    peer: BY_HAND,
    ratio: mean(({ ratio }) => ratio ?? 1),
  }
}

/** A folio of 300 lines of which an edit of the first touches ten. */
function folio(): Measured[] {
  const evaluator = new FolioEvaluator()
  evaluator.setLines(longFolio('V = 230∠0°'))
  evaluator.update()
  const variants = [longFolio('V = 231∠0°'), longFolio('V = 230∠0°')]
  let turn = 0
  const edit = time(() => {
    turn = 1 - turn
    evaluator.setLines(variants[turn] ?? [])
    evaluator.update()
  })
  const touched = evaluator.evaluatedLines
  const whole = time(() => {
    const fresh = new FolioEvaluator()
    fresh.setLines(longFolio('V = 230∠0°'))
    fresh.update()
  })
  return [
    {
      name: `re-evaluate a 300-line folio after an edit that touches ${touched} lines (aim: under 2 ms)`,
      value: edit / 1e6,
      unit: 'ms',
      peer: null,
      ratio: null,
    },
    {
      name: 'evaluate all 300 lines from their text (aim: under 30 ms)',
      value: whole / 1e6,
      unit: 'ms',
      peer: null,
      ratio: null,
    },
  ]
}

/** What compiled linear algebra needed in this run (see `lapack.py`), in milliseconds; nothing where there is none. */
const COMPILED = JSON.parse(process.env.BENCH_COMPILED ?? '{}') as Readonly<Record<string, number>>

function beside(name: string, value: number, what: string): Measured {
  const compiled = COMPILED[what]
  const ratio = compiled === undefined ? null : value / compiled
  return { name, value, unit: 'ms', peer: ratio === null ? null : 'compiled linear algebra in this run', ratio }
}

/** Complex matrices of order 200, beside compiled linear algebra. */
function linear(): Measured[] {
  const n = 200
  let state = 7
  const next = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 31 - 1
  }
  const random = (): Dense => {
    const a = zeros(n, n)
    for (let k = 0; k < n * n; k += 1) {
      a.re[k] = next()
      a.im[k] = next()
    }
    return a
  }
  const [a, b] = [random(), random()]
  const column = zeros(n, 1)
  column.re.fill(1)
  const best = (run: () => void, times: number): number => {
    run()
    return Math.min(...Array.from({ length: times }, () => once(run, 1))) / 1e6
  }
  const row = (what: string, value: number, of: string): Measured => beside(`${what}, complex, n = 200`, value, of)
  const small = matrixOf(
    3,
    3,
    Array.from({ length: 9 }, (_, k) => complexNumber({ re: k + 0.3, im: 1 - k })),
  )
  const kept = new Map([['A', keep(small)]])
  const parsed = parseLine('A*A')
  const names: Surroundings = {
    ...NAMES,
    above: (name) => kept.get(name) ?? null,
  }
  return [
    row(
      'product',
      best(() => void multiply(a, b), 12),
      'product',
    ),
    row(
      'solve',
      best(() => void solveLu(decomposeLu(a), column), 12),
      'solve',
    ),
    row(
      'inverse',
      best(() => void inverseLu(decomposeLu(a)), 8),
      'inverse',
    ),
    row(
      'all eigenvalues and vectors',
      best(() => void eigen(a), 3),
      'eigen',
    ),
    row(
      'full SVD',
      best(() => void decomposeSvd(a), 3),
      'svd',
    ),
    {
      name: 'evaluate A*A again, A complex 3 × 3 (aim: under 5 µs)',
      value: time(() => void evaluateLine(parsed, names)) / 1000,
      unit: 'µs',
      peer: null,
      ratio: null,
    },
  ]
}

/** A working of 200 steps, with its LaTeX, beside the evaluation of its line. */
function workings(): Measured[] {
  const calls = Array.from({ length: 25 }, (_, k) => `f(${k + 1})`)
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines(['f(t) = 2t^2 + 3t - 1', calls.join(' + ')].map((source, k) => ({ id: `${k}`, source })))
  evaluator.update()
  const show = (most: number) => (): void => {
    const working = workingOf(evaluator, '1', { conventions: DEFAULT_CONVENTIONS })
    if (typeof working !== 'string') workingView(working, DEFAULT_CONVENTIONS, most)
  }
  const measured = (name: string, most: number): Measured => ({ name, value: time(show(most)) / 1e6, unit: 'ms', peer: null, ratio: null }) // prettier-ignore
  return [
    measured('working of 200 steps, all of them', Infinity),
    measured('working of 200 steps, the first twelve', 12),
  ]
}

/** Lines with units beside the same lines with plain numbers. */
function quantities(): Measured[] {
  const withUnit = (value: Value, text: string): Kept =>
    keep(quantity(bare(value), unit(text).measure, { unit: unit(text), asWritten: true }))
  const kept: ReadonlyMap<string, Kept> = new Map([
    ['V', withUnit(complexNumber(V), 'V')],
    ['R', withUnit(real(R), 'Ω')],
    ['w', withUnit(real(W), 'rad/s')],
    ['L', withUnit(real(L), 'H')],
  ])
  const names: Surroundings = { ...NAMES, above: (name) => kept.get(name) ?? null }
  const line = 'V/(R + j*w*L)'
  const one = compare(
    () => void evaluateLine(parseLine(line), names),
    () => void evaluateLine(parseLine(line), NAMES),
  )
  const [united, plain] = [
    folioOf(['R = 47 ohm', 'C = 1 uF', 'f = 1 Hz to 1 MHz count 1000000', 'w = 2pi*f', '1/(1+j*w*R*C)']),
    folioOf(['R = 47', 'C = 1e-6', 'f = 1 to 1e6 count 1000000', 'w = 2pi*f', '1/(1+j*w*R*C)']),
  ]
  const many = compare(united, plain)
  return [
    { name: `parse and evaluate ${line} with units (aim: within twice)`, value: one.value / 1000, unit: 'µs', peer: 'the same without units', ratio: one.ratio }, // prettier-ignore
    { name: '1/(1+j*w*R*C) over 1 000 000 points with units (aim: within 5 per cent)', value: many.value / 1e6, unit: 'ms', peer: 'the same without units', ratio: many.ratio }, // prettier-ignore
  ]
}

/** Reckons the last line of a folio again and again. */
function folioOf(lines: readonly string[]): () => void {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ angle: 'deg', letter: 'j' })
  let turn = 0
  const tell = (last: string): void => {
    evaluator.setLines(lines.map((source, k) => ({ id: `${k}`, source: k === lines.length - 1 ? last : source })))
    evaluator.update()
  }
  return () => {
    turn += 1
    tell(`${lines.at(-1) ?? ''}  # ${turn}`)
  }
}

/** A whole sweep through one line. */
function sweeps(): Measured[] {
  const kept = ['R = 10', 'C = 3u', 'w = 1 to 1000000']
  const evaluator = new FolioEvaluator()
  const state = (last: string) => [...kept, last].map((source, k) => ({ id: `l${k}`, source }))
  const runs = Array.from({ length: 25 }, (_, k) => {
    // Another text each time: the line is read and reckoned anew.
    evaluator.setLines(state(`1/(1+j*w*R*C)${' '.repeat(k)}`))
    const start = clock()
    evaluator.update()
    return (clock() - start) / 1e6
  }).slice(3)
  const value = median(runs)
  return [beside('1/(1+j*w*R*C) over 1 000 000 points (aim: within 3 times)', value, 'sweep')]
}

/** Equations typed as lines: what one edit costs, and a sweep of them beside solve on the same matrix. */
function equations(): Measured[] {
  const n = 20
  const cell = (r: number, c: number): string =>
    r === c ? `(R + ${10 + r} + X)` : `(${((r * 7 + c * 3) % 5) / 10 + 0.1})`
  const row = (r: number): readonly string[] => Array.from({ length: n }, (_, c) => cell(r, c))
  const group = (head: readonly string[], first: string): readonly string[] => [
    ...head,
    `sought ${Array.from({ length: n }, (_, k) => `I${k + 1}`).join(', ')}`,
    ...Array.from({ length: n }, (_, r) => `${row(r).map((z, c) => `${z}*I${c + 1}`).join(' + ')} = ${r === 0 ? first : r + 1}`), // prettier-ignore
    'determine',
  ] // prettier-ignore
  const edited = (head: readonly string[]): (() => void) => {
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ angle: 'deg', letter: 'j' })
    let turn = 0
    return () => {
      turn += 1
      evaluator.setLines(group(head, String(turn)).map((source, k) => ({ id: `${k}`, source })))
      evaluator.update()
    }
  }
  const matrix = `[${Array.from({ length: n }, (_, r) => `[${row(r).join(', ')}]`).join(', ')}]`
  const swept = ['R = 4.7', 'w = 1 to 1000 count 1000', 'X = j*w*1e-3']
  const solving = folioOf([...swept, `Z = ${matrix}`, `solve(Z, [k for k = 1 to ${n}])`])
  const along = compare(edited(swept), solving)
  const alone = (name: string, run: () => void): Measured => ({ name, value: time(run) / 1e6, unit: 'ms', peer: null, ratio: null }) // prettier-ignore
  return [
    alone('20 equations, one line edited, exact (aim: a frame, 16.7 ms)', edited(['R = 4.7', 'X = 3.3'])),
    alone('20 equations, one line edited, complex (aim: a frame, 16.7 ms)', edited(['R = 4.7', 'X = j*2pi*50*1e-3'])),
    alone('20 equations, one line edited, complex and exact', edited(['R = 4.7', 'X = j*314.159*1e-3'])),
    { name: '20 equations over 1 000 points, one line edited (aim: 50 ms)', value: along.value / 1e6, unit: 'ms', peer: 'solve of the same matrix', ratio: along.ratio }, // prettier-ignore
  ]
}

const measured = [...lines(), ...equations(), ...workings(), ...quantities(), ...folio(), ...linear(), ...sweeps()]
console.log(JSON.stringify(measured))
