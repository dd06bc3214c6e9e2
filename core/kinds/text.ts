import { escapeText } from '../notation/latex'
import { text as textOf } from '../values/make'
import type { TextValue } from '../values/types'
import { csvText, PLAIN } from './kind'
import type { KindOf } from './kind'

const quoted = ({ text: inner }: TextValue): string => `"${inner}"`

/** Texts. */
export const text: KindOf<TextValue> = {
  ...PLAIN,
  words: 'a text',
  text: (value) => value.text,
  readout: (value) => ({ shape: 'words', text: value.text }),
  fields: (value) => ({ kind: 'text', value: value.text }),
  copies: {
    shown: quoted,
    full: quoted,
    polar: () => null,
    latex: (value) => `\\text{${escapeText(value.text)}}`,
    csv: (value, to) => to.record(value, false),
    record: (value) => csvText(value.text),
  },
  equals: (a, b) => (b.kind === 'text' ? a.text === b.text : null),
  ordered: true,
  order: (a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0),
  identical: (a, b) => a.text === b.text,
  entries: {
    range: 'entry-range',
    sides: (value) => [[...value.text].length, null],
    take(value, { at }) {
      const letters = [...value.text]
      return textOf(at.flatMap((k) => letters[k] ?? []).join(''))
    },
  },
}
