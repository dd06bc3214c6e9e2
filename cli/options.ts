import { DIGITS_MAX, DIGITS_MIN } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import { WORKING_DEPTHS } from '#core/working/write'
import type { WorkingDepth } from '#core/working/write'

/** How `reckon` is called. */

export const USAGE =
  'usage: npm run --silent reckon -- [--json] [--angle deg|rad] [--letter j|i] [--digits N]\n' +
  '                                  [--working [short|hand|all]]\n' +
  '                                  [--to csv|tsv|spreadsheet|mtx|touchstone|markdown|latex|folio|lines] [--name NAME] [FILE]'

export const FORMATS = [
  'csv',
  'tsv',
  'spreadsheet',
  'mtx',
  'touchstone',
  'markdown',
  'latex',
  'folio',
  'lines',
] as const
export type Format = (typeof FORMATS)[number]

export interface Options {
  readonly json: boolean
  readonly to: Format | null
  readonly name: string | null
  /** How deep the steps of each line go; `null` where none are asked for. */
  readonly working: WorkingDepth | null
  readonly overrides: Partial<Conventions>
  readonly file: string | null
}

/** A call that cannot be understood. */
export class UsageError extends Error {}

export function readOptions(args: readonly string[]): Options {
  let json = false
  let to: Format | null = null
  let name: string | null = null
  let file: string | null = null
  let working: WorkingDepth | null = null
  const overrides: { angle?: Conventions['angle']; letter?: Conventions['letter']; digits?: number } = {}
  for (let k = 0; k < args.length; k += 1) {
    const arg = args[k] ?? ''
    const [flag = '', inline] = arg.startsWith('--') ? arg.split('=', 2) : [arg]
    const value = (): string => {
      if (inline !== undefined) return inline
      k += 1
      const next = args[k]
      if (next === undefined) throw new UsageError(`${flag} needs a value`)
      return next
    }
    if (flag === '--json') json = true
    else if (flag === '--working') {
      // The depth may be left out: what stands behind it is then something else.
      const told = inline ?? args[k + 1]
      const depth = WORKING_DEPTHS.find((d) => d === told)
      if (inline !== undefined && depth === undefined)
        throw new UsageError(`--working takes ${WORKING_DEPTHS.join(' or ')}, not ${inline}`)
      if (inline === undefined && depth !== undefined) k += 1
      working = depth ?? 'hand'
    } else if (flag === '--to') to = oneOf<Format>(flag, value(), FORMATS)
    else if (flag === '--name') name = value()
    else if (flag === '--angle') overrides.angle = oneOf<'deg' | 'rad'>(flag, value(), ['deg', 'rad'])
    else if (flag === '--letter') overrides.letter = oneOf<'j' | 'i'>(flag, value(), ['j', 'i'])
    else if (flag === '--digits') overrides.digits = digits(value())
    else if (flag.startsWith('-') && flag !== '-') throw new UsageError(`unknown option ${flag}`)
    else if (file !== null) throw new UsageError('only one file can be given')
    else file = arg
  }
  if (json && to !== null) throw new UsageError('--json and --to exclude one another')
  if (name !== null && to === null) throw new UsageError('--name says what --to writes')
  if (working !== null && !json) throw new UsageError('--working goes with --json')
  return { json, to, name, working, overrides, file }
}

function oneOf<const T extends string>(flag: string, value: string, choices: readonly T[]): T {
  const found = choices.find((c) => c === value)
  if (found === undefined) throw new UsageError(`${flag} takes ${choices.join(' or ')}, not ${value}`)
  return found
}

function digits(value: string): number {
  const n = Number(value)
  if (!Number.isInteger(n) || n < DIGITS_MIN || n > DIGITS_MAX) {
    throw new UsageError(`--digits takes a whole number from ${DIGITS_MIN} to ${DIGITS_MAX}, not ${value}`)
  }
  return n
}
