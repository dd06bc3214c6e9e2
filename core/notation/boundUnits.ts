import { isUnitName, unitSymbol } from '../units/symbols'
import { isCustomary, prefixed, prefixOf } from '../units/unit'
import { realLiteral } from './literals'
import * as N from './nodes'
import { PREFIXES } from './words'
import { isUnknown } from '../algebra/ratio'
import { dataOf } from '../values/problemData'
import type { BindScope } from './bindScope'
import { write } from './problem'
import { childrenOf } from './references'
import type { Node, United, UnitWord } from './tree'

/** Units, once it is known which of their letters are names, too. */

/** A parameter, a counter or an unknown: what stands behind a number is then a factor, whatever units there are. */
export function isOpen(scope: BindScope, name: string): boolean {
  if (isUnitName(name)) return false
  if (scope.locals.has(name)) return true
  const value = scope.names.above(name)?.value
  return value !== undefined && value !== null && isUnknown(value, name)
}

/** Refuses what can be read in two ways; says where a unit hides a kept name. */
export function unitFits(scope: BindScope, node: United, operand: Node): void {
  const { unit } = node
  const [first, ...later] = unit.words
  if (operand.type === 'name') {
    const right = scope.slice(unit)
    const span = { from: operand.to, to: unit.from }
    scope.fail('missing-operator', span, { left: operand.name, right }, [{ label: '* multiply', replacement: '*' }])
    return
  }
  if (unit.again) {
    const text = scope.source.slice(unit.from, unit.again.to)
    const bottom = scope.slice(unit.again)
    const [top, below] = splitAtSlash(scope.slice(unit))
    const span = { from: unit.from, to: unit.again.to }
    const joined = below.startsWith('(') ? below.slice(1, -1) : below
    scope.fail('unit-brackets', span, { text }, [write(`${top}/(${joined}*${bottom})`)])
    return
  }
  const clash = later.find(({ text }) => clashes(scope, text, isCustomary(unit.unit)))
  if (clash) {
    scope.fail('unit-or-product', node, { text: scope.slice(node), name: clash.text }, bothReadings(scope, node, clash))
    return
  }
  if (first && !isUnitName(first.text) && scope.names.above(first.text) !== null) hidesName(scope, node, first)
}

/** `4.7k ohm` and `4k7 ohm` are 4.7 kΩ: the prefix of the digits is that of the unit; `null` where it cannot be. */
export function prefixGiven(operand: Node, { unit: term, from, to }: United): Node | null {
  if (operand.type !== 'literal' || operand.prefix === '' || operand.letter !== 'none') return null
  const exponent = PREFIXES.get(operand.prefix)
  const unit = exponent === undefined || prefixOf(term.unit) !== 0 ? null : prefixed(term.unit, exponent)
  if (!unit) return null
  const digits = N.literal(realLiteral(operand.digits), operand.digits, '', 'none', operand.from, operand.to)
  return N.united(digits, { ...term, unit }, from, to)
}

function clashes(scope: BindScope, name: string, customary: boolean): boolean {
  if (isUnitName(name) || !/^\p{L}/u.test(name)) return false
  return isOpen(scope, name) || (!customary && scope.names.above(name) !== null)
}

function splitAtSlash(text: string): readonly [string, string] {
  const at = text.indexOf('/')
  return at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)]
}

/** The name as a factor, and the unit with its word written out. */
function bothReadings(scope: BindScope, node: United, clash: UnitWord) {
  const text = scope.slice(node)
  const at = clash.from - node.from
  const before = text.slice(0, at).trimEnd()
  const sign = /[*·⋅×∙/]$/.exec(before)?.[0]
  const joined = sign === '/' ? '/' : '*'
  const top = sign ? before.slice(0, -1) : before
  const product = `(${top})${joined}${text.slice(at)}`
  const name = unitSymbol(clash.text)?.name ?? clash.text
  return [write(product), write(text.slice(0, at) + name + text.slice(clash.to - node.from))]
}

function hidesName(scope: BindScope, node: United, { text: name }: UnitWord): void {
  const said = scope.hints.some((hint) => dataOf(hint, 'unit-hides-name')?.name === name)
  if (said || scope.names.above(`unit ${name}`) !== null) return
  const operand = scope.slice(node.operand)
  const factor = node.unit.words.length === 1 ? [write(`${operand}*${name}`)] : []
  scope.hint('unit-hides-name', node, { name, text: scope.slice(node) }, factor)
}

/** `1/2 s`: a half of a second, or one by two seconds? Clear where the dividend has a unit of its own. */
export function divisorUnclear(scope: BindScope, dividend: Node, divisor: United): void {
  if (hasUnit(dividend)) return
  const top = scope.slice(dividend)
  const { unit } = divisor
  const [bottom, symbol] = [scope.slice(divisor.operand), scope.slice(unit)]
  const span = { from: dividend.from, to: divisor.to }
  const gap = scope.source.slice(dividend.to, divisor.from)
  scope.fail('unit-bracketing', span, { text: scope.slice(span) }, [
    write(`(${top}${gap}${bottom}) ${symbol}`),
    write(`${top}${gap}(${bottom} ${symbol})`),
  ])
}

function hasUnit(node: Node): boolean {
  return node.type === 'united' || childrenOf(node).some(hasUnit)
}

/** `2 m^n`: only whole powers belong to a unit. */
export function powerUnclear(scope: BindScope, base: United, exponent: Node): void {
  const span = { from: base.from, to: exponent.to }
  const [number, symbol, power] = [scope.slice(base.operand), scope.slice(base.unit), scope.slice(exponent)]
  scope.fail('unit-bracketing', span, { text: scope.slice(span) }, [
    write(`(${number} ${symbol})^${power}`),
    write(`${number}*(1 ${symbol})^${power}`),
  ])
}
