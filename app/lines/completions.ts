import type { Completion } from '@codemirror/autocomplete'
import { FUNCTIONS } from '#core/functions/registry'
import { readoutText } from '#core/format/readout'
import { signature } from '#core/signatures/definition'
import type { LineView } from '#core/views/lineView'

const functions: readonly Completion[] = FUNCTIONS.map((f) => ({
  label: f.name,
  detail: f.infix ? signature(f) : signature(f).slice(f.name.length),
  info: f.summary,
  apply: (view, _completion, from, to) => {
    if (f.infix)
      return view.dispatch({ changes: { from, to, insert: f.name }, selection: { anchor: from + f.name.length } })
    const bracket = view.state.sliceDoc(to, to + 1) === '(' ? '' : '()'
    view.dispatch({
      changes: { from, to, insert: `${f.name}${bracket}` },
      selection: { anchor: from + f.name.length + 1 },
    })
  },
}))

/** Words that begin a line of equations. */
const WORDS: readonly Completion[] = [
  { label: 'sought', detail: ' I1, I2', info: 'Opens a group of equations for these names.' },
  { label: 'determine', detail: '', info: 'Solves the equations since sought.' },
]

/** Kept names above the line with their values, then the functions with their signatures. */
export function completionsAbove(views: readonly LineView[]): readonly Completion[] {
  const names = new Map<string, Completion>()
  for (const view of views.flatMap((line) => [line, ...line.answers])) {
    // Names that are sought, or algebra, have no value yet.
    for (const name of view.declares) names.set(name, { label: name, detail: view.kind === 'sought' ? 'is sought' : 'is an unknown', boost: 10 }) // prettier-ignore
    if (view.name === null || view.problem) continue
    const { readout } = view
    const detail = readout.shape === 'none' ? 'function' : readoutText(readout)
    names.set(view.name, { label: view.name, detail: `= ${detail}`, boost: 10 })
    if (view.kind !== 'parts') continue
    // The parts of a result by their names: lamp.f, lamp.Z.
    for (const part of detail.split(' '))
      names.set(`${view.name}${part}`, { label: `${view.name}${part}`, detail: `a part of ${view.name}`, boost: 5 })
  }
  return [...names.values(), ...functions, ...WORDS]
}
