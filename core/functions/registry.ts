import { angleFunctions } from './angles'
import { complexFunctions } from './complex'
import { criterionFunctions } from './controlCriteria'
import { frequencyFunctions } from './controlFrequency'
import { samplingFunctions } from './controlSampling'
import { stateFunctions } from './controlState'
import { loopFunctions } from './controlLoops'
import { timeFunctions } from './controlTime'
import { enclosureFunctions } from './enclosures'
import { electricalFunctions } from './electrical'
import { buildingFunctions, matrixFunctions } from './matrices'
import { numberFunctions } from './numbers'
import { powerFunctions } from './powers'
import { polynomialFunctions } from './polynomials'
import { infixCall } from '../notation/words'
import { sweepFunctions } from './sweeps'
import type { FunctionDefinition } from '../signatures/definition'
import { vectorFunctions } from './vectors'
import { choiceFunctions } from './choice'
import type { Typesetting } from '../notation/typesetting'

/**
 * Every function of the notation, in the order of the handbook, and the words that are used like one.
 */
export const FUNCTIONS: readonly FunctionDefinition[] = [
  ...complexFunctions,
  ...powerFunctions,
  ...angleFunctions,
  ...numberFunctions,
  ...electricalFunctions,
  ...vectorFunctions,
  ...matrixFunctions,
  ...buildingFunctions,
  ...sweepFunctions,
  ...enclosureFunctions,
  ...polynomialFunctions,
  ...loopFunctions,
  ...timeFunctions,
  ...frequencyFunctions,
  ...criterionFunctions,
  ...stateFunctions,
  ...samplingFunctions,
  ...choiceFunctions,
]

const byName: ReadonlyMap<string, FunctionDefinition> = new Map(FUNCTIONS.map((f) => [f.name, f]))
const bySpelling = new Map<string, string>()
for (const definition of FUNCTIONS) {
  if (definition.operator) continue
  bySpelling.set(definition.infix ? infixCall(definition.name) : definition.name, definition.name)
  for (const spelling of definition.spellings ?? []) bySpelling.set(spelling, definition.name)
}

export function findFunction(name: string): FunctionDefinition | null {
  return byName.get(name) ?? null
}

/** The standard spelling of a function, from any spelling that is read; some are others with one argument. */
export function standardName(name: string, count?: number): string | null {
  const standard = bySpelling.get(name) ?? null
  const readAs = standard === null ? undefined : byName.get(standard)?.readAs
  return readAs?.count === count ? (readAs?.name ?? standard) : standard
}

/** The inverse of a function of the notation; `null` where none is declared. */
export function inverseOf(name: string): string | null {
  return byName.get(name)?.inverse ?? null
}

export function typesettingOf(name: string): Typesetting | undefined {
  return byName.get(name)?.typesetting
}

export function functionNames(): Iterable<string> {
  return [...bySpelling.keys()].filter((name) => !name.includes(' '))
}
