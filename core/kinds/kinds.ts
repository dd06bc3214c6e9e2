import type { Conventions } from '../format/conventions'
import type { Readout } from '../format/readout'
import type { Data } from '../measured/data'
import type { Complex } from '../numbers/complex'
import type { SweepData } from '../scene/curve'
import type { Drawn } from '../scene/drawn'
import type { Role } from '../scene/scene'
import type { Kind, NumberValue, Value } from '../values/types'
import { algebraMatrix } from './algebraMatrix'
import { angle } from './angle'
import { check } from './check'
import { delayed } from './delayed'
import { functionKind } from './function'
import type { CopyForm, Exactness, Fields, KindOf, Writing } from './kind'
import { matrix } from './matrix'
import { number } from './number'
import { parts } from './parts'
import { polynomial } from './polynomial'
import { quantityKind, quantityRows, withoutPrefixes } from './quantity'
import { sweep, sweepRows } from './sweep'
import type { SweepRows } from './sweep'
import { text } from './text'
import { timeFunction } from './timeFunction'
import { truth } from './truth'
import { vector } from './vector'

/** The kinds of values, each by the module that declares it. */
const KINDS: { readonly [K in Kind]: KindOf<Extract<Value, { kind: K }>> } = {
  number,
  angle,
  text,
  truth,
  vector,
  matrix,
  sweep,
  polynomial,
  delayed,
  'time-function': timeFunction,
  'algebra-matrix': algebraMatrix,
  parts,
  check,
  function: functionKind,
  quantity: quantityKind(
    (value) => kindOf(value),
    (to) => (to.conventions.style === 'prefix' ? new Writer(withoutPrefixes(to.conventions)) : to),
  ),
}

export function kindOf(value: Value): KindOf<Value> {
  return KINDS[value.kind]
}

export function isKind(word: string): word is Kind {
  return word in KINDS
}

/** What a sentence calls a kind. */
export function kindWords(kind: Kind): string {
  return KINDS[kind].words
}

class Writer implements Writing {
  constructor(readonly conventions: Conventions) {}

  text(value: Value): string {
    return kindOf(value).text(value, this)
  }

  latex(value: Value): string {
    return kindOf(value).copies?.latex(value, this) ?? ''
  }

  full(value: Value): string {
    return kindOf(value).copies?.full(value, this) ?? this.text(value)
  }

  polar(value: Value): string | null {
    return kindOf(value).copies?.polar(value, this) ?? null
  }

  record(value: Value, complex: boolean): string {
    return kindOf(value).copies?.record(value, this, complex) ?? ''
  }

  fields(value: Value): Fields {
    return kindOf(value).fields(value, this)
  }
}

/** A value as one text. */
export function valueText(value: Value, conventions: Conventions): string {
  return new Writer(conventions).text(value)
}

/** What a line shows of its value. */
export function readout(value: Value, conventions: Conventions, name: string | null = null): Readout {
  return kindOf(value).readout(value, new Writer(conventions), name)
}

/** The fields that a value adds to a line of the headless contract. */
export function valueFields(value: Value, conventions: Conventions): Fields {
  return new Writer(conventions).fields(value)
}

/** The text of a value in a form; `null` where it has no such form. */
export function copyText(value: Value, form: CopyForm, conventions: Conventions): string | null {
  return kindOf(value).copies?.[form](value, new Writer(conventions)) ?? null
}

export function exactness(value: Value, conventions: Conventions): Exactness | null {
  return kindOf(value).exactness(value, conventions)
}

/** Rows of the table of a sweep, from one on; `null` of other values. */
export function tableRows(value: Value, from: number, wanted: number, conventions: Conventions): SweepRows | null {
  if (value.kind === 'quantity') return quantityRows(value, from, wanted, new Writer(conventions))
  return value.kind === 'sweep' ? sweepRows(value, from, wanted, new Writer(conventions)) : null
}

/** What `==` says of two values; `null` where they cannot be compared. */
export function equalValues(a: Value, b: Value): boolean | null {
  return kindOf(a).equals(a, b, equalValues)
}

/** True where no line below could tell two values apart. */
export function identical(a: Value, b: Value): boolean {
  return a.kind === b.kind && kindOf(a).identical(a, b, identical)
}

/** The real number that a value is; `null` of what is none. */
export function realNumber(value: Value): NumberValue | null {
  return kindOf(value).real(value)
}

/** How many doubles a value holds in memory. */
export function doublesOf(value: Value): number {
  return kindOf(value).doubles(value, doublesOf)
}

/** What a value is on a plane, in the role that its line gives it; `null` where it is nothing there. */
export function drawnOf(value: Value, role: Role, conventions: Conventions, shown: Readout): Drawn | null {
  return kindOf(value).drawn(value, role, new Writer(conventions), shown)
}

/** Where a value stands on the plane as a term of a sum. */
export function pointOf(value: Value): Complex | null {
  return kindOf(value).point(value)
}

/** The points that curves and loci are drawn of; `null` where there are none. */
export function curveOf(value: Value | null): SweepData | null {
  return value && kindOf(value).curve(value)
}

/** What a file of numbers holds of a value; `null` where none can. */
export function valueData(value: Value, name: string): Data | null {
  return kindOf(value).data(value, name)
}
