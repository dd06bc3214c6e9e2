import { readFileSync } from 'node:fs'
import { FolioEvaluator } from '#core/evaluate/folio'
import type { LineResult } from '#core/evaluate/folio'
import { definedName } from '#core/evaluate/folio'
import { DEFAULT_CONVENTIONS, DIGITS_MAX, DIGITS_MIN } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import { valueFields } from '#core/format/json'
import { formatPolar, formatRectangular, formatSingle } from '#core/format/readout'
import { showProblem } from '#core/format/lineView'
import type { ShownProblem } from '#core/format/lineView'
import { readFolioText } from './input'

/** `reckon`: evaluates lines without a window. Exit 0, 1 with a line in error, 2 for a wrong call. */

const USAGE = 'usage: npm run --silent reckon -- [--json] [--angle deg|rad] [--letter j|i] [--digits N] [FILE]'

interface Options {
  readonly json: boolean
  readonly overrides: Partial<Conventions>
  readonly file: string | null
}

class UsageError extends Error {}

function readOptions(args: readonly string[]): Options {
  let json = false
  let file: string | null = null
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
    else if (flag === '--angle') overrides.angle = oneOf<'deg' | 'rad'>(flag, value(), ['deg', 'rad'])
    else if (flag === '--letter') overrides.letter = oneOf<'j' | 'i'>(flag, value(), ['j', 'i'])
    else if (flag === '--digits') overrides.digits = digits(value())
    else if (flag.startsWith('-') && flag !== '-') throw new UsageError(`unknown option ${flag}`)
    else if (file !== null) throw new UsageError('only one file can be given')
    else file = arg
  }
  return { json, overrides, file }
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

function readInput(file: string | null): string {
  try {
    return readFileSync(file === null || file === '-' ? 0 : file, 'utf8')
  } catch (error) {
    if (file === null && error instanceof Error && 'code' in error && error.code === 'EOF') return ''
    throw new UsageError(`${file ?? 'standard input'} cannot be read`)
  }
}

function jsonProblem({ code, message, from, to, fixes }: ShownProblem): object {
  return { code, message, from, to, fixes }
}

function jsonLine(result: LineResult, number: number, conventions: Conventions): object {
  const { parsed, evaluated, redefined, changesReading } = result
  const hints = [...evaluated.hints, redefined, changesReading].flatMap((h) => (h ? [jsonProblem(showProblem(h))] : []))
  const head = { line: number, source: parsed.source, name: definedName(parsed) }
  if (evaluated.problem) return { ...head, kind: 'error', hints, error: jsonProblem(showProblem(evaluated.problem)) }
  const fields = evaluated.value ? valueFields(evaluated.value, conventions) : { kind: 'remark' }
  return { ...head, ...fields, hints, error: null }
}

function textLine(result: LineResult, conventions: Conventions): string {
  const { evaluated, parsed } = result
  if (evaluated.problem) return `error: ${showProblem(evaluated.problem).message}`
  const { value } = evaluated
  if (!value) return parsed.remark === null ? '' : `# ${parsed.remark}`
  if (value.kind === 'number' && (value.complex || value.im !== 0)) {
    return `${formatRectangular(value, conventions)} = ${formatPolar(value, conventions)}`
  }
  return formatSingle(value, conventions)
}

function main(): number {
  let options: Options
  let text: string
  try {
    options = readOptions(process.argv.slice(2))
    text = readInput(options.file)
  } catch (error) {
    if (!(error instanceof UsageError)) throw error
    process.stderr.write(`${error.message}\n${USAGE}\n`)
    return 2
  }
  const input = readFolioText(text)
  if ('problem' in input) {
    process.stderr.write(`${input.problem}\n`)
    return 2
  }
  const conventions = { ...DEFAULT_CONVENTIONS, ...input.conventions, ...options.overrides }
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(conventions)
  evaluator.setLines(input.lines.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  const results = input.lines.map((_, k) => evaluator.result(String(k))).filter((r) => r !== null)
  if (options.json) {
    process.stdout.write(`${JSON.stringify(results.map((r, k) => jsonLine(r, k + 1, conventions)))}\n`)
  } else {
    for (const result of results) process.stdout.write(`${textLine(result, conventions)}\n`)
  }
  return results.some((r) => r.evaluated.problem !== null) ? 1 : 0
}

process.exitCode = main()
