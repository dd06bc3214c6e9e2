import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { inverseOf, standardName } from '../functions/registry'
import type { Kept } from '../notation/names'
import type { Parsed } from '../notation/parser'
import type { AngleUnit } from '../values/convert'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'
import type { EquationGroup } from '../equations/group'
import type { Definitions } from './definitions'
import type { Enclosures } from './enclosures'
import type { Surroundings } from './line'
import type { NearNames } from './nearNames'
import type { OpenGroup } from './openGroup'
import { withUnknowns } from './scope'
import type { Scope } from './scope'
import type { EvaluationSettings } from './settings'

/** Where a line stands: what it can be told of its surroundings comes from here. */
export interface Standing {
  readonly settings: EvaluationSettings
  readonly index: number
  readonly scope: Scope
  readonly definitions: Definitions
  readonly nearNames: NearNames
  readonly enclosures: Enclosures
  /** The group of equations that is open where the line stands. */
  readonly group: OpenGroup | null
}

/** A question a line asked about its surroundings, with the answer it got. */
export interface Question {
  readonly kind:
    'conventions' | 'above' | 'below' | 'anywhere' | 'line' | 'near' | 'near-function' | 'enclosure' | 'group'
  readonly name: string
  readonly answer: number | string | boolean | null
}

function answer(kind: Question['kind'], name: string, standing: Standing): Question['answer'] {
  const { index, scope, definitions } = standing
  switch (kind) {
    case 'conventions':
      return JSON.stringify(conventionsOf(standing.settings))
    case 'group':
      return standing.group?.stamp() ?? null
    case 'enclosure':
      return standing.enclosures.stampOf(name)
    case 'near':
      return standing.nearNames.near(name, null, scope)
    case 'near-function':
      return standing.nearNames.near(name, 'function', scope)
    case 'above':
      return scope.get(name)?.stamp ?? null
    case 'line':
      return (scope.get(name)?.line ?? -1) + 1
    case 'anywhere':
      return definitions.get(name) !== undefined
    case 'below': {
      const below = definitions.get(name)?.find((line) => line > index)
      return below === undefined ? null : below + 1
    }
  }
}

/** How values are written, under these settings. */
function conventionsOf(settings: EvaluationSettings): Conventions {
  const own = Object.keys(DEFAULT_CONVENTIONS).flatMap((key) => (key in settings ? [[key, settings[key as keyof Conventions]]] : [])) // prettier-ignore
  return { ...DEFAULT_CONVENTIONS, ...Object.fromEntries(own) }
}

/** True while every answer stays as it was. */
export function holdTrue(questions: readonly Question[], standing: Standing): boolean {
  return questions.every((q) => answer(q.kind, q.name, standing) === q.answer)
}

/** Longest time for a line that is only tried, in milliseconds: a busy machine takes a tenth of a second away at once. */
const BRIEF = 300

/** Answers a line's questions and writes them down. */
export class Asked implements Surroundings {
  readonly questions: Question[] = []
  /** A shorter time than the settings give, where only a first turn is due. */
  limit: number | null = null

  constructor(private readonly standing: Standing) {}

  /** The same place with the unknowns of a line that would stand above it. */
  under(above: Parsed): Asked {
    const { index, scope } = this.standing
    return new Asked({ ...this.standing, scope: withUnknowns(scope, index, above) })
  }

  /** With a short time only: for lines that nobody has entered. */
  briefly<T>(run: () => T): T {
    const before = this.limit
    this.limit = Math.min(before ?? BRIEF, BRIEF)
    try {
      return run()
    } finally {
      this.limit = before
    }
  }

  get angleUnit(): AngleUnit {
    return this.standing.settings.angle
  }

  /** Asked for only where a value is written into a text: the line then follows every change of them. */
  get conventions(): Conventions {
    this.note('conventions', '')
    return conventionsOf(this.standing.settings)
  }

  get timeLimit(): number | undefined {
    return this.limit ?? this.standing.settings.timeLimit
  }

  get report(): EvaluationSettings['report'] {
    return this.standing.settings.report
  }

  get letter(): 'i' | 'j' {
    return this.standing.settings.letter
  }

  private note(kind: Question['kind'], name: string): Question['answer'] {
    for (const before of this.questions) if (before.name === name && before.kind === kind) return before.answer
    const told = answer(kind, name, this.standing)
    this.questions.push({ kind, name, answer: told })
    return told
  }

  above(name: string): Kept | null {
    this.note('above', name)
    return this.standing.scope.get(name) ?? null
  }

  lineOf(name: string): number | null {
    const told = this.note('line', name)
    return typeof told === 'number' && told > 0 ? told : null
  }

  enclosure(name: string): Value | Failure {
    this.note('enclosure', name)
    return this.standing.enclosures.valueOf(name)
  }

  group(): EquationGroup | null {
    this.note('group', '')
    return this.standing.group?.told() ?? null
  }

  below(name: string): number | null {
    const told = this.note('below', name)
    return typeof told === 'number' ? told : null
  }

  anywhere(name: string): boolean {
    return this.note('anywhere', name) === true
  }

  builtIn(name: string, args?: number): string | null {
    return standardName(name, args)
  }

  inverseOf(name: string): string | null {
    return inverseOf(name)
  }

  near(name: string, only: 'function' | null): readonly string[] {
    const told = this.note(only === null ? 'near' : 'near-function', name)
    return typeof told === 'string' && told !== '' ? told.split(', ') : []
  }
}
