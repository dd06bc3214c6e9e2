import { told } from '../values/problemData'
import type { BareCode, BroughtCode, Told } from '../values/problemData'
import { findFunction, functionNames, standardName } from '../functions/registry'
import type { Value } from '../values/types'

/**
 * What a student brings along from elsewhere: spellings that are none here, each with what they are in our notation.
 * None of it becomes notation: these are only the readings that are tried, in the order of their likelihood, when a
 * line cannot be read as it stands. Whether one of them makes sense is decided by evaluating it.
 */

/** A spelling that was recognised: the sentence about it, and the line in our notation. */
export interface Brought {
  /** What was brought along; `null` where the line's own error says enough. */
  readonly about: Told | null
  readonly data?: Readonly<Record<string, string>>
  /** The whole line as it would be; what stands before a line break goes into a line of its own above. */
  readonly line: string
}

/** What the rules may ask of the lines above. */
export interface Known {
  /** What a text is worth at this place; `null` where it cannot be read. */
  worth(text: string): Value | null
}

type Rule = (line: string, known: Known) => Iterable<Brought>

const NAME = '[\\p{L}_][\\p{L}\\p{Nd}_]*'
/** Something that stands for itself: a number with what is attached, a name with its bracket, a bracket. */
const TERM = `(?:(?:\\d+\\.?\\d*|\\.\\d+)(?:[\\p{L}°]*)|${NAME}(?:\\([^()]*\\)|\\[[^\\[\\]]*\\])?|\\([^()]*\\)|\\[[^\\[\\]]*\\])`

const pattern = (text: string): RegExp => new RegExp(text, 'gu')

/** One replacement at all places. */
function everywhere(code: Extract<BareCode, BroughtCode>, find: RegExp, put: string): Rule {
  return function* (line) {
    const changed = line.replace(find, put)
    if (changed !== line) yield { about: told(code), line: changed }
  }
}

const power = everywhere('brought-power', pattern('\\*\\*|\\^\\^'), '^')

function* transposed(line: string): Iterable<Brought> {
  const find = pattern(`(?<=[\\p{L}\\p{Nd}_\\])])\\.?['’]`)
  if (!find.test(line)) return
  for (const letter of ['T', 'H']) yield { about: told('brought-transpose'), line: line.replace(find, `^${letter}`) }
}

function* smallTranspose(line: string): Iterable<Brought> {
  const changed = line.replace(/\^([th])(?![\p{L}\p{Nd}_(])/gu, (_, letter: string) => `^${letter.toUpperCase()}`)
  if (changed !== line) yield { about: told('brought-transpose'), line: changed }
}

const wholeQuotient = everywhere('brought-quotient', pattern(`(${TERM})\\s*//\\s*(${TERM})`), 'quotient($1, $2)')
const rest = everywhere('brought-rest', pattern(`(${TERM})\\s*%\\s*(${TERM})`), '$1 mod $2')

function* percent(line: string): Iterable<Brought> {
  // So many per cent more or less of what stands before: not so many hundredths of its unit.
  const more = pattern(`^([^+−-]*?${TERM}(?:[ \\t]+[\\p{L}µΩ°]+)?)\\s*([-+−])\\s*(\\d+\\.?\\d*|\\.\\d+)\\s*%\\s*$`)
  const grown = line.replace(more, (_, of: string, sign: string, number: string) => `${of}*(1 ${sign} ${number}/100)`)
  if (grown !== line) return yield { about: told('brought-percent'), line: grown }
  const find = pattern('([/^∠]\\s*|[-+−]\\s*)?(\\d+\\.?\\d*|\\.\\d+)\\s*%')
  const changed = line.replace(find, (all, before: string | undefined, number: string) => {
    if (before && /^[-+−]/.test(before)) return all
    return before ? `${before}(${number}/100)` : `${number}/100`
  })
  if (changed !== line) yield { about: told('brought-percent'), line: changed }
}

function* calledRest(line: string): Iterable<Brought> {
  const find = pattern('(?<![\\p{L}\\p{Nd}_])mod\\s*\\(\\s*([^(),]+?)\\s*,\\s*([^(),]+?)\\s*\\)')
  // Brackets only where something stands beside it.
  const alone = new RegExp(`^(?:\\s*${NAME}\\s*=)?\\s*mod\\s*\\([^()]*\\)\\s*$`, 'u').test(line)
  const changed = line.replace(find, alone ? '$1 mod $2' : '($1 mod $2)')
  if (changed !== line) yield { about: told('brought-rest'), line: changed }
}

const given = everywhere('brought-definition', /:=|⟵|←/gu, '=')
const declared = everywhere('brought-definition', pattern(`^\\s*(?:let|var|const|set|def)\\s+(?=${NAME}\\s*=)`), '')
const arrow = everywhere('brought-definition', pattern(`^(.*\\S)\\s*(?:->|→|⟶)\\s*(${NAME})\\s*$`), '$2 = $1')
const changedBy = everywhere('brought-change', pattern(`^\\s*(${NAME})\\s*([-+*/])=\\s*(.+)$`), '$1 = $1 $2 $3')
const askedFor = everywhere('brought-equals', /^\s*=\s*(?=\S)|(?<=\S)\s*=\s*\??\s*$/gu, '')
const ended = everywhere('brought-end', /\s*;\s*$/gu, '')
const remark = everywhere('brought-remark', /^\s*(?:\/\/+|%+|--+|'|’|\/\*)\s*(?=\S)/gu, '# ')

const SIGNED = `-?${TERM}`
function* ranges(line: string): Iterable<Brought> {
  const stepped = pattern(`(${SIGNED})\\s*:\\s*(${SIGNED})\\s*:\\s*(${SIGNED})`)
  const plain = pattern(`(${SIGNED})\\s*(?::|\\.{2,3}|…)\\s*(${SIGNED})`)
  const dotted = /(-?\d+(?:\.\d+)?)\s*(?:\.{2,3}|…)\s*(-?\d+)/gu
  let changed = line.replace(stepped, '$1 to $3 step $2')
  changed = changed.replace(dotted, '$1 to $2').replace(plain, '$1 to $2')
  if (changed === line) return
  const inList = changed.replace(/(?<![\p{L}\p{Nd}_\]])\[([^[\],]* to [^[\],]*)\]/gu, 'vector($1)')
  yield { about: told('brought-range'), line: inList }
}

/** `A.*B`: the operators between simple terms go into each( ). */
function* entryByEntry(line: string): Iterable<Brought> {
  const find = pattern(`-?${TERM}(?:\\s*\\.[*/^]\\s*-?${TERM})+`)
  const changed = line.replace(find, (chain) => `each(${chain.replace(/\.([*/^])/g, '$1')})`)
  if (changed !== line) yield { about: told('brought-entries'), line: changed }
}

/** Rows parted by semicolons, entries by blanks. */
function* rows(line: string): Iterable<Brought> {
  const blanks = (row: string): string[] => row.trim().split(/\s*,\s*|\s+/u)
  const commas = (row: string): string[] => row.trim().split(/\s*,\s*/u)
  for (const entries of [commas, blanks]) {
    const changed = line.replace(/\[([^[\]]*)\]/gu, (list, inner: string) => {
      if (!/[;\s]/u.test(inner.trim())) return list
      const found = inner
        .replace(/;\s*$/u, '')
        .split(';')
        .map((row) => entries(row).join(', '))
      return inner.includes(';') ? `[${found.map((row) => `[${row}]`).join(', ')}]` : `[${found[0] ?? ''}]`
    })
    if (changed.replaceAll(/\s/g, '') !== line.replaceAll(/\s/g, ''))
      yield { about: told('brought-rows'), line: changed }
  }
}

const otherBrackets = everywhere('brought-list', /[{⟨<]([^{}⟨⟩<>[\]]*,[^{}⟨⟩<>[\]]*)[}⟩>]/gu, '[$1]')
const indexBraces = everywhere('brought-index', pattern(`(${NAME})\\{([^{}]*)\\}`), '$1[$2]')
const twoIndices = everywhere('brought-index', pattern(`(${NAME})\\[([^\\[\\]]+)\\]\\[([^\\[\\]]+)\\]`), '$1[$2, $3]')

/** `sin 30`, `2 cos x`, `arg z`: a function without its brackets. */
function* bracketless(line: string): Iterable<Brought> {
  const find = pattern(`(?<![\\p{L}_])(${NAME})\\s+(-?${TERM})(\\s*[/*]\\s*${TERM})?`)
  for (const wide of [false, true]) {
    let name = ''
    const changed = line.replace(find, (all: string, word: string, term: string, more: string | undefined) => {
      const standard = bracketed(word)
      if (!standard || (wide && !more)) return all
      name = word
      return wide ? `${word}(${term}${more ?? ''})` : `${word}(${term})${more ?? ''}`
    })
    if (name !== '') yield* withBase(name, changed)
  }
}

/** A logarithm whose base is not said could be two. */
function* withBase(name: string, line: string): Iterable<Brought> {
  const said = name === 'log' ? ['lg', 'ln'] : [name]
  for (const word of said)
    yield { about: told('brought-bracket', { name }), line: line.replaceAll(`${name}(`, `${word}(`) }
}

/** True of functions that are called with one argument, from any spelling. */
function bracketed(word: string): boolean {
  if (word === 'log') return true
  const definition = findFunction(standardName(word, 1) ?? '')
  return definition?.parameters.length === 1 && definition.group !== 'building'
}

/** `dot u v`: two arguments side by side. */
function* bracketlessPair(line: string): Iterable<Brought> {
  const find = pattern(`(?<![\\p{L}_])(dot|cross|angle|dist|proj|solve|par)\\s+(${TERM})\\s*,?\\s+(${TERM})`)
  const changed = line.replace(find, '$1($2, $3)')
  if (changed !== line) yield { about: told('brought-bracket', { name: find.exec(line)?.[1] ?? '' }), line: changed }
}

/** `sin30`, `cosx`: the function and its argument run together. */
function* runTogether(line: string): Iterable<Brought> {
  for (const match of line.matchAll(pattern(`(?<![\\p{L}\\p{Nd}_])(${NAME})(°?)(?!\\s*[(\\p{L}\\p{Nd}_])`))) {
    const [all, word = '', degree = ''] = match
    if (standardName(word) !== null) continue
    const heads = [...functionNames(), 'log'].filter(
      (f) => word.startsWith(f) && word.length > f.length && bracketed(f),
    )
    for (const head of heads.sort((a, b) => b.length - a.length)) {
      const call = `${head}(${word.slice(head.length)}${degree})`
      yield* withBase(head, `${line.slice(0, match.index)}${call}${line.slice(match.index + all.length)}`)
    }
  }
}

/** Words of other languages and trades for what has a name here. */
const WORDS: Readonly<Record<string, string>> = {
  real: 're', imag: 'im', imaginary: 'im', ans: 'prev', answer: 'prev', tg: 'tan', ctg: 'cot', cosec: 'csc',
  arctg: 'arctan', arcctg: 'arccot', sh: 'sinh', ch: 'cosh', th: 'tanh', arsh: 'arsinh', arch: 'arcosh', arth: 'artanh',
  phase: 'arg', modulus: 'abs', magnitude: 'abs', conjugate: 'conj', average: 'mean', length: 'count', PI: 'pi', Pi: 'pi',
  null: 'nullspace', infinity: 'inf', Inf: 'inf', infty: 'inf', unitvector: 'unit', projection: 'proj', distance: 'dist', eigenvalue: 'eigenvalues',
  eigenvector: 'eigenvectors', factor: 'roots', ceiling: 'ceil', modulo: 'mod', Log: 'lg', Ln: 'ln',
} // prettier-ignore

function* otherWords(line: string): Iterable<Brought> {
  for (const match of line.matchAll(pattern(`(?<![\\p{L}_])${NAME}`))) {
    const [word] = match
    const ours = Object.hasOwn(WORDS, word) ? WORDS[word] : undefined
    if (ours === undefined) continue
    const changed = line.replace(pattern(`(?<![\\p{L}_])${word}(?![\\p{L}\\p{Nd}_])`), ours)
    yield { about: told('brought-word', { name: word, ours }), line: changed }
  }
}

const degreeWord = everywhere('brought-degrees', /(?<=[\d)\p{L}])\s*(?:degrees?|grad)(?![\p{L}\p{Nd}_(])/gu, '°')

/** `x to deg`, `30° in radians`. */
function* inAngleUnit(line: string, known: Known): Iterable<Brought> {
  const match = new RegExp(
    `^(\\s*${NAME}\\s*=\\s*)?(.+?)\\s+(?:to|in|as)\\s+(deg|degrees?|rad|radians?)\\s*$`,
    'u',
  ).exec(line)
  if (!match) return
  const [, head = '', body = '', unit = ''] = match
  const name = unit.startsWith('d') ? 'degrees' : 'radians'
  const angle = known.worth(body)?.kind === 'angle'
  const other = name === 'degrees' ? ' rad' : '°'
  const simple = new RegExp(`^${TERM}$`, 'u').test(body)
  const read = angle ? body : simple ? `${body}${other}` : `(${body})${other}`
  yield { about: told('brought-unit'), line: `${head}${name}(${read})` }
}

/** `3,5`: a decimal comma; between the arguments of a call and in a list commas are what they are. */
function* decimalComma(line: string): Iterable<Brought> {
  const kept: boolean[] = []
  let changed = ''
  for (const [k, sign] of [...line].entries()) {
    const before = line[k - 1] ?? ''
    if (sign === '(') kept.push(/[\p{L}\p{Nd}_]/u.test(before) || (kept.at(-1) ?? false))
    else if (sign === '[' || sign === '{') kept.push(true)
    else if (/[)\]}]/.test(sign)) kept.pop()
    const decimal = sign === ',' && kept.at(-1) !== true && /\d/.test(before) && /\d/.test(line[k + 1] ?? '')
    changed += decimal ? '.' : sign
  }
  // Two points in one number: the comma was not its decimal mark.
  if (changed !== line && !/\d\.\d+\.\d/.test(changed)) yield { about: told('brought-comma'), line: changed }
}

/** `(10, 2)`: a complex number, or a vector? */
function* pair(line: string): Iterable<Brought> {
  const find = pattern(`(?<![\\p{L}\\p{Nd}_])\\(\\s*([^(),]+?)\\s*,\\s*([^(),]+?)\\s*\\)`)
  const alone = new RegExp(`^(?:\\s*${NAME}\\s*=)?\\s*\\([^()]*\\)\\s*$`, 'u').test(line)
  const number = line.replace(find, (_, re: string, im: string) => {
    const sum = im.startsWith('-') ? `${re} - ${im.slice(1)}j` : `${re} + ${im}j`
    return alone ? sum : `(${sum})`
  })
  if (number === line) return
  yield { about: told('brought-pair'), line: number }
  yield { about: told('brought-pair'), line: line.replace(find, '[$1, $2]') }
}

/** `1, 2`: a vector without its brackets. */
function* bareList(line: string): Iterable<Brought> {
  const changed = line.replace(
    new RegExp(`^(\\s*${NAME}\\s*=\\s*)?([^=()[\\]{}⟨⟩<>]+,[^=()[\\]{}⟨⟩<>]+)$`, 'u'),
    '$1[$2]',
  )
  if (changed !== line) yield { about: told('brought-list'), line: changed }
}

/** `12 345`, `1,000.5`, `1.000,5`: digits in groups. */
function* groups(line: string): Iterable<Brought> {
  const commas = line.replace(/(?<![\d.,])\d{1,3}(?:,\d{3})+\.\d+/gu, (number) => number.replaceAll(',', ''))
  const points = commas.replace(/(?<![\d.,])\d{1,3}(?:\.\d{3})+,\d+/gu, (number) =>
    number.replaceAll('.', '').replace(',', '.'),
  )
  if (points !== line) yield { about: told('brought-groups'), line: points }
  const changed = line.replace(/(?<![\d.])\d{1,3}(?:[ \u00a0\u2009\u202f'’]\d{3})+(?!\d)/gu, (number) =>
    number.replaceAll(/[^\d]/gu, ''),
  )
  if (changed !== line) yield { about: told('brought-groups'), line: changed }
}

const loosePrefix = everywhere('brought-prefix', /(?<=\d) ([GMkunpfµμ])(?![\p{L}\p{Nd}_])/gu, '$1')

/** `H(2j)` of a polynomial, `v(1)` of a vector, `x(2 + 3)` of a number. */
function* calledValue(line: string, known: Known): Iterable<Brought> {
  for (const match of line.matchAll(pattern(`(?<![\\p{L}_])(${NAME})\\(([^()]*(?:\\([^()]*\\)[^()]*)*)\\)`))) {
    const [all, name = '', args = ''] = match
    if (standardName(name) !== null) continue
    const value = known.worth(name)
    if (!value || value.kind === 'function') continue
    const [before, after] = [line.slice(0, match.index), line.slice(match.index + all.length)]
    const put = (text: string): string => `${before}${text}${after}`
    const alone = /^\s*(?:[\p{L}_][\p{L}\p{Nd}_]*\s*=\s*)?$/u.test(before) && after.trim() === ''
    if (value.kind === 'polynomial' || value.kind === 'algebra-matrix') {
      const unknowns = value.kind === 'polynomial' ? value.top.unknowns.concat(value.bottom?.unknowns ?? []) : []
      const [unknown] = unknowns
      const bare = /^\s*([\p{L}_][\p{L}\p{Nd}_]*)\s*=(?!=)/u.exec(args)
      const where = bare ? args : `${unknown ?? 's'} = ${args}`
      if (unknown)
        yield {
          about: told('brought-where', { name }),
          line: put(alone ? `${name} where ${where}` : `(${name} where ${where})`),
        }
    }
    if (value.kind === 'vector' || value.kind === 'matrix' || value.kind === 'sweep' || value.kind === 'text')
      yield { about: told('brought-index'), line: put(`${name}[${args}]`) }
    if (/[/^∠]\s*$/u.test(before)) yield { about: null, line: put(`(${name}*(${args}))`) }
    yield { about: null, line: put(`${name}*(${args})`) }
  }
}

const andOr: readonly Rule[] = [
  everywhere('brought-logic', /\s*&&?\s*/gu, ' and '),
  everywhere('brought-logic', /(?<![\p{L}\p{Nd}_)\]!])!\s*(?=[\p{L}(])/gu, 'not '),
  everywhere('brought-compare', /<>|≠=|=\/=|~=/gu, '!='),
  everywhere('brought-compare', /=</gu, '<='),
  everywhere('brought-compare', /=>/gu, '>='),
  everywhere('brought-compare', /={3,}/gu, '=='),
  everywhere(
    'brought-if',
    /^(\s*[\p{L}_][\p{L}\p{Nd}_]*\s*=(?!=))?\s*([^=?].*?)\s*\?\s*(.+?)\s*:\s*(.+)$/gu,
    '$1 if($2, $3, $4)',
  ),
  everywhere('brought-if', /(?<![\p{L}_])if\s+(.+?)\s+then\s+(.+?)\s+else\s+(.+)$/gu, 'if($1, $2, $3)'),
]

const phasors: readonly Rule[] = [
  everywhere('brought-phasor', pattern(`(${TERM})\\s*(?:@|cis(?=\\s|\\d)|angle(?=\\s|\\d))\\s*(-?${TERM})`), '$1∠$2'),
  everywhere('brought-phasor', /(?<=\d)\s*(?:angle|cis)\s*(?=-?[\d.])/gu, '∠'),
  everywhere('brought-phasor', /(?<![\p{L}_])(?:polar|phasor|pol)\(([^(),]+),\s*([^(),]+)\)/gu, '$1∠$2'),
  everywhere('brought-pair', /(?<![\p{L}_])(?:complex|rect|cart|rec)\(([^(),]+),\s*([^(),]+)\)/gu, '($1 + $2*j)'),
  everywhere('brought-exponent', /(?<![\p{L}_])e\^([ij])\s*\*?\s*(\d[\d.]*°?|[\p{L}_][\p{L}\p{Nd}_]*)/gu, 'e^($1*$2)'),
]

/** `zeros(2, 3)`: the zeros of a ratio have that name here. */
const filledWithZeros = everywhere('brought-zeros', /(?<![\p{L}_])zeros\s*\((?=[^()]*\))/gu, 'zero_matrix(')

const leftDivision = everywhere('brought-solve', pattern(`(${TERM})\\s*\\\\\\s*(${TERM})`), 'solve($1, $2)')
const calledPower = everywhere('brought-power', /(?<![\p{L}_])(?:pow|power)\(([^(),]+),\s*([^(),]+)\)/gu, '($1)^($2)')
const crossWord = everywhere('brought-cross', pattern(`(${TERM}) [xX×] (${TERM})`), 'cross($1, $2)')
const mendedCross = everywhere('brought-cross', pattern(`(${TERM})\\s*×\\s*(${TERM})`), 'cross($1, $2)')
const mendedDot = everywhere('brought-dot', pattern(`(${TERM})\\s*[·⋅.]\\s*(${TERM})`), 'dot($1, $2)')

/** `sin^2 30`: a power of a function without its brackets. */
const raisedBracketless = everywhere(
  'brought-bracket-power',
  pattern(`(?<![\\p{L}_])(sin|cos|tan|cot|sec|csc|sinh|cosh|tanh|ln|lg)(\\^\\d+|[²³])\\s*(${TERM})`),
  '$1$2($3)',
)

/** `∠30`: a direction alone. */
const directionAlone = everywhere('brought-direction', /(^|[=([,+*-]\s*)(?:∠|\/_)/gu, '$11∠')

/** `h x = x^2`: a function defined without brackets. */
const definedBracketless = everywhere('brought-parameter', pattern(`^\\s*(${NAME})\\s+(${NAME})\\s*=(?!=)`), '$1($2) =')

/** Likelier ones first, where several fit. */
const RULES: readonly Rule[] = [
  remark, power, transposed, wholeQuotient, ended, given, declared, arrow, changedBy, entryByEntry, ranges, groups, rows,
  decimalCommaOrPair, calledRest, rest, percent, otherWords, degreeWord, inAngleUnit, ...phasors, bracketless, bracketlessPair,
  runTogether, raisedBracketless, directionAlone, definedBracketless, twoIndices, indexBraces, otherBrackets, calledValue, ...andOr, leftDivision, calledPower,
  filledWithZeros, crossWord, mendedCross, mendedDot, loosePrefix, smallTranspose, askedFor,
] // prettier-ignore

/** `12,345`: a decimal comma, or a group of three? */
function* withoutCommas(line: string): Iterable<Brought> {
  const find = /(?<![\d.,])(?<!\[[^\]]*)\d{1,3}(?:,\d{3})+(?![\d.,])/gu
  const changed = line.replace(find, (number) => number.replaceAll(',', ''))
  if (changed !== line) yield { about: told('brought-groups'), line: changed }
}

/** A blank behind the comma speaks for two values. */
function* decimalCommaOrPair(line: string): Iterable<Brought> {
  const apart = /,\s/u.test(line)
  if (apart) yield* pair(line)
  yield* decimalComma(line)
  yield* withoutCommas(line)
  if (!apart) yield* pair(line)
  yield* bareList(line)
}

/** Longest line that is looked at: patterns are slow on long ones, and nobody brings these along. */
const LONGEST = 120

/** Readings of a line that cannot be read as it stands, the likeliest first; texts in quotation marks are left alone. */
export function* brought(line: string, known: Known): Iterable<Brought> {
  const end = line.indexOf('#')
  const [body, note] = end < 0 ? [line, ''] : [line.slice(0, end), line.slice(end)]
  if (body.length > LONGEST || body.includes('"')) return
  const seen = new Set<string>([line])
  for (const rule of RULES) {
    for (const found of rule(body, known)) {
      const changed = `${found.line.trim()}${note === '' ? '' : ` ${note}`}`
      if (seen.has(changed)) continue
      seen.add(changed)
      yield { ...found, line: changed }
    }
  }
}
