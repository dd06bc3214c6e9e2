import type { CheckValue } from '../values/types'
import { PLAIN, plainCopies } from './kind'
import type { KindOf } from './kind'

/** What a check line says. */
export const check: KindOf<CheckValue> = {
  ...PLAIN,
  words: 'a check',
  text: ({ pass, figures, point }) =>
    `${outcome(pass, figures)}${point === undefined ? '' : `, worst at point ${point}`}`,
  readout: (value, to) => ({ shape: 'words', text: to.text(value) }),
  fields: ({ pass, figures, left, right }, to) => ({
    kind: 'check',
    pass,
    figures,
    left: to.fields(left),
    right: to.fields(right),
  }),
  copies: plainCopies((text) => `\\text{${text}}`),
  equals: () => null,
  identical: (a, b, same) =>
    a.pass === b.pass && a.figures === b.figures && same(a.left, b.left) && same(a.right, b.right),
  atPoints: false,
  doubles: ({ left, right }, of) => of(left) + of(right),
}

function outcome(pass: boolean, figures: number): string {
  const agreed =
    figures === 0 ? 'no figure agrees' : `agrees to ${figures} significant ${figures === 1 ? 'figure' : 'figures'}`
  if (pass) return figures === 0 ? 'agrees within what is asked' : agreed
  return `does not agree: ${figures === 0 ? 'not even the first figure' : `only ${agreed.replace('agrees to ', '')}`}`
}
