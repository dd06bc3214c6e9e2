import type { Problem } from '../notation/problem'
import type { Code, ProblemData, Told } from '../values/problemData'
import { arrays } from './arrays'
import { brought } from './brought'
import { calls } from './calls'
import { control } from './control'
import { equations } from './equations'
import { hints } from './hints'
import { names } from './names'
import { polynomials } from './polynomials'
import { reading } from './reading'
import type { Sentences } from './sentencesOf'
import { sweeps } from './sweeps'
import { units } from './units'

/** The one place where codes of errors and hints become sentences for a student. */
const SENTENCES: Sentences = {
  ...reading,
  ...names,
  ...calls,
  ...control,
  ...arrays,
  ...sweeps,
  ...polynomials,
  ...units,
  ...hints,
  ...brought,
  ...equations,
  'in-equation': ({ line, inner }) => `In line ${line}: ${said(inner.code, inner.data)}`,
  'inside-function': ({ name, inner }) => `In ${name}: ${said(inner.code, inner.data)}`,
}

function said<C extends Code>(code: C, data: Readonly<ProblemData[C]>): string {
  return SENTENCES[code](data)
}

/** The sentence for a problem. Of a spelling that was brought along it says how it is written here. */
export function sentence({ brought: spelling, code, data }: Told & Pick<Problem, 'brought'>): string {
  return spelling ? said(spelling.code, spelling.data) : said(code, data)
}

/** Problems of an entry that simply is not finished: quiet while typing. */
const WAITING: ReadonlySet<Code> = new Set<Code>([
  'unfinished',
  'unclosed',
  'text-not-closed',
  'nothing-defined',
  'function-needs-bracket',
  'postponed',
  'enclosure-loading',
  'not-determined',
  'equations-wait',
  'no-equations',
])

const PENDING: ReadonlySet<Code> = new Set<Code>(['postponed', 'enclosure-loading', 'not-determined', 'equations-wait'])

/** A line that has been read, and whose value is still to come: it is not in error. */
export function isPending(code: Code): boolean {
  return PENDING.has(code)
}

export function isUnfinished(code: Code): boolean {
  return WAITING.has(code)
}
