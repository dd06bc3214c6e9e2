import { repeatsReading } from './repeats'
import { dataOf } from '../values/problemData'
import type { Code } from '../values/problemData'
import type { LineResult } from '../evaluate/lineResult'
import type { Place } from '../notation/groups'
import { answersOf } from './answers'
import { definedName, definedNames } from '../notation/references'
import { usedNames } from '../notation/names'
import { nameToLatex, statementToLatex } from '../notation/latex'
import { problem } from '../notation/problem'
import type { Problem, ProblemFix } from '../notation/problem'
import { realLiterals } from '../notation/realLiterals'
import type { RealLiteral } from '../notation/realLiterals'
import { findLiteral } from '../notation/rewrite'
import type { DraggableLiteral } from '../notation/rewrite'
import { isPending, isUnfinished, sentence } from '../sentences/sentences'
import { stampUnit } from '../notation/stamp'
import type { Node } from '../notation/tree'
import type { Drawn } from '../scene/drawn'
import type { Role } from '../scene/scene'
import type { Link } from '../scene/chain'
import type { SweepData } from '../scene/curve'
import { bare } from '../values/quantity'
import type { AngleUnit } from '../values/convert'
import type { Value } from '../values/types'
import type { Conventions } from '../format/conventions'
import { findFunction, typesettingOf } from '../functions/registry'
import type { Exactness } from '../kinds/kind'
import { drawnOf, exactness, readout } from '../kinds/kinds'
import type { Readout } from '../format/readout'

/** A problem as it is shown: with its sentence. */
export interface ShownProblem {
  readonly code: Code
  readonly message: string
  /** What its fixes take the place of. */
  readonly from: number
  readonly to: number
  /** The place that is wrong. */
  readonly at: { readonly from: number; readonly to: number }
  readonly fixes: readonly ProblemFix[]
  /** The entry is merely not finished: quiet while it is typed. */
  readonly unfinished: boolean
  /** The line, counted from 1, at which the cause is: one that is waited for, or that defines a name too late. */
  readonly elsewhere: number | null
}

/** Everything the interface shows of a line; plain data that crosses threads. */
export interface LineView {
  readonly id: string
  /** The text that it is a view of. */
  readonly source: string
  /** The unit under which bare numbers were read as angles. */
  readonly angle: AngleUnit
  readonly kind: 'empty' | 'remark' | 'error' | 'sought' | 'equation' | Value['kind']
  readonly name: string | null
  /** Names that it declares without a value: sought ones, or unknowns. */
  readonly declares: readonly string[]
  /** LaTeX of how the line was understood; empty where it could not be read. */
  readonly reading: string
  /** The same with every bracket that the parser supplied. */
  readonly grouped: string
  readonly remark: string | null
  readonly readout: Readout
  /** True where the reading already says what the readout would. */
  readonly repeats: boolean
  /** `exact`: all digits are on show; `exact-rounded`: exact but shown rounded; `rounded`: a double. */
  readonly exactness: Exactness['shown'] | null
  /** An exact value as a fraction, where the readout shows it rounded. */
  readonly fraction: string | null
  readonly problem: ShownProblem | null
  readonly hints: readonly ShownProblem[]
  readonly unitDependent: boolean
  /** The line with its unit written in, where that is possible. */
  readonly stamped: string | null
  /** What of the value stands on a plane. */
  readonly drawn: Drawn | null
  /** The terms of a sum tip to tail, where a plate lays them so. */
  readonly links: readonly Link[]
  /** The points of a sweep, where some plate or table shows them. */
  readonly sweep: SweepData | null
  /** Its value at the point that is read along, where one is. */
  readonly at: PointView | null
  readonly literal: DraggableLiteral | null
  /** The real numbers that stand in it as they were written. */
  readonly numbers: readonly RealLiteral[]
  /** The kept name of the gain that its locus of roots is at. */
  readonly gain: string | null
  /** Kept names that the line reads. */
  readonly uses: readonly string[]
  /** For a check: whether it passed. */
  readonly pass: boolean | null
  /** What it is in its group of equations. */
  readonly place: Place | null
  /** What it found for each sought name. */
  readonly answers: readonly LineView[]
}

/** The value of a sweep at one point. */
export interface PointView {
  /** False where the value at the nearest point stands for one that cannot be had in between. */
  readonly exact: boolean
  readonly readout: Readout
  readonly re: number
  readonly im: number
}

export function showProblem(p: Problem): ShownProblem {
  return {
    code: p.code,
    message: sentence(p),
    from: p.from,
    to: p.to,
    at: p.at ?? { from: p.from, to: p.to },
    fixes: p.fixes,
    unfinished: isUnfinished(p.code),
    elsewhere: (dataOf(p, 'waits-for') ?? dataOf(p, 'defined-below'))?.line ?? null,
  }
}

export function lineView(result: LineResult, conventions: Conventions): LineView {
  const { parsed, evaluated } = result
  const { value, bound } = evaluated
  const failed = evaluated.problem
  const style = {
    letter: conventions.letter,
    bare: evaluated.bare,
    angleUnit: conventions.angle,
    typesetting: typesettingOf,
  }
  // A line that waits for its turn has been read: only its value is still to come.
  const unread = failed !== null && !isPending(failed.code)
  const readingOf = (grouping: boolean): string =>
    unread ? '' : statementToLatex(parsed.statement, bound, { ...style, grouping })
  const exact = value && exactness(value, conventions)
  const shown: Readout = value ? readout(value, conventions, definedName(parsed)) : { shape: 'none' }
  const about = [result.redefined, result.changesReading].flatMap((h) => (h ? [h] : []))
  const stamped =
    evaluated.bare.size > 0 && !failed ? stampUnit(parsed.source, evaluated.bare, conventions.angle) : null
  return {
    id: result.id,
    source: parsed.source,
    angle: conventions.angle,
    kind: failed ? 'error' : value ? bare(value).kind : kindWithoutValue(result),
    name: definedName(parsed),
    declares: failed || !DECLARING.has(parsed.statement.type) ? NO_NAMES : definedNames(parsed),
    reading: readingOf(false),
    grouped: readingOf(true),
    remark: parsed.remark,
    readout: shown,
    repeats: repeatsReading(parsed.source, bound.body, shown),
    exactness: exact?.shown ?? null,
    fraction: exact?.fraction ?? null,
    problem: failed ? showProblem(failed) : null,
    hints: [...evaluated.hints, ...about].map(showProblem),
    unitDependent: evaluated.angleUnitUsed && !failed,
    stamped,
    drawn: value ? drawnOf(value, roleOf(bound.body), conventions, shown) : null,
    links: NO_LINKS,
    sweep: null,
    at: null,
    literal: failed ? null : findLiteral(parsed.source, parsed.statement, bound.body, conventions.angle),
    numbers: failed ? NO_NUMBERS : realLiterals(parsed.source, bound.body),
    gain: gainOf(bound.body),
    uses: value?.kind === 'parts' && value.solved ? value.solved.uses : usedNames(bound),
    pass: value?.kind === 'check' ? value.pass : null,
    place: result.place,
    answers: answersOf(result).map((answer) => answerView(answer, conventions, usesOf(value))),
  }
}

const DECLARING: ReadonlySet<string> = new Set(['sought', 'unknown'])
const NO_NAMES: readonly string[] = []

function kindWithoutValue({ parsed, evaluated }: LineResult): 'sought' | 'equation' | 'empty' | 'remark' {
  if (parsed.statement.type === 'sought') return 'sought'
  if (evaluated.open?.kind === 'equation') return 'equation'
  if (parsed.statement.type === 'unknown') return 'empty'
  return parsed.remark === null ? 'empty' : 'remark'
}

/** An answer reads as its name, and uses what its equations do. */
function answerView(answer: LineResult, conventions: Conventions, uses: readonly string[]): LineView {
  const view = lineView(answer, conventions)
  const reading = view.name === null ? '' : nameToLatex(view.name)
  return { ...view, reading, grouped: reading, repeats: false, uses }
}

const NO_USES: readonly string[] = []
const usesOf = (value: Value | null): readonly string[] =>
  (value?.kind === 'parts' ? value.solved?.uses : null) ?? NO_USES

/** The functions whose results are poles and zeros of something, and what marks them. */
function roleOf(body: Node | null): Role {
  if (body?.type === 'group') return roleOf(body.inner)
  return (body?.type === 'apply' && body.builtIn ? findFunction(body.name)?.marks : undefined) ?? 'arrow'
}

/** `root_locus(L, k)`: the name that stands for the gain. */
function gainOf(body: Node | null): string | null {
  if (body?.type === 'group') return gainOf(body.inner)
  if (body?.type !== 'apply' || !body.builtIn || body.name !== 'root_locus') return null
  const [, gain] = body.args
  return gain?.type === 'name' ? gain.name : null
}

const NO_LINKS: readonly Link[] = []
const NO_NUMBERS: readonly RealLiteral[] = []

/** The view of a line that was stopped and is held back. */
export function stoppedView(view: LineView, source: string): LineView {
  return { ...view, source, kind: 'error', problem: showProblem(problem('stopped', { from: 0, to: 0 })) }
}
