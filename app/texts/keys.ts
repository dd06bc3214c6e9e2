/**
 * The keys of the folio page, by what they do: the one list behind the key
 * handler, the menus, the find palette and the page of keys.
 */
export interface KeyEntry {
  readonly keys: readonly string[]
  readonly does: string
}

export type KeyGroup = 'In a line' | 'Lines' | 'The folio' | 'On the plane' | 'On a curve' | 'Strolling'

export const KEYS = {
  keep: { keys: ['Enter'], does: 'keep the line and go to the next' },
  restore: { keys: ['Esc'], does: 'leave the line as it was' },
  step: { keys: ['↑', '↓'], does: 'keep the line and go to the one above or below' },
  recall: {
    keys: ['Ctrl+↑', 'Ctrl+↓'],
    does: 'bring back earlier entries that begin like this; ↑ alone in an empty last line',
  },
  complete: { keys: ['Tab'], does: 'take the marked completion while its list is open' },
  fix: { keys: ['Alt+Enter'], does: 'apply the fix that is offered' },
  signs: { keys: ['/_', 'deg'], does: 'become ∠ and °' },
  below: { keys: ['Ctrl+Enter'], does: 'new line below' },
  above: { keys: ['Ctrl+Shift+Enter'], does: 'new line above' },
  moveUp: { keys: ['Alt+↑'], does: 'move up' },
  moveDown: { keys: ['Alt+↓'], does: 'move down' },
  duplicate: { keys: ['Alt+Shift+↓'], does: 'duplicate' },
  remove: { keys: ['Alt+Del'], does: 'delete' },
  removeEmpty: { keys: ['Backspace'], does: 'in an empty line: take it away' },
  copyLines: { keys: ['Ctrl+C'], does: 'copy the selected lines; Ctrl+V puts them in' },
  selectAll: { keys: ['Ctrl+A'], does: 'select all lines, while none is being typed' },
  select: { keys: ['Shift+↑', 'Shift+↓'], does: 'select several lines' },
  name: { keys: ['F2'], does: 'name the result, or spell its name anew everywhere' },
  note: { keys: ['F9'], does: 'turn into a note, or back into an entry' },
  grid: { keys: ['Shift+F7'], does: 'fill a vector or matrix in a grid' },
  plate: { keys: ['Alt+.'], does: 'put the value on the plate, or take it off' },
  curves: { keys: ['Alt+,'], does: 'draw a sweep, or a transfer function: magnitude in dB and angle of a complex one' },
  locus: { keys: ['Alt+-'], does: 'draw the locus of a complex sweep, or of a loop about −1' },
  vernier: { keys: ['Ctrl+F7'], does: 'take a number of the line in hand: the vernier' },
  hide: { keys: ['F4'], does: 'hide or show the result' },
  fold: { keys: ['Shift+F4'], does: 'fold or unfold' },
  undo: { keys: ['Ctrl+Z'], does: 'undo' },
  redo: { keys: ['Ctrl+Y', 'Ctrl+Shift+Z'], does: 'redo' },
  find: { keys: ['F8'], does: 'find an action, a name, a folio, a function; also ? on an empty line' },
  index: { keys: ['Shift+F8'], does: 'open or close the index' },
  runs: { keys: ['Ctrl+F8'], does: 'runs: the folio with other values, side by side' },
  working: { keys: ['Ctrl+F2'], does: 'show the working of the line, step by step' },
  journal: { keys: ['Shift+F9'], does: 'open or close the journal' },
  handbook: { keys: ['F1'], does: 'open or close the handbook' },
  exchange: { keys: ['Ctrl+F9'], does: 'files in and out, and the sheet to hand in' },
  stroll: { keys: ['Shift+F2'], does: 'stroll through the folio line by line' },
  onwards: { keys: ['Ctrl+F6'], does: 'go from the line to the plate, to the leaf beside it, and back' },
  keys: { keys: ['Shift+F1'], does: 'show the keys' },
  pan: { keys: ['arrow keys'], does: 'move the picture' },
  zoom: { keys: ['+', '−'], does: 'zoom' },
  fit: { keys: ['0'], does: 'show all values' },
  marks: { keys: ['Page Up', 'Page Down'], does: 'go through the values, once Tab has entered them' },
  moveValue: { keys: ['arrow keys'], does: 'on a value that is a literal: move it' },
  ray: { keys: ['Shift'], does: 'held while a value moves: along its ray' },
  ring: { keys: ['Alt'], does: 'held while a value moves: along its ring' },
  steps: { keys: ['Ctrl'], does: 'held while a value moves: in steps of the grid' },
  drop: { keys: ['Esc'], does: 'take a drag back' },
  cursor: { keys: ['←', '→'], does: 'move the cursor from point to point; with Shift ten at once' },
  cursorEnds: { keys: ['Home', 'End'], does: 'the first or the last point' },
  secondCursor: { keys: ['Space'], does: 'fix a cursor here and read the difference to the other' },
  readAlong: { keys: ['Enter', 'click'], does: 'read this point along in the ledger and on all plates' },
  endReading: { keys: ['Esc'], does: 'no longer read along' },
  strollOn: { keys: ['→', 'Space'], does: 'the next line' },
  strollBack: { keys: ['←'], does: 'the line before' },
  strollEnds: { keys: ['Home', 'End'], does: 'the first or the last line' },
  strollLeave: { keys: ['Esc'], does: 'end the stroll' },
} as const satisfies Readonly<Record<string, KeyEntry>>
export type KeyName = keyof typeof KEYS

export const KEY_GROUPS: readonly { readonly title: KeyGroup; readonly keys: readonly KeyName[] }[] = [
  { title: 'In a line', keys: ['keep', 'restore', 'step', 'recall', 'complete', 'fix', 'signs'] },
  {
    title: 'Lines',
    keys: [
      'below', 'above', 'select', 'selectAll', 'copyLines', 'moveUp', 'moveDown', 'duplicate', 'remove', 'removeEmpty', 'name', 'note', 'grid', 'plate', 'curves', 'locus', 'vernier', 'hide', 'fold',
    ], // prettier-ignore
  },
  {
    title: 'The folio',
    keys: [
      'undo',
      'redo',
      'find',
      'index',
      'runs',
      'working',
      'journal',
      'handbook',
      'exchange',
      'stroll',
      'onwards',
      'keys',
    ],
  },
  { title: 'On the plane', keys: ['pan', 'zoom', 'fit', 'marks', 'moveValue', 'ray', 'ring', 'steps', 'drop'] },
  { title: 'On a curve', keys: ['cursor', 'cursorEnds', 'secondCursor', 'readAlong', 'endReading'] },
  { title: 'Strolling', keys: ['strollOn', 'strollBack', 'strollEnds', 'strollLeave'] },
]

/** The key as it is shown beside an action. */
export function keyText(name: KeyName): string {
  return KEYS[name].keys[0]
}

const NAMED: Readonly<Record<string, string>> = { '↑': 'arrowup', '↓': 'arrowdown', del: 'delete', esc: 'escape' }

/** True where a key event is this key, with exactly its modifiers. */
export function isKey(event: KeyboardEvent, name: KeyName): boolean {
  return KEYS[name].keys.some((text) => {
    const parts = text.toLowerCase().split('+')
    const last = parts.pop() ?? ''
    const wanted = NAMED[last] ?? last
    return (
      event.key.toLowerCase() === wanted &&
      (event.ctrlKey || event.metaKey) === parts.includes('ctrl') &&
      event.shiftKey === parts.includes('shift') &&
      event.altKey === parts.includes('alt')
    )
  })
}
