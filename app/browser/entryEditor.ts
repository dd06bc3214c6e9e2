import {
  autocompletion,
  closeBrackets,
  closeBracketsKeymap,
  completionStatus,
  acceptCompletion,
} from '@codemirror/autocomplete'
import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap, undoDepth, redoDepth } from '@codemirror/commands'
import { Compartment, EditorSelection, EditorState, Prec, StateEffect, StateField } from '@codemirror/state'
import type { Extension, Transaction } from '@codemirror/state'
import { Decoration, drawSelection, EditorView, keymap, placeholder, WidgetType } from '@codemirror/view'
import type { DecorationSet, KeyBinding } from '@codemirror/view'
import { pageNonce } from './nonce'
import { isUnitPlace, unitCompletions } from '~/lines/unitChoices'

/** The editor of a line: one line of text, our keys, the signs of the notation as they are typed. */

export interface EntryActions {
  readonly change: (text: string) => void
  readonly keepAndGoOn: () => void
  readonly restore: () => void
  readonly step: (by: 1 | -1) => boolean
  readonly insertBelow: () => void
  readonly insertAbove: () => void
  readonly move: (by: 1 | -1) => void
  readonly duplicate: () => void
  /** An earlier (−1) or later entry in place of this one; false where there is none. */
  readonly recall: (by: 1 | -1) => boolean
  readonly recalling: () => boolean
  readonly lastAndEmpty: () => boolean
  readonly find: () => void
  readonly remove: () => void
  readonly removeEmpty: () => void
  readonly undo: () => void
  readonly redo: () => void
  readonly paste: (first: string, rest: readonly string[]) => void
  /** True where what is pasted is a table: it is shown before it is taken in. */
  readonly pasteTable: (text: string) => boolean
  /** True where a text is too long for an entry; it has been said then, and the entry stays as it is. */
  readonly refuses: (text: string) => boolean
  readonly applyFix: () => boolean
  readonly complete: () => readonly Completion[]
}

/** Marks the place a problem is about. */
export const markProblem = StateEffect.define<{ readonly from: number; readonly to: number } | null>()

class MissingMark extends WidgetType {
  override eq(): boolean {
    return true
  }
  toDOM(): HTMLElement {
    const mark = document.createElement('span')
    mark.className = 'missing-mark'
    mark.setAttribute('aria-hidden', 'true')
    return mark
  }
}

const problemField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = transaction.docChanged ? Decoration.none : marks
    for (const effect of transaction.effects) {
      if (!effect.is(markProblem)) continue
      next = effect.value === null ? Decoration.none : decorate(effect.value, transaction.state.doc.length)
    }
    return next
  },
  provide: (field) => EditorView.decorations.from(field),
})

function decorate({ from, to }: { from: number; to: number }, length: number): DecorationSet {
  const [start, end] = [Math.min(from, length), Math.min(to, length)]
  if (start === end) return Decoration.set([Decoration.widget({ widget: new MissingMark(), side: 1 }).range(start)])
  return Decoration.set([Decoration.mark({ class: 'problem-mark' }).range(start, end)])
}

/** `/_` and `30deg` turn into ∠ and ° while they are typed; one undo brings the typed form back. */
function writtenSigns(view: EditorView, from: number, to: number, text: string): boolean {
  if (from !== to) return false
  const before = view.state.sliceDoc(Math.max(0, from - 5), from)
  const found =
    text === '_' && before.endsWith('/') ? { length: 1, sign: '∠' } : text === 'g' ? degreeWord(before) : null
  if (!found) return false
  // First what was typed, as a change of its own, so that undo can stop there.
  view.dispatch({ changes: { from, insert: text }, selection: { anchor: from + 1 }, userEvent: 'input.type' })
  const start = from - found.length
  view.dispatch({
    changes: { from: start, to: from + 1, insert: found.sign },
    selection: { anchor: start + 1 },
    userEvent: 'input.complete',
  })
  return true
}

function degreeWord(before: string): { length: number; sign: string } | null {
  const word = /[\d)](\s?de)$/.exec(before)
  return word ? { length: word[1]?.length ?? 2, sign: '°' } : null
}

/** A line has no line breaks: several pasted lines become several lines of the ledger. */
function pasteLines(actions: EntryActions): Extension {
  return EditorView.domEventHandlers({
    paste(event, view) {
      const text = event.clipboardData?.getData('text/plain') ?? ''
      const pasted = text.replace(/\r\n?/g, '\n').replace(/\n$/, '')
      if (!pasted.includes('\n')) return false
      event.preventDefault()
      if (actions.pasteTable(text)) return true
      const { from, to } = view.state.selection.main
      const [first = '', ...rest] = pasted.split('\n')
      const doc = view.state.doc.toString()
      actions.paste(doc.slice(0, from) + first + doc.slice(to), rest)
      return true
    },
  })
}

/** A list that is still being looked up (`pending`) takes no keys. */
function listOpen(view: EditorView): boolean {
  return completionStatus(view.state) === 'active'
}

function keys(actions: EntryActions): Extension {
  const own: KeyBinding[] = [
    {
      key: 'Enter',
      run: (view) => (listOpen(view) && acceptCompletion(view)) || done(actions.keepAndGoOn),
    },
    { key: 'Mod-Enter', run: () => done(actions.insertBelow) },
    { key: 'Shift-Mod-Enter', run: () => done(actions.insertAbove) },
    { key: 'Escape', run: (view) => !listOpen(view) && done(actions.restore) },
    { key: 'ArrowUp', run: (view) => !listOpen(view) && done(() => up(actions)) },
    { key: 'ArrowDown', run: (view) => !listOpen(view) && done(() => down(actions)) },
    { key: 'Mod-ArrowUp', run: () => done(() => actions.recall(-1)) },
    { key: 'Mod-ArrowDown', run: () => done(() => actions.recall(1)) },
    { key: 'Shift-Alt-ArrowDown', run: () => done(actions.duplicate) },
    { key: '?', run: (view) => view.state.doc.length === 0 && done(actions.find) },
    { key: 'Alt-ArrowUp', run: () => done(() => actions.move(-1)) },
    { key: 'Alt-ArrowDown', run: () => done(() => actions.move(1)) },
    { key: 'Alt-Delete', run: () => done(actions.remove) },
    { key: 'Alt-Enter', run: () => actions.applyFix() },
    { key: 'Tab', run: (view) => listOpen(view) && acceptCompletion(view) },
    { key: 'Backspace', run: (view) => view.state.doc.length === 0 && done(actions.removeEmpty) },
    // Within the entry undo goes back through the typing; past its start, through the folio.
    { key: 'Mod-z', run: (view) => undoDepth(view.state) === 0 && done(actions.undo) },
    { key: 'Mod-y', run: (view) => redoDepth(view.state) === 0 && done(actions.redo) },
    { key: 'Shift-Mod-z', run: (view) => redoDepth(view.state) === 0 && done(actions.redo) },
  ]
  return Prec.highest(keymap.of(own))
}

/** In an empty last line there is nothing to keep: ↑ brings earlier entries back. */
function up(actions: EntryActions): void {
  if ((actions.recalling() || actions.lastAndEmpty()) && actions.recall(-1)) return
  actions.step(-1)
}

function down(actions: EntryActions): void {
  if (!actions.recalling() || !actions.recall(1)) actions.step(1)
}

function done(action: () => unknown): true {
  action()
  return true
}

function completions(actions: EntryActions): Extension {
  const source = (context: CompletionContext): CompletionResult | null => {
    const word = context.matchBefore(/[\p{L}_][\p{L}\p{Nd}_]*(?:\.[\p{L}\p{Nd}_]*)?/u)
    if (!word) return null
    const ahead = context.state.sliceDoc(0, word.from)
    // Behind a number and a blank a unit is likely: one letter is enough to offer some.
    const unit = isUnitPlace(ahead) && !ahead.includes('#')
    if (word.text.length < 2 && !context.explicit && !unit) return null
    const before = context.state.sliceDoc(Math.max(0, word.from - 1), word.from)
    if (/\d/.test(before) || ahead.includes('#')) return null
    const all = unit
      ? [...unitCompletions.filter((o) => o.label.startsWith(word.text)), ...actions.complete()]
      : actions.complete()
    const options = all.filter((o) => o.label !== word.text)
    if (unit && word.text.length < 2 && options.every((o) => !o.label.startsWith(word.text))) return null
    return { from: word.from, options, validFor: /^[\p{L}\p{Nd}_.]*$/u }
  }
  return autocompletion({
    override: [source],
    icons: false,
    defaultKeymap: true,
    selectOnOpen: false,
    interactionDelay: 0,
    maxRenderedOptions: 12,
  })
}

/** An entry that is too long already may become shorter. */
function grewTooLong(tr: Transaction, actions: EntryActions): boolean {
  return tr.docChanged && tr.newDoc.length > tr.startState.doc.length && actions.refuses(tr.newDoc.toString())
}

export interface Entry {
  readonly view: EditorView
  readonly setLabel: (label: string) => void
}

export function createEntry(
  parent: HTMLElement,
  text: string,
  caret: number | 'end' | { readonly from: number; readonly to: number },
  label: string,
  actions: EntryActions,
): Entry {
  const labelled = new Compartment()
  const named = (name: string): Extension =>
    EditorView.contentAttributes.of({
      'aria-label': name,
      'aria-multiline': 'false',
      autocapitalize: 'off',
      spellcheck: 'false',
    })
  const range = typeof caret === 'object' ? caret : { from: caret, to: caret }
  const place = (at: number | 'end'): number => (at === 'end' ? text.length : Math.min(at, text.length))
  const state = EditorState.create({
    doc: text,
    selection: EditorSelection.single(place(range.from), place(range.to)),
    extensions: [
      EditorView.cspNonce.of(pageNonce()),
      keys(actions),
      EditorState.transactionFilter.of((tr) => (tr.newDoc.lines > 1 || grewTooLong(tr, actions) ? [] : tr)),
      EditorView.inputHandler.of(writtenSigns),
      pasteLines(actions),
      completions(actions),
      closeBrackets(),
      history({ newGroupDelay: 0, joinToEvent: (tr) => !tr.isUserEvent('input.complete') }),
      drawSelection(),
      EditorView.lineWrapping,
      placeholder('230/_0'),
      problemField,
      keymap.of([...closeBracketsKeymap, ...historyKeymap, ...defaultKeymap]),
      EditorState.languageData.of(() => [{ closeBrackets: { brackets: ['(', '[', '"'] } }]),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) actions.change(update.state.doc.toString())
      }),
      labelled.of(named(label)),
    ],
  })
  const view = new EditorView({ state, parent })
  return { view, setLabel: (name) => view.dispatch({ effects: labelled.reconfigure(named(name)) }) }
}
