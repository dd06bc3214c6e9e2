import { decimal } from '../format/full'
import { numeral } from '../format/json'
import { readoutToLatex } from '../format/latex'
import { formatAngle } from '../format/parts'
import * as Q from '../numbers/rational'
import { asDegrees } from '../values/convert'
import type { AngleValue } from '../values/types'
import { angleHead, csvNumber, PLAIN } from './kind'
import type { KindOf } from './kind'

/** Angles, shown in the unit of the conventions. */
export const angle: KindOf<AngleValue> = {
  ...PLAIN,
  words: 'an angle',
  text: (value, { conventions }) => formatAngle(value, conventions),
  readout: (value, to) => ({ shape: 'single', text: to.text(value) }),
  fields: (value, to) => ({ kind: 'angle', radians: numeral(value.radians), text: to.text(value) }),
  copies: {
    shown: (value, to) => to.text(value),
    full: (value, { conventions }) =>
      conventions.angle === 'deg' ? `${decimal(asDegrees(value))}°` : `${decimal(value.radians)} rad`,
    polar: () => null,
    latex: (value, to) => readoutToLatex(to.text(value), to.conventions.letter),
    csv: (value, to) => [angleHead(to.conventions), to.record(value, false)].join('\r\n'),
    record: (value, { conventions }) => csvNumber(conventions.angle === 'deg' ? asDegrees(value) : value.radians),
  },
  equals(a, b) {
    if (b.kind !== 'angle') return null
    return a.turns && b.turns ? Q.equals(a.turns, b.turns) : a.radians === b.radians
  },
  ordered: true,
  order(a, b) {
    if (a.turns && b.turns) return Q.compare(a.turns, b.turns)
    return a.radians < b.radians ? -1 : a.radians > b.radians ? 1 : 0
  },
  identical: (a, b) => a.radians === b.radians && a.turns?.n === b.turns?.n && a.turns?.d === b.turns?.d,
}
