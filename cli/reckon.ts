import { readFileSync } from 'node:fs'
import { FolioEvaluator } from '#core/evaluate/folio'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import type { Data } from '#core/measured/data'
import type { FolioFile } from '../shared/folio'
import { readInput, valuesOf } from './input'
import type { Input } from './input'
import { readOptions, USAGE, UsageError } from './options'
import type { Options } from './options'
import { jsonLine, jsonSteps, jsonValue, textLine, textValue } from './print'
import { writeFolioAs, writeDataAs } from './write'
import type { Written } from './write'

/** `reckon`: evaluates lines without a window. Exit 0, 1 with a line in error, 2 for a wrong call. */

function bytesOf(file: string | null): Uint8Array {
  try {
    return readFileSync(file === null || file === '-' ? 0 : file)
  } catch (error) {
    if (file === null && error instanceof Error && 'code' in error && error.code === 'EOF') return new Uint8Array(0)
    throw new UsageError(`${file ?? 'standard input'} cannot be read`)
  }
}

function main(): number {
  let options: Options
  let bytes: Uint8Array
  try {
    options = readOptions(process.argv.slice(2))
    bytes = bytesOf(options.file)
  } catch (error) {
    if (!(error instanceof UsageError)) throw error
    process.stderr.write(`${error.message}\n${USAGE}\n`)
    return 2
  }
  const input = readInput(bytes, options.file ?? '')
  switch (input.kind) {
    case 'problem':
      process.stderr.write(`${input.problem}\n`)
      return 2
    case 'data':
      for (const sentence of input.told) process.stderr.write(`${sentence}\n`)
      return reckonData(input.data, input.name, options)
    case 'lines':
      return reckonLines(input, { ...DEFAULT_CONVENTIONS, ...input.conventions, ...options.overrides }, options)
  }
}

/** A data file by itself: a result for each of its columns, or its matrix. */
function reckonData(data: Data, name: string, options: Options): number {
  const conventions = { ...DEFAULT_CONVENTIONS, ...options.overrides }
  if (options.to !== null) return put(writeDataAs(data, name, options.to, options.name, conventions), 0)
  const values = valuesOf(data, name)
  if (options.json)
    process.stdout.write(`${JSON.stringify(values.map((v, k) => jsonValue(v.name, v.value, k + 1, conventions)))}\n`)
  else for (const { name: own, value } of values) process.stdout.write(`${own} = ${textValue(value, conventions)}\n`)
  return 0
}

/** A note is text: to the evaluator it is a remark. */
function asEntry(line: FolioFile['lines'][number]): string {
  return line.note ? `# ${line.source.replace(/\s+/g, ' ')}` : line.source
}

function reckonLines(
  { folio, enclosed }: Extract<Input, { kind: 'lines' }>,
  conventions: Conventions,
  options: Options,
): number {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(conventions)
  evaluator.setLines(folio.lines.map((line, k) => ({ id: String(k), source: asEntry(line) })))
  for (const { name, data } of enclosed) evaluator.enclosures.put(name, name, data)
  evaluator.update()
  const results = folio.lines.map((_, k) => evaluator.result(String(k))).filter((r) => r !== null)
  const status = results.some((r) => r.evaluated.problem !== null) ? 1 : 0
  if (options.to !== null) return put(writeFolioAs(folio, results, options.to, options.name, conventions), status)
  const { working } = options
  const steps = (id: string): object => (working === null ? {} : jsonSteps(evaluator, id, working, conventions))
  if (options.json)
    process.stdout.write(`${JSON.stringify(results.map((r, k) => jsonLine(r, k + 1, conventions, steps(r.id))))}\n`)
  else for (const result of results) process.stdout.write(`${textLine(result, conventions)}\n`)
  return status
}

function put(written: Written, status: number): number {
  if ('problem' in written) {
    process.stderr.write(`${written.problem}\n`)
    return 2
  }
  process.stdout.write(written.text)
  return status
}

process.exitCode = main()
