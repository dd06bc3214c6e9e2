import * as P from '../algebra/polynomial'
import { isAlgebraic, parts } from '../algebra/ratio'
import { rootsOf } from '../algebra/roots'
import { Asked } from '../evaluate/asked'
import type { Standing } from '../evaluate/asked'
import type { FolioEvaluator } from '../evaluate/folio'
import { evaluateLine, evaluateTerm } from '../evaluate/line'
import type { Conventions } from '../format/conventions'
import { valueText } from '../kinds/kinds'
import { parseLine } from '../notation/parser'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import { sentence } from '../sentences/sentences'
import type { Failure } from '../values/failure'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'
import { measureOf } from '../quantities/shape'
import { decimalsIn, figuresOf, roomOf } from './figures'
import type { Room } from './figures'
import { roundedVariants, slipWords, variants } from './slips'
import type { Slip } from './slips'

/** A student's own working, checked link by link. */

/** A side of a chain: a term, and where it stands in the text. */
export interface Side {
  readonly text: string
  /** The line of the text, counted from 0. */
  readonly line: number
  /** What it comes to, as the conventions show it; why it has no value. */
  readonly value: string
  readonly problem: string | null
}

/**
 * `exact`: equal; `rounded`: equal within what the written figures stand for; `loose`: only if the figures that were
 * given are themselves rounded; `equivalent`: the same solutions; `breaks`; `unread`: a side has no value.
 */
export type LinkState = 'exact' | 'rounded' | 'loose' | 'equivalent' | 'breaks' | 'unread'

export interface Link {
  readonly state: LinkState
  /** From which side to which, counted from 0. */
  readonly from: number
  readonly to: number
  readonly says: string
  readonly slips: readonly { readonly slip: Slip; readonly text: string }[]
}

export interface Chain {
  readonly sides: readonly Side[]
  readonly links: readonly Link[]
  /** The first link that breaks, counted from 0. */
  readonly broken: number | null
}

/** Checks lines as a chain, in the place of a line: what stands above it is known. */
export function checkChain(
  evaluator: FolioEvaluator,
  id: string,
  lines: readonly string[],
  conventions: Conventions,
): Chain {
  // prettier-ignore
  const found = evaluator.inPlaceOf(id, (standing) => new Checker(standing, conventions).check(lines))
  return found ?? NOTHING
}

const NOTHING: Chain = { sides: [], links: [], broken: null }

interface Read {
  readonly side: Side
  readonly node: Node | null
  readonly value: Value | null
  /** Written behind ≈: whole numbers stand for what rounds to them, too. */
  readonly about: boolean
}

class Checker {
  private readonly names: Asked

  constructor(
    standing: Standing,
    private readonly conventions: Conventions,
  ) {
    this.names = new Asked(standing)
  }

  check(lines: readonly string[]): Chain {
    const rows = this.rows(lines)
    const equations = rows.length > 1 && rows.every((row) => row.length === 2) && rows.some((row) => row.some((r) => r.value !== null && hasUnknown(r.value))) // prettier-ignore
    const all = rows.flat()
    const links = equations ? this.equivalences(rows) : this.equalities(all)
    const sides = equations ? rows.map((row) => joinedSide(row)) : all.map((r) => r.side)
    const broken = links.findIndex((l) => l.state === 'breaks' || l.state === 'unread')
    return { sides, links, broken: broken < 0 ? null : broken }
  }

  /** Lines as rows of sides; the name that is being worked out is none. */
  private rows(lines: readonly string[]): readonly (readonly Read[])[] {
    let subject: string | null = null
    return lines.flatMap((text, line) => {
      const sides = sidesOf(text)
      const [head] = sides
      const isName = head !== undefined && sides.length > 1 && /^[\p{L}_][\p{L}\p{N}_]*$/u.test(head.text)
      if (isName && (head.text === subject || (subject === null && !this.names.above(head.text)))) {
        subject = head.text
        sides.shift()
      }
      return sides.length === 0 ? [] : [sides.map((side) => this.read(side, line))]
    })
  }

  private read({ text, about }: Cut, line: number): Read {
    const evaluated = evaluateLine(parseLine(text), this.names)
    const { value, problem, bound } = evaluated
    const problemSaid = problem ? sentence(problem) : value === null ? 'There is no value here.' : null
    const side = { text, line, value: value ? valueText(value, this.conventions) : '', problem: problemSaid }
    return { side, node: bound.body, value, about }
  }

  private evaluate(node: Node): Value | Failure {
    return evaluateTerm(node, this.names, null).value
  }

  private equalities(all: readonly Read[]): readonly Link[] {
    const given = new Set(all[0]?.node ? decimalsIn(all[0].node).map((d) => d.digits) : [])
    return all.slice(1).map((right, k) => this.equality(all[k] ?? right, right, k, given))
  }

  private equality(left: Read, right: Read, from: number, given: ReadonlySet<string>): Link {
    const ends = { from, to: from + 1, slips: [] }
    if (!left.node || !right.node || !left.value || !right.value) {
      const failed = left.value ? right : left
      return { ...ends, state: 'unread', says: failed.side.problem ?? 'This cannot be read.' }
    }
    const misfit = this.misfit(left.value, right.value)
    if (misfit) return { ...ends, state: 'breaks', says: misfit }
    const [a, b] = [figuresOf(left.value), figuresOf(right.value)]
    if (!a || !b) return this.otherEquality(left.value, right.value, ends)
    const angle = bare(left.value).kind === 'angle'
    const rooms = (of: Read, known: ReadonlySet<string>): readonly Room[] => (of.node ? roomOf(of.node, (n) => this.evaluate(n), known, of.about) : []) // prettier-ignore
    const [strict, other] = [rooms(left, given), rooms(right, given)]
    if (meet(a, b, NO_ROOMS, NO_ROOMS, angle)) return { ...ends, state: 'exact', says: 'Equal.' }
    if (meet(a, b, strict, other, angle)) return { ...ends, state: 'rounded', says: 'Equal within the figures that are written.' } // prettier-ignore
    const said = `The left side is ${left.side.value}, the right side ${right.side.value}.`
    const slips = this.slips(left.node, right.node, b, other, angle)
    if (slips.length === 0 && meet(a, b, rooms(left, NO_DIGITS), rooms(right, NO_DIGITS), angle))
      return { ...ends, state: 'loose', says: `Equal only if the figures that were given are themselves rounded. ${said}` } // prettier-ignore
    return { ...ends, state: 'breaks', says: said, slips }
  }

  /** Shapes and quantities that cannot be equal. */
  private misfit(left: Value, right: Value): string | null {
    const [a, b] = [figuresOf(left), figuresOf(right)]
    if (a && b && a.length !== b.length) return `${a.length} entries cannot equal ${b.length}.`
    const scalar = (v: Value): boolean => ['number', 'angle'].includes(bare(v).kind)
    if (!scalar(left) || !scalar(right)) return null
    if (left.kind !== 'quantity' && right.kind !== 'quantity') return null
    const [m, n] = [measureOf(left), measureOf(right)]
    if (m.dimension === n.dimension) return null
    return `The units do not fit: ${valueText(left, this.conventions)} and ${valueText(right, this.conventions)}.`
  }

  /** Polynomials, texts and the like: by what `==` says. */
  private otherEquality(left: Value, right: Value, ends: Omit<Link, 'state' | 'says'>): Link {
    const same = valueText(left, this.conventions) === valueText(right, this.conventions)
    const [x, y] = [bare(left), bare(right)]
    const alike = isAlgebraic(x) && isAlgebraic(y) ? equalAlgebra(x, y) : same
    const said = `The left side is ${valueText(left, this.conventions)}, the right side ${valueText(right, this.conventions)}.` // prettier-ignore
    return alike ? { ...ends, state: 'exact', says: 'Equal.' } : { ...ends, state: 'breaks', says: said }
  }

  /** The slips that give the wrong figure. */
  private slips(
    left: Node,
    right: Node,
    wrong: readonly C.Complex[],
    other: readonly Room[],
    angle: boolean,
  ): Link['slips'] {
    const found = new Set<Slip>()
    const gives = (node: Node): boolean => {
      const value = this.evaluate(node)
      const figures = figuresOf(value)
      if (!figures || figures.length !== wrong.length) return false
      if (value.kind === 'failure' || (bare(value).kind === 'angle') !== angle) return false
      // What a slip gives is as wide as the wrong figure is written, and as the factor makes the right one.
      return meet(figures, wrong, NO_ROOMS, other, angle)
    } // prettier-ignore
    for (const { slip, node } of variants(left, right, (n) => this.evaluate(n))) if (!found.has(slip) && gives(node)) found.add(slip) // prettier-ignore
    const written = figuresWritten(wrong, other)
    if (written >= 3) {
      const start = figuresOf(this.evaluate(left)) ?? []
      const close = wrong.every((z, k) => C.abs({ re: z.re - (start[k]?.re ?? 0), im: z.im - (start[k]?.im ?? 0) }) <= 0.05 * C.abs(z)) // prettier-ignore
      if (close) for (const { slip, node } of roundedVariants(left, (n) => this.evaluate(n))) if (gives(node)) found.add(slip) // prettier-ignore
    }
    return [...found].map((slip) => ({ slip, text: slipWords(slip) }))
  }

  /** Lines that are equations: each has the solutions of the one before it. */
  private equivalences(rows: readonly (readonly Read[])[]): readonly Link[] {
    return rows.slice(1).map((right, k): Link => {
      const left = rows[k] ?? right
      const ends = { from: k, to: k + 1, slips: [] }
      const failed = [...left, ...right].find((r) => r.value === null)
      if (failed) return { ...ends, state: 'unread', says: failed.side.problem ?? 'This cannot be read.' }
      const [a, b] = [this.solutions(left), this.solutions(right)]
      if (!a || !b) return { ...ends, state: 'unread', says: 'Only polynomial equations in one unknown are compared.' }
      const lost = a.roots.filter((z) => !b.roots.some((w) => isNear(z, w, a.room + b.room)))
      const added = b.roots.filter((z) => !a.roots.some((w) => isNear(z, w, a.room + b.room)))
      if (lost.length === 0 && added.length === 0) return { ...ends, state: 'equivalent', says: 'The same solutions.' }
      const text = (list: readonly C.Complex[]): string => list.map((z) => valueText(asValue(z), this.conventions)).join(', ') // prettier-ignore
      const said = [
        ...(lost.length > 0 ? [`This loses ${text(lost)}.`] : []),
        ...(added.length > 0 ? [`This adds ${text(added)}.`] : []),
      ]
      return { ...ends, state: 'breaks', says: said.join(' ') }
    })
  }

  private solutions([left, right]: readonly Read[]): {
    readonly roots: readonly C.Complex[]
    readonly room: number
  } | null {
    // prettier-ignore
    const [x, y] = [left?.value && bare(left.value), right?.value && bare(right.value)]
    if (!x || !y || !isAlgebraic(x) || !isAlgebraic(y)) return null
    const [a, b] = [parts(x), parts(y)]
    const cross = [P.multiply(a.top, b.bottom), P.multiply(b.top, a.bottom)] as const
    if (P.isFailed(cross[0]) || P.isFailed(cross[1])) return null
    const p = P.subtract(cross[0], cross[1])
    if (P.isFailed(p)) return null
    const list = P.coefficients(p)
    if (!list) return null
    const roots = list.length > 1 ? rootsOf(list) : null
    if (roots && 'kind' in roots) return null
    const written = [left, right].flatMap((r) => (r?.node ? decimalsIn(r.node) : []))
    // `x = 2.41` stands for all that rounds to it.
    const isAnswer = [left, right].some((r) => r?.node?.type === 'literal')
    return { roots: roots?.values ?? [], room: isAnswer ? written.reduce((most, d) => Math.max(most, d.half), 0) : 0 }
  }
}

const NO_ROOMS: readonly Room[] = []
const NO_DIGITS: ReadonlySet<string> = new Set()

const hasUnknown = (value: Value): boolean => bare(value).kind === 'polynomial'

function asValue(z: C.Complex): Value {
  return { kind: 'number', re: z.re, im: z.im, exact: null, bottom: 0, top: 0, pi: null, complex: z.im !== 0 }
}

const isNear = (a: C.Complex, b: C.Complex, room: number): boolean => C.abs({ re: a.re - b.re, im: a.im - b.im }) <= room * (1 + 1e-9) + 1e-7 * Math.max(1, C.abs(a), C.abs(b)) // prettier-ignore

function equalAlgebra(x: Parameters<typeof parts>[0], y: Parameters<typeof parts>[0]): boolean {
  const [a, b] = [parts(x), parts(y)]
  const [left, right] = [P.multiply(a.top, b.bottom), P.multiply(b.top, a.bottom)]
  return !P.isFailed(left) && !P.isFailed(right) && P.agree(left, right)
}

/** One row of an equation as a side. */
function joinedSide(row: readonly Read[]): Side {
  const [left, right] = row
  const text = `${left?.side.text ?? ''} = ${right?.side.text ?? ''}`
  return { text, line: left?.side.line ?? 0, value: '', problem: left?.side.problem ?? right?.side.problem ?? null }
}

/** True where what two rows of figures stand for has something in common, part by part. */
function meet(
  a: readonly C.Complex[],
  b: readonly C.Complex[],
  left: readonly Room[],
  right: readonly Room[],
  angle: boolean,
): boolean {
  // prettier-ignore
  const size = Math.max(...a.map((z) => C.abs(z)), ...b.map((z) => C.abs(z)), 0)
  const exact = 1e-12 * size
  return a.every((z, k) => {
    const w = b[k] ?? z
    const [r, s] = [left[k] ?? { re: 0, im: 0 }, right[k] ?? { re: 0, im: 0 }]
    const off = { re: Math.abs(z.re - w.re), im: Math.abs(z.im - w.im) }
    const turned = angle ? Math.abs(off.re - 2 * Math.PI) : off.re
    const within = (x: number, room: number): boolean => x <= room * (1 + 1e-9) + exact
    return within(Math.min(off.re, turned), r.re + s.re) && within(off.im, r.im + s.im)
  })
}

/** To how many significant figures the least exact entry is written. */
function figuresWritten(figures: readonly C.Complex[], rooms: readonly Room[]): number {
  const counts = figures.map((z, k) => {
    const room = Math.max(rooms[k]?.re ?? 0, rooms[k]?.im ?? 0)
    return room === 0 ? 16 : Math.floor(Math.log10(C.abs(z) / room))
  })
  return Math.min(16, ...counts)
}

/** A side as it is written, and whether ≈ stands before it. */
export interface Cut {
  readonly text: string
  readonly about: boolean
}

/** A line cut at its signs of equality, those inside brackets and behind `where` and `for` aside. */
export function sidesOf(line: string): Cut[] {
  const sides: Cut[] = []
  let [depth, start, about] = [0, 0, false]
  const text = line.replace(/#.*$/, '').replace(/⇔|<=>/g, ' ')
  const cut = (end: number): void => {
    const side = text.slice(start, end).trim()
    if (side !== '') sides.push({ text: side, about })
  }
  for (let k = 0; k < text.length; k += 1) {
    const sign = text[k] ?? ''
    if ('([{'.includes(sign)) depth += 1
    else if (')]}'.includes(sign)) depth -= 1
    const [before, after] = [text[k - 1] ?? '', text[k + 1] ?? '']
    const equals = sign === '=' && !/[=<>!~:]/.test(before) && !/[=>]/.test(after)
    const double = sign === '~' && after === '~'
    if (depth > 0 || !(equals || double || sign === '≈') || /\b(where|for)\b[^=]*$/.test(text.slice(start, k))) continue
    cut(k)
    about = !equals
    start = k + (double ? 2 : 1)
    if (double) k += 1
  }
  cut(text.length)
  return sides
}
