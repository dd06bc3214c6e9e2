import { standardName, typesettingOf } from '../functions/registry'
import { statementToLatex, withoutSpans } from '../notation/latex'
import type { Parsed } from '../notation/parser'
import type { Node } from '../notation/tree'
import type { Bound } from '../notation/names'
import type { Problem, ProblemFix } from '../notation/problem'
import { told } from '../values/problemData'
import type { Code, Told } from '../values/problemData'
import type { Value } from '../values/types'
import { brought } from './brought'
import type { AngleUnit } from '../values/convert'

/** A line as it would be, evaluated in the place of the one that is looked at. */
export interface Tried {
  readonly parsed: Parsed
  readonly evaluated: {
    readonly bound: Bound
    readonly value: Value | null
    readonly problem: Problem | null
    readonly bare: ReadonlySet<Node>
  }
}

export interface Place {
  readonly source: string
  readonly letter: 'i' | 'j'
  readonly angleUnit: AngleUnit
  /** `above`: a line that would stand above it. */
  evaluate(source: string, above: string | null): Tried
}

/** Most fixes that are offered. */
const FIXES_MOST = 3
/** Most lines that are evaluated to find them. */
const TRIES_MOST = 40
/** Longest time for all of them, in milliseconds: only lines that take long themselves come to it. */
const TIME_MOST = 400
/** Longest line that is a label as a whole. */
const LABEL_MOST = 40
/** Most letters that are taken for unknowns. */
const UNKNOWNS_MOST = 3
/** How many further errors of the same line a fix may mend along with the first. */
const DEPTH_MOST = 3

/** What a fix may come to besides a value: the line is right to read, and waits for something else. */
const READ: ReadonlySet<Code> = new Set<Code>([
  'waits-for',
  'too-long',
  'postponed',
  'no-room',
  'enclosure-loading',
  'enclosure-lost',
  'no-enclosure',
])

/**
 * The problem with the corrections that hold: each has been evaluated, and none leads to a line in error. Where the
 * line has further errors, a correction mends these, too. What a student brings along comes first.
 */
export function advised(problem: Problem, place: Place): Problem {
  const adviser = new Adviser(place)
  return adviser.advise(problem)
}

/** A hint with the corrections that hold. */
export function hintAdvised(hint: Problem, place: Place): Problem {
  if (hint.fixes.length === 0) return hint
  const fixes = hint.fixes.flatMap((fix) => {
    const line = applied(place.source, hint, fix)
    const tried = place.evaluate(line, null)
    return holds(tried) ? [{ ...fix, reading: readingOf(tried, place) }] : []
  })
  return { ...hint, fixes }
}

interface Found {
  readonly line: string
  readonly label: string
  readonly reading: string
}

class Adviser {
  private tries = 0
  private readonly until = Date.now() + TIME_MOST
  private readonly seen = new Set<string>()

  constructor(private readonly place: Place) {}

  advise(problem: Problem): Problem {
    const found: Found[] = []
    let about: Told | null = null
    for (const idea of this.ideas(this.place.source, problem)) {
      if (found.length >= FIXES_MOST || this.tries >= TRIES_MOST) break
      // Once there is one, others are not put together from several corrections.
      const mended = this.mended(idea.line, found.length === 0 ? DEPTH_MOST : 0)
      if (!mended || found.some((f) => f.line === mended.line || same(f.reading, mended.reading))) continue
      if (found.length === 0) about = idea.about
      found.push({ ...mended, label: mended.line === idea.line && idea.label !== null ? idea.label : mended.line })
      if (idea.about?.code === 'brought-remark') break
    }
    if (found.length === 0)
      for (const idea of this.unknowns(this.place.source, problem)) {
        const mended = this.mended(idea.line, 0)
        if (!mended) continue
        about = idea.about
        found.push(mended)
      }
    return spanning(this.place.source, about === null ? problem : { ...problem, brought: about }, found)
  }

  /** What a line could be instead: first as it is written elsewhere, then what its error offers. */
  private *ideas(source: string, problem: Problem): Iterable<Idea> {
    const known = { worth: (text: string) => this.worth(text) }
    if (UNTOLD.has(problem.code)) return
    const usual = problem.fixes.map((fix) => ({ line: applied(source, problem, fix), label: fix.label, about: null }))
    if (SURE.has(problem.code)) yield* usual
    for (const { line, about } of brought(source, known)) yield { line, about, label: null }
    yield* usual
  }

  /** `9ab − 3ab`: letters that nobody keeps could be unknowns. */
  private *unknowns(source: string, { code }: Problem): Iterable<Idea> {
    if (code !== 'unknown-name' || source.includes('=') || !/[-+*/^\d]/.test(source)) return
    // Derivatives, and letters that are attached to digits as prefixes and units are.
    if (/\bd\/d/.test(source) || /\d\s*[TGMkmunpfµμ](?!\p{L}*\()\p{L}?/u.test(source)) return
    const names = [...new Set(source.match(/[\p{L}_][\p{L}\p{Nd}_]*/gu) ?? [])]
    const strange = names.filter((name) => standardName(name) === null && this.worth(name) === null)
    const letters = [...new Set(strange.join(''))].filter((letter) => this.worth(letter) === null).sort()
    if (strange.length === 0 || letters.length === 0 || letters.length > UNKNOWNS_MOST) return
    if (!strange.every((name) => /^\p{L}{1,2}$/u.test(name) && new Set(name).size === name.length)) return
    // One letter alone is more likely one that was forgotten, unless it stands as unknowns do.
    const runs = strange.some((name) => name.length > 1)
    if (!runs && !/\d\p{L}|\p{L}\s*(?:\^|²)/u.test(source)) return
    const line = source.replace(/[\p{L}_][\p{L}\p{Nd}_]*/gu, (name) =>
      strange.includes(name) ? [...name].join('*') : name,
    )
    yield {
      line: `unknown ${letters.join(', ')}\n${line}`,
      label: null,
      about: runs ? told('brought-unknowns', { names: letters.join(', ') }) : null,
    }
  }

  private worth(text: string): Value | null {
    return this.place.evaluate(text, null).evaluated.value
  }

  /** The line where it is right to read, or as its own corrections make it. */
  private mended(line: string, depth: number): Found | null {
    if (line.trim() === '' || this.seen.has(line)) return null
    if (this.tries >= TRIES_MOST || Date.now() > this.until) return null
    this.seen.add(line)
    this.tries += 1
    const cut = line.indexOf('\n')
    const tried = this.place.evaluate(line.slice(cut + 1), cut < 0 ? null : line.slice(0, cut))
    if (holds(tried)) return { line, label: line, reading: readingOf(tried, this.place) }
    const { problem } = tried.evaluated
    if (!problem || depth === 0 || cut >= 0) return null
    for (const idea of this.ideas(line, problem)) {
      const mended = this.mended(idea.line, depth - 1)
      if (mended) return mended
      if (this.tries >= TRIES_MOST) return null
    }
    return null
  }
}

interface Idea {
  readonly line: string
  readonly label: string | null
  /** What was brought along, where that is known. */
  readonly about: Told | null
}

/** The line is not finished, or there is nothing wrong with how it is written. */
const UNTOLD: ReadonlySet<Code> = new Set<Code>([
  'unfinished', 'postponed', 'enclosure-loading', 'waits-for', 'too-long', 'no-room', 'stopped', 'too-large', 'not-determined',
  'equations-wait', 'no-equations', 'sought-unused', 'equations-contradict', 'equations-none', 'equations-few', 'equation-false',
  'equation-never', 'no-solution', 'no-solution-between', 'no-solution-found', 'periodic-needs-range',
]) // prettier-ignore

/** Errors whose own corrections are likelier than any spelling from elsewhere. */
const SURE: ReadonlySet<Code> = new Set<Code>([
  'names-run-together',
  'odd-character',
  'angle-bracketing',
  'power-bracketing',
  'inverse-unclear',
])

function holds({ evaluated }: Tried): boolean {
  return evaluated.problem === null || READ.has(evaluated.problem.code)
}

function same(a: string, b: string): boolean {
  return a !== '' && a === b
}

function readingOf({ parsed, evaluated }: Tried, { letter, angleUnit }: Place): string {
  const style = { letter, bare: evaluated.bare, angleUnit, grouping: false, typesetting: typesettingOf }
  return withoutSpans(statementToLatex(parsed.statement, evaluated.bound, style))
}

function applied(source: string, { from, to }: Problem, fix: ProblemFix): string {
  return `${source.slice(0, from)}${fix.replacement}${source.slice(to)}`
}

/** The problem about as much of the line as its corrections change, each of which takes the place of just that. */
function spanning(source: string, problem: Problem, found: readonly Found[]): Problem {
  let { from, to } = problem
  for (const { line } of found) {
    const [head, tail] = common(source, line)
    from = Math.min(from, head)
    to = Math.max(to, source.length - tail)
  }
  const fixes = found.map(({ line, label, reading }) => {
    const replacement = line.slice(from, line.length - (source.length - to))
    return { label: label === line ? labelOf(line, replacement) : label, replacement, reading }
  })
  return { ...problem, from, to, at: { from: problem.from, to: problem.to }, fixes }
}

/** A short line is its own label. */
function labelOf(line: string, replacement: string): string {
  return (line.length <= LABEL_MOST ? line : replacement).trim().replace('\n', ' ↵ ') || line
}

/** How many characters two texts begin and end with alike. */
function common(a: string, b: string): readonly [head: number, tail: number] {
  const most = Math.min(a.length, b.length)
  let head = 0
  while (head < most && a[head] === b[head]) head += 1
  let tail = 0
  while (tail < most - head && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail += 1
  return [head, tail]
}
