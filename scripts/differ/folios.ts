import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import { FUNCTIONS } from '#core/functions/registry'
import { DEMO_FOLIOS } from '../../server/db/demo'
import { Chance } from '../../e2e/endure/chance'

/**
 * The folios that two commits are asked for: every example of the handbook and every demo folio in both units and all
 * conventions, then as many random ones as are wanted: terms of every kind over names of every kind, and
 * lines that are known with something else in a place.
 */
export interface AskedFolio {
  readonly lines: readonly string[]
  readonly conventions: Conventions
  readonly steps: boolean
}

const GIVEN = [
  'a = 2', 'k = 1/3', 'z = 3 + 4j', 'w = 5∠30°', 'th = 40°', 'V = 230/_0 V', 'I = 3/_-20 A', 'L = 50 mH', 'R = 2.2 kohm',
  'v = [1, 2, 3]', 'u = [1j, 0.5, -2]', 'M = [[1, 2], [3, 4j]]', 'N = [[2, 1/2], [1, 3]]', 'f = 1 to 4', 'fs = 10 Hz to 1 kHz per decade 2',
  'unknown s', 'H = 1/(s^2 + 2s + 5)', 'g(x) = x^2 + 1', 't = 0 s to 1 s step 0.25 s', 'Zs = [3 ohm, 4j ohm]', 'big = 10^30', 'tiny = 1e-12', 'name = 0.1 + 0.2',
] // prettier-ignore
const NAMES = GIVEN.map((line) => /^(?:unknown )?(\w+)/.exec(line)?.[1] ?? 'a').filter((name) => name !== 'g')
const NUMBERS = ['0', '1', '-1', '2', '7', '10', '0.5', '2.50', '1/3', '1e6', '1e-9', '4.7k', '100n', '30', '90', '1j', '2j', '3-4j', '5/_30', '2∠-45°', '30°', '0.5 rad', 'pi', 'e', 'i', '12 V', '3 mA', '50 Hz', '4 ohm', '20 dB', '1 h', '15 %', '10^20'] // prettier-ignore
const OPERATORS = ['+', '-', '*', '/', ' ', '^', '||', '·', ' + ', ' - ', '*', '/'] // prettier-ignore
const RELATIONS = [' == ', ' ~~ ', ' < ', ' >= ', ' ~~ '] // prettier-ignore
const UNITS = ['kW', 'V', 'mA', 'ohm', 'Hz', 'rad/s', 'deg', 'rad', 's', '%']
const SIGNS = [...'()[]{},;=+-*/^_∠°|.:\'"0123456789jeixsV~<> ']

type Pick = <T>(list: readonly T[]) => T

class Terms {
  private readonly pick: Pick = (list) => {
    const found = list[this.chance.below(list.length)]
    if (found === undefined) throw new Error('nothing to choose from')
    return found
  }
  private readonly functions = FUNCTIONS.filter(({ examples }) => examples.length > 0)

  constructor(private readonly chance: Chance) {}

  term(depth: number): string {
    const dice = this.chance.next()
    if (depth <= 0 || dice < 0.22) return this.chance.next() < 0.5 ? this.pick(NAMES) : this.pick(NUMBERS)
    if (dice < 0.52) return `${this.term(depth - 1)}${this.pick(OPERATORS)}${this.term(depth - 1)}`
    if (dice < 0.62) return `(${this.term(depth - 1)})`
    if (dice < 0.66) return `-${this.term(depth - 1)}`
    if (dice < 0.69) return `|${this.term(depth - 1)}|`
    if (dice < 0.73) return `[${this.list(depth)}]`
    if (dice < 0.75) return `[[${this.list(depth)}], [${this.list(depth)}]]`
    if (dice < 0.77) return `${this.pick(['v', 'M', 'f', 'u', 'Zs'])}[${this.pick(['1', '2', '1, 2', '4', 'end', '1 to 2'])}]`
    if (dice < 0.79) return `g(${this.term(depth - 1)})`
    return this.call(depth)
  } // prettier-ignore

  private list(depth: number): string {
    return Array.from({ length: 1 + this.chance.below(3) }, () => this.term(depth - 2)).join(', ')
  }

  private call(depth: number): string {
    const { name, parameters } = this.pick(this.functions)
    const count = Math.max(1, parameters.length - this.chance.below(2))
    return `${name}(${Array.from({ length: count }, () => this.term(depth - 2)).join(', ')})`
  }

  line(): string {
    const dice = this.chance.next()
    const depth = 1 + this.chance.below(4)
    if (dice < 0.08) return `${this.term(depth)}${this.pick(RELATIONS)}${this.term(depth - 1)}`
    if (dice < 0.16) return `${this.term(depth)} in ${this.pick(UNITS)}`
    if (dice < 0.2) return `q(x) = ${this.term(depth)}`
    if (dice < 0.24) return `${this.term(depth)} where a = ${this.term(1)}`
    return dice < 0.4 ? `q = ${this.term(depth)}` : this.term(depth)
  }

  /** A line with a sign too many, too few, or another one. */
  slipped(line: string): string {
    const at = this.chance.below(line.length + 1)
    const dice = this.chance.next()
    const sign = dice < 0.66 ? this.pick(SIGNS) : ''
    return line.slice(0, at) + sign + line.slice(dice < 0.33 ? at : at + 1)
  }

  /** One number or name of a line is another. */
  replaced(line: string): string {
    const places = [...line.matchAll(/[A-Za-z_]\w*|\d+(?:\.\d+)?/g)]
    if (places.length === 0) return line
    const place = this.pick(places)
    return line.slice(0, place.index) + this.term(1) + line.slice(place.index + place[0].length)
  }

  conventions(): Conventions {
    return {
      ...DEFAULT_CONVENTIONS,
      angle: this.pick(['deg', 'rad'] as const),
      letter: this.pick(['i', 'j', 'j'] as const),
      place: this.pick(['before', 'after', 'after'] as const),
      exact: this.pick(['decimal', 'fraction', 'mixed'] as const),
      degrees: this.pick(['decimal', 'decimal', 'minutes'] as const),
      digits: this.pick([3, 5, 5, 9, 16]),
      style: this.pick(['plain', 'plain', 'scientific', 'engineering', 'prefix'] as const),
      spaced: this.pick(['unit', 'unit', 'unit', 'product'] as const),
    }
  }
}

/** Every so many random folios have the steps of their last line compared. */
const STEPS_EVERY = 4

/** Folios of about so many lines, always the same ones under one seed. */
export function* folios(lines: number, seed: number): Generator<AskedFolio> {
  const terms = new Terms(new Chance(seed))
  const chance = new Chance(seed + 1)
  const known: (readonly string[])[] = [
    ...FUNCTIONS.flatMap(({ examples }) => examples.filter((e) => !e.enclosed).map((e) => [...(e.before ?? []), e.entry])),
    ...DEMO_FOLIOS.map(({ lines: all }) => all.filter((line) => !line.note).map((line) => line.source)),
  ]
  let told = 0
  for (const folio of known)
    for (const angle of ['deg', 'rad'] as const)
      for (const change of [{}, { letter: 'i' }, { place: 'before' }, { exact: 'fraction' }, { exact: 'mixed' }, { degrees: 'minutes' }, { style: 'engineering' }, { spaced: 'product' }] as const) {
        if (told >= lines) return
        told += folio.length
        yield { lines: folio, conventions: { ...DEFAULT_CONVENTIONS, angle, ...change }, steps: Object.keys(change).length === 0 }
      }
  const before = GIVEN.filter((line) => !line.includes('q'))
  for (let count = 0; told < lines; count += 1) {
    // Lines of one folio are read with all that stands before: a few of them at once spare the given ones.
    const asked = Array.from({ length: 6 }, (_, k) => {
      const dice = chance.next()
      if (dice < 0.55) return terms.line().replace(/^q/, `q${k}`)
      if (dice < 0.7) return terms.slipped(terms.line())
      const folio = known[chance.below(known.length)] ?? []
      const line = folio[chance.below(folio.length)] ?? ''
      return dice < 0.9 ? terms.replaced(line) : terms.slipped(line)
    })
    told += asked.length
    yield { lines: [...before, ...asked], conventions: terms.conventions(), steps: count % STEPS_EVERY === 0 }
  }
} // prettier-ignore
