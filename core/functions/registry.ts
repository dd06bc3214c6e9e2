import { angleFunctions } from './angles'
import { complexFunctions } from './complex'
import { enclosureFunctions } from './enclosures'
import { electricalFunctions } from './electrical'
import { buildingFunctions, matrixFunctions } from './matrices'
import { numberFunctions } from './numbers'
import { powerFunctions } from './powers'
import { polynomialFunctions } from './polynomials'
import { infixCall } from '../notation/words'
import { sweepFunctions } from './sweeps'
import type { FunctionDefinition } from './definition'
import { vectorFunctions } from './vectors'

/**
 * Every function of the notation, in the order of the handbook. `if` is not
 * here as a function of values: only its chosen side is evaluated.
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
]

const byName = new Map(FUNCTIONS.map((f) => [f.name, f]))
const bySpelling = new Map<string, string>()
for (const definition of FUNCTIONS) {
  bySpelling.set(definition.infix ? infixCall(definition.name) : definition.name, definition.name)
  for (const spelling of definition.spellings ?? []) bySpelling.set(spelling, definition.name)
}
// Read as arg(z); of two vectors it will be the angle between them.
bySpelling.set('angle', 'arg')
bySpelling.set('if', 'if')
bySpelling.set('each', 'each')

export function findFunction(name: string): FunctionDefinition | null {
  return byName.get(name) ?? null
}

/** The standard spelling of a function, from any spelling that is read. */
export function standardName(name: string): string | null {
  return bySpelling.get(name) ?? null
}

export function functionNames(): Iterable<string> {
  return [...bySpelling.keys()].filter((name) => !name.includes(' '))
}
