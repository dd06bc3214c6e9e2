import * as fc from 'fast-check'
import type { Code, KindWord, Needed, ProblemData } from '../values/problemData'
import { NOTHING, told } from '../values/problemData'
import { kindWords, neededWords } from './kindWords'
import { sentence } from './sentences'

/** Data for every code; a code that is missing here does not compile. */
const SAMPLES: { readonly [C in Code]: ProblemData[C] } = {
  'line-too-long': { limit: 31 },
  'missing-operator': { left: 'left0', right: 'right1' },
  unfinished: { after: 'after0' },
  unclosed: { bracket: 'bracket0', open: 38, missing: 'missing2' },
  unbalanced: { bracket: 'bracket0' },
  'operand-expected': { found: 'found0' },
  'odd-character': { character: 'character0' },
  'text-too-long': { limit: 31 },
  'text-not-closed': NOTHING,
  'not-definable': { left: 'left0' },
  'nothing-defined': NOTHING,
  'second-equals': NOTHING,
  'check-inside': NOTHING,
  'stray-comma': NOTHING,
  'too-many-terms': { limit: 31 },
  'too-deep': { limit: 31 },
  'angle-bracketing': { text: 'text0' },
  'power-bracketing': { text: 'text0' },
  'second-angle': NOTHING,
  'bars-unclear': NOTHING,
  'vectors-in-list': NOTHING,
  'rows-differ': { row: 31, found: 'found1', expected: 'expected2' },
  'blocks-differ': { row: 31, left: 38, right: 45 },
  'entries-are-numbers': { kind: 'matrix' },
  'shapes-differ': { left: 'left0', sign: 'sign1', right: 'right2' },
  'shapes-product': { left: 'left0', right: 'right1', cols: 45, rows: 52 },
  'not-square': { name: 'name0', shape: 'shape1' },
  singular: { what: 'what0' },
  'matrix-division': NOTHING,
  'matrix-function': { name: 'name0', whole: 'whole1' },
  'matrix-exponent': NOTHING,
  'not-converged': NOTHING,
  'not-positive': NOTHING,
  'no-such-part': { name: 'name0', known: 'known1' },
  'too-many-indices': NOTHING,
  'index-row-range': { count: 31 },
  'index-column-range': { count: 31 },
  'matrix-too-large': { count: 31, limit: 38 },
  defective: NOTHING,
  'nearly-defective': NOTHING,
  'ill-conditioned': { value: 'value0', digits: 38 },
  'comma-missing': { sign: 'sign0' },
  'empty-list': NOTHING,
  'series-form': NOTHING,
  'series-place': NOTHING,
  'range-form': { word: 'word0' },
  'per-decade': NOTHING,
  'range-in-list': { text: 'text0' },
  'range-end': { kind: 'matrix' },
  'range-finite': NOTHING,
  'range-kinds': NOTHING,
  'step-kind': NOTHING,
  'count-whole': NOTHING,
  'decade-count': NOTHING,
  'decade-ends': NOTHING,
  'too-many-points': { count: 731, limit: 38 },
  'sweeps-differ': { left: 31, first: 'first1', right: 45, second: 'second3' },
  'sweeps-unrelated': { count: 31, first: 'first1', second: 'second2' },
  'point-range': { count: 31 },
  'where-form': NOTHING,
  'where-bracket': NOTHING,
  'where-unknown': { name: 'name0' },
  'where-body': { kind: 'matrix' },
  'where-matrix': NOTHING,
  'where-matrix-sweep': NOTHING,
  'unknown-kept': { name: 'name0', line: 38 },
  'polynomial-by-zero': NOTHING,
  'polynomial-exponent': NOTHING,
  'polynomial-too-large': { limit: 31 },
  'degree-too-high': { limit: 31 },
  'ratio-unknowns': { names: 'names0' },
  'ratio-given': { name: 'name0' },
  'one-unknown': { name: 'name0', names: 'names1' },
  'no-roots': { name: 'name0' },
  'roots-of-zero': NOTHING,
  'roots-cluster': { off: 'off0' },
  'roots-off': { off: 'off0' },
  'no-unknowns': { name: 'name0' },
  'algebra-order': { name: 'name0', limit: 38 },
  'series-bound': { kind: 'matrix' },
  'step-real': NOTHING,
  'step-whole': NOTHING,
  'step-zero': NOTHING,
  'step-direction': { step: 31 },
  'too-many-entries': { count: 31, limit: 38 },
  'no-entries': { kind: 'matrix' },
  'entry-range': { count: 31 },
  'lengths-differ': { left: 31, right: 38 },
  'vector-plus-number': { kind: 'matrix', sign: 'sign1' },
  'vector-argument': { count: 31 },
  'vector-product': { sign: 'sign0' },
  'unit-expected': NOTHING,
  'unit-bracketing': { text: 'text0' },
  'unit-or-product': { text: 'text0', name: 'name1' },
  'unit-brackets': { text: 'text0' },
  'unit-needs-space': { text: 'text0', unit: 'unit1' },
  'unit-slip': { name: 'name0', meant: 'meant1', why: 'case' },
  'unit-celsius': NOTHING,
  'unit-effective': { word: 'word0' },
  'unit-twice': { unit: 'unit0' },
  'unit-on': { kind: 'matrix' },
  'unit-missing': { joining: 'added', quantity: 'quantity1', unit: 'unit2', side: 'left' },
  'unit-unknown': { name: 'name0', unit: 'unit1' },
  'units-differ': { joining: 'compared', left: 'left1', right: 'right2', one: 'one3', other: 'other4' },
  'rate-and-cycles': { joining: 'subtracted' },
  'unit-entry': { row: 31, col: 38, one: 'one2', other: 'other3' },
  'unit-fit': { row: 31, col: 38 },
  'unit-product': { col: 31 },
  'unit-square': { what: 'what0' },
  'unit-exponent': { quantity: 'quantity0' },
  'unit-power': { unit: 'unit0' },
  'unit-plain': { name: 'name0', quantity: 'quantity1' },
  'unit-angle': { name: 'name0', quantity: 'quantity1' },
  'unit-alike': { name: 'name0', one: 'one1', other: 'other2' },
  'unit-asked': { unit: 'unit0', asked: 'asked1', is: 'is2' },
  'unit-per-second': { unit: 'unit0' },
  'unit-whole': { name: 'name0', unit: 'unit1' },
  'unit-range': { one: 'one0', other: 'other1' },
  'radians-mixed': NOTHING,
  'unit-hides-name': { name: 'name0', text: 'text1' },
  'name-without-unit': { name: 'name0', value: 'value1', unit: 'unit2', quantity: 'quantity3' },
  'cycles-for-rate': { text: 'text0' },
  'decibel-of-powers': NOTHING,
  'unknown-name': { name: 'name0', near: 'near1' },
  'names-run-together': { name: 'name0', parts: 'parts1' },
  'defined-below': { name: 'name0', line: 38 },
  'self-reference': { name: 'name0' },
  recursive: { name: 'name0' },
  'reserved-word': { name: 'name0' },
  'constant-reserved': { name: 'name0' },
  'letter-reserved': { name: 'name0', other: 'other1' },
  'function-reserved': { name: 'name0' },
  'function-needs-bracket': { name: 'name0' },
  'not-a-function': { name: 'name0' },
  'no-line-above': NOTHING,
  'no-enclosure': { known: 'known0', name: 'name1' },
  'enclosure-loading': { name: 'name0' },
  'enclosure-lost': { name: 'name0' },
  'along-outside': { points: 31 },
  'waits-for': { line: 31, name: 'name1' },
  'not-a-name': { name: 'name0' },
  'name-taken': { name: 'name0', line: 38 },
  'name-read-otherwise': { name: 'name0', line: 38 },
  'name-caught': { line: 31, name: 'name1' },
  'inside-function': { name: 'name0', inner: told('log-base') },
  'not-at-points': { kind: 'matrix' },
  'argument-count': { signature: 'signature0', given: 38 },
  'argument-kind': { signature: 'signature0', name: 'name1', needs: 'scalar', kind: 'angle' },
  'log-base': NOTHING,
  'inverse-unclear': { name: 'name0' },
  'wrong-kinds': { left: 'matrix', sign: 'sign1', right: 'angle' },
  'wrong-kind': { what: 'what0', kind: 'angle' },
  'real-needed': { operator: 'operator0' },
  'angle-with-complex': { sign: 'sign0' },
  'magnitude-real': { kind: 'matrix' },
  'angle-real': { kind: 'matrix' },
  'angle-twice': NOTHING,
  'minutes-range': NOTHING,
  'transpose-number': { sign: 'sign0' },
  'truth-needed': { kind: 'matrix' },
  'not-comparable': { left: 'matrix', right: 'angle' },
  'no-order': { sign: 'sign0' },
  domain: { name: 'name0', needs: 'needs1' },
  tolerance: NOTHING,
  'tolerance-angle': NOTHING,
  'too-large': NOTHING,
  stopped: NOTHING,
  'too-long': NOTHING,
  postponed: NOTHING,
  'no-room': { has: 31, most: 38 },
  'too-deep-calls': NOTHING,
  'brought-power': NOTHING,
  'brought-transpose': NOTHING,
  'brought-quotient': NOTHING,
  'brought-rest': NOTHING,
  'brought-percent': NOTHING,
  'brought-definition': NOTHING,
  'brought-change': NOTHING,
  'brought-equals': NOTHING,
  'brought-end': NOTHING,
  'brought-remark': NOTHING,
  'brought-range': NOTHING,
  'brought-entries': NOTHING,
  'brought-rows': NOTHING,
  'brought-list': NOTHING,
  'brought-index': NOTHING,
  'brought-bracket': { name: 'name0' },
  'brought-bracket-power': NOTHING,
  'brought-direction': NOTHING,
  'brought-parameter': NOTHING,
  'brought-word': { name: 'name0', ours: 'ours1' },
  'brought-degrees': NOTHING,
  'brought-unit': NOTHING,
  'brought-comma': NOTHING,
  'brought-pair': NOTHING,
  'brought-groups': NOTHING,
  'brought-prefix': NOTHING,
  'brought-where': { name: 'name0' },
  'brought-logic': NOTHING,
  'brought-compare': NOTHING,
  'brought-if': NOTHING,
  'brought-phasor': NOTHING,
  'brought-exponent': NOTHING,
  'brought-solve': NOTHING,
  'brought-zeros': NOTHING,
  'brought-cross': NOTHING,
  'brought-dot': NOTHING,
  'brought-unknowns': { names: 'names0' },
  'negative-power': { text: 'text0', base: 'base1' },
  'implicit-after-quotient': { text: 'text0', top: 'top1', digits: 'digits2', tail: 'tail3' },
  'quotient-imaginary': { bottom: 'bottom0' },
  'prefix-power': { base: 'base0' },
  'changes-reading': { name: 'name0', lines: 'lines1' },
  'unit-shadowed': { name: 'name0' },
  'prefix-shadowed': { name: 'name0', text: 'text1', digits: 'digits2' },
  'parallel-quotient': { text: 'text0' },
  'angle-sign': { text: 'text0' },
  'angle-plus-number': NOTHING,
  'exponent-radians': { value: 31 },
  'multiple-of-pi-in-degrees': NOTHING,
  'round-degrees-in-radians': { value: 31 },
  'degrees-twice': NOTHING,
  'degrees-of-degrees': NOTHING,
  'radians-of-radians': NOTHING,
  'equals-rounded': NOTHING,
  redefined: { name: 'name0', line: 38 },
  'infinite-result': NOTHING,
  'undefined-result': NOTHING,
}

/** What decides about a sentence, or about its correction, and is not said itself. */
const UNSAID: Partial<Record<Code, readonly string[]>> = {
  'vector-argument': ['count'],
  'no-order': ['sign'],
  'unit-missing': ['side'],
  'unit-slip': ['why'],
}

const codes = Object.keys(SAMPLES).filter((code): code is Code => code in SAMPLES)

test.each(codes)('the sentence of %s says all that it is given, and ends as one', (code) => {
  const data = SAMPLES[code]
  const text = sentence({ code, data })
  expect(text).toMatch(/^.+[.?!…]$/s)
  expect(text).not.toMatch(/undefined|null|NaN|\[object/)
  for (const [name, value] of Object.entries(data)) {
    if (UNSAID[code]?.includes(name) || typeof value === 'object') continue
    const kinds: Readonly<Record<string, string>> = { matrix: 'matrix', angle: 'angle', scalar: 'a number or an angle' }
    expect(text).toContain(kinds[value] ?? String(value))
  }
})

test('what failed inside a function is said in its own words', () => {
  const inner = told('lengths-differ', { left: 2, right: 3 })
  expect(sentence(told('inside-function', { name: 'f', inner }))).toBe(
    'In f: The vectors have 2 and 3 entries; they must have the same number.',
  )
})

test('of a spelling that was brought along it is said how it is written here', () => {
  const problem = { ...told('odd-character', { character: '%' }), brought: told('brought-rest') }
  expect(sentence(problem)).toBe('The rest of a division is written with mod between the two, as in 7 mod 3.')
})

test('a complex number where a real one is asked for is called by that', () => {
  const argument = { signature: 'floor(x)', name: 'x', needs: 'real', kind: 'number' } as const
  expect(sentence(told('argument-kind', argument))).toBe('In floor(x), x must be a real number, not a complex number.')
  expect(sentence(told('argument-kind', { ...argument, needs: 'whole' }))).toContain('not a number with a fraction')
})

test('sentences that begin with a kind begin with a capital letter', () => {
  const kinds: readonly KindWord[] = ['number', 'angle', 'vector', 'matrix', 'sweep', 'truth', 'text', 'polynomial']
  fc.assert(
    fc.property(fc.constantFrom(...kinds), fc.constantFrom(...kinds), (left, right) => {
      for (const text of [
        sentence(told('wrong-kinds', { left, sign: '+', right })),
        sentence(told('not-comparable', { left, right })),
        sentence(told('no-entries', { kind: left })),
      ])
        expect(text).toMatch(/^An? /)
    }),
  )
})

test('every kind has words of its own', () => {
  const kinds: readonly KindWord[] = [
    'number', 'angle', 'text', 'truth', 'vector', 'matrix', 'parts', 'check', 'function', 'sweep', 'polynomial',
    'algebra-matrix', 'complex number',
  ] // prettier-ignore
  expect(new Set(kinds.map(kindWords)).size).toBe(kinds.length)
  const needs: readonly Needed[] = ['angle', 'real', 'whole', 'real or angle', 'scalar', 'array', 'any', 'real sweep']
  expect(new Set(needs.map(neededWords)).size).toBe(needs.length)
})
